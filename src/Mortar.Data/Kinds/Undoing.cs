using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Who takes something back, and what they may now.</summary>
/// <param name="Db">The store.</param>
/// <param name="Zones">The clock of zones.</param>
/// <param name="Actor">Who.</param>
/// <param name="Standings">Where they stand now with the calendars there are, and those in the bin.</param>
/// <param name="Vanishing">The events that were made by the same act: what was said to them goes with them.</param>
internal sealed record Undoing(
    MortarDb Db,
    ZoneClock Zones,
    PersonId Actor,
    IReadOnlyDictionary<CalendarId, Standing> Standings,
    IReadOnlySet<EventId> Vanishing
)
{
    public Standing StandingOn(CalendarId calendar) => Standings.GetValueOrDefault(calendar, Standing.Outside);

    public Role RoleOn(CalendarId calendar) => StandingOn(calendar).Role;

    /// <summary>Why they may not bring a step on a calendar back; what it would give is judged as if they gave it now.</summary>
    /// <param name="calendar">The calendar.</param>
    /// <param name="wish">What it would give; <c>null</c> for nothing.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Refusal?> WhyNotGive(CalendarId calendar, Grant? wish, CancellationToken cancellationToken)
    {
        var standing = StandingOn(calendar);
        return AccessRules.ToCoordinate(standing.Role).WhyNot("change", "Coordinate")
            ?? (
                wish is not { } grant || Giving.MayGive(standing, grant, Db.Now)
                    ? null
                    : await Db.WhyNotGive(Actor, calendar, grant, Zones, cancellationToken)
            );
    }

    /// <summary>Their own place in a group; <c>null</c> where they are not in it.</summary>
    public Task<MemberRow?> PlaceIn(GroupId group, CancellationToken cancellationToken) =>
        Db
            .Members.AsNoTracking()
            .FirstOrDefaultAsync(member => member.GroupId == group && member.PersonId == Actor, cancellationToken);
}
