using System.Text.Json;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

public class ExpandTests
{
    private static readonly Window March = new(
        new LocalDate(2026, 3, 1),
        new LocalDate(2026, 3, 31),
        DateTimeZoneProviders.Tzdb["Europe/London"]
    );

    [Fact]
    public void An_occurrence_is_a_line_of_json_with_both_clocks()
    {
        var file = Samples.Read(
            Samples.Event_(
                "SUMMARY:Thursday throwing – ünü",
                "DTSTART;TZID=Europe/Berlin:20260312T190000",
                "DURATION:PT2H30M"
            )
        );

        var line = Assert.Single(FileExpansion.Of(file, March, Samples.Clock).Occurrences).ToJson();

        Assert.Equal(
            """{"uid":"one@example.org","start":"2026-03-12T19:00:00","end":"2026-03-12T21:30:00","zone":"Europe/Berlin","startUtc":"2026-03-12T18:00:00Z","endUtc":"2026-03-12T20:30:00Z","allDay":false,"summary":"Thursday throwing – ünü"}""",
            line
        );
    }

    [Fact]
    public void Whole_days_are_dates_and_end_on_the_day_after_as_in_the_file()
    {
        var file = Samples.Read(Samples.Event_("DTSTART;VALUE=DATE:20260330", "DTEND;VALUE=DATE:20260401"));

        var one = Assert.Single(FileExpansion.Of(file, March, Samples.Clock).Occurrences);

        Assert.Equal(("2026-03-30", "2026-04-01", null, true), (one.Start, one.End, one.Zone, one.AllDay));
        Assert.Equal(("2026-03-29T23:00:00Z", "2026-03-31T23:00:00Z"), (one.StartUtc, one.EndUtc)); // London's summer time
    }

    [Fact]
    public void All_events_are_in_one_order()
    {
        var expansion = FileExpansion.Of(Samples.Read(Samples.Bytes("studio.ics")), March, Samples.Clock);

        Assert.True(expansion.Occurrences.Count > 10);
        Assert.Equal(expansion.Occurrences.OrderBy(one => one.StartUtc, StringComparer.Ordinal), expansion.Occurrences);
    }

    [Fact]
    public void An_event_on_every_second_is_cut_and_said_to_be()
    {
        var file = Samples.Read(Samples.Event_("DTSTART:20260301T000000Z", "RRULE:FREQ=SECONDLY"));

        var expansion = FileExpansion.Of(file, March, Samples.Clock);

        Assert.Equal(Core.Events.SeriesExpansion.MostShown, expansion.Occurrences.Count);
        Assert.Equal(["one@example.org"], expansion.Cut);
        Assert.Equal(
            "2026-03-01T05:33:19Z",
            JsonDocument.Parse(expansion.Occurrences[^1].ToJson()).RootElement.GetProperty("startUtc").GetString()
        );
    }
}
