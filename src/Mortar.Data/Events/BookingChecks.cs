using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>Keeps places that take one booking at a time so. Runs under the write lock, so that of two who book at once one is told.</summary>
internal static class BookingChecks
{
    /// <summary>The refusal where some new bookings take a place at a time at which it is taken; <c>null</c> where they do not.</summary>
    public static Task<Refusal?> WhyTaken(
        this MortarDb db,
        PersonId actor,
        CalendarRow place,
        IReadOnlyCollection<EventRow> rows,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) => db.WhyTaken(actor, place, rows, db, zones, cancellationToken);

    /// <summary>The same where the bookings stand in a store aside.</summary>
    public static async Task<Refusal?> WhyTaken(
        this MortarDb db,
        PersonId actor,
        CalendarRow place,
        IReadOnlyCollection<EventRow> rows,
        MortarDb events,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var added = rows.Where(row => row.CalendarId == place.Id && row.DeletedAt is null)
            .Select(row => row.ToCore())
            .ToList();
        if (!place.OneAtATime || added.Count == 0)
        {
            return null;
        }

        var zone = zones.Zone(place.Zone);
        var today = db.Now.InZone(zone).Date;
        var window = Bookings.Reach(added, zone, today);
        var all = await events.EventsTouching([place.Id], window, cancellationToken);
        var check = Bookings.Check(added, all, window, zones);
        if (check is BookingCheck.TooMany)
        {
            return new Refusal.AgainstRule("too-many-dates", Bookings.TooMany(place.Name));
        }

        if (check is not BookingCheck.Taken taken)
        {
            return null;
        }

        var role = (await db.StandingOf(actor, place.Id, cancellationToken)).Role;
        var reader = await db.ZoneOf(actor, zones, cancellationToken);
        return new Refusal.AgainstRule(
            "taken",
            Bookings.Sentence(
                place.Name,
                taken.Other.SeenIn(reader),
                VisibleEvent.Show(role, actor, taken.Other, reader)?.Title,
                today.Year
            )
        );
    }
}
