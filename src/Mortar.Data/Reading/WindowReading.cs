using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>One calendar with the events of a window, as somebody reads it; where the role is none, those given by themselves.</summary>
public sealed record ReadCalendar(CalendarRow Row, Role Role, IReadOnlyList<KeptEvent> Events);

/// <summary>One calendar with all events of a window, whoever may see them: to work out with, and never to be shown.</summary>
public sealed record WholeCalendar(CalendarRow Row, IReadOnlyList<KeptEvent> Events)
{
    /// <summary>It as it counts for people's time, with those of its events that can take any.</summary>
    /// <param name="group">Those of its group who are known to be in it.</param>
    /// <param name="willing">Whose time it may take.</param>
    public CountedCalendar Counted(IEnumerable<PersonId> group, Willing willing) =>
        new(
            Row.Id,
            Row.Purpose,
            Row.Takes,
            Row.Takes == WhoseTime.Group ? [.. group] : [],
            [.. Events.Where(one => TakenTimes.CanTake(Row.Purpose, Row.Takes, one.Event)).Select(one => one.Counted)]
        )
        {
            Person = Row.Person,
            Willing = willing,
        };
}

/// <summary>What was read of some days for somebody.</summary>
/// <param name="Sight">What its person may read.</param>
/// <param name="Window">The days, on the person's clock.</param>
/// <param name="Calendars">All calendars the person reaches, hidden layers too, and those of events given to them by themselves.</param>
/// <param name="Fine">The keys of clashes that somebody marked as fine.</param>
/// <param name="IsAlikeForAll">Whether all who see these calendars by the same steps see the same.</param>
public sealed record WindowReading(
    Sight Sight,
    Window Window,
    IReadOnlyList<ReadCalendar> Calendars,
    IReadOnlySet<string> Fine,
    bool IsAlikeForAll,
    ZoneClock Clock
)
{
    /// <summary>Whose wall.</summary>
    public PersonId Person => Sight.Person;

    /// <summary>The person's step on a calendar.</summary>
    public Role RoleOn(CalendarId calendar) => Sight.RoleOn(calendar);

    /// <summary>A calendar as the person sees it.</summary>
    public IEnumerable<VisibleEvent> Visible(ReadCalendar calendar) =>
        VisibleEvent.Through(
            calendar.Role,
            Person,
            calendar.Events.SelectMany(one => one.Event.Shown(Window, Clock)),
            Window
        );

    /// <summary>A calendar as it counts for the time of people the person knows to be in its group.</summary>
    public CountedCalendar Counted(ReadCalendar calendar) =>
        new WholeCalendar(calendar.Row, calendar.Events).Counted(
            // Of what is given by itself nothing more is known than that one's own time is in it.
            Sight.Members[calendar.Row.GroupId].Where(one => calendar.Role > Role.None || one == Person),
            Sight.Willing[calendar.Row.Id]
        );

    /// <summary>What collides and is not marked as fine, made only of events that the person sees with everything on them.</summary>
    /// <param name="whose">Whose to resolve they are to be; <c>null</c> for all.</param>
    /// <param name="about">The events of which one has to be in it; <c>null</c> for any.</param>
    public ClashesFound Clashes(ClashesOf? whose = null, IReadOnlySet<EventId>? about = null) =>
        Core
            .Availability.Clashes.Among(
                TakenTimes.In(
                    Calendars.Select(calendar => Counted(calendar).SeenWholeBy(calendar.Role, Person)),
                    Window,
                    new Dictionary<PersonId, DateTimeZone>(),
                    Clock
                ),
                whose,
                about
            )
            .Without(Fine);
}
