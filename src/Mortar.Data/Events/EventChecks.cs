using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>Why somebody may not do something with an event; <c>null</c> where they may.</summary>
public static class EventChecks
{
    /// <summary>To delete it, move it away, hand it over or give it to others.</summary>
    internal static Task<Outcome<EventRow>?> WhyNotGiveAway(
        this MortarDb db,
        PersonId actor,
        EventRow row,
        int? version,
        CancellationToken cancellationToken
    ) => db.WhyNot(row, version, role => AccessRules.ToGiveAway(role, actor, row.ToCore()), actor, cancellationToken);

    /// <summary>To agree to it, or not, where it waits for that.</summary>
    internal static Task<Outcome<EventRow>?> WhyNotAgree(
        this MortarDb db,
        PersonId actor,
        EventRow row,
        int? version,
        CancellationToken cancellationToken
    ) => db.WhyNot(row, version, Agreement.ToAgree, actor, cancellationToken, needs: "Coordinate");

    /// <summary>An event as Core decides of it.</summary>
    internal static async Task<StoredEvent> Stored(
        this MortarDb db,
        EventRow row,
        Reader reader,
        CancellationToken cancellationToken
    ) =>
        new(
            row.ToCore(),
            row.DeletedAt is not null,
            await db.IsGone(row, reader.RoleOn(row.CalendarId), cancellationToken)
        );

    /// <summary>The same for one that may never have been: the time it takes does not tell.</summary>
    internal static async Task<StoredEvent?> StoredOrNone(
        this MortarDb db,
        EventRow? row,
        Reader reader,
        CancellationToken cancellationToken
    )
    {
        if (row is not null)
        {
            return await db.Stored(row, reader, cancellationToken);
        }

        _ = await db.IsGone(default(CalendarId), Role.None, cancellationToken);
        return null;
    }

    /// <summary>Those named who are neither in the group of the calendar, nor its guests, nor have access by another way.</summary>
    internal static async Task<IReadOnlyCollection<PersonId>> StrangersAmong(
        this MortarDb db,
        IEnumerable<PersonId> named,
        CalendarRow calendar,
        CancellationToken cancellationToken
    )
    {
        var strangers = named.ToHashSet();
        if (strangers.Count > 0)
        {
            strangers.ExceptWith(await db.ReadersOf(calendar.Id, cancellationToken));
            strangers.ExceptWith(
                await db
                    .Members.Where(member => member.GroupId == calendar.GroupId)
                    .Select(member => member.PersonId)
                    .ToListAsync(cancellationToken)
            );
            strangers.ExceptWith(
                await db
                    .Guests.Where(guest => guest.GroupId == calendar.GroupId)
                    .Select(guest => guest.PersonId)
                    .ToListAsync(cancellationToken)
            );
        }

        return strangers;
    }

    private static async Task<Outcome<EventRow>?> WhyNot(
        this MortarDb db,
        EventRow row,
        int? version,
        Func<Role, Verdict> verdict,
        PersonId actor,
        CancellationToken cancellationToken,
        string needs = "Edit"
    )
    {
        var reader = await db.ReaderOf(actor, cancellationToken);
        var stored = await db.Stored(row, reader, cancellationToken);
        return stored.WhyNot(verdict(reader.RoleOn(row.CalendarId)), version, row, needs);
    }

    /// <summary>
    /// An event, with the step that somebody has on its calendar, where it is there for them. What is hidden from them is
    /// looked for as long as what was never there: the time tells neither.
    /// </summary>
    public static async Task<(EventRow Row, Role Role)?> EventFor(
        this MortarDb db,
        PersonId person,
        EventId id,
        CancellationToken cancellationToken
    )
    {
        var row = await db
            .Events.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Id == id && one.DeletedAt == null, cancellationToken);
        var home = row?.CalendarId ?? default;
        var role = (await db.StandingOf(person, home, cancellationToken)).Role;
        var isGone = await db.IsGone(home, role, cancellationToken);
        return row is not null && !isGone && VisibleEvent.IsThere(role, person, row.ToCore()) ? (row, role) : null;
    }

    /// <summary>The answer where there is no such event. It takes as long as where one is hidden: the time tells neither.</summary>
    internal static async Task<Refusal> NoEvent(this MortarDb db, PersonId person, CancellationToken cancellationToken)
    {
        _ = await db.StoredOrNone(row: null, await db.ReaderOf(person, cancellationToken), cancellationToken);
        return new Refusal.NotThere("event");
    }

    /// <summary>An event given by itself goes with its calendar to the bin, where nobody has a step that says so.</summary>
    public static Task<bool> IsGone(this MortarDb db, EventRow row, Role role, CancellationToken cancellationToken) =>
        db.IsGone(row.CalendarId, role, cancellationToken);

    private static async Task<bool> IsGone(
        this MortarDb db,
        CalendarId home,
        Role role,
        CancellationToken cancellationToken
    ) =>
        role == Role.None
        && await db.Calendars.AnyAsync(
            calendar => calendar.Id == home && calendar.DeletedAt != null,
            cancellationToken
        );
}
