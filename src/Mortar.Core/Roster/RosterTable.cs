using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Roster;

/// <summary>What a row of a roster is of.</summary>
public enum RosterRowOf
{
    /// <summary>What concerns everybody, or names nobody.</summary>
    Everyone,

    /// <summary>A member.</summary>
    Person,

    /// <summary>A place.</summary>
    Place,
}

/// <summary>A row of a roster.</summary>
/// <param name="Of">What it is of.</param>
/// <param name="Name">What stands before it.</param>
/// <param name="Person">The member, for one's row.</param>
/// <param name="Place">The calendar of the place, for a place's.</param>
public sealed record RosterRow(RosterRowOf Of, string Name, PersonId? Person = null, CalendarId? Place = null);

/// <summary>Something that lies on a roster, as the reader sees it.</summary>
/// <param name="Calendar">Of which calendar.</param>
/// <param name="What">The occurrence, or a stretch of which only the times are seen.</param>
/// <param name="Seen">When, on the reader's clock.</param>
public sealed record RosterEntry(CalendarId Calendar, VisibleEvent What, EventTime Seen)
{
    /// <summary>The first of its days.</summary>
    public LocalDate First => Seen.LocalStart.Date;

    /// <summary>The last of its days: an end at midnight is on the day before.</summary>
    public LocalDate Last =>
        Seen.LocalEnd.TimeOfDay == LocalTime.Midnight && Seen.LocalEnd > Seen.LocalStart
            ? Seen.LocalEnd.Date.PlusDays(-1)
            : Seen.LocalEnd.Date;

    /// <summary>Whether it is of whole days.</summary>
    public bool IsWholeDays => Seen is EventTime.AllDay;

    /// <summary>Of a visible event on a clock.</summary>
    public static RosterEntry Of(CalendarId calendar, VisibleEvent what, DateTimeZone reader) =>
        new(
            calendar,
            what,
            what switch
            {
                VisibleEvent.Shown shown => shown.Seen,
                VisibleEvent.Busy busy => ZoneClock.Shown(busy.Span, reader),
                _ => throw new System.Diagnostics.UnreachableException(),
            }
        );
}

/// <summary>The order in which entries stand.</summary>
public static class RosterOrder
{
    /// <summary>Whole days first, and then by time.</summary>
    public static IEnumerable<RosterEntry> InOrder(this IEnumerable<RosterEntry> entries) =>
        entries
            .OrderBy(entry => !entry.IsWholeDays)
            .ThenBy(entry => entry.Seen.LocalStart)
            .ThenBy(entry => entry.Seen.LocalEnd);
}

/// <summary>A row with what lies on each of the days, whole days first and then by time.</summary>
public sealed record RosterLine(RosterRow Row, ImmutableArray<ImmutableArray<RosterEntry>> Days);

/// <summary>People and places down, days across.</summary>
public static class RosterTable
{
    /// <summary>The rows in their order: everybody, the members, the places.</summary>
    public static ImmutableArray<RosterRow> Rows(
        IEnumerable<(PersonId Person, string Name)> members,
        IEnumerable<(CalendarId Calendar, string Name)> places
    ) =>
        [
            new RosterRow(RosterRowOf.Everyone, "Everyone"),
            .. members.Select(one => new RosterRow(RosterRowOf.Person, one.Name, one.Person)),
            .. places.Select(one => new RosterRow(RosterRowOf.Place, one.Name, Place: one.Calendar)),
        ];

    /// <summary>
    /// Lays what is seen into rows and days: into the rows of those it names and of the one whose calendar it is, into its
    /// place's, and into everybody's where it is theirs or lies in no other.
    /// </summary>
    /// <param name="rows">The rows.</param>
    /// <param name="entries">What is seen.</param>
    /// <param name="calendars">The calendars that are seen, by id.</param>
    /// <param name="window">The days.</param>
    public static ImmutableArray<RosterLine> Lay(
        ImmutableArray<RosterRow> rows,
        IEnumerable<RosterEntry> entries,
        IReadOnlyDictionary<CalendarId, VisibleCalendar> calendars,
        Window window
    )
    {
        var byPerson = rows.Where(row => row.Person is not null).ToDictionary(row => row.Person!.Value);
        var byPlace = rows.Where(row => row.Place is not null).ToDictionary(row => row.Place!.Value);
        var everyone = rows.First(row => row.Of == RosterRowOf.Everyone);
        var lying = (
            from entry in entries.Where(entry => calendars.ContainsKey(entry.Calendar))
            from row in RowsOf(entry)
            select (row, entry)
        ).ToLookup(one => one.row, one => one.entry);
        var days = window.Days.ToList();
        return
        [
            .. rows.Select(row => new RosterLine(
                row,
                [
                    .. days.Select(day =>
                        lying[row].Where(entry => entry.First <= day && day <= entry.Last).InOrder().ToImmutableArray()
                    ),
                ]
            )),
        ];

        IEnumerable<RosterRow> RowsOf(RosterEntry entry)
        {
            var calendar = calendars[entry.Calendar];
            var named = entry.What is VisibleEvent.Shown shown ? shown.Attendees : Enumerable.Empty<PersonId>();
            var theirs = (calendar is { Takes: WhoseTime.Person, Person: { } own } ? named.Prepend(own) : named)
                .Distinct()
                .Where(byPerson.ContainsKey)
                .Select(person => byPerson[person])
                .Concat(byPlace.TryGetValue(entry.Calendar, out var place) ? [place] : [])
                .ToList();
            return theirs.Count > 0 && calendar.Takes != WhoseTime.Group ? theirs : theirs.Append(everyone);
        }
    }
}
