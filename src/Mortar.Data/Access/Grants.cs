using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>What commands that give access have in common.</summary>
public static class Grants
{
    /// <summary>Somebody's own grant on a calendar, made with no step where there is none yet.</summary>
    internal static async Task<GrantRow> GrantOf(
        this MortarDb db,
        CalendarId calendarId,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.Grants.FirstOrDefaultAsync(
                grant => grant.CalendarId == calendarId && grant.PersonId == person,
                cancellationToken
            ) is
            { } known
        )
        {
            return known;
        }

        var grant = new GrantRow
        {
            Id = Guid.CreateVersion7(),
            CalendarId = calendarId,
            PersonId = person,
            Role = Role.None,
        };
        db.Grants.Add(grant);
        return grant;
    }

    /// <summary>Somebody at a calendar to which they want to give access; one of no standing where there is none.</summary>
    internal static async Task<Giver> GiverOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendarId,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var calendar = await db
            .Calendars.Where(row => row.Id == calendarId)
            .Select(row => new { row.Zone, row.FromWeb })
            .SingleOrDefaultAsync(cancellationToken);
        return new Giver(
            person,
            await db.StandingOf(person, calendarId, cancellationToken),
            calendar is null ? DateTimeZone.Utc : zones.Zone(calendar.Zone),
            db.Now,
            calendar?.FromWeb == true
        );
    }

    /// <summary>The refusal for somebody who may not give a step up to an end on a calendar; <c>null</c> for who may.</summary>
    internal static async Task<Refusal?> WhyNotGive(
        this MortarDb db,
        PersonId giver,
        CalendarId calendarId,
        Grant wish,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) => (await db.GiverOf(giver, calendarId, zones, cancellationToken)).WhyNot(wish);

    /// <summary>Invitations that wait and still lead somewhere: whoever sent them may still give what they promise.</summary>
    public static IQueryable<InvitationRow> StandingInvitations(this MortarDb db)
    {
        var now = db.Now;
        return db.Invitations.Where(row =>
            row.State == InvitationState.Waiting
            && db.Calendars.Any(calendar => calendar.Id == row.CalendarId && calendar.DeletedAt == null)
            && db.Grants.Any(grant =>
                grant.CalendarId == row.CalendarId
                && grant.PersonId == row.InvitedBy
                && grant.Role == Role.Coordinate
                && (grant.EndsAt == null || (grant.EndsAt > now && row.EndsAt != null && row.EndsAt <= grant.EndsAt))
            )
        );
    }

    /// <summary>The refusal for somebody who does not coordinate a calendar; <c>null</c> for who does.</summary>
    internal static async Task<Refusal?> WhyNotCoordinate(
        this MortarDb db,
        PersonId person,
        CalendarId calendarId,
        CancellationToken cancellationToken
    ) =>
        AccessRules
            .ToCoordinate((await db.StandingOf(person, calendarId, cancellationToken)).Role)
            .WhyNot("calendar", "Coordinate");
}
