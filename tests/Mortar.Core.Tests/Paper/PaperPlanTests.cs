using CsCheck;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Paper;
using Mortar.Core.Roster;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Paper;

public class PaperPlanTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);
    private static readonly PaperWish Across = new(PaperSize.A4, Across: true);
    private static readonly PaperWish Upright = new(PaperSize.A4, Across: false);

    private static PaperDays Days(Window window, IEnumerable<(string Title, EventTime Time)> events) =>
        new(
            window,
            [
                .. events.SelectMany(one =>
                    VisibleEvent
                        .Through(
                            Role.View,
                            Studio.Ines,
                            Studio.Event(one.Time, title: one.Title).Occurrences(window, Studio.Clock),
                            window
                        )
                        .Select(what => RosterEntry.Of(Studio.GlazeTests, what, window.Reader))
                ),
            ],
            new Dictionary<PersonId, string> { [Studio.Ines] = "Ines" },
            new HashSet<CalendarId>()
        );

    private static IEnumerable<string> Titles(IEnumerable<PaperSheet> sheets) =>
        sheets
            .SelectMany(sheet => sheet.Rows)
            .SelectMany(row => row.Cells)
            .SelectMany(cell => cell.Entries)
            .Select(one => one.Title);

    private static readonly Gen<EventTime> Time =
        from day in Gen.Int[-3, 45]
        from days in Gen.Int[0, 4]
        from hour in Gen.Int[0, 23]
        from whole in Gen.Bool
        select whole
            ? EventTime.Days(Monday.PlusDays(day), Monday.PlusDays(day + days))
            : Studio.Hours(Monday.PlusDays(day).At(new LocalTime(hour, 0)), 60 * (1 + (days * 20)));

    [Fact]
    public void Nothing_is_left_out()
    {
        var window = new Window(Monday, Monday.PlusDays(27), Studio.Zone(Studio.London));
        Time.List[0, 40]
            .Sample(times =>
            {
                var days = Days(window, times.Select((time, index) => ($"{index}", time)));
                var lying = days.Entries.Select(entry => ((VisibleEvent.Shown)entry.What).Title).Order().ToList();
                var onDays = days
                    .Entries.SelectMany(entry =>
                        Enumerable.Repeat(
                            ((VisibleEvent.Shown)entry.What).Title,
                            days.Window.Days.Count(day => entry.First <= day && day <= entry.Last)
                        )
                    )
                    .Order()
                    .ToList();

                Assert.Equal(lying, Titles([PaperPlan.Agenda(days, Upright)]).Order());
                Assert.Equal(onDays, Titles(PaperPlan.Week(days, Across)).Order());
                Assert.Equal(onDays, Titles([PaperPlan.Month(days, new YearMonth(2026, 3), Across)]).Order());
            });
    }

    [Fact]
    public void More_days_than_fit_side_by_side_go_on_on_further_sheets()
    {
        var days = Days(new Window(Monday, Monday.PlusDays(27), Studio.Zone(Studio.London)), []);

        Assert.Equal([14, 14], PaperPlan.Week(days, Across).Select(sheet => sheet.Columns.Length));
        Assert.Equal([7, 7, 7, 7], PaperPlan.Week(days, Upright).Select(sheet => sheet.Columns.Length));
        Assert.Equal(
            ["Mon 9 to Sun 22 March 2026", "Mon 23 March to Sun 5 April 2026"],
            PaperPlan.Week(days, Across).Select(sheet => sheet.Period)
        );
    }

    [Theory]
    [InlineData(2026, 3, IsoDayOfWeek.Monday, "2026-02-23", "2026-04-05")]
    [InlineData(2026, 2, IsoDayOfWeek.Sunday, "2026-02-01", "2026-02-28")]
    public void A_month_lies_in_whole_weeks(int year, int month, IsoDayOfWeek firstDay, string first, string last)
    {
        var weeks = PaperPlan.WeeksOf(new YearMonth(year, month), firstDay);

        Assert.Equal((first, last), (Iso(weeks.First), Iso(weeks.Last)));

        static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);
    }

    [Fact]
    public void A_month_numbers_each_of_its_days_and_says_of_others_which_month_they_are_in()
    {
        var (first, last) = PaperPlan.WeeksOf(new YearMonth(2026, 3), IsoDayOfWeek.Monday);
        var sheet = PaperPlan.Month(
            Days(new Window(first, last, Studio.Zone(Studio.London)), []),
            new YearMonth(2026, 3),
            Across
        );

        Assert.Equal(6, sheet.Rows.Length);
        Assert.Equal(
            ["23 Feb", "24 Feb", "25 Feb", "26 Feb", "27 Feb", "28 Feb", "1"],
            sheet.Rows[0].Cells.Select(cell => cell.Text)
        );
        Assert.Equal("March 2026", sheet.Period);
    }

    [Fact]
    public void What_goes_on_for_days_says_until_when_where_it_stands_once()
    {
        var days = Days(
            Studio.Week(Monday),
            [
                ("Fair", EventTime.Days(Monday.PlusDays(1), Monday.PlusDays(3))),
                ("Firing", Studio.Hours(Monday.At(new LocalTime(20, 0)), 720)),
                ("Before", Studio.Hours(Monday.PlusDays(-1).At(new LocalTime(20, 0)), 720)),
            ]
        );

        Assert.Equal(
            [
                "Mon 9 March|until 08:00|Before",
                "|from 20:00 until Tue 10 Mar|Firing",
                "Tue 10 March|until Thu 12 Mar|Fair",
            ],
            PaperPlan
                .Agenda(days, Upright)
                .Rows.Select(row => $"{row.Cells[0].Text}|{row.Cells[1].Text}|{row.Cells[2].Entries.Single().Title}")
        );
    }

    [Fact]
    public void Who_is_away_stands_before_an_absence_where_people_are_not_told()
    {
        var whole = Studio.Event(EventTime.Days(Monday, Monday), title: "Away");
        whole = whole with { Content = whole.Content with { Attendees = Attendees.Of([Studio.Ines]) } };
        var week = Studio.Week(Monday);
        var days = Days(week, []) with
        {
            Entries =
            [
                .. VisibleEvent
                    .Through(Role.View, Studio.Ines, whole.Occurrences(week, Studio.Clock), week)
                    .Select(what => RosterEntry.Of(Studio.GlazeTests, what, week.Reader)),
            ],
            Absences = new HashSet<CalendarId> { Studio.GlazeTests },
        };

        Assert.Equal(["Ines: Away"], Titles(PaperPlan.Week(days, Across with { People = false })));
        Assert.Equal(["Away"], Titles(PaperPlan.Week(days, Across)));
    }

    [Fact]
    public void Calendars_with_one_mark_are_told_apart_by_numbers()
    {
        var ids = Enumerable.Range(1, 3).Select(number => new CalendarId(new Guid(number, 0, 0, new byte[8]))).ToList();
        var calendars = ids.Select((id, index) => (id, index))
            .ToDictionary(
                one => one.id,
                one =>
                    VisibleCalendar.Through(
                        Role.View,
                        new CalendarSettings(
                            $"{(char)('C' - one.index)}",
                            string.Empty,
                            Hue.Iron,
                            one.index == 1 ? Mark.Dome : Mark.Cone,
                            Studio.London,
                            Purpose.Events,
                            Role.None
                        )
                    )!
            );
        var sheet = new PaperSheet(
            string.Empty,
            PaperLook.Grid,
            [],
            [new PaperRow([new PaperCell(string.Empty, [.. ids.Select(id => new PaperEntry(id, "", "", "", []))])])]
        );

        Assert.Equal(
            [("A", Mark.Cone, 0), ("B", Mark.Dome, 0), ("C", Mark.Cone, 2)],
            PaperPlan.Legend([sheet], calendars).Select(one => (one.Name, one.Mark, one.Number))
        );
    }

    [Fact]
    public void More_than_anybody_reads_is_not_printed()
    {
        static PaperSheet Of(int entries) =>
            new(
                string.Empty,
                PaperLook.Grid,
                [],
                [
                    new PaperRow([
                        new PaperCell(
                            string.Empty,
                            [.. Enumerable.Repeat(new PaperEntry(Studio.GlazeTests, "", "", "", []), entries)]
                        ),
                    ]),
                ]
            );

        Assert.Null(PaperOut.WhyNot([Of(PaperOut.Most - 1)]));
        Assert.IsType<Refusal.Unfit>(PaperOut.WhyNot([Of(PaperOut.Most)]));
    }
}
