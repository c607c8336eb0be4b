using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What is deleted waits in the bin, and comes back from there as it was.</summary>
public class BinTests
{
    [Fact]
    public async Task Deleting_a_calendar_needs_the_name_and_says_before_what_goes_from_whom()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        await ines.MakeEvent(calendar, "Tenmoku");
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);

        var loss = (await ines.Get($"/api/calendars/{calendar.Value}/loss")).Is(200).Body;
        Assert.Equal((2, 2), (loss.GetProperty("events").GetInt32(), loss.GetProperty("people").GetInt32()));
        var without = (await ines.Delete($"/api/calendars/{calendar.Value}", 1)).IsProblem(422, "unfit");
        Assert.Contains("Glaze tests", without.Detail, StringComparison.Ordinal);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze", 1)).IsProblem(422, "unfit");
        Assert.True(await ines.HasLayer(calendar));

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=glaze%20tests", 1)).Is(204);
        Assert.False(await ines.HasLayer(calendar));
    }

    [Fact]
    public async Task A_calendar_comes_back_whole_with_its_access_by_who_coordinated_it_and_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var eventId = await ines.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);

        var binned = Assert.Single(await ines.InBin());
        Assert.Equal(
            ("calendar", "Glaze tests", DemoPeople.Ines.Name, 1),
            (Kind(binned), binned.Text("calendarName"), binned.Text("deletedBy"), Count(binned))
        );
        Assert.Empty(await priya.InBin());
        (await priya.Get($"/api/events/{eventId}")).Is(404);
        (await priya.BringBack(calendar)).IsProblem(404, "not-there");
        (await ines.BringBack(calendar)).Is(200);

        (await priya.Get($"/api/events/{eventId}")).Is(200);
        Assert.Empty(await ines.InBin());
    }

    /// <summary>
    /// Of everything that can be deleted: how, what the bin says of it, and that the calendar's file is the same again,
    /// byte for byte, when it is back.
    /// </summary>
    public static TheoryData<string, string, int> Deletions() =>
        new()
        {
            { "a single event", "events", 1 },
            { "a series", "events", 1 },
            { "one date of a series", "dates", 1 },
            { "a changed date of a series", "dates", 1 },
            { "all later dates of a series", "dates", 1 },
            { "two dates in one act", "dates", 2 },
            { "two events in one act", "events", 2 },
            { "the calendar", "calendar", 3 },
        };

    [Theory]
    [MemberData(nameof(Deletions))]
    public async Task Everything_that_is_deleted_comes_back_byte_for_byte(string what, string kind, int count)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (single, other) = (await ines.MakeEvent(calendar), await ines.MakeEvent(calendar, "Tenmoku"));
        var series = await MakeSeries(ines, calendar);
        (
            await ines.Put(
                $"/api/events/{single}",
                World.Event(calendar, "Celadon", attendees: DemoPeople.Priya.Id.Value),
                1
            )
        ).Is(200);
        (await priya.Put($"/api/events/{single}/answer", new { answer = "accepted", comment = "With tongs" })).Is(204);
        var before = await State(mortar, ines, calendar, single);
        var set = Guid.NewGuid();

        await Delete();
        Assert.NotEqual(before, await State(mortar, ines, calendar, single));
        var entry = Assert.Single(await ines.InBin());
        Assert.Equal((kind, count), (Kind(entry), Count(entry)));
        Assert.Equal(DemoPeople.Ines.Name, entry.Text("deletedBy"));
        (await ines.BringBack(entry)).Is(200);

        Assert.Equal(before, await State(mortar, ines, calendar, single));
        Assert.Empty(await ines.InBin());

        async Task Delete()
        {
            switch (what)
            {
                case "a single event":
                    (await ines.Delete($"/api/events/{single}", 2, set)).Is(200);
                    break;
                case "a series":
                    (await ines.Delete($"/api/events/{series}", 2, set)).Is(200);
                    break;
                case "one date of a series":
                    (await ines.Delete(Date(series, 19, "onlyThis"), 2, set)).Is(200);
                    break;
                case "a changed date of a series":
                    (await ines.Delete(Date(series, 26, "onlyThis"), 2, set)).Is(200);
                    break;
                case "all later dates of a series":
                    (await ines.Delete(Date(series, 19, "andLater"), 2, set)).Is(200);
                    break;
                case "two dates in one act":
                    (await ines.Delete(Date(series, 26, "onlyThis"), 2, set)).Is(200);
                    (await ines.Delete(Date(series, 19, "onlyThis"), 3, set)).Is(200);
                    break;
                case "two events in one act":
                    (await ines.Delete($"/api/events/{single}", 2, set)).Is(200);
                    (await ines.Delete($"/api/events/{other}", 1, set)).Is(200);
                    break;
                default:
                    (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1, set)).Is(204);
                    break;
            }
        }
    }

    [Fact]
    public async Task Who_uses_the_name_of_anothers_act_is_not_who_deleted()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, set) = (await ines.MakeCalendar(), Guid.NewGuid());
        var id = await ines.MakeEvent(calendar);
        (await ines.Delete($"/api/events/{id}", 1, set)).Is(200);

        (await dele.Put($"/api/calendars/{Guid.CreateVersion7()}", World.Calendar("His"), set: set)).Is(200);

        Assert.Equal(DemoPeople.Ines.Name, Assert.Single(await ines.InBin()).Text("deletedBy"));
    }

    [Fact]
    public async Task One_of_several_comes_back_by_itself()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var set = Guid.NewGuid();
        var ids = new List<Guid>();
        foreach (var title in new[] { "One", "Two", "Three", "Four", "Five", "Six" })
        {
            ids.Add(await ines.MakeEvent(calendar, title));
            (await ines.Delete($"/api/events/{ids[^1]}", 1, set)).Is(200);
        }

        var entry = Assert.Single(await ines.InBin());
        Assert.Equal((6, 5), (Count(entry), entry.GetProperty("things").GetArrayLength()));
        var all = (await ines.Get($"/api/bin/{set}/events?calendar={calendar.Value}")).Is(200).Body;
        Assert.Equal(6, all.GetArrayLength());

        var place = new
        {
            kind = "events",
            calendarId = calendar.Value,
            act = set,
            id = ids[3],
        };
        (await ines.Post("/api/bin/bring-back", new { place })).Is(200);

        Assert.Equal("Four", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        Assert.Equal(5, Count(Assert.Single(await ines.InBin())));
        (await ines.Post("/api/bin/bring-back", new { place })).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Hundreds_come_back_at_once_and_that_can_be_undone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (import, undo, back) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        await mortar.Fill(calendar, 600, import);
        (await ines.Post($"/api/changes/{import}/undo", set: undo)).Is(200);
        Assert.Equal(0, await Left());

        var entry = Assert.Single(await ines.InBin());
        Assert.Equal(600, Count(entry));
        (await ines.BringBack(entry, back)).Is(200);
        Assert.Equal(600, await Left());
        (await ines.Post($"/api/changes/{back}/undo")).Is(200);

        Assert.Equal(0, await Left());
        Assert.Equal(undo, Assert.Single(await ines.InBin()).GetProperty("place").GetProperty("act").GetGuid());

        Task<int> Left() =>
            mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar && row.DeletedAt == null));
    }

    /// <summary>Who finds Ines's and Priya's deleted event in the bin, by their step.</summary>
    [Theory]
    [InlineData(Role.None, false, false)]
    [InlineData(Role.Times, false, false)]
    [InlineData(Role.Outline, false, false)]
    [InlineData(Role.View, false, false)]
    [InlineData(Role.Add, false, true)]
    [InlineData(Role.Edit, true, true)]
    [InlineData(Role.Coordinate, true, true)]
    public async Task Members_find_what_they_could_change(Role role, bool ofIness, bool herOwn)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        var (set, hers) = (Guid.NewGuid(), await priya.MakeEvent(calendar, "Hers"));
        var inesEvent = await ines.MakeEvent(calendar, "Ines's");
        (await ines.Delete($"/api/events/{inesEvent}", 1, set)).Is(200);
        (await ines.Delete($"/api/events/{hers}", 1, set)).Is(200);
        var series = await MakeSeries(ines, calendar);
        var cut = Guid.NewGuid();
        (await ines.Delete(Date(series, 19, "onlyThis"), 2, cut)).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, role);

        var titles = (await priya.InBin()).SelectMany(Titles).ToList();
        Assert.Equal(ofIness, titles.Contains("Ines's"));
        Assert.Equal(herOwn, titles.Contains("Hers"));
        Assert.Equal(ofIness, titles.Contains("Throwing"));
        var place = Place("events", inesEvent);
        (await priya.Post("/api/bin/bring-back", new { place })).Is(ofIness ? 200 : 404);
        (await priya.Post("/api/bin/bring-back", new { place = Place("dates", series) })).Is(ofIness ? 200 : 404);
        (await priya.Post("/api/bin/bring-back", new { place = Place("events", hers) })).Is(herOwn ? 200 : 404);
        Assert.Equal((ofIness ? 4 : 2) + (herOwn ? 1 : 0), (await ines.Bricks(calendar, to: "2026-03-29")).Count);

        object Place(string kind, Guid id) =>
            new
            {
                kind,
                calendarId = calendar.Value,
                act = kind == "dates" ? cut : set,
                id,
            };
    }

    [Fact]
    public async Task Of_two_who_bring_the_same_back_the_second_is_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var id = await ines.MakeEvent(calendar);
        (await ines.Delete($"/api/events/{id}", 1)).Is(200);
        var entry = Assert.Single(await priya.InBin());

        var answers = await Task.WhenAll(ines.BringBack(entry), priya.BringBack(entry));

        Assert.Equal([200, 404], answers.Select(one => one.Status).Order());
        Assert.Single(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task An_event_comes_back_after_who_added_it_has_left()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        var id = await priya.MakeEvent(calendar, "Hers");
        (await priya.Delete($"/api/events/{id}", 1)).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.None);
        Assert.Empty(await priya.InBin());

        (await ines.BringBack(Assert.Single(await ines.InBin()))).Is(200);

        Assert.Equal("Hers", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        Assert.Empty(await priya.Bricks(calendar));
    }

    [Fact]
    public async Task What_is_in_a_calendar_in_the_bin_waits_for_that()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (set, id) = (Guid.NewGuid(), await ines.MakeEvent(calendar));
        (await ines.Delete($"/api/events/{id}", 1, set)).Is(200);
        var entry = Assert.Single(await ines.InBin());
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);

        Assert.Equal("calendar", Kind(Assert.Single(await ines.InBin())));
        (await ines.BringBack(entry)).IsProblem(404, "not-there");
        (await ines.Post($"/api/changes/{set}/undo")).Is(200); // an act of one's own: into the calendar where it waits
        (await ines.BringBack(calendar)).Is(200);

        Assert.Single(await ines.Bricks(calendar));
        Assert.Empty(await ines.InBin());
    }

    [Fact]
    public async Task A_booking_whose_time_is_taken_by_now_is_offered_the_nearest_ones()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var kiln = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{kiln}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Test kiln",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "place",
                    groupDefault = "none",
                    oneAtATime = true,
                }
            )
        ).Is(200);
        var place = new CalendarId(kiln);
        var id = await ines.MakeEvent(place, "Bisque", World.Hours("2026-03-12T14:00:00", "2026-03-12T16:00:00"));
        (await ines.Delete($"/api/events/{id}", 1)).Is(200);
        await ines.MakeEvent(place, "Glaze", World.Hours("2026-03-12T15:00:00", "2026-03-12T18:00:00"));
        var entry = Assert.Single(await ines.InBin());

        var taken = (await ines.BringBack(entry)).IsProblem(409, "taken");
        Assert.Contains("Glaze", taken.Detail, StringComparison.Ordinal);
        var near = (await ines.Post("/api/bin/nearest", entry.GetProperty("place"))).Is(200).Body;
        Assert.Equal("2026-03-12T13:00:00", near.GetProperty("earlier").Text("start"));
        Assert.Equal("2026-03-12T18:00:00", near.GetProperty("later").Text("start"));
        (
            await ines.Post(
                "/api/bin/bring-back",
                new { place = entry.GetProperty("place"), start = near.Text("laterStart") }
            )
        ).Is(200);

        Assert.Equal(
            ["2026-03-12T15:00:00", "2026-03-12T18:00:00"],
            (await ines.Bricks(place)).Select(brick => brick.GetProperty("time").Text("start")).Order()
        );
        Assert.Empty(await ines.InBin());
    }

    [Fact]
    public async Task Only_a_single_event_with_hours_comes_back_at_another_time()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var series = await MakeSeries(ines, calendar);
        (await ines.Delete($"/api/events/{series}", 2)).Is(200);
        var place = Assert.Single(await ines.InBin()).GetProperty("place");

        (await ines.Post("/api/bin/bring-back", new { place, start = "2026-03-12T18:00:00Z" })).IsProblem(422, "unfit");

        Assert.Empty(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task A_copy_that_came_since_keeps_the_first_in_the_bin()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);
        (await ines.Delete($"/api/events/{id}", 1)).Is(200);
        await mortar.Store(async db =>
        {
            var uid = await db.Events.Where(row => row.CalendarId == calendar).Select(row => row.Uid).SingleAsync();
            var copy = await ines.MakeEvent(calendar, "Copy");
            return await db
                .Events.Where(row => row.Id == new EventId(copy))
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Uid, uid));
        });

        (await ines.BringBack(Assert.Single(await ines.InBin()))).IsProblem(409, "already-there");

        Assert.Equal("Copy", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task Times_that_were_proposed_and_taken_back_wait_for_answers_again()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/proposals/{id}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Which evening",
                    place = "",
                    notes = "",
                    times = new[]
                    {
                        new { start = "2026-03-18T20:00:00", end = "2026-03-18T21:00:00" },
                        new { start = "2026-03-19T20:00:00", end = "2026-03-19T21:00:00" },
                    },
                    personIds = new[] { DemoPeople.Priya.Id.Value },
                }
            )
        ).Is(204);
        Assert.Equal(1, await Waiting());
        (await ines.Delete($"/api/proposals/{id}")).Is(204);
        Assert.Equal(0, await Waiting());
        Assert.Empty(await priya.InBin());
        var entry = Assert.Single(await ines.InBin());
        Assert.Equal(("proposal", "Which evening"), (Kind(entry), Assert.Single(Titles(entry))));

        (await ines.BringBack(entry)).Is(200);
        Assert.Equal(1, await Waiting());
        (await ines.Delete($"/api/proposals/{id}")).Is(204);
        clock.Now += Duration.FromDays(9);
        using var later = await mortar.As(DemoPeople.Ines);
        (await later.BringBack(entry)).IsProblem(409, "over");

        async Task<int> Waiting() =>
            (await priya.Get("/api/proposals")).Is(200).Body.GetProperty("waiting").GetArrayLength();
    }

    [Fact]
    public async Task After_thirty_days_nothing_comes_back()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var (kept, gone) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var id = await ines.MakeEvent(kept);
        (await ines.Delete($"/api/events/{id}", 1)).Is(200);
        (await ines.Delete(Date(await MakeSeries(ines, kept), 19, "onlyThis"), 2)).Is(200);
        (await ines.Delete($"/api/calendars/{gone.Value}?name=Glaze tests", 1)).Is(204);
        var entries = await ines.InBin();
        Assert.Equal(3, entries.Count);

        clock.Now += Duration.FromDays(30);
        using var later = await mortar.As(DemoPeople.Ines);

        Assert.Empty(await later.InBin());
        foreach (var entry in entries)
        {
            (await later.BringBack(entry)).IsProblem(404, "not-there");
        }
    }

    [Fact]
    public async Task A_coordinator_who_types_what_it_is_has_it_go_for_good()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (set, one, two) = (Guid.NewGuid(), await ines.MakeEvent(calendar, "One"), await ines.MakeEvent(calendar));
        (await ines.Delete($"/api/events/{one}", 1, set)).Is(200);
        (await ines.Delete($"/api/events/{two}", 1, set)).Is(200);
        var entry = Assert.Single(await ines.InBin());
        Assert.Equal("Glaze tests", entry.Text("erased"));
        Assert.Equal(JsonValueKind.Null, Assert.Single(await priya.InBin()).GetProperty("erased").ValueKind);

        (await priya.Post("/api/bin/erase", Erase(entry, "Glaze tests"))).IsProblem(403, "not-allowed");
        (await ines.Post("/api/bin/erase", Erase(entry, "One"))).IsProblem(422, "unfit");
        Assert.Equal(2, Count(Assert.Single(await ines.InBin())));
        var place = new
        {
            kind = "events",
            calendarId = calendar.Value,
            act = set,
            id = one,
        };
        (await ines.Post("/api/bin/erase", new { place, name = "one" })).Is(204);
        Assert.Equal(1, Count(Assert.Single(await ines.InBin())));
        Assert.Equal(1, await Rows());
        (await ines.Post("/api/bin/erase", Erase(entry, "celadon"))).Is(204);

        Assert.Empty(await ines.InBin());
        Assert.Equal(0, await Rows());
        (await ines.BringBack(entry)).IsProblem(404, "not-there");
        (await ines.Post($"/api/changes/{set}/undo")).Is(404);

        Task<int> Rows() => mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar));
    }

    [Fact]
    public async Task A_calendar_and_dates_go_for_good_too()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var series = await MakeSeries(ines, calendar);
        (await ines.Delete(Date(series, 26, "onlyThis"), 2)).Is(200);
        var dates = Assert.Single(await ines.InBin());

        (await ines.Post("/api/bin/erase", Erase(dates, "Throwing"))).Is(204);
        Assert.Empty(await ines.InBin());
        Assert.Equal(0, await mortar.Store(db => db.Changes.CountAsync(row => row.Before!.Contains("Raku"))));
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
        var binned = Assert.Single(await ines.InBin());
        (await ines.Post("/api/bin/erase", Erase(binned, "glaze"))).IsProblem(422, "unfit");
        (await ines.Post("/api/bin/erase", Erase(binned, "glaze tests"))).Is(204);

        Assert.Empty(await ines.InBin());
        Assert.False(await mortar.Store(db => db.Calendars.AnyAsync(row => row.Id == calendar)));
    }

    /// <summary>Rules that fall on next to nothing, or on every second: looked through for dates that went, they keep nobody waiting.</summary>
    [Theory]
    [InlineData(
        "FREQ=MINUTELY;COUNT=366;BYDAY=MO;BYSETPOS=-283,32",
        "FREQ=MINUTELY;COUNT=12;BYDAY=MO;BYSETPOS=-283,32"
    )]
    [InlineData("FREQ=SECONDLY;COUNT=300000", "FREQ=SECONDLY;COUNT=200000")]
    [InlineData("FREQ=HOURLY;COUNT=10;BYMINUTE=58;BYSETPOS=206", "FREQ=HOURLY;COUNT=9;BYMINUTE=58;BYSETPOS=206")]
    public async Task Rules_that_are_hard_to_follow_are_in_the_bin_or_not_and_it_is_read(string rule, string shorter)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        var made = await ines.Put($"/api/events/{id}", Throwing(calendar, "Hard", World.Hours(), rule));
        if (made.Status == 200)
        {
            await ines.Put($"/api/events/{id}", Throwing(calendar, "Hard", World.Hours(), shorter), 1);
        }

        var single = await ines.MakeEvent(calendar, "Soft");
        (await ines.Delete($"/api/events/{single}", 1)).Is(200);

        Assert.Contains(await ines.InBin(), entry => Titles(entry).Contains("Soft"));
    }

    private static object Erase(JsonElement entry, string name) => new { place = entry.GetProperty("place"), name };

    /// <summary>The calendar as a file, and what was answered.</summary>
    private static async Task<string> State(TestMortar mortar, Browser ines, CalendarId calendar, Guid single)
    {
        var file = await ines.Get($"/api/calendars/{calendar.Value}/export");
        var answer = await mortar.Store(db =>
            db.Answers.Where(row => row.EventId == new EventId(single)).Select(row => row.Comment).SingleAsync()
        );
        var lines = (file.Status == 200 ? file.Text : string.Empty)
            .Split("\r\n")
            // How often it was changed, and when it was written, differ by the way there and back.
            .Where(line => !line.StartsWith("SEQUENCE", StringComparison.Ordinal))
            .Where(line => !line.StartsWith("DTSTAMP", StringComparison.Ordinal))
            .Where(line => !line.StartsWith("LAST-MODIFIED", StringComparison.Ordinal));
        return string.Join('\n', lines.Append(answer));
    }

    /// <summary>Six Thursdays from 12 March, of which the third is another one.</summary>
    private static async Task<Guid> MakeSeries(Browser ines, CalendarId calendar)
    {
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Throwing(calendar, "Throwing", World.Hours(), "FREQ=WEEKLY;COUNT=6"))).Is(
            200
        );
        var raku = World.Hours("2026-03-26T16:00:00", "2026-03-26T18:00:00");
        (await ines.Put(Date(id, 26, "onlyThis"), Throwing(calendar, "Raku", raku, rule: null), 1)).Is(200);
        return id;
    }

    private static object Throwing(CalendarId calendar, string title, object time, string? rule) =>
        new
        {
            calendarId = calendar.Value,
            title,
            place = "Wheel room",
            notes = World.Secret,
            showAs = "busy",
            time,
            rule,
        };

    private static string Date(Guid series, int day, string reach) =>
        $"/api/events/{series}?only=2026-03-{day}T14:00:00&reach={reach}";

    private static string Kind(JsonElement entry) => entry.GetProperty("place").Text("kind");

    private static int Count(JsonElement entry) => entry.GetProperty("count").GetInt32();

    private static IEnumerable<string> Titles(JsonElement entry) =>
        entry.GetProperty("things").EnumerateArray().Select(thing => thing.Text("title"));
}
