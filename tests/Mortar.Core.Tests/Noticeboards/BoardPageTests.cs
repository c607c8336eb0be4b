using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Noticeboards;

public class BoardPageTests
{
    private static readonly LocalDate Today = new(2026, 3, 11); // a Wednesday
    private static readonly DateTimeZone London = Studio.Clock.Zone("Europe/London");
    private static readonly Instant Noon = ZoneClock.At(Today.At(new LocalTime(12, 0)), London);

    private static Noticeboard Board(Role role = Role.View) =>
        new("Raku club", "", "Europe/London", [new BoardLayer(Studio.GlazeTests, role)]);

    private static List<BoardEntry> Entries(Noticeboard board, LocalDate from, LocalDate to, params Event[] events)
    {
        var window = new Window(from, to, London);
        return
        [
            .. BoardEntry.Of(
                board,
                board.Layers[0],
                events.SelectMany(one => one.Occurrences(window, Studio.Clock)),
                window,
                Studio.Clock
            ),
        ];
    }

    private static Event At(LocalDate day, int hour, string title = "Slip casting") =>
        Studio.Event(Studio.Hours(day.AtMidnight().PlusHours(hour), 60)) is var one
            ? one with
            {
                Content = one.Content with { Title = title, Place = "Wheel room", Notes = "Bring slip." },
            }
            : throw new InvalidOperationException();

    [Fact]
    public void A_page_of_what_comes_next_begins_today_and_ends_where_the_noticeboard_does()
    {
        var page = BoardPage.At(Board() with { DaysAhead = 10 }, null, null, Today, IsoDayOfWeek.Monday);

        Assert.Equal(new BoardPage(BoardView.Next, Today, Today.PlusDays(10), Earlier: null, Later: null), page);
    }

    [Fact]
    public void Months_and_weeks_can_be_turned_within_reach_and_no_further()
    {
        var board = Board() with { DaysAhead = 40 };

        var march = BoardPage.At(board, BoardView.Month, null, Today, IsoDayOfWeek.Monday);
        var april = BoardPage.At(board, BoardView.Month, march.Later, Today, IsoDayOfWeek.Monday);
        var far = BoardPage.At(board, BoardView.Month, new LocalDate(2031, 1, 1), Today, IsoDayOfWeek.Monday);
        var long_ago = BoardPage.At(board, BoardView.Week, new LocalDate(1999, 1, 1), Today, IsoDayOfWeek.Sunday);

        Assert.Equal((new LocalDate(2026, 3, 1), new LocalDate(2026, 3, 31)), (march.First, march.Last));
        Assert.Null(march.Earlier);
        Assert.Equal(new LocalDate(2026, 4, 1), april.First);
        Assert.Null(april.Later);
        Assert.Equal(april, far);
        Assert.Equal(new LocalDate(2026, 3, 1), long_ago.First); // a Sunday
        Assert.Equal(
            (new LocalDate(2026, 3, 30), new LocalDate(2026, 4, 20)),
            april.Drawn(board, Today, IsoDayOfWeek.Monday)
        );
    }

    [Fact]
    public void A_view_it_does_not_have_leads_to_its_first() =>
        Assert.Equal(
            BoardView.Week,
            BoardPage
                .At(Board() with { Views = [BoardView.Week] }, BoardView.Month, null, Today, IsoDayOfWeek.Monday)
                .View
        );

    [Fact]
    public void What_is_over_is_not_next_and_what_runs_is_of_today()
    {
        var board = Board();
        var page = BoardPage.At(board, null, null, Today, IsoDayOfWeek.Monday);
        var fair = Studio.Event(EventTime.Days(Today.PlusDays(-1), Today.PlusDays(1)));
        var entries = Entries(
            board,
            Today,
            Today.PlusDays(20),
            At(Today, 9, "over"),
            At(Today, 11, "ends now"),
            At(Today, 14),
            fair
        );

        var days = page.Days(entries, Noon, IsoDayOfWeek.Monday, out _);

        Assert.Equal([Today], days.Select(day => day.Date));
        Assert.Equal(
            [fair.Id, entries.Single(one => one.Title == "Slip casting").Event],
            days[0].Entries.Select(one => one.Event)
        );
    }

    [Fact]
    public void A_month_has_whole_weeks_and_what_lasts_stands_on_each_day()
    {
        var board = Board();
        var page = BoardPage.At(board, BoardView.Month, null, Today, IsoDayOfWeek.Monday);
        var fair = Studio.Event(EventTime.Days(Today, Today.PlusDays(2)));
        var night = Studio.Event(Studio.Hours(Today.AtMidnight().PlusHours(22), 120)); // to midnight

        var days = page.Days(Entries(board, page.First, page.Last, fair, night), Noon, IsoDayOfWeek.Monday, out _);

        Assert.Equal(42, days.Count); // 23 February to 5 April
        Assert.Equal(31, days.Count(day => day.IsIn));
        Assert.Equal([2, 1, 1], days.Where(day => day.Entries.Count > 0).Select(day => day.Entries.Count));
    }

    [Fact]
    public void A_page_that_would_get_too_long_ends_and_says_where_it_goes_on()
    {
        var board = Board() with { DaysAhead = 100 };
        var events = Enumerable
            .Range(1, 90)
            .SelectMany(day => new[] { At(Today.PlusDays(day), 9), At(Today.PlusDays(day), 10) });
        var entries = Entries(board, Today, Today.PlusDays(100), [.. events]);

        var days = BoardPage
            .At(board, null, null, Today, IsoDayOfWeek.Monday)
            .Days(entries, Noon, IsoDayOfWeek.Monday, out var page);
        var rest = BoardPage
            .At(board, null, page.Later, Today, IsoDayOfWeek.Monday)
            .Days(entries.Where(one => one.FirstDay >= page.Later), Noon, IsoDayOfWeek.Monday, out var last);

        Assert.Equal(BoardPage.MostEntries, days.Sum(day => day.Entries.Count));
        Assert.Equal(180, days.Concat(rest).Sum(day => day.Entries.Count));
        Assert.Equal(days[^1].Date.PlusDays(1), page.Later);
        Assert.Null(last.Later);
    }

    [Fact]
    public void Each_step_tells_what_it_shows_and_nothing_else()
    {
        var named = At(Today, 14) is var one
            ? one with
            {
                Content = one.Content with { Attendees = Attendees.Of([Studio.Priya]) },
            }
            : null!;
        var hush = At(Today, 16, "Dentist") is var two
            ? two with
            {
                Content = two.Content with { Private = true },
            }
            : null!;

        BoardEntry[] See(Noticeboard board) =>
            [.. Entries(board, Today, Today, named, hush).OrderBy(entry => entry.Span.Start)];

        Assert.Equal(["", ""], See(Board(Role.Times)).Select(entry => entry.Title + entry.Place + entry.Notes));
        Assert.All(See(Board(Role.Times)), entry => Assert.Null(entry.Event));
        var outline = See(Board(Role.Outline));
        Assert.Equal(
            ("Slip casting", "Wheel room", "", 0),
            (outline[0].Title, outline[0].Place, outline[0].Notes, outline[0].People.Count)
        );
        Assert.Equal((null, ""), (outline[1].Event, outline[1].Title));
        Assert.Equal(("Bring slip.", 0), (See(Board())[0].Notes, See(Board())[0].People.Count));
        var all = See(Board() with { ShowsPeople = true, ShowsPlaces = false });
        Assert.Equal(("", 1), (all[0].Place, all[0].People.Count));
        Assert.Equal((null, ""), (all[1].Event, all[1].Title));
        Assert.Equal(new BoardCount(1, 1, 1, 1), BoardCount.Of(all));
    }

    [Fact]
    public void An_hour_that_is_repeated_in_autumn_is_told_by_its_instants()
    {
        var board = Board();
        var day = new LocalDate(2026, 10, 25);
        var halifax = Studio.Event(
            EventTime.InZone(
                day.At(new LocalTime(22, 15)).PlusDays(-1),
                day.At(new LocalTime(22, 45)).PlusDays(-1),
                "America/Halifax"
            )
        );

        var entry = Assert.Single(Entries(board, day, day, halifax));

        // 22:15 in Halifax (UTC-3) is 01:15 UTC, the second 01:15 of London's night.
        Assert.Equal("2026-10-25T01:15:00Z", entry.Span.Start.ToString());
        Assert.Equal(new LocalTime(1, 15), entry.Time.LocalStart.TimeOfDay);
    }
}
