using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Noticeboards;

/// <summary>A day on a page of a noticeboard, with what touches it in order.</summary>
/// <param name="Date">The day, on the visitor's clock.</param>
/// <param name="IsIn">Whether it is one of the days that are meant, and not only beside them so that the weeks are whole.</param>
/// <param name="Entries">What touches it; what lasts longer than a day stands on each.</param>
public sealed record BoardDay(LocalDate Date, bool IsIn, IReadOnlyList<BoardEntry> Entries);

/// <summary>Which days a page of a noticeboard shows, and where the pages beside it are.</summary>
/// <param name="View">The view.</param>
/// <param name="First">The first day that is meant.</param>
/// <param name="Last">The last.</param>
/// <param name="Earlier">A day on the page before; <c>null</c> for the first page.</param>
/// <param name="Later">A day on the page after; <c>null</c> for the last page.</param>
public sealed record BoardPage(BoardView View, LocalDate First, LocalDate Last, LocalDate? Earlier, LocalDate? Later)
{
    /// <summary>The most that stands on one page of what comes next; more is on the page after.</summary>
    public const int MostEntries = 120;

    /// <summary>All days a noticeboard can show: from the first of this month, so that a month is whole, as far ahead as it looks.</summary>
    public static (LocalDate First, LocalDate Last) Reach(Noticeboard board, LocalDate today) =>
        (today.With(DateAdjusters.StartOfMonth), today.PlusDays(board.DaysAhead));

    /// <summary>The page with a day on it. A day out of reach leads to the nearest within.</summary>
    /// <param name="board">The noticeboard.</param>
    /// <param name="view">The view that is asked for; one that it does not have leads to its first.</param>
    /// <param name="at">The day; <c>null</c> for today.</param>
    /// <param name="today">Today, on the visitor's clock.</param>
    /// <param name="firstDay">The day a week begins with.</param>
    public static BoardPage At(
        Noticeboard board,
        BoardView? view,
        LocalDate? at,
        LocalDate today,
        IsoDayOfWeek firstDay
    )
    {
        var (first, last) = Reach(board, today);
        var one = view is { } wished && board.Views.Contains(wished) ? wished : board.Views[0];
        var day = LocalDate.Max(one == BoardView.Next ? today : first, LocalDate.Min(last, at ?? today));
        var (from, to) = one switch
        {
            BoardView.Next => (day, last),
            BoardView.Week => Week(day, firstDay),
            _ => (day.With(DateAdjusters.StartOfMonth), day.With(DateAdjusters.EndOfMonth)),
        };
        return one == BoardView.Next
            ? new BoardPage(one, from, to, day > today ? today : null, Later: null)
            : new BoardPage(one, from, to, from > first ? from.PlusDays(-1) : null, to < last ? to.PlusDays(1) : null);
    }

    /// <summary>The days that have to be read for it: whole weeks of a month, and never what is out of reach.</summary>
    public (LocalDate First, LocalDate Last) Drawn(Noticeboard board, LocalDate today, IsoDayOfWeek firstDay)
    {
        var reach = Reach(board, today);
        var (from, to) =
            View == BoardView.Month ? (Week(First, firstDay).First, Week(Last, firstDay).Last) : (First, Last);
        return (LocalDate.Max(from, reach.First), LocalDate.Min(to, reach.Last));
    }

    /// <summary>Its days: of what comes next those on which something is, of the others all.</summary>
    /// <param name="entries">What is in the days that are drawn, of all calendars.</param>
    /// <param name="now">What o'clock it is; what is over is not next.</param>
    /// <param name="firstDay">The day a week begins with.</param>
    /// <param name="page">The same page, ended where it would get too long.</param>
    public IReadOnlyList<BoardDay> Days(
        IEnumerable<BoardEntry> entries,
        Instant now,
        IsoDayOfWeek firstDay,
        out BoardPage page
    )
    {
        var ordered = entries
            .OrderBy(one => one.FirstDay)
            .ThenBy(one => one.Time is not EventTime.AllDay)
            .ThenBy(one => one.Span.Start)
            .ThenByDescending(one => one.Span.End)
            .ThenBy(one => one.Title, StringComparer.Ordinal)
            .ToList();
        page = this;
        if (View != BoardView.Next)
        {
            var (from, to) =
                View == BoardView.Month ? (Week(First, firstDay).First, Week(Last, firstDay).Last) : (First, Last);
            return
            [
                .. from.Through(to)
                    .Select(day => new BoardDay(
                        day,
                        First <= day && day <= Last,
                        [.. ordered.Where(one => one.FirstDay <= day && day <= one.LastDay)]
                    )),
            ];
        }

        var days = ordered
            .Where(one => one.Span.End > now || one.Span.Start >= now)
            .GroupBy(one => LocalDate.Max(one.FirstDay, First))
            .Select(day => new BoardDay(day.Key, IsIn: true, [.. day]))
            .ToList();
        var (taken, kept) = (0, 0);
        while (kept < days.Count && (kept == 0 || taken + days[kept].Entries.Count <= MostEntries))
        {
            taken += days[kept++].Entries.Count;
        }

        if (kept < days.Count)
        {
            page = this with { Last = days[kept].Date.PlusDays(-1), Later = days[kept].Date };
        }

        return days[..kept];
    }

    private static (LocalDate First, LocalDate Last) Week(LocalDate day, IsoDayOfWeek firstDay)
    {
        var from = day.PlusDays(-((day.DayOfWeek - firstDay + 7) % 7));
        return (from, from.PlusDays(6));
    }
}
