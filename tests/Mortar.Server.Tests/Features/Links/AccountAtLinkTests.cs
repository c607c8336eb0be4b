using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Whoever opens a link at Add or more makes an account there; the address counts once its mail was answered.</summary>
public class AccountAtLinkTests
{
    private const string Nina = "nina@example.org";
    private const string Words = "four words that fit";

    [Fact]
    public async Task An_account_is_made_there_lands_on_the_calendar_and_gets_its_address_by_mail()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nina = mortar.Anonymous();
        var (calendar, secret) = await MakeLink(ines, "add");
        Assert.True((await nina.Get($"/api/links/{secret}")).Is(200).Body.GetProperty("makesAccounts").GetBoolean());
        (
            await ines.Put(
                $"/api/calendars/{(await ines.MakeCalendar()).Value}/invitations/{Guid.NewGuid()}",
                new { address = Nina, role = "view" }
            )
        ).Is(204);

        (await nina.Post($"/api/links/{secret}/account", Account(Nina))).Is(204);

        // She is here, writes, and is found by nobody at that address.
        var mine = await nina.MakeEvent(calendar, "Her first");
        Assert.Contains(await ines.Bricks(calendar), brick => brick.GetProperty("eventId").GetGuid() == mine);
        var person = (await nina.Get("/api/session")).Is(200).Body.GetProperty("person");
        Assert.Equal((Nina, "Nina"), (person.Text("unconfirmed"), person.Text("name")));
        Assert.Equal(JsonValueKind.Null, person.GetProperty("address").ValueKind);
        Assert.Empty((await nina.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray());
        (await nina.Post("/api/password/forgotten", new { address = Nina })).Is(204);

        // On another device by what she typed, and by nothing else.
        using var phone = mortar.Anonymous();
        (await phone.Post("/api/session", new { address = Nina, password = "another altogether" })).Is(401);
        (await phone.Post("/api/session", new { address = Nina, password = Words })).Is(204);
        Assert.True(await phone.HasLayer(calendar));

        var confirm = await mortar.SecretIn(await mortar.MailWith(Nina, "/address/"), "/address/");
        (await ines.Post($"/api/addresses/confirm/{confirm}")).IsProblem(404, "not-there");
        (await phone.Post($"/api/addresses/confirm/{confirm}")).Is(204);

        Assert.Equal(Nina, (await nina.Get("/api/session")).Is(200).Body.GetProperty("person").Text("address"));
        Assert.Single((await nina.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray());
        using var later = mortar.Anonymous();
        (await later.Post("/api/session", new { address = Nina, password = Words })).Is(204);
        Assert.Empty((await later.Get("/api/addresses")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task What_is_only_read_used_up_ended_or_wrongly_filled_in_makes_nobody()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        var before = await mortar.Store(db => db.People.CountAsync());
        var (_, reading) = await MakeLink(ines, "view");
        Assert.False(
            (await nobody.Get($"/api/links/{reading}")).Is(200).Body.GetProperty("makesAccounts").GetBoolean()
        );
        (await nobody.Post($"/api/links/{reading}/account", Account(Nina))).IsProblem(409, "reading-only");
        var (calendar, one) = await MakeLink(ines, "add", mostUses: 1);
        using var mei = await mortar.As(DemoPeople.Mei);
        (await mei.Post($"/api/links/{one}/use")).Is(204);
        (await nobody.Post($"/api/links/{one}/account", Account(Nina))).IsProblem(409, "used-up");
        (await nobody.Post("/api/links/nosuchlink/account", Account(Nina))).IsProblem(404, "not-there");

        var (_, open) = await MakeLink(ines, "edit");
        var unfit = await nobody.Post(
            $"/api/links/{open}/account",
            new
            {
                name = " ",
                address = "nina at",
                password = Words,
                zone = "UTC",
            }
        );
        Assert.Contains("\"name\"", unfit.IsProblem(422, "unfit").Text, StringComparison.Ordinal);
        Assert.Contains("\"address\"", unfit.Text, StringComparison.Ordinal);
        foreach (var password in new[] { "short", "password123" })
        {
            var weak = await nobody.Post($"/api/links/{open}/account", Account(Nina, password));
            Assert.Contains("\"password\"", weak.IsProblem(422, "unfit").Text, StringComparison.Ordinal);
        }

        Assert.Equal(before, await mortar.Store(db => db.People.CountAsync()));
        Assert.False(await mortar.Store(db => db.Mails.AnyAsync(mail => mail.To == Nina)));
        Assert.Equal(1, await mortar.Store(db => db.LinkHolders.CountAsync(row => row.CalendarId == calendar)));
    }

    [Fact]
    public async Task Somebody_elses_address_says_nothing_there_tells_its_owner_and_leads_to_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mallory = mortar.Anonymous();
        var (_, secret) = await MakeLink(ines, "add");

        (await mallory.Post($"/api/links/{secret}/account", Account(DemoPeople.Priya.Address))).Is(204);

        Assert.Contains(
            "which belongs to yours",
            await mortar.TextOf(await mortar.MailWith(DemoPeople.Priya.Address, "new Mortar account")),
            StringComparison.Ordinal
        );
        using var again = mortar.Anonymous();
        (await again.Post("/api/session", new { address = DemoPeople.Priya.Address, password = Words })).Is(401);
        (
            await again.Post("/api/session", new { address = DemoPeople.Priya.Address, password = DemoPeople.Password })
        ).Is(204);
        Assert.Equal(
            DemoPeople.Priya.Name,
            (await again.Get("/api/session")).Is(200).Body.GetProperty("person").Text("name")
        );
        // Asked for once more it is confirmed by nobody but its owner.
        (await mallory.Post("/api/addresses", new { address = DemoPeople.Priya.Address })).Is(204);
        var confirm = await mortar.SecretIn(await mortar.MailWith(DemoPeople.Priya.Address, "/address/"), "/address/");
        (await mallory.Post($"/api/addresses/confirm/{confirm}")).IsProblem(409, "has-account");
        (await again.Post($"/api/addresses/confirm/{confirm}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task One_address_gets_one_mail_in_an_hour_and_who_comes_first_by_mail_has_it()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, secret) = await MakeLink(ines, "add");
        using var one = mortar.Anonymous();
        using var two = mortar.Anonymous();
        (await one.Post($"/api/links/{secret}/account", Account(Nina))).Is(204);
        (await two.Post($"/api/links/{secret}/account", Account(Nina, "other words that fit"))).Is(204);
        Assert.Equal(1, await mortar.Store(db => db.Mails.CountAsync(mail => mail.To == Nina)));
        Assert.Equal(2, await mortar.Store(db => db.LinkHolders.CountAsync(row => row.CalendarId == calendar)));

        // Each signs in as themselves while the address is nobody's.
        foreach (var (password, browser) in new[] { (Words, one), ("other words that fit", two) })
        {
            using var elsewhere = mortar.Anonymous();
            (await elsewhere.Post("/api/session", new { address = Nina, password })).Is(204);
            Assert.Equal(await IdOf(browser), await IdOf(elsewhere));
        }

        var confirm = await mortar.SecretIn(await mortar.MailWith(Nina, "/address/"), "/address/");
        (await two.Post($"/api/addresses/confirm/{confirm}")).IsProblem(404, "not-there");
        (await one.Post($"/api/addresses/confirm/{confirm}")).Is(204);
        using var late = mortar.Anonymous();
        (await late.Post("/api/session", new { address = Nina, password = "other words that fit" })).Is(401);

        // The only way to sign in is not taken out; another one is asked for instead.
        var waiting = Assert.Single((await two.Get("/api/addresses")).Is(200).Body.EnumerateArray());
        var id = waiting.GetProperty("id").GetGuid();
        (await two.Delete($"/api/addresses/{id}")).IsProblem(409, "only-address");
        (await two.Post("/api/addresses", new { address = "nina.two@example.org" })).Is(204);
        (await two.Delete($"/api/addresses/{id}")).Is(204);
        var own = await mortar.SecretIn(await mortar.MailWith("nina.two@example.org", "/address/"), "/address/");
        (await two.Post($"/api/addresses/confirm/{own}")).Is(204);
        (
            await late.Post("/api/session", new { address = "nina.two@example.org", password = "other words that fit" })
        ).Is(204);
    }

    [Fact]
    public async Task Until_the_address_is_confirmed_nothing_is_mailed_to_anybody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nina = mortar.Anonymous();
        var (calendar, secret) = await MakeLink(ines, "edit");
        (await nina.Post($"/api/links/{secret}/account", Account(Nina))).Is(204);
        var (group, own) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (
            await nina.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Hers",
                    sort = "other",
                    zone = "UTC",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (await nina.Put($"/api/calendars/{own}", World.Calendar("Hers", group: group))).Is(200);
        var invitation = $"/api/calendars/{own}/invitations/{Guid.NewGuid()}";
        var strangers = new { address = "stranger@example.org", role = "view" };

        (await nina.Put(invitation, strangers)).IsProblem(409, "not-confirmed");
        (
            await nina.Put(
                $"/api/groups/{group}/members",
                new
                {
                    people = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            name = "Stranger",
                            address = "stranger@example.org",
                        },
                    },
                }
            )
        ).IsProblem(409, "not-confirmed");
        Assert.False(await mortar.Store(db => db.Mails.AnyAsync(mail => mail.To == "stranger@example.org")));
        await nina.MakeEvent(calendar, "What needs no mail is done");

        // Nor are many addresses asked whether they are hers.
        foreach (var number in new[] { 2, 3 })
        {
            (await nina.Post("/api/addresses", new { address = $"nina.{number}@example.org" })).Is(204);
        }

        (await nina.Post("/api/addresses", new { address = "nina.4@example.org" })).IsProblem(409, "too-many");

        var confirm = await mortar.SecretIn(await mortar.MailWith(Nina, "/address/"), "/address/");
        (await nina.Post($"/api/addresses/confirm/{confirm}")).Is(204);
        (await nina.Put(invitation, strangers)).Is(204);
        Assert.True(await mortar.Store(db => db.Mails.AnyAsync(mail => mail.To == "stranger@example.org")));
    }

    private static async Task<Guid> IdOf(Browser browser) =>
        (await browser.Get("/api/session")).Is(200).Body.GetProperty("person").GetProperty("id").GetGuid();

    private static object Account(string address, string password = Words) =>
        new
        {
            name = "Nina",
            address,
            password,
            zone = "Europe/London",
        };

    private static async Task<(CalendarId Calendar, string Secret)> MakeLink(
        Browser ines,
        string role,
        int? mostUses = null
    )
    {
        var calendar = await ines.MakeCalendar();
        var made = await ines.Put($"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}", new { role, mostUses });
        return (calendar, made.Is(200).Body.Text("url").Split('/')[^1]);
    }
}
