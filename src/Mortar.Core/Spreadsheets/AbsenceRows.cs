using System.Globalization;
using Mortar.Core.Absences;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>Absences as tables: a row each with what it costs, and the month grid that people draw by hand.</summary>
public static class AbsenceRows
{
    /// <summary>The list.</summary>
    public static Table List(GroupAbsences absences)
    {
        return Table.Of(
            "Absences",
            [
                new Column("Person", 20),
                new Column("First day", 12),
                new Column("From", 8),
                new Column("Last day", 12),
                new Column("Until", 8),
                new Column("Working days in the period", 14),
                new Column("State", 14),
                new Column("Kind", 14),
                new Column("Title", 28),
                new Column("Calendar", 20),
                new Column("Notes", 40),
            ],
            from person in absences.People
            from one in absences.Theirs[person.Id].OrderBy(one => one.Span.Start)
            select Row(person, one)
        );

        IReadOnlyList<Cell> Row(AbsentPerson person, SeenAbsence one)
        {
            var days = one.Seen as EventTime.AllDay;
            return
            [
                Cell.Of(person.Name),
                Cell.Of(one.Seen.LocalStart.Date),
                days is null ? Cell.Of(one.Seen.LocalStart.TimeOfDay) : Cell.Empty,
                Cell.Of(days?.Last ?? one.Seen.LocalEnd.Date),
                days is null ? Cell.Of(one.Seen.LocalEnd.TimeOfDay) : Cell.Empty,
                Cell.Of(absences.Cost(person, one)),
                Cell.Of(one.Perhaps ? "not agreed yet" : "settled"),
                Cell.Of(one.Kind),
                Cell.Of(one.Title),
                Cell.Of(one.Calendar),
                Cell.Of(one.Notes),
            ];
        }
    }

    /// <summary>All months in one grid, where there is room for one table only.</summary>
    public static Table Grid(GroupAbsences absences) =>
        GridOf(
            "Days",
            [.. absences.People.Select(person => (person, absences.Days(person)))],
            day => NodaTime.Text.LocalDatePattern.Iso.Format(day)
        );

    /// <summary>A grid a month: people down, days across, 1 for a day away and 0.5 for a half, and the sum.</summary>
    public static IEnumerable<Table> Months(GroupAbsences absences)
    {
        var people = absences.People.Select(person => (Person: person, Days: absences.Days(person))).ToList();
        return people[0]
            .Days.Select(day => new YearMonth(day.Day.Year, day.Day.Month))
            .Distinct()
            .Select(month =>
                GridOf(
                    month.ToString("uuuu-MM", CultureInfo.InvariantCulture),
                    [
                        .. people.Select(one =>
                            (
                                one.Person,
                                (IReadOnlyList<AbsenceDay>)
                                    [.. one.Days.Where(day => new YearMonth(day.Day.Year, day.Day.Month) == month)]
                            )
                        ),
                    ],
                    day => day.ToString("ddd d", CultureInfo.InvariantCulture)
                )
            );
    }

    private static Table GridOf(
        string name,
        IReadOnlyList<(AbsentPerson Person, IReadOnlyList<AbsenceDay> Days)> people,
        Func<LocalDate, string> head
    ) =>
        Table.Of(
            name,
            [
                new Column("Person", 20),
                .. people[0].Days.Select(day => new Column(head(day.Day), 7)),
                new Column("Days", 8),
            ],
            people
                .Select(
                    IReadOnlyList<Cell> (one) =>
                        [
                            Cell.Of(one.Person.Name),
                            .. one.Days.Select(day =>
                                day is { Works: true, Halves: > 0 } ? Cell.Of(day.Halves / 2m) : Cell.Of(day.Text)
                            ),
                            Cell.Of(one.Days.Sum(day => day.Halves) / 2m),
                        ]
                )
                .Append([])
                .Append([Cell.Of(AbsenceDay.Key)])
        ) with
        {
            Heads = 1,
        };
}
