using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>What has to be read before some changes can be told.</summary>
internal sealed class NoticeNeeds
{
    public HashSet<GroupId> Groups { get; } = [];

    public HashSet<PersonId> People { get; } = [];

    public HashSet<EventId> Events { get; } = [];

    public HashSet<ProposalId> Proposals { get; } = [];

    /// <summary>The changes for which the name that their calendar had then is needed.</summary>
    public HashSet<long> CalendarsThen { get; } = [];

    /// <summary>The calendars of groups for which it is needed how the reader has to do with them.</summary>
    public HashSet<CalendarId> Calendars { get; } = [];
}

/// <summary>All that the sentences of some changes need beside the changes themselves, each read once for all of them.</summary>
/// <param name="Reader">Whom they are told.</param>
/// <param name="Zone">On whose clock.</param>
/// <param name="Now">When.</param>
/// <param name="Groups">The names of groups.</param>
/// <param name="People">The names of people.</param>
/// <param name="Events">Events, also deleted ones.</param>
/// <param name="InBin">Their calendars that are in the bin.</param>
/// <param name="Proposals">Proposals for calendars that are there.</param>
/// <param name="CalendarsThen">By the sequence of a change the name that its calendar had then.</param>
/// <param name="Calendars">The steps on calendars: that one has, also in the bin, and that one was given oneself.</param>
/// <param name="MemberSince">By group the sequence of the change with which the reader came to it last.</param>
/// <param name="StepSince">By calendar the sequence of the change with which they got a step of their own last.</param>
internal sealed record NoticeFacts(
    Reader Reader,
    DateTimeZone Zone,
    ZoneClock Zones,
    Instant Now,
    IReadOnlyDictionary<GroupId, string> Groups,
    IReadOnlyDictionary<PersonId, string> People,
    IReadOnlyDictionary<EventId, EventRow> Events,
    IReadOnlySet<CalendarId> InBin,
    IReadOnlyDictionary<ProposalId, ProposalRow> Proposals,
    IReadOnlyDictionary<long, string> CalendarsThen,
    IReadOnlyDictionary<CalendarId, (Role Stands, Role Own)> Calendars,
    IReadOnlyDictionary<GroupId, long> MemberSince,
    IReadOnlyDictionary<CalendarId, long> StepSince
)
{
    /// <summary>Who is told, as Core asks for them.</summary>
    public NoticeReader ToReader() => new(Reader.Person, Reader.RoleOn, Zone, Zones, Now);

    /// <summary>How the reader has to do with a calendar that a change brought to a group, or took from it.</summary>
    public NoticePlace PlaceAt(CalendarId calendar, GroupId group, long sequence)
    {
        var (stands, own) = Calendars.GetValueOrDefault(calendar);
        // Who makes a group comes to it in the same act, whatever is written first.
        var isMember = MemberSince.TryGetValue(group, out var joined) && joined <= sequence;
        // Whoever came later does not learn what was there before them.
        var had = isMember || (StepSince.TryGetValue(calendar, out var got) && got <= sequence);
        return new NoticePlace(isMember, had ? stands : Role.None, own);
    }

    public static async Task<NoticeFacts> Of(
        MortarDb db,
        PersonId person,
        ZoneClock zones,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var needs = new NoticeNeeds();
        foreach (var change in changes)
        {
            change.Kind().NeedForNotice(change, needs);
        }

        var events = await Any(
            needs.Events,
            () =>
                db
                    .Events.AsNoTracking()
                    .Where(row => needs.Events.Contains(row.Id))
                    .ToDictionaryAsync(row => row.Id, cancellationToken)
        );
        var (memberSince, stepSince) =
            needs.Groups.Count == 0 ? ([], []) : await Since(db, person, needs, cancellationToken);
        var homes = events.Values.Select(row => row.CalendarId).ToHashSet();
        return new NoticeFacts(
            await db.ReaderOf(person, cancellationToken),
            await db.ZoneOf(person, zones, cancellationToken),
            zones,
            db.Now,
            await Any(
                needs.Groups,
                () =>
                    db
                        .Groups.Where(row => needs.Groups.Contains(row.Id))
                        .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken)
            ),
            await Any(
                needs.People,
                () =>
                    db
                        .People.Where(row => needs.People.Contains(row.Id))
                        .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken)
            ),
            events,
            homes.Count == 0
                ? new HashSet<CalendarId>()
                : await db
                    .Calendars.Where(row => homes.Contains(row.Id) && row.DeletedAt != null)
                    .Select(row => row.Id)
                    .ToHashSetAsync(cancellationToken),
            await Any(
                needs.Proposals,
                () =>
                    db
                        .Proposals.AsNoTracking()
                        .Where(row =>
                            needs.Proposals.Contains(row.Id)
                            && db.Calendars.Any(home => home.Id == row.CalendarId && home.DeletedAt == null)
                        )
                        .ToDictionaryAsync(row => row.Id, cancellationToken)
            ),
            await NamesThen(db, needs.CalendarsThen, cancellationToken),
            needs.Calendars.Count == 0 ? [] : await StepsOn(db, person, needs.Calendars, cancellationToken),
            memberSince,
            stepSince
        );
    }

    private static async Task<Dictionary<CalendarId, (Role Stands, Role Own)>> StepsOn(
        MortarDb db,
        PersonId person,
        HashSet<CalendarId> calendars,
        CancellationToken cancellationToken
    )
    {
        var there = await db.StandingsOf(person, cancellationToken);
        var inBin = calendars.All(there.ContainsKey)
            ? new Dictionary<CalendarId, Standing>()
            : await db.StandingsInBin(person, cancellationToken);
        return calendars.ToDictionary(
            calendar => calendar,
            calendar =>
            {
                var standing = there.GetValueOrDefault(calendar, inBin.GetValueOrDefault(calendar, Standing.Outside));
                var own = standing.Grants.Where(grant => grant.Way == Way.Own).Select(grant => grant.Role);
                return (standing.Role, own.DefaultIfEmpty().Max());
            }
        );
    }

    /// <summary>Since which change a reader has been in some groups, and has had steps of their own on some calendars.</summary>
    private static async Task<(Dictionary<GroupId, long> Groups, Dictionary<CalendarId, long> Calendars)> Since(
        MortarDb db,
        PersonId person,
        NoticeNeeds needs,
        CancellationToken cancellationToken
    )
    {
        var (groups, calendars) = (needs.Groups, needs.Calendars);
        var changes = await db
            .Changes.AsNoTracking()
            .Where(change =>
                change.Concerns == person
                && (
                    (
                        change.Subject == Subject.Member
                        && change.GroupId != null
                        && groups.Contains(change.GroupId.Value)
                    )
                    || (
                        change.Subject == Subject.Grant
                        && change.CalendarId != null
                        && calendars.Contains(change.CalendarId.Value)
                    )
                )
            )
            .OrderBy(change => change.Sequence)
            .ToListAsync(cancellationToken);
        var (members, steps) = (new Dictionary<GroupId, long>(), new Dictionary<CalendarId, long>());
        foreach (var change in changes)
        {
            if (change.Subject == Subject.Member)
            {
                Note(members, change.GroupId!.Value, change, IsMember);
            }
            else
            {
                Note(steps, change.CalendarId!.Value, change, HasStep);
            }
        }

        return (members, steps);

        static void Note<TKey>(Dictionary<TKey, long> since, TKey key, ChangeRow change, Func<string?, bool> isIn)
            where TKey : notnull
        {
            if (!isIn(change.After))
            {
                since.Remove(key);
            }
            else if (!isIn(change.Before))
            {
                since[key] = change.Sequence;
            }
        }

        static bool IsMember(string? state) =>
            state is not null && StoredText.Read<MemberRow>(state).Place() == MemberPlace.Member;

        static bool HasStep(string? state) => state is not null && StoredText.Read<GrantRow>(state).Role != Role.None;
    }

    /// <summary>An event while its reader finds it, also where it is deleted; <c>null</c> where they do not.</summary>
    public Event? Found(EventId id) =>
        Events.GetValueOrDefault(id) is { } row
        && !InBin.Contains(row.CalendarId)
        && row.ToCore() is var whole
        && VisibleEvent.IsThere(Reader.RoleOn(whole.CalendarId), Reader.Person, whole)
            ? whole
            : null;

    /// <summary>When something is, on the reader's clock.</summary>
    public string When(EventTime time) => NoticeSentence.When(time, Zone, Now, Zones);

    /// <summary>Asks only where there is something to ask for.</summary>
    private static async Task<Dictionary<TKey, TValue>> Any<TKey, TValue>(
        HashSet<TKey> keys,
        Func<Task<Dictionary<TKey, TValue>>> read
    )
        where TKey : notnull => keys.Count == 0 ? [] : await read();

    /// <summary>The names of calendars at the time of changes: somebody whose access ended does not learn later ones.</summary>
    private static async Task<Dictionary<long, string>> NamesThen(
        MortarDb db,
        HashSet<long> sequences,
        CancellationToken cancellationToken
    )
    {
        var states = await Any(
            sequences,
            () =>
                db
                    .Changes.Where(change => sequences.Contains(change.Sequence))
                    .Select(change => new
                    {
                        change.Sequence,
                        State = db
                            .Changes.Where(row =>
                                row.CalendarId == change.CalendarId
                                && row.Subject == Subject.Calendar
                                // What is made together with its calendar may be written before it.
                                && (row.Sequence <= change.Sequence || row.Set == change.Set)
                            )
                            .OrderByDescending(row => row.Sequence)
                            .Select(row => row.After)
                            .FirstOrDefault(),
                    })
                    .ToDictionaryAsync(one => one.Sequence, one => one.State, cancellationToken)
        );
        return states.ToDictionary(
            one => one.Key,
            one => one.Value is { } state ? StoredText.Read<CalendarRow>(state).Name : "a calendar"
        );
    }
}
