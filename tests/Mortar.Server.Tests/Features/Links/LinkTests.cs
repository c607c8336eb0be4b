using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Links to hand round: what they show, what they give, how they end.</summary>
public class LinkTests
{
    private const string Week = "wall?from=2026-03-09&to=2026-03-15";

    private static async Task<string> Make(Browser ines, CalendarId calendar, Guid id, object body)
    {
        var made = (await ines.Put($"/api/calendars/{calendar.Value}/links/{id}", body)).Is(200).Body;
        return made.Text("url").Split("/link/")[1];
    }

    [Fact]
    public async Task A_link_is_read_without_an_account_at_its_step_and_at_View_at_most()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Celadon day");

        foreach (
            var (role, title, notes) in new[]
            {
                ("times", false, false),
                ("outline", true, false),
                ("edit", true, true),
            }
        )
        {
            var secret = await Make(ines, calendar, Guid.NewGuid(), new { role });
            var text = (await nobody.Get($"/api/links/{secret}/{Week}")).Is(200).Text;

            Assert.Equal(title, text.Contains("Celadon day", StringComparison.Ordinal));
            Assert.Equal(notes, text.Contains(World.Secret, StringComparison.Ordinal));
            Assert.DoesNotContain("\"mayChange\":true", text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Who_puts_it_on_their_wall_has_its_step_until_it_ends_or_its_day_is_over()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        var (link, eventId) = (Guid.NewGuid(), await ines.MakeEvent(calendar));
        var secret = await Make(ines, calendar, link, new { role = "edit", name = "Door" });

        (await mei.Post($"/api/links/{secret}/use")).Is(204);
        (await mei.Post($"/api/links/{secret}/use")).Is(204);
        (await mei.Put($"/api/events/{eventId}", World.Event(calendar, "Mei's way"), 1)).Is(200);
        var access = (await ines.Get($"/api/calendars/{calendar.Value}/access")).Is(200).Body;
        var listed = Assert.Single(access.GetProperty("links").EnumerateArray());
        Assert.Equal(
            ("Door", 1, 1),
            (listed.Text("name"), listed.GetProperty("uses").GetInt32(), listed.GetProperty("holders").GetInt32())
        );
        Assert.DoesNotContain(secret, access.ToString(), StringComparison.Ordinal);

        (await ines.Put($"/api/calendars/{calendar.Value}/links/{link}", new { role = "times", name = "Door" })).Is(
            200
        );
        (await mei.Get($"/api/events/{eventId}")).IsProblem(404, "not-there");

        (await ines.Delete($"/api/calendars/{calendar.Value}/links/{link}")).Is(204);
        Assert.False(await mei.HasLayer(calendar));
        (await mei.Get($"/api/links/{secret}")).IsProblem(404, "not-there");
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}",
                new { role = "view", lastDay = "2026-03-10" }
            )
        ).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task Leaving_what_came_by_a_link_is_for_oneself_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var secret = await Make(ines, calendar, Guid.NewGuid(), new { role = "view" });
        (await mei.Post($"/api/links/{secret}/use")).Is(204);
        (await priya.Post($"/api/links/{secret}/use")).Is(204);

        (await mei.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Mei.Id.Value}")).Is(204);

        Assert.False(await mei.HasLayer(calendar));
        Assert.True(await priya.HasLayer(calendar));
        (await mei.Post($"/api/links/{secret}/use")).Is(204);
        Assert.True(await mei.HasLayer(calendar));
    }

    [Fact]
    public async Task Of_many_who_come_at_once_for_the_last_use_one_gets_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var secret = await Make(ines, calendar, Guid.NewGuid(), new { role = "view", mostUses = 1 });
        DemoPerson[] people = [DemoPeople.Mei, DemoPeople.Priya, DemoPeople.Dele, DemoPeople.Tomasz];
        var browsers = await Task.WhenAll(people.Select(mortar.As));

        var answers = await Task.WhenAll(browsers.Select(one => one.Post($"/api/links/{secret}/use")));

        Assert.Equal([204, 409, 409, 409], answers.Select(answer => answer.Status).Order());
        Assert.Equal(1, await mortar.Store(db => db.LinkHolders.CountAsync()));
        Array.ForEach(browsers, one => one.Dispose());
    }

    [Fact]
    public async Task A_renewed_link_leads_on_by_its_new_secret_alone_and_takes_nothing_from_who_has_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        var link = Guid.NewGuid();
        var old = await Make(ines, calendar, link, new { role = "view" });
        (await mei.Post($"/api/links/{old}/use")).Is(204);

        var renewed = (await ines.Post($"/api/calendars/{calendar.Value}/links/{link}/renew")).Is(200).Body;

        var secret = renewed.Text("url").Split("/link/")[1];
        (await mei.Get($"/api/links/{old}")).Is(404);
        Assert.True((await mei.Get($"/api/links/{secret}")).Is(200).Body.GetProperty("isHere").GetBoolean());
        Assert.StartsWith("<svg", renewed.Text("qr"), StringComparison.Ordinal);
        Assert.True(await mei.HasLayer(calendar));
    }

    [Fact]
    public async Task A_link_to_one_event_shows_it_and_nothing_else_and_is_put_on_no_wall()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        var open = await ines.MakeEvent(calendar, "Open evening");
        await ines.MakeEvent(calendar, "Celadon in secret");
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}",
                new { role = "edit", eventId = open }
            )
        ).IsProblem(422, "unfit");
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}",
                new { role = "view", eventId = Guid.NewGuid() }
            )
        ).IsProblem(404, "not-there");
        var secret = await Make(ines, calendar, Guid.NewGuid(), new { role = "outline", eventId = open });

        var text = (await nobody.Get($"/api/links/{secret}/{Week}")).Is(200).Text;

        Assert.Contains("Open evening", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Celadon in secret", text, StringComparison.Ordinal);
        Assert.DoesNotContain(World.Secret, text, StringComparison.Ordinal);
        Assert.Equal("2026-03-12", (await nobody.Get($"/api/links/{secret}")).Is(200).Body.Text("eventDay"));
        (await mei.Post($"/api/links/{secret}/use")).Is(404);
    }

    [Fact]
    public async Task Nothing_that_is_stored_opens_a_link()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var secret = await Make(ines, calendar, Guid.NewGuid(), new { role = "view" });
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "wren@example.org", role = "view" }
            )
        ).Is(204);

        var (hash, log) = await mortar.Store(async db =>
            (
                (await db.Links.SingleAsync()).Hash,
                string.Concat(await db.Changes.Select(change => change.Before + change.After).ToListAsync())
            )
        );
        var mail = await mortar.MailWith("wren@example.org", "/invitation/");
        var invited = await mortar.SecretIn(mail, "/invitation/");
        // What has gone out is not kept with the secret that it holds.
        await World.Eventually(() =>
            mortar.Store(db =>
                db.Mails.FirstOrDefaultAsync(one => one.Id == mail.Id && one.SentAt != null && one.Body == "")
            )
        );

        Assert.Equal(32, secret.Length);
        Assert.Equal(32, invited.Length);
        Assert.DoesNotContain(secret, log, StringComparison.Ordinal);
        Assert.DoesNotContain(invited, log, StringComparison.Ordinal);
        (await nobody.Get($"/api/links/{hash}")).Is(404);
        (await nobody.Get($"/api/links/{secret}")).Is(200);
    }

    [Fact]
    public async Task Guessing_is_slowed_down()
    {
        await using var mortar = await TestMortar.Start("ReadsPerMinute=5");
        using var nobody = mortar.Anonymous();
        var answers = new List<int>();
        for (var guess = 0; guess < 7; guess++)
        {
            answers.Add((await nobody.Get($"/api/links/{guess.ToString("x32", CultureInfo.InvariantCulture)}")).Status);
        }

        Assert.Equal([404, 404, 404, 404, 404, 429, 429], answers);
    }
}
