using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>A person or place whose time was asked for.</summary>
/// <param name="Zone">The zone of their clock.</param>
/// <param name="Hours">Their usual hours; <c>null</c> for a place, which is there at any time.</param>
/// <param name="Time">Their time, as far as the reader may know it.</param>
public sealed record KnownParticipant(
    Participant Who,
    string Name,
    DateTimeZone Zone,
    UsualHours? Hours,
    KnownTime Time
)
{
    /// <summary>What takes it on calendars as the reader sees them.</summary>
    public required IReadOnlyList<TakenTime> Seen { get; init; }

    /// <summary>When they are taken by what the reader does not see.</summary>
    public Untold Untold { get; init; } = Untold.Nothing;

    /// <summary>The titles of what takes them in a stretch, as far as the reader sees them; empty where it is only known that something does.</summary>
    public IEnumerable<string> By(Interval when) =>
        Seen.Where(takenTime =>
                takenTime.Occurrence.Span.Start < when.End && when.Start < takenTime.Occurrence.Span.End
            )
            .OrderBy(takenTime => takenTime.Occurrence.Span.Start)
            .Select(takenTime => takenTime.Occurrence.Content.Title)
            .Distinct();

    /// <summary>Them as they are looked for in a search.</summary>
    public Invitee Invited(Need need) => new(Who, need, Time.Busy, Hours);
}

/// <summary>What a question about people's time is about.</summary>
/// <param name="Group">The group whose week is meant; <c>null</c> for all they share.</param>
/// <param name="Except">An event that does not count, since it is the one that is asked for.</param>
public sealed record TimesScope(GroupId? Group = null, EventId? Except = null);

/// <summary>Reads when people and places are taken, as far as somebody may know; what that is, Core decides.</summary>
public sealed class TimesReader(MortarDb db, ZoneClock clock)
{
    private sealed record Person(PersonId Id, string Name, DateTimeZone Zone, UsualHours Hours, bool IsOpen);

    /// <summary>Those of the asked whom the reader knows, in the order of the question; the others are not there for them.</summary>
    /// <param name="reader">Who asks.</param>
    /// <param name="asked">People and places.</param>
    /// <param name="window">The days, on the reader's clock.</param>
    /// <param name="scope">What does not count, and whose week does.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<IReadOnlyList<KnownParticipant>> Read(
        PersonId reader,
        IReadOnlyCollection<Participant> asked,
        Window window,
        TimesScope scope,
        CancellationToken cancellationToken
    )
    {
        var standings = await db.StandingsOf(reader, cancellationToken);
        var people = await People(reader, asked, scope.Group, cancellationToken);
        var zones = people.Values.ToDictionary(one => one.Id, one => one.Zone);
        var mine = await Calendars(
            [.. standings.Keys],
            window,
            await GroupsOf(reader, cancellationToken),
            scope.Group,
            cancellationToken
        );
        var given = await db.CalendarsGiving(reader).ToListAsync(cancellationToken);
        var seen = TakenTimes
            .In(
                mine.Values.Select(one => one.SeenBy(standings[one.Id].Role, reader))
                    .Concat(
                        await Given(reader, [.. given.Except(standings.Keys)], window, scope.Group, cancellationToken)
                    ),
                window,
                zones,
                clock
            )
            .Where(takenTime => takenTime.Occurrence.Event.Id != scope.Except)
            .ToLookup(takenTime => takenTime.Who);
        // What the reader does not reach stays in the way, whatever they call it: leaving it out would tell what it is.
        var isReached = mine.Values.Any(one => one.Events.Any(counted => counted.Event.Id == scope.Except));
        var all = await OfOpen(
            isReached ? scope.Except : null,
            scope.Group,
            [.. people.Values.Where(one => one.IsOpen).Select(one => one.Id)],
            window,
            zones,
            cancellationToken
        );
        var places = await db
            .Calendars.AsNoTracking()
            .Where(row => standings.Keys.Contains(row.Id) && row.Purpose == Purpose.Place)
            .ToDictionaryAsync(row => row.Id.Value, cancellationToken);
        return
        [
            .. asked
                .Distinct()
                .Select(who =>
                    who.IsPlace && places.TryGetValue(who.Id, out var place)
                        ? new KnownParticipant(
                            who,
                            place.Name,
                            clock.Zone(place.Zone),
                            Hours: null,
                            // Whoever sees when a place is busy knows all that is to be known of it.
                            KnownTimes.Of(seen[who], seen[who], window)
                        )
                        {
                            Seen = [.. seen[who]],
                        }
                    : !who.IsPlace && people.TryGetValue(new PersonId(who.Id), out var person)
                        ? new KnownParticipant(
                            who,
                            person.Name,
                            person.Zone,
                            person.Hours,
                            KnownTimes.Of(seen[who], person.IsOpen ? all[who] : null, window)
                        )
                        {
                            Seen = [.. seen[who]],
                            Untold = person.IsOpen ? Untold.Of(seen[who], all[who], window) : Untold.Nothing,
                        }
                    : null
                )
                .OfType<KnownParticipant>(),
        ];
    }

    /// <summary>The usual hours of a reader themselves.</summary>
    public async Task<UsualHours> HoursOf(PersonId reader, GroupId? group, CancellationToken cancellationToken) =>
        (await People(reader, [Participant.Of(reader)], group, cancellationToken))[reader].Hours;

    /// <summary>Those asked for who share a group with the reader. Who let others know their time is open, and so is the reader.</summary>
    private async Task<Dictionary<PersonId, Person>> People(
        PersonId reader,
        IReadOnlyCollection<Participant> asked,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var ids = asked.Where(who => !who.IsPlace).Select(who => new PersonId(who.Id)).ToList();
        var known = db.KnownTo(reader).Select(person => person.Id);
        var rows = await db
            .People.AsNoTracking()
            .Where(person => ids.Contains(person.Id) && (person.Id == reader || known.Contains(person.Id)))
            .ToListAsync(cancellationToken);
        var weeks = await WeeksOf(reader, ids, group, cancellationToken);
        return rows.Select(row =>
            {
                var preferences = row.ToPreferences();
                var zone = clock.Zone(row.Zone);
                return new Person(
                    row.Id,
                    row.Name,
                    zone,
                    UsualHours.On(
                        zone,
                        new DayHours(preferences.DayBegins, preferences.DayEnds),
                        weeks.GetValueOrDefault(row.Id, SortRules.WeekOf(GroupSort.Other))
                    ),
                    row.Id == reader || preferences.ShowsBusy
                );
            })
            .ToDictionary(one => one.Id);
    }

    /// <summary>The weekdays on which people are usually there, as far as the reader shares a group with them.</summary>
    private async Task<Dictionary<PersonId, IReadOnlyList<IsoDayOfWeek>>> WeeksOf(
        PersonId reader,
        List<PersonId> people,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var shared = await (
            from member in db.Members
            where
                people.Contains(member.PersonId)
                && db.Members.Any(mine => mine.GroupId == member.GroupId && mine.PersonId == reader)
            join row in db.Groups on member.GroupId equals row.Id
            select new
            {
                member.PersonId,
                row.Id,
                row.Sort,
            }
        ).ToListAsync(cancellationToken);
        return shared
            .GroupBy(one => one.PersonId, one => (one.Id, one.Sort))
            .ToDictionary(theirs => theirs.Key, theirs => SortRules.WeekIn([.. theirs], group));
    }

    private async Task<HashSet<GroupId>> GroupsOf(PersonId person, CancellationToken cancellationToken) =>
        await db
            .Members.Where(member => member.PersonId == person)
            .Select(member => member.GroupId)
            .ToHashSetAsync(cancellationToken);

    /// <summary>All that takes the time of those who let it be known: what is on the calendars that they brought before themselves.</summary>
    private async Task<ILookup<Participant, TakenTime>> OfOpen(
        EventId? except,
        GroupId? asking,
        IReadOnlyList<PersonId> open,
        Window window,
        Dictionary<PersonId, DateTimeZone> zones,
        CancellationToken cancellationToken
    )
    {
        var reach = await db.StandingsOf(open, cancellationToken);
        var ids = reach.Keys.Select(key => key.Calendar).Distinct().ToList();
        var calendars = await Calendars(ids, window, groups: null, asking, cancellationToken);
        var participants = open.Select(Participant.Of).ToHashSet();
        return TakenTimes
            .In(calendars.Values, window, zones, clock)
            .Where(takenTime =>
                participants.Contains(takenTime.Who)
                && takenTime.Occurrence.Event.Id != except
                && reach.ContainsKey((takenTime.Occurrence.Event.CalendarId, new PersonId(takenTime.Who.Id)))
            )
            .ToLookup(takenTime => takenTime.Who);
    }

    /// <summary>Some calendars with what touches the window, and whose time they may take; of the groups only those who may be known to be in them.</summary>
    private async Task<Dictionary<CalendarId, CountedCalendar>> Calendars(
        List<CalendarId> ids,
        Window window,
        HashSet<GroupId>? groups,
        GroupId? asking,
        CancellationToken cancellationToken
    )
    {
        var rows = await db
            .Calendars.AsNoTracking()
            .Where(row => ids.Contains(row.Id) && row.DeletedAt == null)
            .ToListAsync(cancellationToken);
        var wanted = rows.Where(row => row.Takes == WhoseTime.Group && groups?.Contains(row.GroupId) != false)
            .Select(row => row.GroupId)
            .Distinct()
            .ToList();
        var members = (
            await db
                .Members.Where(member => wanted.Contains(member.GroupId))
                .Select(member => new { member.GroupId, member.PersonId })
                .ToListAsync(cancellationToken)
        ).ToLookup(member => member.GroupId, member => member.PersonId);
        var events = (await db.EventsTouching(ids, window, cancellationToken)).ToLookup(one => one.CalendarId);
        var answers = await db.AnswersIn(ids, window, cancellationToken);
        var willing = groups is null
            ? await db.BroughtThemselves(rows, asking, cancellationToken)
            : await db.WillingIn(rows, asking, cancellationToken);
        return rows.ToDictionary(
            row => row.Id,
            row => Counted(row, members[row.GroupId], events[row.Id], answers, willing)
        );
    }

    /// <summary>The calendars of which only single events are given to the reader.</summary>
    private async Task<IReadOnlyList<CountedCalendar>> Given(
        PersonId reader,
        List<CalendarId> calendars,
        Window window,
        GroupId? asking,
        CancellationToken cancellationToken
    )
    {
        var events = (await db.EventsGiven(reader, calendars, window, cancellationToken)).ToLookup(one =>
            one.CalendarId
        );
        var rows = await db
            .Calendars.AsNoTracking()
            .Where(row => calendars.Contains(row.Id))
            .ToListAsync(cancellationToken);
        var answers = await db.AnswersIn(calendars, window, cancellationToken);
        var willing = await db.WillingIn(rows, asking, cancellationToken);
        return rows.ConvertAll(row => Counted(row, [], events[row.Id], answers, willing).SeenBy(Role.None, reader));
    }

    private static CountedCalendar Counted(
        CalendarRow row,
        IEnumerable<PersonId> group,
        IEnumerable<Event> events,
        ILookup<EventId, GivenAnswer> answers,
        IReadOnlyDictionary<CalendarId, Willing> willing
    ) =>
        new(
            row.Id,
            row.Purpose,
            row.Takes,
            [.. group],
            [.. events.Select(one => CountedEvent.Of(one) with { Answers = [.. answers[one.Id]] })]
        )
        {
            Person = row.Person,
            Willing = willing.GetValueOrDefault(row.Id, Willing.Nobody),
        };
}
