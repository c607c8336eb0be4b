using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>What somebody did to one thing, as a history says it.</summary>
/// <param name="About">What it was done to: a title or a name; empty where it has none.</param>
/// <param name="What">What was done, as words that follow the name of who did it.</param>
/// <param name="Event">The event it is about, where it is about one that is there.</param>
public sealed record Deed(string About, IReadOnlyList<string> What, EventId? Event = null);

/// <summary>What has to be read before deeds can be told to somebody, each once for all of them.</summary>
internal sealed record DeedFacts(
    Reader Reader,
    DateTimeZone Zone,
    HistoryFacts Access,
    IReadOnlyDictionary<CalendarId, string> Calendars,
    IReadOnlyDictionary<GroupId, string> Groups,
    IReadOnlySet<GroupId> Kept,
    IReadOnlyDictionary<EventId, EventRow> Events,
    IReadOnlyDictionary<ProposalId, ProposalRow> Proposals
)
{
    public ZoneClock Zones => Access.Zones;

    /// <summary>Whether the reader keeps what a change is about: coordinates its calendar, or its group.</summary>
    public bool Keeps(ChangeRow change) =>
        change.CalendarId is { } calendar
            ? AccessRules.ToCoordinate(Reader.RoleOn(calendar)) == Verdict.Granted
            : change.GroupId is { } group && Kept.Contains(group);

    /// <summary>Whether the reader did it themselves and is still where it was.</summary>
    public bool IsOwn(ChangeRow change) =>
        change.Actor == Reader.Person
        && (
            change.CalendarId is { } calendar
                ? Reader.RoleOn(calendar) > Role.None
                : change.GroupId is not { } group || Groups.ContainsKey(group)
        );

    /// <summary>The title of an event as the reader knows it; <c>null</c> where it is not there for them.</summary>
    public string? TitleOf(EventId id) =>
        Events.GetValueOrDefault(id) is { } row
        && row.ToCore() is var whole
        && VisibleEvent.Known(Reader.RoleOn(row.CalendarId), Reader.Person, whole) is { } known
            ? known.Content.Title
            : null;

    public static async Task<DeedFacts> Of(
        MortarDb db,
        ZoneClock zones,
        Reader reader,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var person = reader.Person;
        var places = await db
            .Members.Where(member => member.PersonId == person)
            .Select(member => new { member.GroupId, member.Coordinates })
            .ToListAsync(cancellationToken);
        var calendars = changes
            .Select(change => change.CalendarId)
            .OfType<CalendarId>()
            .Where(calendar => reader.RoleOn(calendar) > Role.None)
            .ToHashSet();
        var groups = places.Select(place => place.GroupId).ToHashSet();
        var needs = new DeedNeeds();
        foreach (var change in changes)
        {
            change.Kind().NeedForDeed(change, needs);
        }

        return new DeedFacts(
            reader,
            await db.ZoneOf(person, zones, cancellationToken),
            await HistoryFacts.Of(db, zones, changes, calendars, cancellationToken),
            await db
                .Calendars.Where(row => calendars.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken),
            await db
                .Groups.Where(row => groups.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken),
            places.Where(place => place.Coordinates).Select(place => place.GroupId).ToHashSet(),
            await db
                .Events.AsNoTracking()
                .Where(row => needs.Events.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, cancellationToken),
            await db
                .Proposals.AsNoTracking()
                .Where(row => needs.Proposals.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, cancellationToken)
        );
    }
}

/// <summary>What some changes are about beside themselves.</summary>
internal sealed class DeedNeeds
{
    public HashSet<EventId> Events { get; } = [];

    public HashSet<ProposalId> Proposals { get; } = [];
}
