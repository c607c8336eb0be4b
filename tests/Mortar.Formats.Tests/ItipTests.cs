using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>Messages between calendars. The examples are those of RFC 5546, chapter 4.2, from memory; what we write is read by Ical.Net 5.</summary>
public class ItipTests
{
    private static readonly ZoneClock Clock = new(DateTimeZoneProviders.Tzdb);

    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 11, 0);

    /// <summary>RFC 5546, 4.2.2: B accepts what A asked.</summary>
    private const string Accepts = """
        BEGIN:VCALENDAR
        PRODID:-//Example/ExampleCalendarClient//EN
        METHOD:REPLY
        VERSION:2.0
        BEGIN:VEVENT
        ATTENDEE;PARTSTAT=ACCEPTED:mailto:b@example.com
        ORGANIZER:mailto:a@example.com
        UID:calsrv.example.com-873970198738777@example.com
        SEQUENCE:0
        REQUEST-STATUS:2.0;Success
        DTSTAMP:19970612T190000Z
        END:VEVENT
        END:VCALENDAR
        """;

    [Fact]
    public void The_reply_of_the_standard_is_read()
    {
        var reply = Itip.ReadReply(Accepts);

        Assert.Equal(
            new ItipReply(
                "calsrv.example.com-873970198738777@example.com",
                "b@example.com",
                "ACCEPTED",
                Only: null,
                OnlyInUtc: false,
                string.Empty
            )
            {
                Stamp = Instant.FromUtc(1997, 6, 12, 19, 0),
            },
            reply
        );
    }

    [Theory]
    [InlineData("RECURRENCE-ID:19970701T210000Z", "1997-07-01T21:00:00", true)] // as in RFC 5546, 4.4
    [InlineData("RECURRENCE-ID;TZID=America/New_York:19970701T170000", "1997-07-01T17:00:00", false)]
    [InlineData("RECURRENCE-ID;VALUE=DATE:19970701", "1997-07-01T00:00:00", false)]
    public void A_reply_to_one_date_says_which(string line, string only, bool inUtc)
    {
        var reply = Itip.ReadReply(
            Accepts
                .Replace("SEQUENCE:0", line, StringComparison.Ordinal)
                .Replace("PARTSTAT=ACCEPTED", "PARTSTAT=declined", StringComparison.Ordinal)
                .Replace("DTSTAMP", "COMMENT:Not that week\\, sorry\nDTSTAMP", StringComparison.Ordinal)
        )!;

        Assert.Equal(only, reply.Only!.Value.ToString("uuuu-MM-dd'T'HH:mm:ss", null));
        Assert.Equal((inUtc, "DECLINED", "Not that week, sorry"), (reply.OnlyInUtc, reply.PartStat, reply.Comment));
    }

    [Theory]
    [InlineData("")]
    [InlineData("Yes, I come!")]
    [InlineData("BEGIN:VCALENDAR")]
    public void What_is_no_reply_is_none(string text) => Assert.Null(Itip.ReadReply(text));

    [Theory]
    [InlineData("METHOD:REPLY", "METHOD:REQUEST")]
    [InlineData("UID:", "X-UID:")]
    [InlineData(";PARTSTAT=ACCEPTED", "")]
    [InlineData("ATTENDEE", "X-ATTENDEE")]
    [InlineData("VEVENT", "VTODO")]
    public void Nor_is_one_that_lacks_what_a_reply_needs(string there, string instead) =>
        Assert.Null(Itip.ReadReply(Accepts.Replace(there, instead, StringComparison.Ordinal)));

    [Fact]
    public void A_request_is_read_by_another_library_as_it_was_meant()
    {
        var text = Itip.Request(
            Weekly,
            new ItipPerson("Ines \"I;V\" Varga", "answer-1@example.org"),
            new ItipPerson("Mei: Sato, Halifax", "mei@example.org"),
            Now,
            Clock
        );

        var calendar = Ical.Net.Calendar.Load(text)!;
        Assert.Equal("REQUEST", calendar.Method);
        var one = Assert.Single(calendar.Events);
        Assert.Equal((Weekly.Uid, 2, "Kiln plan"), (one.Uid, one.Sequence, one.Summary));
        Assert.Equal("mailto:answer-1@example.org", one.Organizer!.Value!.ToString());
        Assert.Equal("Ines I;V Varga", one.Organizer.CommonName);
        var attendee = Assert.Single(one.Attendees);
        Assert.Equal("mailto:mei@example.org", attendee.Value!.ToString());
        Assert.Equal("Mei: Sato, Halifax", attendee.CommonName);
        Assert.Equal(("NEEDS-ACTION", true), (attendee.ParticipationStatus, attendee.Rsvp));
        Assert.Equal("Europe/London", one.Start!.TzId);
        Assert.Equal("FREQ=WEEKLY;COUNT=3", one.RecurrenceRule!.ToString());
        Assert.Empty(one.Alarms);
        Assert.Contains("BEGIN:VTIMEZONE", text, StringComparison.Ordinal);
    }

    [Fact]
    public void A_change_counts_on_in_its_sequence_and_keeps_its_name()
    {
        var person = new ItipPerson("Ines", "a@example.org");
        static int Sequence(string text) => Ical.Net.Calendar.Load(text)!.Events.Single().Sequence;

        var before = Itip.Request(Weekly, person, person, Now, Clock);
        var after = Itip.Request(Weekly with { Version = Weekly.Version + 1 }, person, person, Now, Clock);

        Assert.Equal(Sequence(before) + 1, Sequence(after)); // RFC 5546, 2.1.4
        Assert.Equal(
            Ical.Net.Calendar.Load(before)!.Events.Single().Uid,
            Ical.Net.Calendar.Load(after)!.Events.Single().Uid
        );
    }

    [Theory]
    [InlineData(true, "CANCELLED")] // RFC 5546, 3.2.5: to cancel the entire event
    [InlineData(false, null)] // "MUST NOT be included" where one attendee is taken off
    public void A_cancellation_is_read_by_another_library_as_it_was_meant(bool isCalledOff, string? status)
    {
        var text = Itip.Cancel(
            Weekly,
            new ItipPerson("Ines Varga", "answer-1@example.org"),
            new ItipPerson("Mei Sato", "mei@example.org"),
            isCalledOff,
            Now
        );

        var calendar = Ical.Net.Calendar.Load(text)!;
        Assert.Equal("CANCEL", calendar.Method);
        var one = Assert.Single(calendar.Events);
        Assert.Equal((Weekly.Uid, 2), (one.Uid, one.Sequence));
        Assert.Equal(status, string.IsNullOrEmpty(one.Status) ? null : one.Status);
        Assert.Equal("mailto:answer-1@example.org", one.Organizer!.Value!.ToString());
        Assert.Equal("mailto:mei@example.org", Assert.Single(one.Attendees).Value!.ToString());
        Assert.NotNull(one.DtStamp);
        Assert.DoesNotContain("Kiln plan", text, StringComparison.Ordinal);
        Assert.DoesNotContain("DTSTART", text, StringComparison.Ordinal); // it may have been moved since
    }

    /// <summary>RFC 5546, 4.2.4: D asks for another time. From memory.</summary>
    [Fact]
    public void A_wish_for_another_time_is_read()
    {
        var wish = Itip.ReadReply(
            """
            BEGIN:VCALENDAR
            PRODID:-//Example/ExampleCalendarClient//EN
            METHOD:COUNTER
            VERSION:2.0
            BEGIN:VEVENT
            ORGANIZER:mailto:a@example.com
            ATTENDEE;RSVP=TRUE;CUTYPE=INDIVIDUAL:mailto:d@example.com
            DTSTART:19970701T220000Z
            DTEND:19970701T230000Z
            UID:calsrv.example.com-873970198738777@example.com
            SUMMARY:Conference
            COMMENT:This time works much better and I think the big conference room is too big
            SEQUENCE:0
            DTSTAMP:19970612T190000Z
            END:VEVENT
            END:VCALENDAR
            """
        );

        Assert.Equal(
            new ItipTime(new LocalDateTime(1997, 7, 1, 22, 0), new LocalDateTime(1997, 7, 1, 23, 0), "UTC"),
            wish!.Counter
        );
        Assert.Equal(("d@example.com", "NEEDS-ACTION"), (wish.Attendee, wish.PartStat));
    }

    [Theory]
    [InlineData("DTSTART;TZID=Europe/London:20260313T160000", "Europe/London", false)]
    [InlineData("DTSTART:20260313T160000", null, false)] // on the event's own clock, and as long as before
    [InlineData("DTSTART:20260313T160000Z\nDTEND:20260313T150000Z", null, true)] // it would end before it starts
    [InlineData("SUMMARY:No time at all", null, true)]
    public void A_wish_has_a_time_or_is_none(string lines, string? zone, bool isNone)
    {
        var wish = Itip.ReadReply(
            $"BEGIN:VCALENDAR\nMETHOD:COUNTER\nBEGIN:VEVENT\nUID:1\nATTENDEE:mailto:d@example.com\n{lines}\nEND:VEVENT\nEND:VCALENDAR"
        );

        Assert.Equal(isNone, wish is null);
        Assert.Equal(zone, wish?.Counter?.Zone);
    }

    private static Event Weekly { get; } =
        new(
            new EventId(Guid.Parse("018e0000-0000-7000-8000-000000000001")),
            default,
            "018e0000@mortar",
            default,
            EventTime.InZone(
                new LocalDateTime(2026, 3, 13, 15, 0),
                new LocalDateTime(2026, 3, 13, 16, 0),
                "Europe/London"
            ),
            new EventContent("Kiln plan", "Long table", "Bring the list", ShowAs.Busy, Cancelled: false)
            {
                Reminder = 30,
            },
            Series.By(RecurrenceRule.Weekly(1, new SeriesEnd.After(3))),
            Version: 3
        );
}
