using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>
/// That an event is given to somebody by itself: an index of <see cref="EventRow.GivenTo"/> and
/// <see cref="EventRow.Editors"/> by person, kept by <see cref="MortarDb"/> in the save that changes them.
/// </summary>
public sealed class GivenRow
{
    public required PersonId PersonId { get; init; }

    public required EventId EventId { get; init; }
}

internal sealed class GivenConfiguration : IEntityTypeConfiguration<GivenRow>
{
    public void Configure(EntityTypeBuilder<GivenRow> builder)
    {
        builder.ToTable("Given");
        builder.HasKey(row => new { row.PersonId, row.EventId });
        builder.HasIndex(row => row.EventId);
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}

/// <summary>Reads the events that are given to somebody by themselves.</summary>
public static class GivenQueries
{
    /// <summary>The calendars of which somebody is given an event by itself, whether they reach them or not.</summary>
    public static IQueryable<CalendarId> CalendarsGiving(this MortarDb db, PersonId person) =>
        Of(db, person).Select(row => row.CalendarId).Distinct();

    /// <summary>The events given to somebody by themselves, also deleted ones, whose calendar is not in the bin.</summary>
    public static IQueryable<EventId> EventsGivenTo(this MortarDb db, PersonId person) =>
        from given in db.Given
        where given.PersonId == person
        join row in db.Events on given.EventId equals row.Id
        join home in db.Calendars on row.CalendarId equals home.Id
        where home.DeletedAt == null
        select row.Id;

    /// <summary>The same, as far as another person who looks through their eyes coordinates them.</summary>
    public static async Task<IReadOnlyList<CalendarId>> CalendarsGivingAsSeenBy(
        this MortarDb db,
        PersonId coordinator,
        PersonId whose,
        CancellationToken cancellationToken
    )
    {
        var mine = await db.StandingsOf(coordinator, cancellationToken);
        return
        [
            .. (await db.CalendarsGiving(whose).ToListAsync(cancellationToken)).Where(calendar =>
                AccessRules.ToCoordinate(mine.GetValueOrDefault(calendar, Standing.Outside).Role) == Verdict.Granted
            ),
        ];
    }

    /// <summary>The events given to somebody by themselves that can touch the window, of some calendars.</summary>
    public static async Task<IReadOnlyList<Event>> EventsGiven(
        this MortarDb db,
        PersonId person,
        IReadOnlyCollection<CalendarId> calendars,
        Window window,
        CancellationToken cancellationToken
    )
    {
        if (calendars.Count == 0)
        {
            return [];
        }

        var given = db.Given.Where(row => row.PersonId == person).Select(row => row.EventId);
        return
        [
            .. (
                await db.RowsTouching(calendars, window)
                    .Where(row => given.Contains(row.Id))
                    .ToListAsync(cancellationToken)
            ).Select(row => row.ToCore()),
        ];
    }

    /// <summary>
    /// How many events of some calendars are given to whom by themselves, where nothing else leads them to the calendar.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="calendars">The calendars.</param>
    /// <param name="reaches">Whether somebody reaches one of them.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<ILookup<PersonId, (CalendarId Calendar, int Events)>> GivenAlone(
        this MortarDb db,
        IReadOnlyCollection<CalendarId> calendars,
        Func<CalendarId, PersonId, bool> reaches,
        CancellationToken cancellationToken
    )
    {
        var given = await (
            from one in db.Given
            join row in db.Events on one.EventId equals row.Id
            where calendars.Contains(row.CalendarId) && row.DeletedAt == null
            group one by new { one.PersonId, row.CalendarId } into same
            select new
            {
                same.Key.PersonId,
                same.Key.CalendarId,
                Events = same.Count(),
            }
        ).ToListAsync(cancellationToken);
        // A name without an account reads nothing, whatever it is asked to.
        var numbers = given.Select(one => one.PersonId.Value).Distinct().ToList();
        var accounts = await db
            .Users.Where(account => numbers.Contains(account.Id))
            .Select(account => account.Id)
            .ToHashSetAsync(cancellationToken);
        return given
            .Where(one => accounts.Contains(one.PersonId.Value) && !reaches(one.CalendarId, one.PersonId))
            .ToLookup(one => one.PersonId, one => (one.CalendarId, one.Events));
    }

    /// <summary>Everybody to whom some event of a calendar is given by itself.</summary>
    public static IQueryable<PersonId> GivenIn(this MortarDb db, CalendarId calendar) =>
        (
            from given in db.Given
            join row in db.Events on given.EventId equals row.Id
            where row.CalendarId == calendar
            select given.PersonId
        ).Distinct();

    private static IQueryable<EventRow> Of(MortarDb db, PersonId person) =>
        from given in db.Given
        where given.PersonId == person
        join row in db.Events on given.EventId equals row.Id
        where row.DeletedAt == null
        join home in db.Calendars on row.CalendarId equals home.Id
        where home.DeletedAt == null
        select row;
}
