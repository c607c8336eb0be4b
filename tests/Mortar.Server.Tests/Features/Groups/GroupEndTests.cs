using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Keeping;
using Mortar.Data.Noticeboards;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests.Features.Noticeboards;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A group ends: to rest, where it is read and not changed, or to the bin; and comes back whole.</summary>
public class GroupEndTests
{
    private const string Week = "from=2026-03-09&to=2026-03-15";

    /// <summary>What is read of a group by its members.</summary>
    private static string[] OfAGroup(Guid group) =>
        [
            $"/api/groups/{group}/members",
            $"/api/groups/{group}/guests",
            $"/api/groups/{group}/asked",
            $"/api/groups/{group}/access",
            $"/api/groups/{group}/access-history/{DemoPeople.Priya.Id.Value}",
            $"/api/groups/{group}/history",
            $"/api/groups/{group}/ending",
            $"/api/groups/{group}/address?name=spring",
            $"/api/groups/{group}/noticeboards",
            $"/api/groups/{group}/noticeboards/open",
            $"/api/groups/{group}/noticeboards/address?name=spring",
            $"/api/groups/{group}/absences?year=2026",
            $"/api/groups/{group}/cover?from=2026-03-09&to=2026-03-15",
            $"/api/groups/{group}/back?last=2026-03-12&people={DemoPeople.Priya.Id.Value}",
            $"/api/spreadsheets/events.csv?{Week}&group={group}",
            $"/api/spreadsheets/access.csv?{Week}&group={group}",
            $"/paper/roster?{Week}&group={group}",
        ];

    [Fact]
    public async Task At_rest_it_is_off_the_walls_read_and_not_changed_and_woken_it_is_as_before()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (group, calendar, eventId) = await MakeTerm(ines, priya);
        var before = await File(priya, calendar);

        (await astrid.Post($"/api/groups/{group}/rest")).IsProblem(404, "not-there");
        (await priya.Post($"/api/groups/{group}/rest")).IsProblem(403, "not-allowed");
        (await priya.Get($"/api/groups/{group}/ending")).IsProblem(403, "not-allowed");
        (await ines.Post($"/api/groups/{group}/wake")).IsProblem(409, "as-it-was");
        (await ines.Post($"/api/groups/{group}/rest")).Is(204);
        (await ines.Post($"/api/groups/{group}/rest")).IsProblem(409, "as-it-was");

        // Off the walls, out of what is found and told; found again among the groups.
        Assert.Empty(await priya.Bricks(calendar));
        Assert.False(await priya.HasLayer(calendar));
        (await priya.Get($"/api/events/{eventId}")).Is(404);
        (await priya.Get($"/api/calendars/{calendar.Value}/export")).Is(404);
        Assert.Empty(
            (await priya.Get($"/api/find?from=2026-03-01&to=2026-03-31&words=Celadon")).Is(200).Bricks("hits")
        );
        Assert.NotEmpty(Of(await priya.Get("/api/groups"), group).Text("restsSince"));

        // Read by who could read it, as they could and no more.
        var wall = (await priya.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Body;
        var brick = Assert.Single(wall.BricksWithTexts());
        Assert.Equal(("Celadon", World.Secret), (brick.Text("title"), brick.Text("notes")));
        var layer = Assert.Single((await ines.Get($"/api/shelf?atRest={group}")).Is(200).Body.EnumerateArray());
        Assert.Equal(("Wheel course", "view"), (layer.Text("name"), layer.Text("role")));
        Assert.Empty((await astrid.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Bricks("bricks"));
        Assert.Empty((await astrid.Get($"/api/shelf?atRest={group}")).Is(200).Body.EnumerateArray());

        // Not changed, by nobody and in no way.
        (await ines.Put($"/api/events/{eventId}", World.Event(calendar, "Later"), 1)).Is(404);
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Other", group: group), 1)).Is(404);
        IsAtRest(
            await ines.Put(
                $"/api/groups/{group}",
                Settings("Other term"),
                VersionOf(await ines.Get("/api/groups"), group)
            )
        );
        IsAtRest(await ines.Put($"/api/calendars/{Guid.CreateVersion7()}", World.Calendar("New", group: group)));
        IsAtRest(
            await ines.Put(
                $"/api/groups/{group}/members",
                new { people = new[] { new { id = Guid.CreateVersion7(), name = "Sam" } } }
            )
        );
        IsAtRest(
            await ines.Put(
                $"/api/groups/{group}/members/{DemoPeople.Priya.Id.Value}/coordinates",
                new { coordinates = true }
            )
        );
        IsAtRest(
            await priya.Put($"/api/groups/{group}/guests/{Guid.CreateVersion7()}", new { text = "sam@example.org" })
        );

        (await priya.Post($"/api/groups/{group}/wake")).IsProblem(403, "not-allowed");
        (await ines.Post($"/api/groups/{group}/wake")).Is(204);
        Assert.Equal(before, await File(priya, calendar));
        Assert.Single(await priya.Bricks(calendar));
        Assert.Empty((await priya.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Bricks("bricks"));
        (await ines.Put($"/api/events/{eventId}", World.Event(calendar, "Later"), 1)).Is(200);
    }

    [Fact]
    public async Task What_was_done_in_it_before_cannot_be_undone_while_it_rests_and_its_end_can()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, eventId) = await MakeTerm(ines, priya);
        var (earlier, end) = (Guid.NewGuid(), Guid.NewGuid());
        (await ines.Put($"/api/events/{eventId}", World.Event(calendar, "Tenmoku"), 1, set: earlier)).Is(200);
        (await ines.Post($"/api/groups/{group}/rest", set: end)).Is(204);

        (await ines.Post($"/api/changes/{earlier}/undo")).Is(404);
        (await priya.Post($"/api/changes/{end}/undo")).IsProblem(403, "not-allowed");
        (await ines.Post($"/api/changes/{end}/undo")).Is(200);

        Assert.Equal("Tenmoku", Assert.Single(await priya.Bricks(calendar)).Text("title"));
        (await ines.Post($"/api/changes/{earlier}/undo")).Is(200);
        Assert.Equal("Celadon", Assert.Single(await priya.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task The_time_of_one_person_stays_theirs_and_for_the_bin_others_have_to_agree()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var shelf = (await priya.Get("/api/shelf")).Is(200).Body.EnumerateArray().ToList();
        var ending = (await ines.Get($"/api/groups/{World.StudioTeam}/ending")).Is(200).Body;
        Assert.Contains("Priya’s time", Names(ending, "stay"));
        Assert.Contains("“Priya’s time”", ending.Text("whyNotBin"), StringComparison.Ordinal);
        Assert.Contains("Rota", Names(ending, "rest"));

        Assert.Equal(
            ending.Text("whyNotBin"),
            (await ines.Delete($"/api/groups/{World.StudioTeam}?name=Studio team"))
                .IsProblem(409, "others-calendars")
                .Detail
        );
        (await ines.Post($"/api/groups/{World.StudioTeam}/rest")).Is(204);

        var left = (await priya.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Select(one => one.Text("name"))
            .ToList();
        Assert.Contains("Priya’s time", left);
        Assert.DoesNotContain("Rota", left);
        // It is at work for whose it is.
        var own = shelf.Single(one => one.Text("name") == "Priya’s time");
        var mine = new CalendarId(own.GetProperty("calendarId").GetGuid());
        await priya.MakeEvent(mine, "Dentist");
        (await ines.Delete($"/api/groups/{World.StudioTeam}?name=Studio team")).IsProblem(409, "others-calendars");

        (await ines.Post($"/api/groups/{World.StudioTeam}/wake")).Is(204);
        Assert.Equal(
            shelf.Select(one => one.Text("name")).Order(StringComparer.Ordinal),
            (await priya.Get("/api/shelf"))
                .Is(200)
                .Body.EnumerateArray()
                .Select(one => one.Text("name"))
                .Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public async Task A_calendar_that_its_coordinator_does_not_see_is_named_by_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, _, _) = await MakeTerm(ines, priya);
        (
            await priya.Put(
                $"/api/calendars/{Guid.CreateVersion7()}",
                World.Calendar("Surprise for Ines", groupDefault: "none", group: group)
            )
        ).Is(200);

        var answers = new[]
        {
            (await ines.Get($"/api/groups/{group}/ending")).Is(200),
            await ines.Delete($"/api/groups/{group}?name=Spring term"),
            (await ines.Get("/api/account/ending")).Is(200),
            (await ines.Post($"/api/groups/{group}/rest")).Is(204),
            (await ines.Get($"/api/groups/{group}/ending")).Is(200),
            await ines.Delete($"/api/groups/{group}?name=Spring term"),
            (await ines.Get($"/api/shelf?atRest={group}")).Is(200),
            (await ines.Get($"/api/wall?{Week}&atRest={group}")).Is(200),
            (await ines.Get($"/api/groups/{group}/history")).Is(200),
            (await ines.Get("/api/inbox")).Is(200),
            (await ines.Get("/api/bin")).Is(200),
        };

        Assert.All(answers, answer => Assert.DoesNotContain("Surprise", answer.Text, StringComparison.Ordinal));
        answers[1].IsProblem(409, "others-calendars");
        answers[5].IsProblem(409, "others-calendars");
    }

    [Fact]
    public async Task In_the_bin_it_is_there_for_its_coordinators_alone_and_comes_back_whole()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, eventId) = await MakeTerm(ines, priya);
        var alone = new CalendarId(Guid.CreateVersion7());
        (await ines.Put($"/api/calendars/{alone.Value}", World.Calendar("Deleted before", group: group))).Is(200);
        (await ines.Delete($"/api/calendars/{alone.Value}?name=Deleted before", 1)).Is(204);
        // What was given to the group elsewhere ends with it, and comes back with it.
        var elsewhere = await ines.MakeCalendar();
        (await ines.Put($"/api/calendars/{elsewhere.Value}/group-access/{group}", new { role = "view" })).Is(204);
        Assert.True(await priya.HasLayer(elsewhere));
        var before = await File(priya, calendar);

        foreach (var path in OfAGroup(group))
        {
            (await ines.Get(path)).Is(200);
        }

        (await ines.Delete($"/api/groups/{group}")).IsProblem(422, "unfit");
        (await ines.Delete($"/api/groups/{group}?name=Spring")).IsProblem(422, "unfit");
        (await priya.Delete($"/api/groups/{group}?name=Spring term")).IsProblem(403, "not-allowed");
        (await ines.Delete($"/api/groups/{group}?name=spring%20term")).Is(204);

        foreach (var person in new[] { ines, priya })
        {
            Assert.DoesNotContain(
                (await person.Get("/api/groups")).Is(200).Body.EnumerateArray(),
                one => one.GetProperty("id").GetGuid() == group
            );
            (await person.Get($"/api/events/{eventId}")).Is(404);
        }

        foreach (var person in new[] { ines, priya })
        {
            foreach (var path in OfAGroup(group))
            {
                (await person.Get(path)).Is(404);
            }

            (await person.Put($"/api/archives/{Guid.NewGuid()}", new { groupId = group })).IsProblem(404, "not-there");
        }

        Assert.False(await priya.HasLayer(elsewhere));
        Assert.Empty((await priya.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Bricks("bricks"));
        (await ines.Post($"/api/groups/{group}/wake")).IsProblem(404, "not-there");
        (await ines.Put($"/api/groups/{Guid.CreateVersion7()}/like/{group}", new { name = "Next" })).Is(404);
        (
            await ines.Put(
                $"/api/groups/{group}/members",
                new { people = new[] { new { id = Guid.CreateVersion7(), name = "Sam" } } }
            )
        ).IsProblem(409, "in-bin");
        // What was deleted in it before waits there by itself, and comes back only once the group is back.
        (await ines.BringBack(alone)).IsProblem(409, "in-bin");
        Assert.Empty(await priya.InBin());
        var entry = Assert.Single(await ines.InBin(), one => one.GetProperty("place").Text("kind") == "group");
        Assert.Equal(
            ("Spring term", 1, DemoPeople.Ines.Name, "Spring term"),
            (
                entry.Text("groupName"),
                entry.GetProperty("count").GetInt32(),
                entry.Text("deletedBy"),
                entry.Text("erased")
            )
        );
        (await priya.BringBack(entry)).IsProblem(404, "not-there");

        (await ines.BringBack(entry)).Is(200);
        (await ines.BringBack(entry)).IsProblem(404, "not-there");
        Assert.Equal(before, await File(priya, calendar));
        Assert.True(await priya.HasLayer(elsewhere));
        (await ines.BringBack(alone)).Is(200);
        Assert.True(await ines.HasLayer(alone));
    }

    [Fact]
    public async Task From_rest_to_the_bin_it_comes_back_to_rest_and_over_thirty_days_nothing_is_left()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, eventId) = await MakeTerm(ines, priya);
        var elsewhere = await ines.MakeCalendar();
        await ines.MakeEvent(elsewhere, "Elsewhere");
        (await ines.Put($"/api/calendars/{elsewhere.Value}/group-access/{group}", new { role = "view" })).Is(204);
        (await ines.Post($"/api/groups/{group}/rest")).Is(204);
        clock.Now += Duration.FromDays(100);
        using var later = await mortar.As(DemoPeople.Ines);
        using var hers = await mortar.As(DemoPeople.Priya);
        Assert.Single(await hers.Bricks(elsewhere)); // at rest it keeps what others gave it
        await Sweep(mortar);
        Assert.Single((await later.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Bricks("bricks")); // at rest it is kept

        (await later.Delete($"/api/groups/{group}?name=Spring term")).Is(204);
        Assert.Empty(await hers.Bricks(elsewhere)); // and in the bin not, though nothing of hers changed but the group
        (await later.BringBack(await InBin(later, group))).Is(200);
        Assert.Single(await hers.Bricks(elsewhere));
        Assert.Single((await later.Get($"/api/wall?{Week}&atRest={group}")).Is(200).Bricks("bricks"));
        Assert.False(await later.HasLayer(calendar));

        (await later.Delete($"/api/groups/{group}?name=Spring term")).Is(204);
        clock.Now += Duration.FromDays(30) - Duration.FromMinutes(1);
        await Sweep(mortar);
        using var last = await mortar.As(DemoPeople.Ines);
        var entry = await InBin(last, group);
        clock.Now += Duration.FromMinutes(2);
        Assert.Empty(await last.InBin());
        (await last.BringBack(entry)).IsProblem(404, "not-there");
        await Sweep(mortar);

        var mine = new GroupId(group);
        Assert.False(await mortar.Store(db => db.Groups.AnyAsync(row => row.Id == mine)));
        Assert.False(await mortar.Store(db => db.Calendars.AnyAsync(row => row.Id == calendar)));
        Assert.False(await mortar.Store(db => db.Changes.AnyAsync(row => row.GroupId == mine)));
        Assert.False(await mortar.Store(db => db.Events.AnyAsync(row => row.Id == new EventId(eventId))));
    }

    [Fact]
    public async Task It_goes_for_good_before_its_time_by_its_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, _) = await MakeTerm(ines, priya);
        (await ines.Delete($"/api/groups/{group}?name=Spring term")).Is(204);
        var place = (await InBin(ines, group)).GetProperty("place");

        (await ines.Post("/api/bin/erase", new { place, name = "Spring" })).IsProblem(422, "unfit");
        (await priya.Post("/api/bin/erase", new { place, name = "Spring term" })).IsProblem(404, "not-there");
        (await ines.Post("/api/bin/erase", new { place, name = "Spring term" })).Is(204);

        var mine = new GroupId(group);
        Assert.False(await mortar.Store(db => db.Groups.AnyAsync(row => row.Id == mine)));
        Assert.False(await mortar.Store(db => db.Calendars.AnyAsync(row => row.Id == calendar)));
        Assert.Empty(await ines.InBin());
    }

    [Fact]
    public async Task Its_members_are_told_once_whoever_came_later_is_not_and_all_may_leave()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var (group, _, _) = await MakeTerm(ines, priya);
        await News(priya);
        (await ines.Post($"/api/groups/{group}/rest")).Is(204);
        Assert.Equal(
            ["Ines Varga put the group “Spring term” to rest: its calendars are off your wall and can still be read."],
            await News(priya)
        );
        (await ines.Post($"/api/groups/{group}/wake")).Is(204);
        (await ines.Put($"/api/groups/{group}/members", Person(DemoPeople.Mei))).Is(200);
        await mei.SayYes(group);
        Assert.DoesNotContain(await News(mei), line => line.Contains("woke", StringComparison.Ordinal));
        (await ines.Delete($"/api/groups/{group}?name=Spring term")).Is(204);
        Assert.Contains("Ines Varga put the group “Spring term” in the bin, with its calendars.", await News(mei));
        Assert.Contains(
            "put the group in the bin",
            (await ines.Get("/api/history")).Is(200).Text,
            StringComparison.Ordinal
        );

        // Who does not want to wait for what becomes of it goes.
        (await mei.Delete($"/api/groups/{group}/members/{DemoPeople.Mei.Id.Value}")).Is(204);
        (await ines.BringBack(await InBin(ines, group))).Is(200);
        Assert.DoesNotContain(
            (await mei.Get("/api/groups")).Is(200).Body.EnumerateArray(),
            one => one.GetProperty("id").GetGuid() == group
        );
    }

    [Fact]
    public async Task The_next_term_is_made_like_one_that_rests()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, _, _) = await MakeTerm(ines, priya);
        (await ines.Post($"/api/groups/{group}/rest")).Is(204);

        var made = (await ines.Put($"/api/groups/{Guid.CreateVersion7()}/like/{group}", new { name = "Summer term" }))
            .Is(200)
            .Body;

        // At rest she reads it at most, which is what taking it over needs.
        Assert.Equal(1, made.GetProperty("calendars").GetInt32());
        Assert.Contains(
            (await ines.Get("/api/shelf")).Is(200).Body.EnumerateArray(),
            one => one.Text("name") == "Wheel course" && one.Text("role") == "coordinate"
        );
    }

    [Fact]
    public async Task A_noticeboard_is_read_by_nobody_meanwhile_and_by_the_world_again_once_it_is_awake()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var world = mortar.Anonymous();
        var (group, calendar, _) = await MakeTerm(ines, priya);
        var elsewhere = await ines.MakeCalendar();
        await ines.MakeNoticeboard(
            NoticeboardWorld.Settings([(calendar, "view")], address: "kept-there", group: group)
        );
        await ines.MakeNoticeboard(
            NoticeboardWorld.Settings([(elsewhere, "view")], address: "of-others", group: group)
        );
        var of = await ines.MakeNoticeboard(NoticeboardWorld.Settings([(calendar, "view")], address: "elsewhere"));
        string[] boards = ["kept-there", "of-others", "elsewhere"];
        await AllAre(200);

        foreach (var end in new[] { "rest", "bin" })
        {
            await End(ines, group, end);
            await PauseLost(mortar);
            await AllAre(404);
            var resting = await ines.Noticeboard(of);
            Assert.Equal(("open", false), (resting.Text("state"), resting.GetProperty("isRead").GetBoolean()));
            Assert.Empty(resting.GetProperty("lost").EnumerateArray());
            await PutBack(ines, group, end);
            await PauseLost(mortar);
            await AllAre(200);
        }

        // Who goes from the group meanwhile has it to show no more: nothing opens by itself then.
        await End(ines, group, "rest");
        await mortar.Give(calendar, DemoPeople.Ines, Role.Edit);
        await PauseLost(mortar);
        Assert.Equal("paused", (await ines.Noticeboard(of)).Text("state"));

        async Task AllAre(int status)
        {
            foreach (var board in boards)
            {
                (await world.Get($"/b/{board}")).Is(status);
            }
        }
    }

    [Fact]
    public async Task Its_past_is_read_as_before_while_it_rests_and_by_nobody_from_the_bin()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, eventId) = await MakeTerm(ines, priya);
        (await ines.Put($"/api/events/{eventId}", World.Event(calendar, "Tenmoku"), 1)).Is(200);
        await mortar.Give(calendar, DemoPeople.Mei, Role.View);
        var history = $"/api/groups/{group}/history";
        var (hers, theirs) = (await Acts(ines), await Acts(priya));
        Assert.Contains(theirs, act => act.Contains("Tenmoku", StringComparison.Ordinal));
        Assert.True(hers.Count > theirs.Count); // what concerns access is its coordinators' to know

        (await ines.Post($"/api/groups/{group}/rest")).Is(204);
        Assert.Equal(hers, (await Acts(ines)).Skip(1));
        Assert.Equal(theirs, (await Acts(priya)).Skip(1));
        Assert.DoesNotContain(
            (await ines.Get(history)).Is(200).Body.GetProperty("acts").EnumerateArray(),
            act =>
                act.GetProperty("canBeUndone").GetBoolean()
                && act.GetProperty("calendarId").ValueKind != JsonValueKind.Null
        );

        (await ines.Delete($"/api/groups/{group}?name=Spring term")).Is(204);
        (await ines.Get(history)).Is(404);
        (await priya.Get(history)).Is(404);

        async Task<List<string>> Acts(Browser browser) =>
            [
                .. (await browser.Get(history))
                    .Is(200)
                    .Body.GetProperty("acts")
                    .EnumerateArray()
                    .Select(act => act.GetProperty("deeds").GetRawText()),
            ];
    }

    [Fact]
    public async Task Of_many_who_end_and_wake_it_at_once_one_does_each()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, _) = await MakeTerm(ines, priya);
        (
            await ines.Put(
                $"/api/groups/{group}/members/{DemoPeople.Priya.Id.Value}/coordinates",
                new { coordinates = true }
            )
        ).Is(204);
        var both = new[] { ines, priya };

        for (var round = 0; round < 3; round++)
        {
            foreach (var (way, isThere) in new[] { ("rest", false), ("wake", true) })
            {
                // Others write into its calendar meanwhile: each event is in it afterwards, or was refused.
                var ends = Enumerable
                    .Range(0, 6)
                    .Select(at => both[at % 2].Post($"/api/groups/{group}/{way}"))
                    .ToList();
                var ids = Enumerable.Range(0, 6).Select(_ => Guid.CreateVersion7()).ToList();
                var writes = ids.ConvertAll(id => ines.Put($"/api/events/{id}", World.Event(calendar, "Slip")));
                var answers = (await Task.WhenAll(ends)).Select(answer => answer.Status).ToList();
                var written = (await Task.WhenAll(writes)).Zip(ids).ToList();

                Assert.Single(answers, status => status == 204);
                Assert.Equal(5, answers.Count(status => status == 409));
                Assert.Equal(isThere, await priya.HasLayer(calendar));
                Assert.All(written, one => Assert.Contains(one.First.Status, new[] { 200, 404, 409 }));
                var there = await mortar.Store(db =>
                    db.Events.Where(row => row.CalendarId == calendar).Select(row => row.Id.Value).ToListAsync()
                );
                Assert.All(written, one => Assert.Equal(one.First.Status == 200, there.Contains(one.Second)));
            }
        }
    }

    [Fact]
    public async Task One_that_fails_halfway_has_not_begun()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (group, calendar, _) = await MakeTerm(ines, priya);
        var before = await File(priya, calendar);
        await mortar.Store(db =>
            db.Database.ExecuteSqlRawAsync(
                "CREATE TRIGGER Fails BEFORE UPDATE ON Calendars BEGIN SELECT RAISE(ABORT, 'fails'); END"
            )
        );

        (await ines.Post($"/api/groups/{group}/rest")).Is(500);
        (await ines.Delete($"/api/groups/{group}?name=Spring term")).Is(500);

        Assert.Equal(JsonValueKind.Null, Of(await ines.Get("/api/groups"), group).GetProperty("restsSince").ValueKind);
        Assert.Equal(before, await File(priya, calendar));
        await mortar.Store(db => db.Database.ExecuteSqlRawAsync("DROP TRIGGER Fails"));
        (await ines.Post($"/api/groups/{group}/rest")).Is(204);
    }

    private static async Task End(Browser ines, Guid group, string how) =>
        (
            how == "rest"
                ? await ines.Post($"/api/groups/{group}/rest")
                : await ines.Delete($"/api/groups/{group}?name=Spring term")
        ).Is(204);

    private static async Task PutBack(Browser ines, Guid group, string how)
    {
        if (how == "rest")
        {
            (await ines.Post($"/api/groups/{group}/wake")).Is(204);
        }
        else
        {
            (await ines.BringBack(await InBin(ines, group))).Is(200);
        }
    }

    private static async Task PauseLost(TestMortar mortar)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<NoticeboardCommands>().PauseLost(CancellationToken.None);
    }

    /// <summary>Ines's term with Priya in it, and a calendar that members read with one event.</summary>
    private static async Task<(Guid Group, CalendarId Calendar, Guid Event)> MakeTerm(Browser ines, Browser priya)
    {
        var group = Guid.CreateVersion7();
        (await ines.Put($"/api/groups/{group}", Settings("Spring term"))).Is(200);
        (await ines.Put($"/api/groups/{group}/members", Person(DemoPeople.Priya))).Is(200);
        await priya.SayYes(group);
        var calendar = new CalendarId(Guid.CreateVersion7());
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}",
                World.Calendar("Wheel course", groupDefault: "view", group: group)
            )
        ).Is(200);
        return (group, calendar, await ines.MakeEvent(calendar));
    }

    private static object Person(DemoPerson person) =>
        new { people = new[] { new { id = person.Id.Value, name = person.Name } } };

    private static object Settings(string name) =>
        new
        {
            name,
            sort = "class",
            zone = "Europe/London",
            firstDay = "monday",
        };

    private static void IsAtRest(Answer answer) =>
        Assert.Contains("at rest", answer.IsProblem(409, "at-rest").Detail, StringComparison.Ordinal);

    private static JsonElement Of(Answer groups, Guid group) =>
        groups.Is(200).Body.EnumerateArray().Single(one => one.GetProperty("id").GetGuid() == group);

    private static int VersionOf(Answer groups, Guid group) => Of(groups, group).GetProperty("version").GetInt32();

    private static List<string> Names(JsonElement ending, string property) =>
        [.. ending.GetProperty(property).EnumerateArray().Select(one => one.GetString()!)];

    private static async Task<JsonElement> InBin(Browser browser, Guid group) =>
        (await browser.InBin()).Single(one =>
            one.GetProperty("place") is var place
            && place.Text("kind") == "group"
            && place.GetProperty("id").GetGuid() == group
        );

    /// <summary>What is new in the inbox, which is seen then.</summary>
    private static async Task<List<string>> News(Browser browser)
    {
        var notices = (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("notices").EnumerateArray().ToList();
        (await browser.Post("/api/inbox/seen")).Is(204);
        return [.. notices.Where(one => !one.GetProperty("seen").GetBoolean()).Select(one => one.Text("sentence"))];
    }

    private static async Task<string> File(Browser browser, CalendarId calendar) =>
        string.Join(
            '\n',
            (await browser.Get($"/api/calendars/{calendar.Value}/export"))
                .Is(200)
                .Text.Split('\n')
                .Where(line => !line.StartsWith("DTSTAMP", StringComparison.Ordinal))
        );

    private static async Task Sweep(TestMortar mortar)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<Sweep>().Run(Duration.FromDays(10_000), CancellationToken.None);
    }
}

/// <summary>What answers hold.</summary>
file static class Held
{
    public static IEnumerable<JsonElement> Bricks(this Answer answer, string property) =>
        answer.Body.GetProperty(property).EnumerateArray();
}
