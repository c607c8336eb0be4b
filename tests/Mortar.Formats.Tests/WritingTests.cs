using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

public class WritingTests
{
    private static readonly FileHead Head = new(
        "Glaze tests; spring, 2026",
        "Every tile,\nevery cone",
        "Europe/London"
    );

    private static readonly CalendarFileReading.Understood Studio = Samples.Read(Samples.Bytes("studio.ics"));

    [Fact]
    public void What_came_from_a_file_goes_out_as_it_came()
    {
        var text = Write(Studio.Events.Select(one => new EventToWrite(Whole(one), one.Source)));

        foreach (
            var line in Unfolded(Encoding.UTF8.GetString(Samples.Bytes("studio.ics")))
                .Where(line =>
                    !line.StartsWith("METHOD", StringComparison.Ordinal)
                    && !line.StartsWith("PRODID", StringComparison.Ordinal)
                    && !line.StartsWith("X-WR-CALNAME", StringComparison.Ordinal)
                )
        )
        {
            Assert.Contains(line, Unfolded(text));
        }
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void What_is_written_reads_back_the_same(bool fromSource)
    {
        var text = Write(Studio.Events.Select(one => new EventToWrite(Whole(one), fromSource ? one.Source : null)));

        var again = Samples.Read(text);

        Assert.Empty(again.Findings);
        Assert.Equal(Head.Name, again.Name);
        foreach (var (before, after) in Studio.Events.Zip(again.Events))
        {
            Assert.Equal((before.Uid, before.Time, before.Content), (after.Uid, after.Time, after.Content));
            Assert.Equal(before.Series, after.Series);
        }
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void Who_is_named_and_organizes_goes_out_without_an_address_and_comes_back(bool fromSource)
    {
        var (ines, priya, dele) = (
            new PersonId(Guid.NewGuid()),
            new PersonId(Guid.NewGuid()),
            new PersonId(Guid.NewGuid())
        );
        var names = new Dictionary<PersonId, string>
        {
            [ines] = "Varga, Ines",
            [priya] = "Priya \"Pia\" Raman",
            [dele] = "Dele",
        };
        var from = Studio.Events.First(one => one.Series?.Overrides.Count > 0);
        var shift = Whole(from) with { AddedBy = ines };
        shift = shift with
        {
            Content = shift.Content with { Attendees = Attendees.Of([priya, dele]), HidesAttendees = true },
            Series = shift.Series! with
            {
                Overrides =
                [
                    .. shift.Series.Overrides.Select(one =>
                        one with
                        {
                            Content = one.Content with { Attendees = Attendees.Of([dele]) },
                        }
                    ),
                ],
            },
        };

        var text = Write([new EventToWrite(shift, fromSource ? from.Source : null)], names);
        var again = Assert.Single(Samples.Read(text).Events);

        // CAL-ADDRESS is any URI (RFC 5545, 3.3.3); a quote cannot stand in a parameter (3.2).
        Assert.Contains($"ORGANIZER;CN=\"Varga, Ines\":urn:uuid:{ines.Value}", Unfolded(text));
        Assert.Contains($"ATTENDEE;CN=Priya 'Pia' Raman:urn:uuid:{priya.Value}", Unfolded(text));
        Assert.Equal((true, (PersonId?)ines), (again.SaysWho, again.Organizer));
        Assert.Equal((shift.Content, shift.Series), (again.Content, again.Series));

        // Written once more with others, nobody is there twice.
        var fewer = shift with
        {
            Content = shift.Content with { Attendees = Attendees.Of([priya]) },
        };
        var once = Assert.Single(Samples.Read(Write([new EventToWrite(fewer, again.Source)], names)).Events);
        Assert.Equal(fewer.Content, once.Content);
    }

    [Fact]
    public void Who_of_other_programs_is_named_stays_as_it_came_and_is_nobody_of_ours()
    {
        var text = """
            BEGIN:VCALENDAR
            BEGIN:VEVENT
            UID:fair@example.org
            DTSTART:20260312T190000Z
            ORGANIZER;CN=Fair:mailto:fair@example.org
            ATTENDEE;CN=Nina:mailto:nina@example.org
            ATTENDEE:urn:uuid:not-one
            END:VEVENT
            END:VCALENDAR
            """;
        var read = Assert.Single(Samples.Read(text).Events);
        var ines = new PersonId(Guid.NewGuid());

        var written = Unfolded(
            Write(
                [new EventToWrite(Whole(read) with { AddedBy = ines }, read.Source)],
                new Dictionary<PersonId, string> { [ines] = "Ines" }
            )
        );

        Assert.False(read.SaysWho);
        Assert.Empty(read.Content.Attendees);
        Assert.Equal(
            [
                "ORGANIZER;CN=Fair:mailto:fair@example.org",
                "ATTENDEE;CN=Nina:mailto:nina@example.org",
                "ATTENDEE:urn:uuid:not-one",
            ],
            written.Where(line =>
                line.StartsWith("ORG", StringComparison.Ordinal) || line.StartsWith("ATT", StringComparison.Ordinal)
            )
        );
    }

    [Fact]
    public void Kind_privacy_reminder_and_times_to_be_set_go_out_and_come_back()
    {
        var fair = Whole(Studio.Events[0]) with
        {
            Uid = "fair",
            Series = null,
            Time = EventTime.DaysToBeSet(new LocalDate(2026, 5, 14), new LocalDate(2026, 5, 16)),
            Content = EventContent.Blank with
            {
                Title = "Marsh fair",
                Kind = "Fair, outdoors",
                Private = true,
                Reminder = 1_440,
            },
        };

        var text = Write([new EventToWrite(fair, Source: null)]);
        var again = Assert.Single(Samples.Read(text).Events);

        Assert.Equal((fair.Time, fair.Content), (again.Time, again.Content));
        foreach (
            var line in new[]
            {
                "CATEGORIES:Fair\\, outdoors",
                "CLASS:PRIVATE",
                "TRIGGER:-PT1440M",
                "DTEND;VALUE=DATE:20260517",
            }
        )
        {
            Assert.Contains(line, Unfolded(text));
        }
    }

    [Theory]
    [InlineData("TRIGGER:-PT15M", 15)]
    [InlineData("TRIGGER:-P1D", 1_440)]
    [InlineData("TRIGGER;RELATED=START:-P1W", 10_080)]
    [InlineData("TRIGGER:PT0S", 0)]
    [InlineData("TRIGGER:PT15M", null)] // after the start
    [InlineData("TRIGGER;RELATED=END:-PT15M", null)]
    [InlineData("TRIGGER;VALUE=DATE-TIME:20260326T170000Z", null)]
    [InlineData("TRIGGER:-P9W", null)] // longer before than a reminder can be
    public void An_alarm_before_the_start_is_a_reminder_and_every_other_is_kept(string trigger, int? minutes)
    {
        var source =
            $"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:20260326T180000Z\r\nCATEGORIES:Session,Wheel\r\nCLASS:CONFIDENTIAL\r\nBEGIN:VALARM\r\nACTION:DISPLAY\r\n{trigger}\r\nEND:VALARM\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";

        var read = Assert.Single(Samples.Read(source).Events);
        var written = Write([new EventToWrite(Whole(read), read.Source)]);

        Assert.Equal((minutes, "Session", true), (read.Content.Reminder, read.Content.Kind, read.Content.Private));
        Assert.Contains(trigger, Unfolded(written));
        Assert.Contains("CATEGORIES:Session,Wheel", Unfolded(written));
    }

    [Fact]
    public void Only_what_was_changed_is_replaced()
    {
        var celadon = Studio.Events[0];
        var changed = Whole(celadon) with
        {
            Content = celadon.Content with { Title = "Tenmoku", ShowAs = ShowAs.Tentative },
            Time = EventTime.InZone(
                new LocalDateTime(2026, 3, 13, 9, 0),
                new LocalDateTime(2026, 3, 13, 10, 0),
                "Europe/London"
            ),
        };

        var lines = Unfolded(Write([new EventToWrite(changed, celadon.Source)])).ToList();

        Assert.Contains("SUMMARY:Tenmoku", lines);
        Assert.Contains("STATUS:TENTATIVE", lines);
        Assert.Contains("DTSTART;TZID=Europe/London:20260313T090000", lines);
        Assert.Contains("X-KILN-SHELF;X-ROW=2:upper", lines);
        Assert.Contains("ATTENDEE;CN=Priya Raman;PARTSTAT=ACCEPTED:mailto:priya@example.org", lines);
        Assert.Contains("TRIGGER:-PT15M", lines);
        Assert.Single(lines, line => line.StartsWith("SUMMARY", StringComparison.Ordinal));
    }

    [Fact]
    public void A_date_moved_or_left_out_here_is_in_the_file()
    {
        var thursdays = Studio.Events.Single(one => one.Uid.StartsWith("thursdays", StringComparison.Ordinal));
        var start = new LocalDateTime(2026, 3, 12, 19, 0);
        var moved = new Override(
            start,
            thursdays.Time.StartingAt(start.PlusHours(1)),
            thursdays.Content with
            {
                Title = "An hour later",
            }
        );
        var whole = Whole(thursdays) with { Series = thursdays.Series!.With(moved).Without(start.PlusDays(7)) };

        var again = Samples.Read(Write([new EventToWrite(whole, thursdays.Source)]));

        Assert.Equal(whole.Series, Assert.Single(again.Events).Series);
    }

    [Fact]
    public void No_line_is_longer_than_75_octets_and_no_character_is_cut()
    {
        var celadon = Whole(Studio.Events[0]);
        var whole = celadon with
        {
            Content = celadon.Content with { Title = string.Concat(Enumerable.Repeat("ünü🏺", 60)) },
        };

        var text = Write([new EventToWrite(whole, null)]);

        Assert.All(text.Split("\r\n"), line => Assert.True(Encoding.UTF8.GetByteCount(line) <= 75, line));
        Assert.Equal(whole.Content.Title, Samples.Read(text).Events[0].Content.Title);
    }

    [Fact]
    public void A_zone_is_defined_as_the_database_has_it()
    {
        var lines = Unfolded(Write([new EventToWrite(Whole(Studio.Events[0]), null)])).ToList();

        // Europe/London in 2026: summer time from 29 March, 01:00, to 25 October, 02:00 (IANA database).
        Assert.Contains("RDATE:20260329T010000", lines);
        Assert.Contains("RDATE:20261025T020000", lines);
        Assert.Contains("TZOFFSETTO:+0100", lines);
    }

    [Fact]
    public void The_offsets_of_a_written_zone_are_right_at_every_hour_of_a_year()
    {
        var text = Write([new EventToWrite(Whole(Studio.Events[0]), null)]);
        var zone = Ical.Net.Calendar.Load(text)!.TimeZones.Single();
        var london = DateTimeZoneProviders.Tzdb["Europe/London"];
        var onsets = zone
            .TimeZoneInfos.SelectMany(info =>
                info.RecurrenceDates.GetAllDates().Append(info.Start).Select(at => (At: at!.Value, info.OffsetTo))
            )
            .OrderBy(onset => onset.At)
            .ToList();

        for (var hour = 0; hour < 8_760; hour += 7)
        {
            var local = new LocalDateTime(2026, 1, 1, 0, 30).PlusHours(hour);
            if (london.MapLocal(local).Count == 1)
            {
                var offset = onsets.Last(onset => onset.At <= local.ToDateTimeUnspecified()).OffsetTo!.Offset;
                Assert.Equal(london.AtStrictly(local).Offset.ToTimeSpan(), offset);
            }
        }
    }

    private static string Write(
        IEnumerable<EventToWrite> events,
        IReadOnlyDictionary<PersonId, string>? names = null
    ) => CalendarFileWriter.Write(Head, events, names ?? Samples.Nobody, Samples.Now, Samples.Clock);

    private static Event Whole(FileEvent one) =>
        new(new EventId(Guid.NewGuid()), default, one.Uid, default, one.Time, one.Content, one.Series, Version: 1);

    private static IEnumerable<string> Unfolded(string text) =>
        text.Replace("\r\n ", string.Empty, StringComparison.Ordinal)
            .Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
}
