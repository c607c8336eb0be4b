using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>Finds the calendar that something is written into, as a wish finds it.</summary>
internal static class WishedCalendars
{
    /// <summary>
    /// The calendar something is written into, where any step or the event itself leads to it: of one that is hidden no more
    /// is looked for than of one that never was, so that the time tells neither.
    /// </summary>
    public static async Task<CalendarRow?> Reached(
        this MortarDb db,
        Reader writer,
        CalendarId id,
        EventRow? row,
        CancellationToken cancellationToken
    )
    {
        var role = writer.RoleOn(id);
        var isReached =
            role > Role.None || (row?.CalendarId == id && VisibleEvent.IsThere(role, writer.Person, row.ToCore()));
        return isReached
            ? await db.Calendars.AsNoTracking().FirstOrDefaultAsync(one => one.Id == id, cancellationToken)
            : null;
    }

    /// <summary>It with what a wish has to know of it.</summary>
    /// <param name="db">The store.</param>
    /// <param name="into">The calendar.</param>
    /// <param name="newlyNamed">Those whom the wish names.</param>
    /// <param name="row">The event that is changed; <c>null</c> for a new one.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<WishedCalendar?> Wished(
        this MortarDb db,
        CalendarRow? into,
        IReadOnlyList<PersonId> newlyNamed,
        EventRow? row,
        CancellationToken cancellationToken
    ) =>
        into?.ToCore(
            await db.StrangersAmong(newlyNamed, into, cancellationToken),
            row is not null
                && row.CalendarId != into.Id
                && await db.Events.AnyAsync(
                    one => one.CalendarId == into.Id && one.Uid == row.Uid && one.DeletedAt == null,
                    cancellationToken
                )
        );
}
