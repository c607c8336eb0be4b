using CsCheck;
using Mortar.Core.Answers;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Tests.Availability;

/// <summary>The week of 9 March 2026 at the studio: people, places and what takes their time, by a line each.</summary>
internal static class Pottery
{
    public static readonly LocalDate Monday = new(2026, 3, 9);

    public static readonly Window Week = Studio.Week(Monday);

    public static readonly PersonId Dele = new(new Guid("00000000-0000-0000-0000-000000000003"));

    public static readonly PersonId Astrid = new(new Guid("00000000-0000-0000-0000-000000000004"));

    public static readonly CalendarId Kiln = new(new Guid("00000000-0000-0000-0000-0000000000d1"));

    public static readonly Participant Priya = Participant.Of(Studio.Priya);

    public static readonly Participant Ines = Participant.Of(Studio.Ines);

    public static readonly Dictionary<PersonId, DateTimeZone> Zones = new()
    {
        [Astrid] = DateTimeZoneProviders.Tzdb["America/Halifax"],
    };

    public static readonly UsualHours NineToFive = UsualHours.On(
        Studio.Zone(Studio.London),
        new DayHours(new LocalTime(9, 0), new LocalTime(17, 0)),
        IsoDayOfWeek.Monday,
        IsoDayOfWeek.Tuesday,
        IsoDayOfWeek.Wednesday,
        IsoDayOfWeek.Thursday,
        IsoDayOfWeek.Friday
    );

    /// <summary>Hours on a day of the week, Monday 0: <c>At(3, 19, 21)</c> is Thursday from 19:00 to 21:00.</summary>
    public static EventTime At(int day, double from, double to, string zone = Studio.London) =>
        EventTime.InZone(
            Monday.PlusDays(day).AtMidnight().PlusMinutes((long)(from * 60)),
            Monday.PlusDays(day).AtMidnight().PlusMinutes((long)(to * 60)),
            zone
        );

    public static Interval Span(int day, double from, double to) =>
        Studio.Clock.Span(At(day, from, to), DateTimeZone.Utc);

    public static CountedEvent Counted(Event whole, params Attendance[] named) => new(whole, [.. named], []);

    public static Attendance Comes(PersonId person, Answer answer = Answer.Accepted) => new(person, answer);

    public static CountedCalendar Calendar(WhoseTime takes, Purpose purpose, params CountedEvent[] events) =>
        new(purpose == Purpose.Place ? Kiln : Studio.GlazeTests, purpose, takes, [Studio.Ines, Studio.Priya], events);

    public static IReadOnlyDictionary<Participant, BusyTime> Busy(params CountedCalendar[] calendars) =>
        BusyTime.Of(calendars, Week, Zones, Studio.Clock);

    public static Invitee Invited(Participant who, Need need, UsualHours? hours, params Interval[] busy) =>
        new(who, need, BusyTime.Of(Week.Span, busy.Select(span => (span, Taken.Busy))), hours);

    /// <summary>A person by number, for those drawn at random.</summary>
    public static Participant Number(int number) =>
        Participant.Of(new PersonId(new Guid(number, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0)));

    /// <summary>Stretches in quarters of an hour on a grid of the given length, begun on Monday at midnight.</summary>
    public static Gen<Interval[]> Stretches(int grid) =>
        (
            from start in Gen.Int[0, grid - 1]
            from length in Gen.Int[1, 8]
            select new Interval(Tick(start), Tick(start + length))
        ).Array[0, 6];

    public static Instant Tick(int quarter) => Week.Span.Start + Duration.FromMinutes(15 * quarter);
}
