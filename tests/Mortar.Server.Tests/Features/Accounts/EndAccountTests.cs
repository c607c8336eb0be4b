using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>An account goes: what others need is handed on first, what was written stays, and nothing leads to or from the person any more.</summary>
public class EndAccountTests
{
    private static readonly object Password = new { password = DemoPeople.Password };

    [Fact]
    public async Task What_was_written_stays_without_the_name_and_nothing_leads_to_the_person_any_more()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var phone = await mortar.As(DemoPeople.Mei);
        var (calendar, given) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(calendar, DemoPeople.Mei, Role.Edit);
        var hers = await mei.MakeEvent(calendar, "Her glaze");
        var named = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{named}",
                World.Event(calendar, "With her", attendees: DemoPeople.Mei.Id.Value)
            )
        ).Is(200);
        var single = Guid.CreateVersion7();
        (
            await ines.Put($"/api/events/{single}", World.Event(given, "By itself", attendees: DemoPeople.Mei.Id.Value))
        ).Is(200);
        (await ines.Put($"/api/events/{single}/editors", new { personIds = new[] { DemoPeople.Mei.Id.Value } }, 1)).Is(
            200
        );

        (await mei.Post("/api/account/delete", new { password = "not hers at all" })).IsProblem(422, "unfit");
        (await mei.Get("/api/session")).Is(200);
        (await mei.Post("/api/password/forgotten", new { address = DemoPeople.Mei.Address })).Is(204);
        var reset = await mortar.SecretIn(await mortar.MailWith(DemoPeople.Mei.Address, "/reset/"), "/reset/");
        await HandOn(mortar, mei, ines);
        var ending = (await mei.Get("/api/account/ending")).Is(200).Body;
        Assert.Empty(ending.GetProperty("toHandOn").EnumerateArray());
        Assert.Contains("Studio team", Names(ending, "leaves"));
        (await mei.Post("/api/account/delete", Password)).Is(204);

        // Signed out everywhere, and in nowhere.
        foreach (var browser in new[] { mei, phone })
        {
            (await browser.Get("/api/shelf")).Is(401);
        }

        using var again = mortar.Anonymous();
        (await again.Post("/api/session", new { address = DemoPeople.Mei.Address, password = DemoPeople.Password })).Is(
            401
        );
        (await again.Post($"/api/password/reset/{reset}", new { password = "four words that fit" })).IsProblem(
            409,
            "link-ended"
        );
        var person = await mortar.Store(db => db.People.AsNoTracking().SingleAsync(row => row.Id == DemoPeople.Mei.Id));
        Assert.Equal(("Somebody who left", null, null), (person.Name, person.Address, person.Preferences));
        var left = await mortar.Store(async db =>
            await db.Users.CountAsync(row => row.Id == DemoPeople.Mei.Id.Value)
            + await db.Grants.CountAsync(row => row.PersonId == DemoPeople.Mei.Id && row.Role != Role.None)
            + await db.Members.CountAsync(row => row.PersonId == DemoPeople.Mei.Id)
            + await db.Layers.CountAsync(row => row.PersonId == DemoPeople.Mei.Id)
            + await db.Given.CountAsync(row => row.PersonId == DemoPeople.Mei.Id)
            + await db.Addresses.CountAsync(row => row.PersonId == DemoPeople.Mei.Id)
        );
        Assert.Equal(0, left);
        Assert.NotNull(await mortar.MailWith(DemoPeople.Mei.Address, "account is deleted"));

        var bricks = await ines.Bricks(calendar);
        Assert.Contains(bricks, brick => brick.GetProperty("eventId").GetGuid() == hers);
        var history = (await ines.Get($"/api/calendars/{calendar.Value}/history")).Is(200).Text;
        Assert.Contains("Somebody who left", history, StringComparison.Ordinal);
        Assert.DoesNotContain(DemoPeople.Mei.Name, history, StringComparison.Ordinal);
        Assert.DoesNotContain(
            DemoPeople.Mei.Id.Value.ToString(),
            (await ines.Get($"/api/groups/{World.StudioTeam}/members")).Is(200).Text,
            StringComparison.Ordinal
        );
        Assert.Empty(
            await mortar.Store(db =>
                db.Database.SqlQuery<string>($"SELECT \"table\" AS Value FROM pragma_foreign_key_check").ToListAsync()
            )
        );

        // The address is free for somebody else, or for her again.
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = DemoPeople.Mei.Address, role = "view" }
            )
        ).Is(204);
    }

    [Fact]
    public async Task Whoever_alone_keeps_what_others_need_hands_it_on_first()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var ending = (await ines.Get("/api/account/ending")).Is(200).Body;
        Assert.Contains("the group “Studio team”", Names(ending, "toHandOn"));
        Assert.Contains("the calendar “Rota”", Names(ending, "toHandOn"));

        var refused = (await ines.Post("/api/account/delete", Password)).IsProblem(409, "coordinates-alone");

        Assert.Contains("“Studio team”", refused.Detail, StringComparison.Ordinal);
        (await ines.Get("/api/shelf")).Is(200);
        Assert.Equal(
            DemoPeople.Ines.Name,
            (await ines.Get("/api/session")).Is(200).Body.GetProperty("person").Text("name")
        );
    }

    [Fact]
    public async Task A_group_nobody_else_is_in_goes_to_the_bin_and_the_name_stays_where_that_is_wished()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var group = Guid.CreateVersion7();
        (
            await mei.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Just me",
                    sort = "other",
                    zone = "UTC",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var own = new CalendarId(Guid.CreateVersion7());
        (await mei.Put($"/api/calendars/{own.Value}", World.Calendar("Mine", group: group))).Is(200);
        await HandOn(mortar, mei, ines);
        Assert.Contains("Just me", Names((await mei.Get("/api/account/ending")).Is(200).Body, "groups"));

        (await mei.Post("/api/account/delete", new { password = DemoPeople.Password, keepsName = true })).Is(204);

        var mine = new GroupId(group);
        Assert.NotNull(
            await mortar.Store(db => db.Groups.Where(row => row.Id == mine).Select(row => row.DeletedAt).SingleAsync())
        );
        Assert.True(
            await mortar.Store(db =>
                db.Calendars.Where(row => row.Id == own).Select(row => row.WithGroup).SingleAsync()
            )
        );
        Assert.Equal(
            DemoPeople.Mei.Name,
            await mortar.Store(db =>
                db.People.Where(row => row.Id == DemoPeople.Mei.Id).Select(row => row.Name).SingleAsync()
            )
        );
    }

    /// <summary>Makes somebody else a coordinator of all that one alone coordinates.</summary>
    private static async Task HandOn(TestMortar mortar, Browser whose, Browser to)
    {
        var next = (await to.Get("/api/session")).Is(200).Body.GetProperty("person").GetProperty("id").GetGuid();
        var layers = (await whose.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Where(one => one.Text("role") == "coordinate");
        foreach (var layer in layers.Where(one => one.GetProperty("person").ValueKind == JsonValueKind.Null))
        {
            if (layer.GetProperty("groupId").GetGuid() == World.StudioTeam)
            {
                await mortar.Give(
                    new CalendarId(layer.GetProperty("calendarId").GetGuid()),
                    DemoPeople.All.Single(one => one.Id.Value == next),
                    Role.Coordinate
                );
            }
        }
    }

    private static List<string> Names(JsonElement ending, string property) =>
        [.. ending.GetProperty(property).EnumerateArray().Select(one => one.GetString()!)];
}
