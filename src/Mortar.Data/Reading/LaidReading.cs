using System.Runtime.CompilerServices;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>A calendar that is laid out, as the reader sees it.</summary>
/// <param name="IsReached">Whether they have a step on it, and not only events given to them by themselves.</param>
public sealed record LaidCalendar(CalendarRow Row, VisibleCalendar Seen, bool IsReached);

/// <summary>Reads what lies on some calendars, for what is laid out elsewhere than on a wall: sheets and spreadsheets.</summary>
public sealed class LaidReading(WindowReader windows, ZoneClock zones)
{
    /// <summary>How many days are read at a time where there are many.</summary>
    private const int DaysAtOnce = 31;

    /// <summary>What of the calendars somebody sees is wanted: some, or all of a group, or all.</summary>
    public static Func<CalendarRow, bool> Wanted(GroupId? group, IReadOnlySet<CalendarId>? some) =>
        row => some?.Contains(row.Id) ?? (group is null || row.GroupId == group);

    /// <summary>The calendars, by name, and what lies on them in some days.</summary>
    public async Task<(
        Window Window,
        IReadOnlyDictionary<CalendarId, LaidCalendar> Calendars,
        IReadOnlyList<(CalendarId Calendar, VisibleEvent What)> Lying
    )> Read(
        PersonId reader,
        LocalDate from,
        LocalDate to,
        Func<CalendarRow, bool> isWanted,
        CancellationToken cancellationToken
    )
    {
        var seen = await windows.See(reader, cancellationToken);
        var wanted = seen.Sight.Calendars.Where(one => isWanted(one.Row)).Select(one => one.Row.Id).ToHashSet();
        var reading = await windows.Read(seen, seen.Days(from, to), wanted.Contains, cancellationToken);
        return (reading.Window, CalendarsOf(reading), [.. Lying(reading)]);
    }

    /// <summary>
    /// What lies on them, a month at a time, so that many years take no more memory than one month: events in order of time, and
    /// then what is only seen as a time, which has to be put together over the ends of months.
    /// </summary>
    public async IAsyncEnumerable<(LaidCalendar Calendar, VisibleEvent What)> Stream(
        PersonId reader,
        LocalDate from,
        LocalDate to,
        Func<CalendarRow, bool> isWanted,
        [EnumeratorCancellation] CancellationToken cancellationToken
    )
    {
        var seen = await windows.See(reader, cancellationToken);
        var wanted = seen.Sight.Calendars.Where(one => isWanted(one.Row)).Select(one => one.Row.Id).ToHashSet();
        var busy = new List<(LaidCalendar Calendar, VisibleEvent.Busy What)>();
        for (var first = from; first <= to; first = first.PlusDays(DaysAtOnce))
        {
            var window = seen.Days(first, LocalDate.Min(to, first.PlusDays(DaysAtOnce - 1)));
            var reading = await windows.Read(seen, window, wanted.Contains, cancellationToken);
            var calendars = CalendarsOf(reading);
            var shown = new List<(Instant Start, LaidCalendar Calendar, VisibleEvent What)>();
            foreach (var (calendar, what) in Lying(reading).Where(one => calendars.ContainsKey(one.Calendar)))
            {
                if (what is VisibleEvent.Busy stretch)
                {
                    busy.Add((calendars[calendar], stretch));
                }
                else if (what is VisibleEvent.Shown one)
                {
                    // What began before was told then.
                    var start = zones.Span(one.Agreed, window.Reader).Start;
                    if (first == from || start >= window.Span.Start)
                    {
                        shown.Add((start, calendars[calendar], one));
                    }
                }
            }

            foreach (var (_, calendar, what) in shown.OrderBy(one => one.Start))
            {
                yield return (calendar, what);
            }
        }

        foreach (var one in busy.GroupBy(one => one.Calendar.Row.Id))
        {
            foreach (var what in VisibleEvent.Busy.Joined(one.Select(stretch => stretch.What), seen.Days(from, to)))
            {
                yield return (one.First().Calendar, what);
            }
        }
    }

    private static IEnumerable<(CalendarId Calendar, VisibleEvent What)> Lying(WindowReading reading) =>
        from calendar in reading.Calendars
        from what in reading.Visible(calendar)
        select (calendar.Row.Id, what);

    private static Dictionary<CalendarId, LaidCalendar> CalendarsOf(WindowReading reading) =>
        (
            from calendar in reading.Calendars
            let visible = VisibleCalendar.Through(
                calendar.Role,
                calendar.Row.Settings(),
                givesEvents: calendar.Events.Count > 0
            )
            where visible is not null
            select new LaidCalendar(calendar.Row, visible, calendar.Role > Role.None)
        ).ToDictionary(one => one.Row.Id);
}
