using Microsoft.EntityFrameworkCore;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.WebCalendars;

/// <summary>A calendar that has not got what was fetched last.</summary>
/// <param name="Applied">The digest of the file that is in it; <c>null</c> for none.</param>
public sealed record StaleWebCalendar(CalendarId Id, string Zone, string? Applied);

/// <summary>Finds web calendars and where they come from.</summary>
public static class WebCalendarQueries
{
    /// <summary>The source of a calendar; <c>null</c> where its events do not come from the web.</summary>
    public static Task<WebSourceRow?> WebSourceOf(
        this MortarDb db,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        (
            from web in db.WebCalendars.AsNoTracking()
            where web.CalendarId == calendar
            join source in db.WebSources.AsNoTracking() on web.SourceId equals source.Id
            select source
        ).FirstOrDefaultAsync(cancellationToken);

    /// <summary>The sources that are to be fetched by now, and from which a calendar comes that is there; the longest due first.</summary>
    public static async Task<IReadOnlyList<WebSourceRow>> DueWebSources(
        this MortarDb db,
        Instant now,
        int most,
        CancellationToken cancellationToken
    )
    {
        // What is due later than it is ever put off was put off by a clock that was ahead.
        var latest = now + FetchRhythm.Longest;
        return await db
            .WebSources.AsNoTracking()
            .Where(source =>
                (source.DueAt <= now || source.DueAt > latest)
                && db.WebCalendars.Any(web =>
                    web.SourceId == source.Id
                    && db.Calendars.Any(row => row.Id == web.CalendarId && row.DeletedAt == null)
                )
            )
            .OrderBy(source => source.DueAt)
            .Take(most)
            .ToListAsync(cancellationToken);
    }

    /// <summary>The sources from which something was fetched that a calendar has not got: the taking over was ended in the middle.</summary>
    public static async Task<IReadOnlyList<Guid>> UnfinishedWebSources(
        this MortarDb db,
        CancellationToken cancellationToken
    ) =>
        await (
            from web in db.WebCalendars
            join origin in db.WebSources on web.SourceId equals origin.Id
            where origin.Digest != null && web.Applied != origin.Digest
            where db.Calendars.Any(row => row.Id == web.CalendarId && row.DeletedAt == null)
            select origin.Id
        )
            .Distinct()
            .ToListAsync(cancellationToken);

    /// <summary>The calendars that are there and have not got what was fetched last from a source.</summary>
    public static async Task<IReadOnlyList<StaleWebCalendar>> StaleWebCalendars(
        this MortarDb db,
        Guid source,
        CancellationToken cancellationToken
    ) =>
        await (
            from web in db.WebCalendars
            join origin in db.WebSources on web.SourceId equals origin.Id
            where origin.Id == source && origin.Digest != null && web.Applied != origin.Digest
            join row in db.Calendars on web.CalendarId equals row.Id
            where row.DeletedAt == null
            orderby row.Id
            select new StaleWebCalendar(row.Id, row.Zone, web.Applied)
        ).ToListAsync(cancellationToken);

    /// <summary>What was fetched last, packed, with its digest; <c>null</c> where nothing was.</summary>
    public static async Task<(string Digest, byte[] Packed)?> WebFileOf(
        this MortarDb db,
        Guid source,
        CancellationToken cancellationToken
    ) =>
        await (
            from one in db.WebSources.AsNoTracking()
            where one.Id == source && one.Digest != null
            join file in db.WebFiles.AsNoTracking() on one.Id equals file.SourceId
            select new { one.Digest, file.Packed }
        ).FirstOrDefaultAsync(cancellationToken)
            is { } found
            ? (found.Digest!, found.Packed)
            : null;
}
