using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests.Features.Noticeboards;
using NodaTime;
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

    [Fact]
    public async Task What_the_world_reads_is_paused_for_whoever_else_may_show_it_and_no_mail_waits_for_whoever_left()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Mei, Role.Coordinate);
        var board = await mei.MakeNoticeboard(NoticeboardWorld.Settings([(calendar, "view")]));
        var draft = await mei.MakeNoticeboard(
            NoticeboardWorld.Settings([(calendar, "view")], address: "not-yet"),
            open: false
        );
        await mortar.Store(async db =>
        {
            db.Mails.Add(
                new MailRow
                {
                    To = DemoPeople.Mei.Address,
                    Subject = "Waits",
                    Body = World.Secret,
                    WrittenAt = db.Now,
                    DueAt = db.Now + Duration.FromDays(1),
                }
            );
            return await db.SaveChangesAsync();
        });
        await HandOn(mortar, mei, ines);
        Assert.Equal(1, (await mei.Get("/api/account/ending")).Is(200).Body.GetProperty("boards").GetInt32());

        (await mei.Post("/api/account/delete", Password)).Is(204);

        (await world.Get("/b/glaze-days")).Is(404);
        (await ines.Get($"/api/noticeboards/{draft}")).Is(404);
        var paused = await ines.Noticeboard(board);
        Assert.Equal(("paused", "Somebody who left"), (paused.Text("state"), paused.Text("keeper")));
        (await ines.Post($"/api/noticeboards/{board}/open")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
        var mails = await mortar.Store(db =>
            db.Mails.AsNoTracking().Where(mail => mail.To == DemoPeople.Mei.Address).ToListAsync()
        );
        var waited = Assert.Single(mails, mail => mail.Subject == "Waits");
        Assert.Equal((false, string.Empty), (waited.Waits(), waited.Body));
        Assert.Single(mails, mail => mail.Subject.Contains("account is deleted", StringComparison.Ordinal));
    }

    [Fact]
    public async Task One_that_fails_halfway_has_not_begun()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        await HandOn(mortar, mei, ines);
        var before = await Seen();
        // The last of what is done.
        await mortar.Store(db =>
            db.Database.ExecuteSqlRawAsync(
                "CREATE TRIGGER Fails BEFORE DELETE ON AspNetUsers BEGIN SELECT RAISE(ABORT, 'fails'); END"
            )
        );

        (await mei.Post("/api/account/delete", Password)).Is(500);

        Assert.Equal(before, await Seen());
        await mortar.Store(db => db.Database.ExecuteSqlRawAsync("DROP TRIGGER Fails"));
        (await mei.Post("/api/account/delete", Password)).Is(204);

        async Task<(string, string, string)> Seen() =>
            (
                (await mei.Get("/api/session")).Is(200).Body.GetProperty("person").GetRawText(),
                (await mei.Get("/api/shelf")).Is(200).Text,
                (await mei.Get("/api/account/ending")).Is(200).Text
            );
    }

    [Fact]
    public async Task What_they_had_under_way_is_not_written_any_more()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var phone = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Mei, Role.Edit);
        await HandOn(mortar, mei, ines);
        var import = $"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}";
        (await mei.Put(import, Files.Many("Celadon", 400))).Is(200);
        (await mei.Post($"{import}/write", new { known = "keep" })).Is(202);
        var ids = Enumerable.Range(0, 8).Select(_ => Guid.CreateVersion7()).ToList();

        var end = mei.Post("/api/account/delete", Password);
        var writes = ids.ConvertAll(id => phone.Put($"/api/events/{id}", World.Event(calendar, "Slip")));
        (await end).Is(204);
        var written = (await Task.WhenAll(writes)).Zip(ids).ToList();

        // An import is one act: all of it came before, or none of it at all. Nothing comes afterwards.
        var there = await World.Eventually(async () =>
            await Titles() is var now && now.Count(title => title != "Slip") is 0 or 400 ? now : null
        );
        Assert.Equal(written.Count(one => one.First.Status == 200), there.Count(title => title == "Slip"));
        Assert.All(written, one => Assert.Contains(one.First.Status, new[] { 200, 401, 404 }));

        Task<List<string>> Titles() =>
            mortar.Store(db =>
                db.Events.Where(row => row.CalendarId == calendar).Select(row => row.Title).ToListAsync()
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
