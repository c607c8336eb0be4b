using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Paper;

/// <summary>What is a table on the screen as well, on sheets: absences and access.</summary>
public static class PaperTables
{
    /// <summary>How many calendars stand side by side at most.</summary>
    private const int CalendarsAcross = 10;

    /// <summary>A grid a month, and the list of what is in them.</summary>
    public static IEnumerable<PaperSheet> Absences(GroupAbsences absences)
    {
        var people = absences.People.Select(person => (Person: person, Days: absences.Days(person))).ToList();
        var months = people[0].Days.Select(day => new YearMonth(day.Day.Year, day.Day.Month)).Distinct();
        foreach (var month in months)
        {
            var days = people[0].Days.Where(day => IsIn(day, month)).ToList();
            yield return new PaperSheet(
                $"Days away, {month.ToString("MMMM uuuu", CultureInfo.InvariantCulture)}",
                PaperLook.Signs,
                [
                    new PaperColumn("Who", 5),
                    .. days.Select(day => new PaperColumn(ShortDay(day.Day), 1)),
                    new PaperColumn("Days", 2),
                ],
                [
                    .. people.Select(one => new PaperRow([
                        PaperCell.Head(one.Person.Name),
                        .. one.Days.Where(day => IsIn(day, month)).Select(day => PaperCell.Of(day.Text)),
                        PaperCell.Of(
                            (one.Days.Where(day => IsIn(day, month)).Sum(day => day.Halves) / 2m).ToString(
                                "0.#",
                                CultureInfo.InvariantCulture
                            )
                        ),
                    ])),
                ],
                AbsenceDay.Key
            )
            {
                Joins = true,
            };
        }

        yield return new PaperSheet(
            $"Absences, {PaperPlan.PeriodOf(absences.Window)}",
            PaperLook.List,
            [
                new PaperColumn("Who", 4),
                new PaperColumn("Away", 7),
                new PaperColumn("Working days in the period", 3),
                new PaperColumn("What", 6),
                new PaperColumn("State", 3),
            ],
            [
                .. from person in people
                from row in absences
                    .Theirs[person.Person.Id]
                    .OrderBy(one => one.Span.Start)
                    .Select(
                        (one, index) =>
                            new PaperRow(
                                [
                                    PaperCell.Head(index == 0 ? person.Person.Name : string.Empty),
                                    PaperCell.Of(RangeSentence.For(one.Seen, absences.Window.First.Year)),
                                    PaperCell.Of(
                                        absences.Cost(person.Person, one).ToString("0.#", CultureInfo.InvariantCulture)
                                    ),
                                    PaperCell.Of(
                                        string.Join(
                                            ", ",
                                            new[] { one.Title, one.Kind }.Where(text => text.Length > 0).Distinct()
                                        )
                                    ),
                                    PaperCell.Of(one.Perhaps ? "not agreed yet" : "settled"),
                                ],
                                Begins: index == 0
                            )
                    )
                select row,
            ]
        )
        {
            Joins = true,
        };
    }

    /// <summary>Who has what: rows down, calendars across.</summary>
    public static IEnumerable<PaperSheet> Access(AccessOverview overview, string day) =>
        overview
            .Calendars.Chunk(CalendarsAcross)
            .Select(some => new PaperSheet(
                $"Who has what, {day}",
                PaperLook.List,
                [
                    new PaperColumn("Who", 4),
                    new PaperColumn("Is", 3),
                    .. some.Select(calendar => new PaperColumn(calendar.Name, 2)),
                ],
                [
                    .. AccessRows
                        .RowsOf(overview)
                        .Select(row => new PaperRow([
                            PaperCell.Head(row.Name),
                            PaperCell.Of(row.Is),
                            .. some.Select(calendar => PaperCell.Of(StepOf(row.Cells, calendar))),
                        ])),
                ]
            ));

    private static string StepOf(ImmutableArray<OverviewCell> cells, OverviewCalendar calendar) =>
        cells.FirstOrDefault(cell => cell.Calendar == calendar.Id) is { Role: > Role.None } cell
            ? RoleSentence.Name(cell.Role)
            : "–";

    /// <summary>The weekday in two letters over the day of the month: a month's columns have no room for more.</summary>
    private static string ShortDay(LocalDate day) =>
        $"{day.ToString("ddd", CultureInfo.InvariantCulture)[..2]}\n{day.ToString("%d", CultureInfo.InvariantCulture)}";

    private static bool IsIn(AbsenceDay day, YearMonth month) =>
        day.Day.Year == month.Year && day.Day.Month == month.Month;
}
