using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>People outside a group who are named on its events by their address.</summary>
public class GuestTests
{
    private static readonly string Guests = $"/api/groups/{World.StudioTeam}/guests";

    [Fact]
    public async Task A_guest_is_named_asked_by_mail_and_answers_without_an_account()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var nina = await Add(ines, "Nina Bell <Nina@Example.org>");

        Assert.Equal("Nina Bell", nina.Name);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Body(calendar, nina.Id))).Is(200);
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", new { personIds = new[] { nina.Id } }, 1, null)).Is(
            204
        );
        var mail = await mortar.Store(db => db.Mails.SingleAsync(one => one.To == "nina@example.org"));
        var secret = await mortar.SecretIn(mail, "/answer/");
        using var nobody = mortar.Anonymous();
        (await nobody.Put($"/api/answering/{secret}", new { answer = "accepted" })).Is(204);
        var answer = Assert.Single(
            (await ines.Get($"/api/events/{id}/answers")).Is(200).Body.GetProperty("people").EnumerateArray()
        );
        Assert.Equal(("Nina Bell", "accepted"), (answer.Text("name"), answer.Text("answer")));

        // A guest is in no list of members and is not counted.
        Assert.DoesNotContain("Nina", (await ines.Get($"/api/groups/{World.StudioTeam}/members")).Text);
        Assert.DoesNotContain(
            nina.Id.ToString(),
            (await ines.Get($"/api/groups/{World.StudioTeam}/cover?from=2026-03-16&to=2026-03-17")).Text
        );
    }

    [Fact]
    public async Task An_address_known_in_the_group_is_who_has_it_and_an_account_elsewhere_is_told_to_nobody()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var nina = await Add(priya, "nina@example.org");

        Assert.Equal(nina.Id, (await Add(ines, "Another name <nina@example.org>")).Id);
        Assert.Equal(DemoPeople.Tomasz.Id.Value, (await Add(ines, "tomasz@example.org")).Id); // she coordinates
        Assert.NotEqual(DemoPeople.Tomasz.Id.Value, (await Add(priya, "tomasz@example.org")).Id);

        // Astrid has an account and is not in the team: she reads like anybody else.
        var (stranger, astrid) = (await Add(ines, "odd@example.org"), await Add(ines, "astrid@example.org"));
        Assert.Equal("Odd", stranger.Name);
        Assert.Equal("Astrid", astrid.Name); // made of the address, and not hers
        Assert.NotEqual(DemoPeople.Astrid.Id.Value, astrid.Id);
    }

    [Theory]
    [InlineData("")]
    [InlineData("Nina Bell")]
    [InlineData("nina@")]
    [InlineData("nina@example.org, otto@example.org")]
    public async Task What_is_no_single_address_is_refused_with_what_would_be(string text)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var refused = (await ines.Put($"{Guests}/{Guid.NewGuid()}", new { text })).IsProblem(422, "unfit");

        Assert.Contains("nina@example.org", refused.Text, StringComparison.Ordinal);
        Assert.Empty((await ines.Get(Guests)).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task Outsiders_find_no_guests_and_members_no_addresses_but_those_they_wrote()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var nina = await Add(ines, "nina@example.org");
        var otto = await Add(priya, "otto@example.org");

        (await astrid.Get(Guests)).IsProblem(404, "not-there");
        (await astrid.Put($"{Guests}/{Guid.NewGuid()}", new { text = "a@example.org" })).IsProblem(404, "not-there");
        (await astrid.Delete($"{Guests}/{nina.Id}")).IsProblem(404, "not-there");
        Assert.Equal(
            [("Nina", null), ("Otto", "otto@example.org")],
            (await priya.Get(Guests))
                .Is(200)
                .Body.EnumerateArray()
                .Select(one => (one.Text("name"), one.GetProperty("address").GetString()))
        );
        (await priya.Delete($"{Guests}/{nina.Id}")).IsProblem(403, "not-allowed");
        (await priya.Delete($"{Guests}/{otto.Id}")).Is(204);
        (await ines.Delete($"{Guests}/{otto.Id}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Who_is_taken_out_is_asked_nothing_more_until_that_is_undone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var nina = await Add(ines, "nina@example.org");
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Body(calendar, nina.Id))).Is(200);
        var set = Guid.CreateVersion7();

        (await ines.Delete($"{Guests}/{nina.Id}", set: set)).Is(204);

        (await ines.Put($"/api/events/{id}", Body(calendar, nina.Id, "Renamed"), 1)).Is(200); // named before
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", Body(calendar, nina.Id))).IsProblem(422, "unfit");
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", new { personIds = new[] { nina.Id } }, 2, null)).Is(
            204
        );
        Assert.Equal(0, await mortar.Store(db => db.Mails.CountAsync(mail => mail.To == "nina@example.org")));

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Single((await ines.Get(Guests)).Is(200).Body.EnumerateArray());
        Assert.Equal(nina.Id, (await Add(ines, "nina@example.org")).Id);
    }

    [Fact]
    public async Task A_guest_who_becomes_a_member_stays_who_is_named()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var nina = await Add(ines, "Nina Bell <nina@example.org>");
        var people = new[]
        {
            new
            {
                id = Guid.CreateVersion7(),
                name = "Nina Bell",
                address = "nina@example.org",
            },
        };

        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people })).Is(200);

        Assert.Empty((await ines.Get(Guests)).Is(200).Body.EnumerateArray());
        Assert.Contains(
            nina.Id.ToString(),
            (await ines.Get($"/api/groups/{World.StudioTeam}/members")).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Who_has_an_account_finds_in_the_inbox_what_a_guest_by_their_address_is_asked_and_makes_it_theirs()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var guest = await Add(ines, "Astrid of the fair <astrid@example.org>");
        var (asked, given) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        foreach (var id in new[] { asked, given })
        {
            (
                await ines.Put($"/api/events/{id}", Body(calendar, guest.Id, id == asked ? "Glaze day" : "Fair stand"))
            ).Is(200);
        }

        Assert.Empty(await GuestsOf(astrid)); // to be named is told to nobody

        (
            await ines.Send(
                HttpMethod.Post,
                $"/api/events/{asked}/ask",
                new { personIds = new[] { guest.Id } },
                1,
                null
            )
        ).Is(204);
        (
            await ines.Send(
                HttpMethod.Put,
                $"/api/events/{given}/editors",
                new { personIds = new[] { guest.Id } },
                1,
                null
            )
        ).Is(200);
        var card = Assert.Single(await GuestsOf(astrid));
        Assert.Equal(
            ("Astrid of the fair", "astrid@example.org", "Ines Varga"),
            (card.Text("name"), card.Text("address"), card.Text("from"))
        );
        Assert.Equal(
            ["Fair stand", "Glaze day"],
            card.GetProperty("events").EnumerateArray().Select(one => one.Text("title")).Order()
        );
        (await astrid.Get($"/api/events/{asked}")).IsProblem(404, "not-there");
        Assert.Empty(await GuestsOf(priya));
        var claim = $"{Guests}/{guest.Id}/claim";
        (await priya.Post(claim)).IsProblem(404, "not-there");

        (await astrid.Post(claim)).Is(204);

        Assert.Empty(await GuestsOf(astrid));
        var question = Assert.Single(
            (await astrid.Get("/api/inbox")).Is(200).Body.GetProperty("questions").EnumerateArray()
        );
        Assert.Equal("Glaze day", question.GetProperty("event").Text("title"));
        (await astrid.Put($"/api/events/{asked}/answer", new { answer = "accepted" })).Is(204);
        var told = Assert.Single(
            (await ines.Get($"/api/events/{asked}/answers")).Is(200).Body.GetProperty("people").EnumerateArray()
        );
        Assert.Equal((DemoPeople.Astrid.Name, "accepted"), (told.Text("name"), told.Text("answer")));

        // Who is from outside changes the one event they were let change, and no other.
        var own = (await astrid.Get($"/api/events/{given}")).Is(200).Body;
        var changed = new
        {
            calendarId = calendar.Value,
            title = "Fair stand, north gate",
            showAs = "busy",
            time = World.Hours(),
            attendees = new[] { DemoPeople.Astrid.Id.Value },
        };
        var version = own.GetProperty("version").GetInt32();
        (await astrid.Send(HttpMethod.Put, $"/api/events/{given}", changed, version, null)).Is(200);
        Assert.Equal("Fair stand, north gate", (await ines.Get($"/api/events/{given}")).Body.Text("title"));
        (await astrid.Send(HttpMethod.Put, $"/api/events/{asked}", changed, 1, null)).IsProblem(403, "not-allowed");
        (await astrid.Post(claim)).IsProblem(404, "not-there");
    }

    private static async Task<List<System.Text.Json.JsonElement>> GuestsOf(Browser browser) =>
        [.. (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("guests").EnumerateArray()];

    private static async Task<(Guid Id, string Name)> Add(Browser browser, string text)
    {
        var body = (await browser.Put($"{Guests}/{Guid.CreateVersion7()}", new { text })).Is(200).Body;
        return (body.GetProperty("personId").GetGuid(), body.Text("name"));
    }

    private static object Body(CalendarId calendar, Guid named, string title = "Glaze day") =>
        new
        {
            calendarId = calendar.Value,
            title,
            showAs = "busy",
            time = World.Hours(),
            attendees = new[] { named },
        };
}
