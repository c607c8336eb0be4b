using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Access;
using Mortar.Core.Roster;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Paper;

/// <summary>What is seen of some days, to be laid on paper.</summary>
/// <param name="Window">The days, on the reader's clock.</param>
/// <param name="Entries">What lies on them.</param>
/// <param name="Names">What the people are called who are named.</param>
/// <param name="Absences">The calendars of absences: one of those says nothing without who is away.</param>
public sealed record PaperDays(
    Window Window,
    IReadOnlyList<RosterEntry> Entries,
    IReadOnlyDictionary<PersonId, string> Names,
    IReadOnlySet<CalendarId> Absences
)
{
    /// <summary>What touches a day, whole days first and then by time.</summary>
    public IEnumerable<RosterEntry> On(LocalDate day) =>
        Entries.Where(entry => entry.First <= day && day <= entry.Last).InOrder();
}

/// <summary>Lays what is seen on sheets. Nothing that lies on a day is left out: what does not fit goes on on the next sheet.</summary>
public static class PaperPlan
{
    /// <summary>How many days stand side by side at most: more, and each is too narrow for a word.</summary>
    public static int DaysAcross(PaperWish wish) => wish.Across ? 14 : 7;

    /// <summary>One day after the other, a line an event; what goes on for days stands on the first of them.</summary>
    public static PaperSheet Agenda(PaperDays days, PaperWish wish)
    {
        var columns = ImmutableArray.CreateBuilder<PaperColumn>();
        columns.Add(new PaperColumn("Day", 4));
        columns.Add(new PaperColumn("Time", 3));
        columns.Add(new PaperColumn("What", 8));
        AddIf(wish.Places, new PaperColumn("Where", 4));
        AddIf(wish.People, new PaperColumn("Who", 5));
        AddIf(wish.Notes, new PaperColumn("Notes", 8));
        return new PaperSheet(
            PeriodOf(days.Window),
            PaperLook.List,
            columns.ToImmutable(),
            [
                .. from day in days.Window.Days
                from row in days.On(day)
                    .Where(entry => entry.First == day || (entry.First < day && day == days.Window.First))
                    .Select((entry, index) => Row(entry, day, index == 0))
                select row,
            ]
        );

        void AddIf(bool isWanted, PaperColumn column)
        {
            if (isWanted)
            {
                columns.Add(column);
            }
        }

        PaperRow Row(RosterEntry entry, LocalDate day, bool isFirst)
        {
            var shown = entry.What as VisibleEvent.Shown;
            List<PaperCell> cells =
            [
                PaperCell.Head(isFirst ? DayOf(day) : string.Empty),
                PaperCell.Of(TimeOf(entry, day)),
                new PaperCell(string.Empty, [EntryOf(entry, string.Empty, [])]),
            ];
            if (wish.Places)
            {
                cells.Add(PaperCell.Of(shown?.Place ?? string.Empty));
            }

            if (wish.People)
            {
                cells.Add(PaperCell.Of(PeopleOf(entry, days.Names)));
            }

            if (wish.Notes)
            {
                cells.Add(PaperCell.Of(shown?.Notes ?? string.Empty));
            }

            return new PaperRow([.. cells], isFirst);
        }
    }

    /// <summary>Days side by side, what lies on each one under the other.</summary>
    public static IEnumerable<PaperSheet> Week(PaperDays days, PaperWish wish) =>
        days
            .Window.Days.Chunk(DaysAcross(wish))
            .Select(some => new PaperSheet(
                PeriodOf(some[0], some[^1]),
                PaperLook.Grid,
                [.. some.Select(day => new PaperColumn(DayOf(day), 1))],
                [
                    new PaperRow([
                        .. some.Select(day => CellOf(days, day, wish, TimeAmong(some.Length), head: string.Empty)),
                    ]),
                ]
            )
            {
                Fills = true,
            });

    /// <summary>Whole weeks one under the other, each day with its number.</summary>
    /// <param name="days">Whole weeks.</param>
    /// <param name="month">The days of the month itself; the others are told apart.</param>
    /// <param name="wish">What goes on it.</param>
    public static PaperSheet Month(PaperDays days, YearMonth month, PaperWish wish) =>
        new(
            month.ToString("MMMM uuuu", CultureInfo.InvariantCulture),
            PaperLook.Grid,
            [.. days.Window.Days.Take(7).Select(day => new PaperColumn(Text(day, "dddd"), 1))],
            [
                .. days
                    .Window.Days.Chunk(7)
                    .Select(week => new PaperRow([
                        .. week.Select(day =>
                            CellOf(
                                days,
                                day,
                                wish,
                                EntryWords.Start,
                                Text(day, day.Month == month.Month && day.Year == month.Year ? "%d" : "d MMM")
                            )
                        ),
                    ])),
            ]
        )
        {
            Fills = true,
        };

    /// <summary>The whole weeks that a month lies in.</summary>
    public static (LocalDate First, LocalDate Last) WeeksOf(YearMonth month, IsoDayOfWeek firstDay)
    {
        var (first, last) = (month.OnDayOfMonth(1), month.OnDayOfMonth(1).With(DateAdjusters.EndOfMonth));
        return (first.DayOfWeek == firstDay ? first : first.Previous(firstDay), last.Next(firstDay).PlusDays(-1));
    }

    /// <summary>People and places down, days across; rows of places on which nothing lies stay away.</summary>
    public static IEnumerable<PaperSheet> Roster(
        GroupRoster roster,
        IReadOnlyDictionary<PersonId, string> names,
        PaperWish wish
    )
    {
        var days = roster.Window.Days.Select((day, index) => (Day: day, Index: index)).Chunk(DaysAcross(wish));
        return days.Select(some => new PaperSheet(
            PeriodOf(some[0].Day, some[^1].Day),
            PaperLook.Grid,
            [
                new PaperColumn("Who", some.Length > 7 ? 2 : 1),
                .. some.Select(one => new PaperColumn(DayOf(one.Day), some.Length > 7 ? 2 : 1)),
            ],
            [
                .. roster
                    .Lines.Where(line =>
                        line.Row.Of == RosterRowOf.Person || some.Any(one => line.Days[one.Index].Length > 0)
                    )
                    .Select(line => new PaperRow([
                        PaperCell.Head(line.Row.Name),
                        .. some.Select(one =>
                            Cell(
                                line.Days[one.Index],
                                one.Day,
                                names,
                                // Whose row it is names them already.
                                wish with
                                {
                                    People = wish.People && line.Row.Of != RosterRowOf.Person,
                                },
                                TimeAmong(some.Length),
                                head: string.Empty
                            )
                        ),
                    ])),
            ]
        ));
    }

    /// <summary>The calendars that lie on sheets, by name; those with one mark are told apart by numbers.</summary>
    public static ImmutableArray<LegendEntry> Legend(
        IEnumerable<PaperSheet> sheets,
        IReadOnlyDictionary<CalendarId, VisibleCalendar> calendars
    )
    {
        var numbers = new Dictionary<Calendars.Mark, int>();
        return
        [
            .. sheets
                .SelectMany(sheet => sheet.Rows)
                .SelectMany(row => row.Cells)
                .SelectMany(cell => cell.Entries)
                .Select(entry => entry.Calendar)
                .Distinct()
                .Where(calendars.ContainsKey)
                .OrderBy(id => calendars[id].Name, StringComparer.OrdinalIgnoreCase)
                .ThenBy(id => id.Value)
                .Select(id =>
                {
                    var calendar = calendars[id];
                    var number = numbers.GetValueOrDefault(calendar.Mark);
                    numbers[calendar.Mark] = number + 1;
                    return new LegendEntry(id, calendar.Name, calendar.Mark, number == 0 ? 0 : number + 1);
                }),
        ];
    }

    /// <summary>Some days in words: "Mon 9 to Sun 15 March 2026".</summary>
    public static string PeriodOf(Window window) => PeriodOf(window.First, window.Last);

    internal static string PeriodOf(LocalDate first, LocalDate last) =>
        RangeSentence.For(EventTime.Days(first, last), year: 0);

    private static PaperCell CellOf(
        PaperDays days,
        LocalDate day,
        PaperWish wish,
        Func<RosterEntry, LocalDate, string> time,
        string head
    )
    {
        var cell = Cell([.. days.On(day)], day, days.Names, wish, time, head);
        return wish.People
            ? cell
            : cell with
            {
                Entries =
                [
                    .. cell.Entries.Zip(days.On(day), (entry, of) => entry with { Title = Whose(of) + entry.Title }),
                ],
            };

        string Whose(RosterEntry of) =>
            days.Absences.Contains(of.Calendar) && PeopleOf(of, days.Names) is { Length: > 0 } people
                ? $"{people}: "
                : string.Empty;
    }

    private static PaperCell Cell(
        ImmutableArray<RosterEntry> entries,
        LocalDate day,
        IReadOnlyDictionary<PersonId, string> names,
        PaperWish wish,
        Func<RosterEntry, LocalDate, string> time,
        string head
    )
    {
        return new PaperCell(head, [.. entries.Select(entry => EntryOf(entry, time(entry, day), [.. Lines(entry)]))]);

        IEnumerable<string> Lines(RosterEntry entry)
        {
            if (entry.What is not VisibleEvent.Shown shown)
            {
                yield break;
            }

            if (wish.Places && shown.Place.Length > 0)
            {
                yield return shown.Place;
            }

            if (wish.People && PeopleOf(entry, names) is { Length: > 0 } people)
            {
                yield return people;
            }

            if (wish.Notes && shown.Notes is { Length: > 0 } notes)
            {
                yield return notes;
            }
        }
    }

    /// <summary>How times are told where so many days stand side by side: in a narrow column there is room for the beginning.</summary>
    private static Func<RosterEntry, LocalDate, string> TimeAmong(int days) =>
        days > 7 ? EntryWords.Start : EntryWords.Time;

    private static string TimeOf(RosterEntry entry, LocalDate day) =>
        entry.Last == entry.First || (!entry.IsWholeDays && entry.First < day) ? EntryWords.Time(entry, day)
        : entry.IsWholeDays ? $"until {Text(entry.Last, "ddd d MMM")}"
        : $"{EntryWords.Time(entry, day)} until {Text(entry.Last, "ddd d MMM")}";

    private static PaperEntry EntryOf(RosterEntry entry, string time, ImmutableArray<string> lines) =>
        new(entry.Calendar, time, EntryWords.Title(entry.What), EntryWords.State(entry.What), lines);

    private static string PeopleOf(RosterEntry entry, IReadOnlyDictionary<PersonId, string> names) =>
        entry.What is VisibleEvent.Shown shown
            ? string.Join(
                ", ",
                shown
                    .Attendees.Select(person => names.GetValueOrDefault(person))
                    .OfType<string>()
                    .Order(StringComparer.OrdinalIgnoreCase)
            )
            : string.Empty;

    private static string DayOf(LocalDate day) => Text(day, "ddd d MMMM");

    private static string Text(LocalDate day, string pattern) => day.ToString(pattern, CultureInfo.InvariantCulture);
}
