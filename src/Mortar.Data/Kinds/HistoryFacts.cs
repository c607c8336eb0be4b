using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Links;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>What the lines of a history need beside the changes themselves, each read once for all of them.</summary>
/// <param name="Names">The names of people.</param>
/// <param name="Groups">The names of groups that were given a calendar.</param>
/// <param name="Links">The terms of the calendars' links as they are now.</param>
/// <param name="ZoneOf">The zones of the calendars, in which last days are told.</param>
internal sealed record HistoryFacts(
    ZoneClock Zones,
    IReadOnlyDictionary<PersonId, string> Names,
    IReadOnlyDictionary<GroupId, string> Groups,
    IReadOnlyDictionary<LinkId, LinkTerms> Links,
    IReadOnlyDictionary<CalendarId, string> ZoneOf
)
{
    public static async Task<HistoryFacts> Of(
        MortarDb db,
        ZoneClock zones,
        IReadOnlyList<ChangeRow> changes,
        IReadOnlyCollection<CalendarId> calendars,
        CancellationToken cancellationToken
    )
    {
        var people = changes.SelectMany(change => change.Kind().About(change).Append(change.Actor)).ToHashSet();
        var groups = db
            .GroupGrants.Where(grant => calendars.Contains(grant.CalendarId))
            .Select(grant => grant.GroupId)
            .Distinct();
        return new HistoryFacts(
            zones,
            await db
                .People.Where(row => people.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken),
            await db
                .Groups.Where(row => groups.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken),
            await db
                .Links.Where(row => calendars.Contains(row.CalendarId))
                .ToDictionaryAsync(row => row.Id, row => row.Terms(), cancellationToken),
            await db
                .Calendars.Where(row => calendars.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Zone, cancellationToken)
        );
    }

    public string NameOf(PersonId id) => Names.GetValueOrDefault(id, "somebody");

    /// <summary>Somebody's name; <c>null</c> where they did it themselves.</summary>
    public string? Whom(PersonId id, ChangeRow change) => id == change.Actor ? null : NameOf(id);

    /// <summary>A step with its last day, where it ends.</summary>
    public (Role Role, LocalDate? LastDay) Step(ChangeRow change, Role? role, Instant? end) =>
        (role ?? Role.None, end is { } at ? AccessEnd.LastDay(at, Zones.Zone(ZoneOf[change.CalendarId!.Value])) : null);
}
