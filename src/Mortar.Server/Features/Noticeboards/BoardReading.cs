using Microsoft.EntityFrameworkCore;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Noticeboards;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>All that a noticeboard shows in its reach.</summary>
/// <param name="Entries">What is in it.</param>
/// <param name="Reach">From when to when.</param>
internal sealed record BoardContents(IReadOnlyList<BoardEntry> Entries, Interval Reach);

/// <summary>Reads what a noticeboard shows: for the world, and by the same path for who makes it before the world sees it.</summary>
internal sealed class BoardReading(MortarDb db, WindowReader reader, ZoneClock zones, PublicLinks links, IClock clock)
{
    /// <summary>A page of it.</summary>
    /// <param name="board">What it shows.</param>
    /// <param name="group">The group it is kept in: its weeks begin as that one's do.</param>
    /// <param name="address">Where it is found.</param>
    /// <param name="ask">What is asked for.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<BoardModel> Page(
        Noticeboard board,
        GroupId group,
        string address,
        BoardAsk ask,
        CancellationToken cancellationToken
    )
    {
        var firstDay = await db
            .Groups.Where(row => row.Id == group)
            .Select(row => row.FirstDay)
            .SingleAsync(cancellationToken);
        var (now, zone) = (clock.GetCurrentInstant(), ZoneOf(board, ask));
        var today = now.InZone(zone).Date;
        var page = BoardPage.At(board, ask.View, ask.At, today, firstDay);
        var (from, to) = page.Drawn(board, today, firstDay);
        var (calendars, entries) = await Read(board, new Window(from, to, zone), cancellationToken);
        var days = page.Days(entries, now, firstDay, out page);
        return new BoardModel(
            board,
            address,
            ask,
            page,
            days,
            calendars,
            await NamesIn(days.SelectMany(day => day.Entries), cancellationToken),
            links,
            zone,
            today
        );
    }

    /// <summary>One event of it within its reach; <c>null</c> where it shows none such.</summary>
    public async Task<(BoardModel Model, BoardEntry Entry)?> Event(
        NoticeboardRow row,
        BoardAsk ask,
        EventId id,
        LocalDateTime? start,
        CancellationToken cancellationToken
    )
    {
        var (model, contents) = await All(row, ask, cancellationToken);
        var mine = contents.Entries.Where(one => one.Event == id).OrderBy(one => one.Span.Start).ToList();

        // A series whose date is not said is shown by its next one.
        var now = clock.GetCurrentInstant();
        var entry = start is null
            ? mine.Find(one => one.Span.End > now) ?? mine.LastOrDefault()
            : mine.Find(one => one.Occurrence == start);
        return entry is null ? null : (model, entry);
    }

    /// <summary>All of it, and the model by which files and pages of single events tell of it.</summary>
    public async Task<(BoardModel Model, BoardContents Contents)> All(
        NoticeboardRow row,
        BoardAsk ask,
        CancellationToken cancellationToken
    )
    {
        var board = row.ToCore();
        var zone = ZoneOf(board, ask);
        var today = clock.GetCurrentInstant().InZone(zone).Date;
        var (first, last) = BoardPage.Reach(board, today);
        var window = new Window(first, last, zone);
        var (calendars, entries) = await Read(board, window, cancellationToken);
        var model = new BoardModel(
            board,
            row.Address,
            ask,
            new BoardPage(BoardView.Next, first, last, Earlier: null, Later: null),
            [],
            calendars,
            await NamesIn(entries, cancellationToken),
            links,
            zone,
            today
        );
        return (model, new BoardContents(entries, window.Span));
    }

    /// <summary>What the world will find, counted over all that it shows.</summary>
    public async Task<BoardCount> Count(Noticeboard board, CancellationToken cancellationToken)
    {
        var zone = zones.Zone(board.Zone);
        var today = clock.GetCurrentInstant().InZone(zone).Date;
        var (first, last) = BoardPage.Reach(board, today);
        var (_, entries) = await Read(board, new Window(first, last, zone), cancellationToken);
        return BoardCount.Of(entries);
    }

    private DateTimeZone ZoneOf(Noticeboard board, BoardAsk ask) =>
        zones.Zone(ask.Zone is { } wished && zones.Knows(wished) ? wished : board.Zone);

    private async Task<(IReadOnlyDictionary<CalendarId, BoardCalendar> Calendars, List<BoardEntry> Entries)> Read(
        Noticeboard board,
        Window window,
        CancellationToken cancellationToken
    )
    {
        var rows = await db.CalendarsOf(board, cancellationToken);
        var layers = board.Layers.Where(layer => rows.ContainsKey(layer.CalendarId)).ToList();
        var whole = await reader.ReadWhole(
            layers.ConvertAll(layer => rows[layer.CalendarId]),
            window,
            cancellationToken
        );
        var entries = layers
            .SelectMany(layer =>
                BoardEntry.Of(
                    board,
                    layer,
                    whole
                        .Single(one => one.Row.Id == layer.CalendarId)
                        .Events.SelectMany(one => one.Event.Shown(window, zones)),
                    window,
                    zones
                )
            )
            .ToList();
        var calendars = layers.ToDictionary(
            layer => layer.CalendarId,
            layer =>
            {
                var row = rows[layer.CalendarId];
                return new BoardCalendar(row.Name, row.Hue, row.Mark, layer.Role);
            }
        );
        return (calendars, entries);
    }

    private async Task<IReadOnlyDictionary<PersonId, string>> NamesIn(
        IEnumerable<BoardEntry> entries,
        CancellationToken cancellationToken
    )
    {
        var named = entries.SelectMany(entry => entry.People).Distinct().ToList();
        return named.Count == 0
            ? new Dictionary<PersonId, string>()
            : await db
                .People.Where(row => named.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
    }
}
