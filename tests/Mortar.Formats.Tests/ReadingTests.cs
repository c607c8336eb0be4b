using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

public class ReadingTests
{
    private static readonly IReadOnlyDictionary<string, FileEvent> Studio = Samples
        .Read(Samples.Bytes("studio.ics"))
        .Events.ToDictionary(one => one.Uid.Split('@')[0]);

    [Fact]
    public void Texts_are_unescaped_and_unfolded()
    {
        Assert.Equal("Celadon, three ways; short and long", Studio["celadon"].Content.Title);
        Assert.Equal("Bring last month's tiles.\nCone 6, oxidation.\nPath: C:\\tests", Studio["celadon"].Content.Notes);
        Assert.EndsWith(
            "over several lines, as programs do – and cut in the middle of a word",
            Studio["shop"].Content.Title,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_last_day_of_whole_days_is_the_one_before_their_end()
    {
        Assert.Equal(EventTime.Days(new LocalDate(2026, 3, 16), new LocalDate(2026, 3, 18)), Studio["drying"].Time);
        Assert.Equal(EventTime.Days(new LocalDate(2026, 3, 20), new LocalDate(2026, 3, 20)), Studio["oneday"].Time);
    }

    [Fact]
    public void Times_are_in_their_zone_floating_or_a_moment()
    {
        var noon = new LocalDateTime(2026, 3, 21, 12, 0);
        var eight = new LocalDateTime(2026, 3, 18, 8, 0);

        Assert.Equal(EventTime.InZone(noon, noon, "Europe/London"), Studio["moment"].Time);
        Assert.Equal(EventTime.OnEveryClock(eight, eight.PlusMinutes(15)), Studio["eight"].Time);
        Assert.Equal(
            EventTime.InZone(new LocalDateTime(2026, 3, 17, 15, 0), new LocalDateTime(2026, 3, 17, 17, 0), "UTC"),
            Studio["shop"].Time
        );
    }

    [Fact]
    public void A_zone_is_known_by_its_definition_or_by_its_windows_name()
    {
        Assert.Equal("Europe/London", ((EventTime.Timed)Studio["thursdays"].Time).Zone);
        Assert.Equal("America/Halifax", ((EventTime.Timed)Studio["halifax"].Time).Zone);
    }

    [Fact]
    public void A_zone_is_known_by_the_end_of_its_path()
    {
        var file = Samples.Read(
            Samples.Event_("DTSTART;TZID=/vendor.example/20260101_1/America/Argentina/Ushuaia:20260312T090000")
        );

        Assert.Equal("America/Argentina/Ushuaia", ((EventTime.Timed)file.Events[0].Time).Zone);
        Assert.Empty(file.Findings);
    }

    [Fact]
    public void States_become_what_they_mean_for_people()
    {
        Assert.Equal(ShowAs.Free, Studio["drying"].Content.ShowAs);
        Assert.Equal(ShowAs.Tentative, Studio["inspection"].Content.ShowAs);
        Assert.True(Studio["shop"].Content.Cancelled);
    }

    [Fact]
    public void A_file_says_its_name_how_much_is_in_it_and_from_when_to_when()
    {
        var file = Samples.Read(Samples.Bytes("studio.ics"));

        Assert.Equal("Glaze tests, spring", file.Name);
        Assert.Equal(new FileSummary(10, 3, new LocalDate(2024, 2, 29), null), FileSummary.Of(file, Samples.Clock));
    }

    [Fact]
    public void A_file_without_endless_series_says_its_last_day()
    {
        var file = Samples.Read(Samples.Event_("DTSTART;VALUE=DATE:20260312", "DTEND;VALUE=DATE:20260315"));

        Assert.Equal(
            new FileSummary(1, 0, new LocalDate(2026, 3, 12), new LocalDate(2026, 3, 14)),
            FileSummary.Of(file, Samples.Clock)
        );
    }

    /// <summary>By hand: Wednesdays from 11 March; the last of seven is 22 April, and the week before it where that one is taken out.</summary>
    [Theory]
    [InlineData("RRULE:FREQ=WEEKLY;COUNT=7", null, 22)]
    [InlineData("RRULE:FREQ=WEEKLY;UNTIL=20260425T235959Z", null, 22)]
    [InlineData("RRULE:FREQ=WEEKLY;COUNT=7", "EXDATE:20260422T180000Z", 15)]
    public void A_series_says_its_last_date_and_not_how_far_it_could_go(string rule, string? without, int day)
    {
        string?[] lines = ["DTSTART:20260311T180000Z", "DTEND:20260311T200000Z", rule, without];

        var file = Samples.Read(Samples.Event_([.. lines.OfType<string>()]));

        Assert.Equal(new LocalDate(2026, 4, day), FileSummary.Of(file, Samples.Clock).Last);
    }

    [Theory]
    [InlineData("DTSTART:20260312T090000Z", "DURATION:PT1H30M", 90)]
    [InlineData("DTSTART:20260312T090000Z", "DURATION:P1D", 1440)]
    [InlineData("DTSTART:20260312T090000Z", "DURATION:+P1W", 10080)]
    [InlineData("DTSTART:20260312T090000Z", "DTEND;TZID=America/Halifax:20260312T070000", 60)] // ends on another clock
    public void A_length_is_read_in_all_its_forms(string start, string end, int minutes)
    {
        var time = Samples.Read(Samples.Event_(start, end)).Events[0].Time;

        Assert.Equal(Duration.FromMinutes(minutes), Samples.Clock.Span(time, DateTimeZone.Utc).Duration);
    }

    [Theory]
    [InlineData("", "The file is empty.")]
    [InlineData(" \r\n\r\n", "The file is empty.")]
    [InlineData("name,start\nFiring,2026", "This is not a calendar file: it begins with “name,start Firing,2026”")]
    [InlineData("\u0089PNG\r\n\u001a", "This is not a calendar file: it begins with “PNG”")]
    public void What_is_no_calendar_is_named_with_the_way_out(string text, string sentence)
    {
        var reading = CalendarFile.Read(Encoding.UTF8.GetBytes(text), "Europe/London", Samples.Clock);

        Assert.StartsWith(
            sentence,
            Assert.IsType<CalendarFileReading.NotACalendar>(reading).Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Bytes_that_are_no_utf_8_are_read_as_latin_1_and_said_to_be()
    {
        var file = Samples.Read(Encoding.Latin1.GetBytes(Samples.Event_("DTSTART:20260312T090000Z", "SUMMARY:Café")));

        Assert.Equal("Café", file.Events[0].Content.Title);
        Assert.Contains(file.Findings, finding => finding.Why.Contains("Latin-1", StringComparison.Ordinal));
    }

    [Fact]
    public void A_very_long_title_is_shortened_said_so_and_kept_whole_in_the_source()
    {
        var title = new string('t', 10_000);

        var file = Samples.Read(Samples.Event_("DTSTART:20260312T090000Z", $"SUMMARY:{title}"));

        Assert.Equal(EventRules.LongestLine, file.Events[0].Content.Title.Length);
        Assert.Contains("10000 characters", Assert.Single(file.Findings).Why, StringComparison.Ordinal);
        Assert.Contains(title, file.Events[0].Source, StringComparison.Ordinal);
    }

    [Fact]
    public void No_bytes_make_reading_throw() =>
        CsCheck.Check.Sample(
            CsCheck.Gen.Select(CsCheck.Gen.Int[0, 6000], CsCheck.Gen.Byte, CsCheck.Gen.Int[0, 6000]),
            (at, value, cut) =>
            {
                var bytes = Samples.Bytes("studio.ics");
                bytes[at % bytes.Length] = value;
                return CalendarFile.Read(
                    bytes.AsSpan(0, Math.Max(1, bytes.Length - (cut % bytes.Length))),
                    "Europe/London",
                    Samples.Clock
                )
                    is not null;
            }
        );
}
