using Mortar.Core.Availability;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>Hours of people, week by week, by calendar and kind; what overlaps counts once.</summary>
public static class HourRows
{
    /// <summary>The hours by kind, a row each, and the sum of each week.</summary>
    public static IReadOnlyList<Table> Of(GroupHours hours)
    {
        var people = hours.People;
        var weeks = Weeks(hours.Window, hours.FirstDay).ToList();
        var theirs = hours.Times.ToLookup(one => one.Person);
        return
        [
            Table.Of(
                "Hours",
                [
                    new Column("Person", 20),
                    new Column("Week from", 12),
                    new Column("Calendar", 20),
                    new Column("Kind", 14),
                    new Column("Hours", 9),
                    new Column("Hours, perhaps", 14),
                    new Column("Whole days", 11),
                ],
                people.SelectMany(person => Rows(person.Name, theirs[person.Id].ToList()))
            ),
            Table.Of(
                "Weeks",
                [
                    new Column("Person", 20),
                    .. weeks.Select(week => new Column($"from {Day(week.First)}", 14)),
                    new Column("In all", 10),
                ],
                people.Select(person => Sums(person.Name, theirs[person.Id].ToList()))
            ) with
            {
                Heads = 1,
            },
        ];

        IEnumerable<IReadOnlyList<Cell>> Rows(string name, List<CountedTime> all) =>
            from week in weeks
            from alike in all.Where(one => week.Touches(one.Span))
                .GroupBy(one => (one.Calendar, one.Kind))
                .OrderBy(alike => alike.Key.Calendar, StringComparer.OrdinalIgnoreCase)
                .ThenBy(alike => alike.Key.Kind, StringComparer.OrdinalIgnoreCase)
            let settled = Settled(alike, week)
            let perhaps = Stretches.Less(
                Merged(alike.Where(one => one is { Perhaps: true, WholeDays: false }), week),
                settled
            )
            select (IReadOnlyList<Cell>)
                [
                    Cell.Of(name),
                    Cell.Of(week.First),
                    Cell.Of(alike.Key.Calendar),
                    Cell.Of(alike.Key.Kind),
                    LengthOf(Stretches.Total(settled)),
                    LengthOf(Stretches.Total(perhaps)),
                    WholeDays(alike, week) is > 0 and var days ? Cell.Of((decimal)days) : Cell.Empty,
                ];

        IReadOnlyList<Cell> Sums(string name, List<CountedTime> all)
        {
            var sums = weeks.ConvertAll(week => Stretches.Total(Settled(all, week)));
            return
            [
                Cell.Of(name),
                .. sums.Select(LengthOf),
                Cell.Of(sums.Aggregate(Duration.Zero, (sum, one) => sum + one)),
            ];
        }
    }

    /// <summary>The weeks of a window, the first and the last cut to it.</summary>
    private static IEnumerable<Window> Weeks(Window window, IsoDayOfWeek firstDay)
    {
        for (var from = window.First; from <= window.Last; )
        {
            var next = from.Next(firstDay);
            yield return new Window(from, LocalDate.Min(window.Last, next.PlusDays(-1)), window.Reader);
            from = next;
        }
    }

    private static System.Collections.Immutable.ImmutableArray<Interval> Settled(
        IEnumerable<CountedTime> times,
        Window week
    ) => Merged(times.Where(one => one is { Perhaps: false, WholeDays: false }), week);

    private static System.Collections.Immutable.ImmutableArray<Interval> Merged(
        IEnumerable<CountedTime> times,
        Window week
    ) => Stretches.Merged(times.Select(one => one.Span), week.Span);

    private static int WholeDays(IEnumerable<CountedTime> times, Window week) =>
        week.Days.Count(day =>
            times.Any(one =>
                one is { WholeDays: true, Perhaps: false } && new Window(day, day, week.Reader).Touches(one.Span)
            )
        );

    private static Cell LengthOf(Duration length) => length > Duration.Zero ? Cell.Of(length) : Cell.Empty;

    private static string Day(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);
}
