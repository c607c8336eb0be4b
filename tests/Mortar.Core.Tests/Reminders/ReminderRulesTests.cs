using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Reminders;

/// <summary>Who is reminded of what, and when.</summary>
public class ReminderRulesTests
{
    private static readonly PersonId Priya = Studio.Priya;
    private static readonly LocalDateTime Noon = new(2026, 3, 12, 12, 0);

    public static TheoryData<string, int?, bool, CalendarReminder, Answer, int?> Choices =>
        new()
        {
            { "named, as the event says", 30, true, new CalendarReminder.AsEventsSay(), Answer.NeedsAction, 30 },
            { "the event says nothing", null, true, new CalendarReminder.AsEventsSay(), Answer.Accepted, null },
            { "somebody else is named", 30, false, new CalendarReminder.AsEventsSay(), Answer.NeedsAction, null },
            { "everything, as the event says", 30, false, new CalendarReminder.Before(60), Answer.NeedsAction, 30 },
            { "everything, as I chose", null, false, new CalendarReminder.Before(60), Answer.NeedsAction, 60 },
            { "nothing of this calendar", 30, true, new CalendarReminder.Never(), Answer.Accepted, null },
            { "I do not come", 30, true, new CalendarReminder.Before(60), Answer.Declined, null },
            { "at the start", 0, true, new CalendarReminder.AsEventsSay(), Answer.Tentative, 0 },
        };

    [Theory]
    [MemberData(nameof(Choices))]
    public void One_is_reminded_as_the_event_says_or_as_one_chose(
        string why,
        int? reminder,
        bool isNamed,
        CalendarReminder own,
        Answer answer,
        int? expected
    )
    {
        var occurrence = Only(Studio.Hours(Noon, 60), reminder, isNamed ? Priya : Studio.Ines);

        Assert.True(expected == ReminderRules.MinutesFor(Priya, occurrence, own, answer), why);
    }

    [Fact]
    public void Where_nobody_is_named_who_put_it_in_is_reminded()
    {
        var occurrence = Only(Studio.Hours(Noon, 60), 30);

        Assert.Equal(30, Minutes(Studio.Ines));
        Assert.Null(Minutes(Priya));

        int? Minutes(PersonId person) =>
            ReminderRules.MinutesFor(person, occurrence, new CalendarReminder.AsEventsSay(), Answer.NeedsAction);
    }

    [Fact]
    public void What_is_called_off_reminds_nobody()
    {
        var whole = Studio.Event(Studio.Hours(Noon, 60), cancelled: true);
        var occurrence = (whole with { Content = whole.Content with { Reminder = 30 } })
            .OccurrenceAt(null, Studio.Clock, DateTimeZone.Utc)!
            .Value;

        Assert.Null(
            ReminderRules.MinutesFor(Studio.Ines, occurrence, new CalendarReminder.Before(10), Answer.Accepted)
        );
    }

    public static TheoryData<string, EventTime, int, string, Instant> Dues =>
        new()
        {
            {
                "so long before the start, wherever one is",
                Studio.Hours(Noon, 60),
                30,
                "America/Halifax",
                Instant.FromUtc(2026, 3, 12, 11, 30)
            },
            {
                "a day of 23 hours before is still 24 hours before", // clocks go forward on 29 March 2026
                Studio.Hours(new LocalDateTime(2026, 3, 29, 12, 0), 60),
                1_440,
                Studio.London,
                Instant.FromUtc(2026, 3, 28, 11, 0)
            },
            {
                "whole days from where usual hours begin there",
                EventTime.Days(new LocalDate(2026, 3, 12), new LocalDate(2026, 3, 13)),
                0,
                "America/Halifax",
                Instant.FromUtc(2026, 3, 12, 11, 0) // 08:00, three hours behind in March
            },
            {
                "the day before, in the morning",
                EventTime.DaysToBeSet(new LocalDate(2026, 3, 12), new LocalDate(2026, 3, 12)),
                1_440,
                Studio.London,
                Instant.FromUtc(2026, 3, 11, 8, 0)
            },
            {
                "floating times are on one's own clock",
                EventTime.OnEveryClock(Noon, Noon.PlusHours(1)),
                60,
                "Asia/Tokyo",
                Instant.FromUtc(2026, 3, 12, 2, 0)
            },
        };

    [Theory]
    [MemberData(nameof(Dues))]
    public void It_is_due(string why, EventTime time, int minutes, string zone, Instant expected) =>
        Assert.True(
            expected == ReminderRules.DueAt(Only(time, minutes), minutes, Studio.Zone(zone), new LocalTime(8, 0)),
            why
        );

    [Theory]
    [InlineData(-30, 30, true)] // late, but it has not begun
    [InlineData(-9, -9, true)] // at the start, by a sender that was busy
    [InlineData(-11, -11, false)] // it has begun: that is no reminder any more
    [InlineData(-60, -30, false)]
    public void Late_it_is_given_only_while_it_helps(int due, int start, bool expected)
    {
        var now = Instant.FromUtc(2026, 3, 12, 12, 0);

        Assert.Equal(
            expected,
            ReminderRules.IsStillOfUse(now + Duration.FromMinutes(due), now + Duration.FromMinutes(start), now)
        );
    }

    private static Occurrence Only(EventTime time, int? reminder, params PersonId[] named)
    {
        var whole = Studio.Event(time);
        return (whole with { Content = whole.Content with { Reminder = reminder, Attendees = Attendees.Of(named) } })
            .OccurrenceAt(null, Studio.Clock, DateTimeZone.Utc)!
            .Value;
    }
}
