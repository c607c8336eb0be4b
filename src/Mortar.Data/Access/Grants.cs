using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>What commands that give access have in common.</summary>
internal static class Grants
{
    /// <summary>Somebody's own grant on a calendar, made with no step where there is none yet.</summary>
    public static async Task<GrantRow> GrantOf(
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

    /// <summary>When access to a calendar up to a last day is over, by the calendar's clock; or what is wrong with the day.</summary>
    public static async Task<(Instant? EndsAt, FieldProblem? Problem)> EndOf(
        this MortarDb db,
        CalendarId calendarId,
        LocalDate? lastDay,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (lastDay is not { } day)
        {
            return (null, null);
        }

        var zone = zones.Zone(
            await db
                .Calendars.Where(calendar => calendar.Id == calendarId)
                .Select(calendar => calendar.Zone)
                .SingleAsync(cancellationToken)
        );
        return (AccessEnd.After(day, zone), AccessEnd.Problem(day, db.Now, zone));
    }

    /// <summary>The refusal for somebody who does not coordinate a calendar; <c>null</c> for who does.</summary>
    public static async Task<Outcome<T>?> WhyNotCoordinate<T>(
        this MortarDb db,
        PersonId person,
        CalendarId calendarId,
        CancellationToken cancellationToken
    ) =>
        AccessRules
            .ToCoordinate((await db.StandingOf(person, calendarId, cancellationToken)).Role)
            .Refusal<T>("calendar", "Coordinate");
}
