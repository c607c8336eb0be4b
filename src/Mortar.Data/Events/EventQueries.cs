using Microsoft.EntityFrameworkCore;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>Reads events for a range.</summary>
public static class EventQueries
{
    /// <summary>Whole days and floating times are indexed as UTC; no zone is further from it than this.</summary>
    internal static readonly Duration Slack = Duration.FromHours(16);

    /// <summary>The events of some calendars that can touch the window, by <c>IX_Events_Range</c>; a few may not when looked at closely.</summary>
    public static async Task<IReadOnlyList<Event>> EventsTouching(
        this MortarDb db,
        IReadOnlyCollection<CalendarId> calendars,
        Window window,
        CancellationToken cancellationToken
    ) => [.. (await db.RowsTouching(calendars, window).ToListAsync(cancellationToken)).Select(row => row.ToCore())];

    /// <summary>The rows behind <see cref="EventsTouching"/>, without their sources.</summary>
    internal static IQueryable<EventRow> RowsTouching(
        this MortarDb db,
        IReadOnlyCollection<CalendarId> calendars,
        Window window
    )
    {
        return db.Events.Where(row => calendars.Contains(row.CalendarId) && row.DeletedAt == null).Touching(window);
    }

    /// <summary>The rows of some calendars that can touch a stretch, with the two instants that say so.</summary>
    internal static IQueryable<EventRow> RowsBetween(
        this MortarDb db,
        IReadOnlyCollection<CalendarId> calendars,
        Instant from,
        Instant to
    ) => db.Events.Where(row => calendars.Contains(row.CalendarId) && row.DeletedAt == null).Between(from, to);

    /// <summary>Those of some rows that can touch a window, without their sources.</summary>
    internal static IQueryable<EventRow> Touching(this IQueryable<EventRow> rows, Window window) =>
        rows.Between(window.Span.Start - Slack, window.Span.End + Slack);

    private static IQueryable<EventRow> Between(this IQueryable<EventRow> rows, Instant from, Instant to) =>
        rows.AsNoTracking()
            .Where(row => row.IndexEnd >= from && row.IndexStart < to)
            .Select(row => new EventRow
            {
                Id = row.Id,
                CalendarId = row.CalendarId,
                Uid = row.Uid,
                AddedBy = row.AddedBy,
                Title = row.Title,
                Place = row.Place,
                Notes = row.Notes,
                ShowAs = row.ShowAs,
                Cancelled = row.Cancelled,
                Attendees = row.Attendees,
                GivenTo = row.GivenTo,
                Editors = row.Editors,
                Kind = row.Kind,
                Private = row.Private,
                Reminder = row.Reminder,
                HidesAttendees = row.HidesAttendees,
                LongestReminder = row.LongestReminder,
                TimeForm = row.TimeForm,
                Start = row.Start,
                End = row.End,
                Zone = row.Zone,
                Series = row.Series,
                IndexStart = row.IndexStart,
                IndexEnd = row.IndexEnd,
                Version = row.Version,
            });
}
