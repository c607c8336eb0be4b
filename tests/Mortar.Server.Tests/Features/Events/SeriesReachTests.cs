using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Series made and changed over the API: one date, this and later, all; and taken back.</summary>
public class SeriesReachTests
{
    private const string Rule = "FREQ=WEEKLY;COUNT=6";

    [Fact]
    public async Task A_series_is_made_with_its_rule_and_says_how_it_repeats()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        await MakeSeries(ines, calendar, "FREQ=WEEKLY;INTERVAL=2;UNTIL=20260416");

        var bricks = await ines.Bricks(calendar, "2026-03-01", "2026-06-01");
        Assert.Equal(3, bricks.Count);
        Assert.Equal("every second Thursday at 14:00 until 16 April", bricks[0].Text("repeats"));
        Assert.Equal("FREQ=WEEKLY;UNTIL=20260416;INTERVAL=2", bricks[0].Text("rule"));
    }

    [Theory]
    [InlineData("onlyThis", 1, 5)]
    [InlineData("andLater", 4, 2)]
    [InlineData("whole", 6, 0)]
    public async Task A_change_reaches_as_far_as_it_is_meant_and_one_undo_takes_all_of_it_back(
        string reach,
        int changed,
        int same
    )
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await MakeSeries(ines, calendar, Rule);
        var set = Guid.NewGuid();

        (
            await ines.Put(
                $"/api/events/{id}?only=2026-03-26T14:00:00&reach={reach}",
                World.Event(calendar, "Moved", World.Hours("2026-03-26T16:00:00", "2026-03-26T17:30:00")),
                1,
                set
            )
        ).Is(200);
        var after = await Starts(ines, calendar);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.Equal(changed, after.Count(start => start.EndsWith("T16:00:00", StringComparison.Ordinal)));
        Assert.Equal(same, after.Count(start => start.EndsWith("T14:00:00", StringComparison.Ordinal)));
        Assert.All(
            await Starts(ines, calendar),
            start => Assert.EndsWith("T14:00:00", start, StringComparison.Ordinal)
        );
    }

    [Theory]
    [InlineData("onlyThis", 5)]
    [InlineData("andLater", 2)]
    [InlineData("whole", 0)]
    public async Task Dates_are_deleted_as_far_as_is_meant(string reach, int left)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await MakeSeries(ines, calendar, Rule);

        (await ines.Delete($"/api/events/{id}?only=2026-03-26T14:00:00&reach={reach}", 1)).Is(200);

        Assert.Equal(left, (await Starts(ines, calendar)).Count);
    }

    [Fact]
    public async Task What_each_reach_would_come_to_is_told_before_and_nothing_is_changed()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await MakeSeries(ines, calendar, Rule);

        var change = (
            await ines.Post(
                $"/api/events/{id}/preview",
                new { only = "2026-03-26T14:00:00", @event = World.Event(calendar, "Moved") }
            )
        ).Is(200);
        var deletion = (
            await ines.Post($"/api/events/{id}/preview", new { only = "2026-03-26T14:00:00", @event = (object?)null })
        ).Is(200);

        Assert.Equal(["onlyThis", "andLater", "whole"], change.Body.EnumerateArray().Select(one => one.Text("reach")));
        Assert.Equal("4 dates from Thu 26 March 2026 on", deletion.Body[1].Text("sentence"));
        Assert.All(await ines.Bricks(calendar), brick => Assert.Equal(1, brick.GetProperty("version").GetInt32()));
    }

    [Theory]
    [InlineData("FREQ=WEEKLY;BYDAY=XX", "At place")]
    [InlineData("RSCALE=HEBREW;FREQ=YEARLY", "Gregorian")]
    public async Task A_rule_that_is_none_says_where_and_nothing_is_written(string rule, string sentence)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put($"/api/events/{Guid.NewGuid()}", Series(calendar, rule));
        var preview = (await ines.Post("/api/rules/preview", Wish(calendar, rule))).Is(200);

        answer.IsProblem(422, "unfit");
        Assert.Contains(sentence, answer.Body.GetProperty("fields").Text("repeats"), StringComparison.Ordinal);
        Assert.NotEqual(JsonValueKind.Null, preview.Body.GetProperty("problem").ValueKind);
        Assert.Empty(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task A_series_typed_far_away_says_on_whose_clock_it_is_and_comes_as_it_was_promised()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var priya = await mortar.As(DemoPeople.Priya);
        (
            await ines.Put($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}", new { role = "edit" })
        ).Is(204);
        await mortar.Store(db =>
            db.People.Where(one => one.Id == DemoPeople.Priya.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(one => one.Zone, "Asia/Tokyo"))
        );
        // Tuesday 17 March at 8:00 in Tokyo is Monday 23:00 in London, where the calendar is.
        var time = World.Hours("2026-03-17T08:00:00", "2026-03-17T09:00:00", "Asia/Tokyo");
        var id = Guid.CreateVersion7();

        var said = (await priya.Post("/api/rules/preview", Wish(calendar, "FREQ=WEEKLY;BYDAY=MO;COUNT=4", time, id)))
            .Is(200)
            .Body;

        Assert.Equal(("Europe/London", "2026-03-16T23:00:00"), (said.Text("zone"), said.Text("start")));
        Assert.Equal("every Monday at 23:00, 4 times", said.Text("sentence"));
        (await priya.Put($"/api/events/{id}", Series(calendar, "FREQ=WEEKLY;BYDAY=MO;COUNT=4", time))).Is(200);
        var dates = said.GetProperty("next").EnumerateArray().Select(one => one.GetString()!).ToList();
        Assert.Equal(4, dates.Count);
        Assert.Equal(dates, await Starts(ines, calendar));

        // Shown again, the rule is the one of that clock, and nothing changes by looking.
        var again = (
            await priya.Post("/api/rules/preview", Wish(calendar, null, time, id, only: "2026-03-16T23:00:00"))
        )
            .Is(200)
            .Body;
        Assert.Equal("FREQ=WEEKLY;COUNT=4;BYDAY=MO", again.Text("rule"));
        Assert.Equal(dates, again.GetProperty("next").EnumerateArray().Select(one => one.GetString()));
    }

    [Fact]
    public async Task What_was_left_out_or_moved_by_itself_is_said_and_not_foretold()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Series(calendar, "FREQ=WEEKLY;BYDAY=TU,TH;COUNT=6"))).Is(200);
        (
            await ines.Send(
                HttpMethod.Delete,
                $"/api/events/{id}?only=2026-03-17T14:00:00&reach=onlyThis",
                null,
                1,
                null
            )
        ).Is(200);

        // Thursday carried to Friday, for the whole series: both days move.
        var moved = World.Hours("2026-03-13T14:00:00", "2026-03-13T15:30:00");
        var said = (await ines.Post("/api/rules/preview", Wish(calendar, null, moved, id, only: "2026-03-12T14:00:00")))
            .Is(200)
            .Body;

        Assert.Equal("FREQ=WEEKLY;COUNT=6;BYDAY=WE,FR", said.Text("rule"));
        Assert.Equal("every Wednesday and Friday at 14:00, 6 times, not on 18 March", said.Text("sentence"));
        Assert.Equal(
            ["2026-03-13T14:00:00", "2026-03-20T14:00:00", "2026-03-25T14:00:00"],
            said.GetProperty("next").EnumerateArray().Select(one => one.GetString()).Take(3)
        );
    }

    [Fact]
    public async Task A_rule_begins_on_the_first_date_it_has_and_one_that_never_comes_is_refused()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();

        // Typed for Thursday 12 March.
        (await ines.Put($"/api/events/{id}", Series(calendar, "FREQ=WEEKLY;BYDAY=FR;COUNT=2"))).Is(200);

        Assert.Equal(["2026-03-13T14:00:00", "2026-03-20T14:00:00"], await Starts(ines, calendar));
        (await ines.Put($"/api/events/{Guid.NewGuid()}", Series(calendar, "FREQ=WEEKLY;UNTIL=20260301"))).IsProblem(
            409,
            "series-rule"
        );
    }

    [Fact]
    public async Task What_a_rule_comes_to_is_not_told_of_what_is_not_there_for_one()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Series(calendar, "FREQ=WEEKLY;COUNT=3"))).Is(200);

        (await astrid.Post("/api/rules/preview", Wish(calendar, null, id: id))).IsProblem(404, "not-there");
        (await astrid.Post("/api/rules/preview", Wish(calendar, "FREQ=WEEKLY"))).IsProblem(404, "not-there");

        // With a calendar of her own, one that is hidden answers as one that never was.
        var (attic, own) = (Guid.CreateVersion7(), new CalendarId(Guid.CreateVersion7()));
        var group = new
        {
            name = "Attic",
            sort = "family",
            zone = "Europe/London",
            firstDay = "monday",
        };
        (await astrid.Put($"/api/groups/{attic}", group)).Is(200);
        (await astrid.Put($"/api/calendars/{own.Value}", World.Calendar("Attic days", group: attic))).Is(200);
        var hidden = (await astrid.Post("/api/rules/preview", Wish(own, "FREQ=DAILY;COUNT=2", id: id))).Is(200).Text;
        Assert.Equal((await astrid.Post("/api/rules/preview", Wish(own, "FREQ=DAILY;COUNT=2"))).Is(200).Text, hidden);
    }

    private static object Wish(
        CalendarId calendar,
        string? rule,
        object? time = null,
        Guid? id = null,
        string? only = null
    ) =>
        new
        {
            time = time ?? World.Hours(),
            rule,
            calendarId = calendar.Value,
            eventId = id ?? Guid.NewGuid(),
            only,
        };

    [Fact]
    public async Task A_rule_is_shown_before_it_is_saved()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = (await ines.Post("/api/rules/preview", Wish(calendar, "FREQ=MONTHLY;BYDAY=2TH"))).Is(200);

        Assert.Equal("every month on the second Thursday at 14:00", answer.Body.Text("sentence"));
        Assert.Equal(
            [
                "2026-03-12T14:00:00",
                "2026-04-09T14:00:00",
                "2026-05-14T14:00:00",
                "2026-06-11T14:00:00",
                "2026-07-09T14:00:00",
            ],
            answer.Body.GetProperty("next").EnumerateArray().Select(one => one.GetString())
        );
    }

    [Fact]
    public async Task A_series_moves_to_another_calendar_as_a_whole_only()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var id = await MakeSeries(ines, from, Rule);

        (await ines.Put($"/api/events/{id}?only=2026-03-26T14:00:00&reach=andLater", World.Event(to), 1)).IsProblem(
            409,
            "not-one-of-a-series"
        );
        (await ines.Put($"/api/events/{id}?only=2026-03-12T14:00:00&reach=whole", World.Event(to), 1)).Is(200);

        Assert.Empty(await Starts(ines, from));
        Assert.Equal(6, (await Starts(ines, to)).Count);
    }

    private static object Series(CalendarId calendar, string rule, object? time = null) =>
        new
        {
            calendarId = calendar.Value,
            title = "Celadon",
            place = "Glaze room",
            notes = World.Secret,
            showAs = "busy",
            time = time ?? World.Hours(),
            rule,
        };

    private static async Task<Guid> MakeSeries(Browser browser, CalendarId calendar, string rule)
    {
        var id = Guid.CreateVersion7();
        (await browser.Put($"/api/events/{id}", Series(calendar, rule))).Is(200);
        return id;
    }

    private static async Task<List<string>> Starts(Browser browser, CalendarId calendar) =>
        [
            .. (await browser.Bricks(calendar, "2026-03-01", "2026-06-01")).Select(brick =>
                brick.GetProperty("time").Text("start")
            ),
        ];
}
