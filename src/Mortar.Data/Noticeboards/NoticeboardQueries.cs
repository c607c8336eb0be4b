using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Data.Noticeboards;

/// <summary>Finds noticeboards.</summary>
public static class NoticeboardQueries
{
    /// <summary>Whether the world reads it now.</summary>
    public static async Task<bool> IsRead(this MortarDb db, NoticeboardRow row, CancellationToken cancellationToken) =>
        (await db.ReadAmong([row], cancellationToken)).Count > 0;

    /// <summary>Those of some that the world reads now; each keeper's steps are read once.</summary>
    public static async Task<IReadOnlyList<NoticeboardRow>> ReadAmong(
        this MortarDb db,
        IEnumerable<NoticeboardRow> rows,
        CancellationToken cancellationToken
    )
    {
        var open = rows.Where(row => row is { EndedAt: null, State: BoardState.Open }).ToList();
        var ids = open.Select(row => row.GroupId).Distinct().ToList();
        var groups = await db
            .Groups.AsNoTracking()
            .Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, cancellationToken);
        var read = new List<NoticeboardRow>();
        foreach (var kept in open.GroupBy(row => row.Keeper))
        {
            var keeper = await db.ReaderOf(kept.Key, cancellationToken);
            read.AddRange(
                kept.Where(row =>
                    NoticeboardRules.IsRead(
                        row.State,
                        groups[row.GroupId].State(),
                        row.Calendars.Select(id => keeper.RoleOn(new CalendarId(id)))
                    )
                )
            );
        }

        return read;
    }

    /// <summary>Those of its calendars that are not its keeper's to show any more; what is off the walls with its group still is.</summary>
    public static async Task<IReadOnlyList<CalendarId>> LostOn(
        this MortarDb db,
        NoticeboardRow row,
        CancellationToken cancellationToken
    )
    {
        var ids = row.Calendars.Select(id => new CalendarId(id)).ToList();
        var there = await db.StandingsOf(row.Keeper, cancellationToken);
        var ended = await db.StandingsWithGroup(
            row.Keeper,
            db.Calendars.Where(one => ids.Contains(one.Id)),
            cancellationToken
        );
        return ids.FindAll(id =>
            NoticeboardRules.IsLost(
                BoardState.Open,
                [there.GetValueOrDefault(id, ended.GetValueOrDefault(id, Standing.Outside)).Role]
            )
        );
    }

    /// <summary>The noticeboards that are there and that somebody finds on the pages of a group: kept there, or with a calendar of it.</summary>
    public static async Task<IReadOnlyList<NoticeboardRow>> NoticeboardsOf(
        this MortarDb db,
        PersonId person,
        GroupId group,
        CancellationToken cancellationToken
    )
    {
        var ofGroup = await db
            .Calendars.Where(row => row.GroupId == group && row.DeletedAt == null)
            .Select(row => row.Id.Value)
            .ToListAsync(cancellationToken);
        var rows = await db
            .Noticeboards.AsNoTracking()
            .Where(row => row.EndedAt == null)
            .Where(row => row.GroupId == group || row.Calendars.Any(id => ofGroup.Contains(id)))
            .OrderBy(row => row.Id)
            .ToListAsync(cancellationToken);
        var reader = await db.ReaderOf(person, cancellationToken);
        return
        [
            .. rows.Where(row =>
                NoticeboardRules.MayFind(
                    row.Keeper == person,
                    row.State,
                    row.Calendars.Select(id => new CalendarId(id)),
                    reader
                )
            ),
        ];
    }

    /// <summary>One that somebody finds; <c>null</c> where there is none for them.</summary>
    public static async Task<NoticeboardRow?> NoticeboardFor(
        this MortarDb db,
        PersonId person,
        NoticeboardId id,
        CancellationToken cancellationToken
    ) =>
        await db
            .Noticeboards.AsNoTracking()
            .FirstOrDefaultAsync(row => row.Id == id && row.EndedAt == null, cancellationToken)
            is { } row
        && NoticeboardRules.MayFind(
            row.Keeper == person,
            row.State,
            row.Calendars.Select(one => new CalendarId(one)),
            await db.ReaderOf(person, cancellationToken)
        )
            ? row
            : null;

    /// <summary>How often it was opened on each of some days, the newest last.</summary>
    public static async Task<IReadOnlyList<int>> OpensOf(
        this MortarDb db,
        NoticeboardId id,
        LocalDate last,
        int days,
        CancellationToken cancellationToken
    )
    {
        var all = Enumerable
            .Range(0, days)
            .Select(back => LocalDatePattern.Iso.Format(last.PlusDays(back - days + 1)))
            .ToList();
        var counted = await db
            .NoticeboardOpens.Where(row => row.NoticeboardId == id && all.Contains(row.Day))
            .ToDictionaryAsync(row => row.Day, row => row.Opens, cancellationToken);
        return all.ConvertAll(day => counted.GetValueOrDefault(day));
    }

    /// <summary>Forgets how often noticeboards were opened before a day.</summary>
    internal static Task<int> ForgetOpens(this MortarDb db, Instant before, CancellationToken cancellationToken)
    {
        var first = LocalDatePattern.Iso.Format(before.InUtc().Date);
        return db.Database.ExecuteSqlAsync($"DELETE FROM NoticeboardOpens WHERE Day < {first}", cancellationToken);
    }

    /// <summary>The calendars of a noticeboard that are there.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, CalendarRow>> CalendarsOf(
        this MortarDb db,
        Noticeboard board,
        CancellationToken cancellationToken
    )
    {
        var ids = board.Layers.Select(layer => layer.CalendarId).ToList();
        return await db
            .Calendars.AsNoTracking()
            .Where(row => ids.Contains(row.Id) && row.DeletedAt == null)
            .ToDictionaryAsync(row => row.Id, cancellationToken);
    }
}
