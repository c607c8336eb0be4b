using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A group made like another has how it works and its calendars, and nobody and nothing in them.</summary>
public class GroupLikeTests
{
    [Fact]
    public async Task It_has_the_settings_and_calendars_without_people_events_and_what_is_one_persons()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (group, model) = (Guid.CreateVersion7(), new GroupId(World.StudioTeam));
        var mine = new GroupId(group);

        var made = (await ines.Put($"/api/groups/{group}/like/{World.StudioTeam}", new { name = "Summer team" }))
            .Is(200)
            .Body;

        var (before, after) = (
            await mortar.Store(db => db.Groups.AsNoTracking().SingleAsync(row => row.Id == model)),
            await mortar.Store(db => db.Groups.AsNoTracking().SingleAsync(row => row.Id == mine))
        );
        Assert.Equal(
            ("Summer team", before.Sort, before.Zone, before.FirstDay, before.DayBegins, before.DayEnds),
            (after.Name, after.Sort, after.Zone, after.FirstDay, after.DayBegins, after.DayEnds)
        );
        Assert.Equal(
            before.ToSettings().Cover.Select(need => (need.Name, string.Join(' ', need.FromMonday))),
            after.ToSettings().Cover.Select(need => (need.Name, string.Join(' ', need.FromMonday)))
        );
        Assert.All(after.ToSettings().Cover, need => Assert.Empty(need.People));
        Assert.Null(after.Address);

        var (theirs, its) = (
            await mortar.Store(db =>
                db.Calendars.AsNoTracking()
                    .Where(row => row.GroupId == model && row.DeletedAt == null)
                    .OrderBy(row => row.Name)
                    .ToListAsync()
            ),
            await mortar.Store(db =>
                db.Calendars.AsNoTracking().Where(row => row.GroupId == mine).OrderBy(row => row.Name).ToListAsync()
            )
        );
        var copied = theirs.Where(row => row.Person is null).ToList();
        Assert.NotEqual(theirs.Count, copied.Count); // the time of one person is nobody else's
        Assert.Equal(
            copied.Select(row => (row.Name, row.Hue, row.Mark, row.Purpose, row.GroupDefault, row.Takes, row.Kinds)),
            its.Select(row => (row.Name, row.Hue, row.Mark, row.Purpose, row.GroupDefault, row.Takes, row.Kinds))
        );
        Assert.Equal(copied.Count, made.GetProperty("calendars").GetInt32());
        Assert.Equal(theirs.Count - copied.Count, made.GetProperty("leftOut").GetInt32());
        Assert.Equal(
            before.DaysOff is { } off ? theirs.Single(row => row.Id == off).Name : null,
            after.DaysOff is { } own ? its.Single(row => row.Id == own).Name : null
        );

        var ids = its.ConvertAll(row => row.Id);
        Assert.Equal(0, await mortar.Store(db => db.Events.CountAsync(row => ids.Contains(row.CalendarId))));
        var member = Assert.Single((await ines.Get($"/api/groups/{group}/members")).Is(200).Body.EnumerateArray());
        Assert.Equal("Ines Varga", member.Text("name"));
        foreach (var one in ids)
        {
            Assert.True(await ines.HasLayer(one));
        }
    }

    [Fact]
    public async Task Who_does_not_coordinate_the_other_makes_none_and_sent_twice_it_is_made_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var group = Guid.CreateVersion7();
        var path = $"/api/groups/{group}/like/{World.StudioTeam}";

        (await priya.Put(path, new { name = "Mine" })).IsProblem(403, "not-allowed");
        (await astrid.Put(path, new { name = "Mine" })).IsProblem(404, "not-there");
        (await ines.Put(path, new { name = " " })).IsProblem(422, "unfit");
        (await ines.Put(path, new { name = new string('x', 81) })).IsProblem(422, "unfit");
        (await ines.Put($"/api/groups/{group}/like/{Guid.NewGuid()}", new { name = "Mine" })).IsProblem(
            404,
            "not-there"
        );
        Assert.DoesNotContain(group.ToString(), (await ines.Get("/api/groups")).Is(200).Text, StringComparison.Ordinal);

        var first = (await ines.Put(path, new { name = "Mine" })).Is(200).Body.GetProperty("calendars").GetInt32();
        Assert.Equal(
            first,
            (await ines.Put(path, new { name = "Mine" })).Is(200).Body.GetProperty("calendars").GetInt32()
        );
        (await ines.Put($"/api/groups/{World.StudioTeam}/like/{group}", new { name = "Over it" })).Is(200);
        Assert.Contains("Studio team", (await ines.Get("/api/groups")).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Over it", (await ines.Get("/api/groups")).Is(200).Text, StringComparison.Ordinal);
    }
}
