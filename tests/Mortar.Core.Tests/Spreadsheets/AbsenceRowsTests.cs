using Mortar.Core.Absences;
using Mortar.Core.Availability;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class AbsenceRowsTests
{
    private static readonly DateTimeZone London = Studio.Zone(Studio.London);

    private static readonly UsualHours Week = UsualHours.On(
        London,
        new DayHours(new LocalTime(9, 0), new LocalTime(17, 0)),
        IsoDayOfWeek.Monday,
        IsoDayOfWeek.Tuesday,
        IsoDayOfWeek.Wednesday,
        IsoDayOfWeek.Thursday,
        IsoDayOfWeek.Friday
    );

    private static SeenAbsence Away(EventTime time, bool perhaps = false) =>
        new(Studio.Ines, "Away", "Holiday", "=Away", string.Empty, time, Studio.Clock.Span(time, London), perhaps);

    private static GroupAbsences Of(LocalDate from, LocalDate to, params SeenAbsence[] absences) =>
        new(
            "Studio team",
            new Window(from, to, London),
            [new AbsentPerson(Studio.Ines, "Ines", Week)],
            absences,
            new HashSet<LocalDate> { new(2026, 4, 3) }
        );

    [Fact]
    public void The_list_says_what_each_costs_in_working_days_of_the_period()
    {
        var table = AbsenceRows.List(
            Of(
                new LocalDate(2026, 3, 30),
                new LocalDate(2026, 4, 5),
                Away(EventTime.Days(new LocalDate(2026, 3, 27), new LocalDate(2026, 4, 6))),
                Away(Studio.Hours(new LocalDateTime(2026, 4, 1, 9, 0), 180), perhaps: true)
            )
        );

        // From Monday to Thursday; Friday is a day off for all, and then there is the weekend.
        Assert.Equal(
            [
                "Ines|2026-03-27||2026-04-06||4|settled|Holiday|=Away|Away|",
                "Ines|2026-04-01|09:00:00|2026-04-01|12:00:00|0.5|not agreed yet|Holiday|=Away|Away|",
            ],
            table.Lines().Skip(1)
        );
    }

    [Fact]
    public void The_grid_has_a_month_each_and_numbers_that_add_up()
    {
        var absences = Of(
            new LocalDate(2026, 3, 30),
            new LocalDate(2026, 4, 4),
            Away(EventTime.Days(new LocalDate(2026, 3, 31), new LocalDate(2026, 3, 31))),
            Away(Studio.Hours(new LocalDateTime(2026, 4, 1, 9, 0), 180)),
            Away(EventTime.Days(new LocalDate(2026, 4, 2), new LocalDate(2026, 4, 2)), perhaps: true)
        );
        var months = AbsenceRows.Months(absences).ToList();

        Assert.Equal(["2026-03", "2026-04"], months.Select(month => month.Name));
        Assert.Equal(["Person|Mon 30|Tue 31|Days", "Ines||1|1"], months[0].Lines().Take(2));
        Assert.Equal(["Person|Wed 1|Thu 2|Fri 3|Sat 4|Days", "Ines|0.5|(1)|–|–|0.5"], months[1].Lines().Take(2));
        Assert.Equal(AbsenceDay.Key, months[1].Lines()[^1]);
        Assert.Equal("Ines||1|0.5|(1)|–|–|1.5", AbsenceRows.Grid(absences).Lines()[1]);
    }

    [Fact]
    public void What_it_costs_in_all_is_what_the_totals_say()
    {
        var days = EventTime.Days(new LocalDate(2026, 3, 2), new LocalDate(2026, 3, 13));
        var absences = Of(new LocalDate(2026, 3, 1), new LocalDate(2026, 3, 31), Away(days));
        var total = AbsenceCount.Of(
            absences.Window,
            [
                new CoverPerson(
                    Studio.Ines,
                    BusyTime.Of(absences.Window.Span, [(Studio.Clock.Span(days, London), Taken.Away)]),
                    Week
                ),
            ],
            absences.DaysOff
        );

        Assert.Equal(10m, Assert.Single(total).Days);
        Assert.EndsWith("|10", AbsenceRows.Grid(absences).Lines()[1], StringComparison.Ordinal);
    }
}
