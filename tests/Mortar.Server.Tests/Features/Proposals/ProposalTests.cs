using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Several times put to people as one question, what they say in the inbox and by mail, and the one that is settled.</summary>
public class ProposalTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;
    private static readonly Guid Tomasz = DemoPeople.Tomasz.Id.Value;
    private static readonly string[] Starts = ["2026-03-16T20:00:00", "2026-03-17T20:00:00", "2026-03-18T20:00:00"];

    [Fact]
    public async Task Three_times_are_proposed_answered_in_the_inbox_and_by_mail_and_one_is_settled()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var guest = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();

        var id = await Propose(ines, calendar);

        var asked = Assert.Single(await Waiting(priya));
        Assert.Equal(("Glaze day", "Ines Varga"), (asked.Text("title"), asked.Text("from")));
        var times = asked
            .GetProperty("times")
            .EnumerateArray()
            .Select(time => time.GetProperty("at").GetString()!)
            .ToList();
        Assert.Equal(Starts, asked.GetProperty("times").EnumerateArray().Select(time => time.Text("start")));
        Assert.Equal(1, await Unread(priya));
        await Say(priya, id, "Not the first", (times[0], "doesNotSuit"), (times[1], "suits"), (times[2], "wouldDo"));
        Assert.Empty(await Waiting(priya));

        var secret = await Secret(mortar, "tomasz@example.org");
        var mailed = (await guest.Get($"/api/suits/{secret}")).Is(200).Body.GetProperty("asked");
        Assert.Equal("Tomasz Wilk", mailed.Text("name"));
        (
            await guest.Put(
                $"/api/suits/{secret}",
                new { said = new[] { new { at = times[1], suits = "suits" } }, comment = "Only then" }
            )
        ).Is(204);

        var counted = Assert.Single(await ToSettle(ines));
        Assert.Equal(times[1], counted.GetProperty("best").GetString());
        Assert.Equal([Priya, Tomasz], Ids(counted.GetProperty("times")[1], "suits"));
        Assert.Equal([Tomasz], Ids(counted.GetProperty("times")[0], "silent"));
        Assert.Contains("Only then", counted.GetRawText(), StringComparison.Ordinal);
        Assert.Contains(
            "“Glaze day”: 2 of the times suit Priya Raman.",
            (await ines.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );

        var set = Guid.CreateVersion7();
        var made = (await ines.Post($"/api/proposals/{id}/settle", new { at = times[1] }, set)).Is(200).Body;
        var answers = (await ines.Get($"/api/events/{made.GetProperty("eventId").GetGuid()}/answers")).Is(200).Body;
        Assert.Equal(
            [("Ines Varga", "needsAction"), ("Priya Raman", "accepted"), ("Tomasz Wilk", "accepted")],
            answers.GetProperty("people").EnumerateArray().Select(one => (one.Text("name"), one.Text("answer")))
        );
        Assert.Empty(await ToSettle(ines));
        var told = await mortar.Store(db =>
            db.Mails.Where(mail => mail.Subject.StartsWith("It is settled")).ToListAsync()
        );
        Assert.Equal(2, told.Count);
        foreach (var mail in told)
        {
            Assert.Contains("Tue 17 March", await mortar.TextOf(mail), StringComparison.Ordinal);
        }

        Assert.All(told, mail => Assert.NotNull(mail.AsksAbout)); // as other calendar programs read it
        Assert.Contains(
            "settled meanwhile",
            (await guest.Get($"/api/suits/{secret}")).Is(200).Text,
            StringComparison.Ordinal
        );

        // Undone, it waits again as it stood.
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal(times[1], Assert.Single(await ToSettle(ines)).GetProperty("best").GetString());
        (await ines.Get($"/api/events/{made.GetProperty("eventId").GetGuid()}/answers")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task What_others_said_and_who_they_are_is_told_to_nobody_who_was_only_asked()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Tomasz, Role.View);
        await mortar.Give(calendar, DemoPeople.Astrid, Role.Edit);
        var id = await Propose(ines, calendar);
        var at = (await Waiting(priya))[0].GetProperty("times")[0].GetProperty("at").GetString()!;
        await Say(priya, id, "Quite private", (at, "doesNotSuit"));

        var seen = (await tomasz.Get("/api/proposals")).Is(200).Text + (await tomasz.Get("/api/inbox")).Is(200).Text;
        Assert.DoesNotContain("Quite private", seen, StringComparison.Ordinal);
        Assert.DoesNotContain("Priya", seen, StringComparison.Ordinal);
        Assert.Empty(await ToSettle(tomasz));
        foreach (var outsider in new[] { priya, tomasz })
        {
            (await outsider.Post($"/api/proposals/{id}/settle", new { at })).IsProblem(404, "not-there");
            (await outsider.Post($"/api/proposals/{id}/ask-again")).IsProblem(404, "not-there");
            (await outsider.Delete($"/api/proposals/{id}")).IsProblem(404, "not-there");
        }

        // Who may change any event of the calendar settles for who is on holiday; who was not asked says nothing.
        Assert.Single(await ToSettle(astrid));
        Assert.Empty(await Waiting(astrid));
        (
            await astrid.Put($"/api/proposals/{id}/suits", new { said = new[] { new { at, suits = "suits" } } })
        ).IsProblem(404, "not-there");
        (
            await priya.Put(
                $"/api/proposals/{id}/suits",
                new { said = new[] { new { at, suits = "suits" } }, @for = Tomasz }
            )
        ).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Who_comes_too_late_is_told_so_and_nothing_is_changed()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Propose(ines, calendar);
        var at = (await Waiting(priya))[0].GetProperty("times")[0].GetProperty("at").GetString()!;

        var set = Guid.CreateVersion7();
        (await ines.Delete($"/api/proposals/{id}", set: set)).Is(204);

        Assert.Empty(await Waiting(priya));
        (await priya.Put($"/api/proposals/{id}/suits", new { said = new[] { new { at, suits = "suits" } } })).IsProblem(
            409,
            "settled"
        );
        (await ines.Post($"/api/proposals/{id}/settle", new { at })).IsProblem(409, "settled");
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        await Say(priya, id, "", (at, "suits"));
        (await ines.Post($"/api/proposals/{id}/settle", new { at = "2026-03-16T03:00:00Z" })).IsProblem(422, "unfit");
        (
            await priya.Put(
                $"/api/proposals/{id}/suits",
                new { said = new[] { new { at = "2026-03-16T03:00:00Z", suits = "suits" } } }
            )
        ).IsProblem(422, "unfit");

        // Gone with its calendar.
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
        Assert.Empty(await Waiting(priya));
        Assert.Empty(await ToSettle(ines));
        using var guest = mortar.Anonymous();
        (await guest.Get($"/api/suits/{await Secret(mortar, "priya@example.org")}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Asked_twice_with_one_id_it_is_asked_once_and_asked_again_only_of_the_silent()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Propose(ines, calendar);
        (await ines.Put($"/api/proposals/{id}", Body(calendar))).Is(204);
        Assert.Equal(2, await mortar.Store(db => db.Mails.CountAsync(mail => mail.Subject.Contains("suits you"))));
        var old = await Secret(mortar, "tomasz@example.org");
        var at = (await Waiting(priya))[0].GetProperty("times")[0].GetProperty("at").GetString()!;
        await Say(priya, id, "", (at, "suits"));

        (await ines.Post($"/api/proposals/{id}/ask-again")).Is(204);

        Assert.Equal(3, await mortar.Store(db => db.Mails.CountAsync(mail => mail.Subject.Contains("suits you"))));
        using var guest = mortar.Anonymous();
        (await guest.Get($"/api/suits/{old}")).IsProblem(404, "not-there"); // the newer mail leads there
        (await guest.Get($"/api/suits/{await Secret(mortar, "tomasz@example.org")}")).Is(200);
    }

    [Theory]
    [InlineData("title", "", 3, 2)]
    [InlineData("times", "Glaze day", 1, 2)]
    [InlineData("personIds", "Glaze day", 3, 0)]
    [InlineData("personIds", "Glaze day", 3, -1)] // a stranger
    public async Task What_cannot_be_proposed_is_refused_by_name(string field, string title, int times, int people)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var body = Body(
            calendar,
            title,
            [.. Starts.Take(times)],
            people < 0 ? [Guid.NewGuid()] : [.. new[] { Priya, Tomasz }.Take(people)]
        );

        var answer = await ines.Put($"/api/proposals/{Guid.CreateVersion7()}", body);

        answer.IsProblem(422, "unfit");
        Assert.Contains($"\"{field}\"", answer.Text, StringComparison.Ordinal);
        Assert.Equal(0, await mortar.Store(db => db.Proposals.CountAsync()));
        Assert.Equal(0, await mortar.Store(db => db.Mails.CountAsync(mail => mail.Subject.Contains("suits you"))));
    }

    [Fact]
    public async Task Who_has_left_the_group_since_holds_nothing_up_and_is_not_named()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Propose(ines, calendar);
        var at = (await Waiting(priya))[0].GetProperty("times")[0].GetProperty("at").GetString()!;
        (await ines.Delete($"/api/groups/{World.StudioTeam}/members/{Tomasz}")).Is(204);

        var made = (await ines.Post($"/api/proposals/{id}/settle", new { at })).Is(200).Body;

        var answers = (await ines.Get($"/api/events/{made.GetProperty("eventId").GetGuid()}/answers")).Is(200).Body;
        Assert.Equal(
            ["Ines Varga", "Priya Raman"],
            answers.GetProperty("people").EnumerateArray().Select(one => one.Text("name"))
        );
    }

    [Fact]
    public async Task A_name_that_is_claimed_keeps_what_it_was_asked_and_said()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var guest = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var nina = Guid.CreateVersion7();
        var people = new[]
        {
            new
            {
                id = nina,
                name = "Nina Bell",
                address = "nina@example.org",
            },
        };
        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people })).Is(200);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/proposals/{id}", Body(calendar, people: [nina]))).Is(204);
        var secret = await Secret(mortar, "nina@example.org");
        var first = (await guest.Get($"/api/suits/{secret}")).Is(200).Body.GetProperty("asked").GetProperty("times")[0];
        var said = new[] { new { at = first.GetProperty("at").GetString(), suits = "suits" } };
        (await guest.Put($"/api/suits/{secret}", new { said })).Is(204);
        var token = await mortar.SecretIn(await mortar.MailWith("nina@example.org", "/join/"), "/join/");

        (await hanne.Post($"/api/joining/{token}")).Is(204);

        Assert.Equal([DemoPeople.Hanne.Id.Value], Ids((await ToSettle(ines))[0].GetProperty("times")[0], "suits"));
        Assert.Single(await Waiting(hanne)); // two of the three are without an answer
        (await guest.Get($"/api/suits/{secret}")).Is(200);
    }

    private static async Task<Guid> Propose(Browser by, CalendarId calendar)
    {
        var id = Guid.CreateVersion7();
        (await by.Put($"/api/proposals/{id}", Body(calendar))).Is(204);
        return id;
    }

    private static object Body(
        CalendarId calendar,
        string title = "Glaze day",
        string[]? starts = null,
        Guid[]? people = null
    ) =>
        new
        {
            calendarId = calendar.Value,
            title,
            place = "Glaze room",
            notes = "",
            times = (starts ?? Starts).Select(start => new
            {
                start,
                end = start.Replace("20:00", "21:00", StringComparison.Ordinal),
            }),
            personIds = people ?? [Priya, Tomasz],
        };

    private static async Task Say(Browser by, Guid id, string comment, params (string At, string Suits)[] said) =>
        (
            await by.Put(
                $"/api/proposals/{id}/suits",
                new { said = said.Select(one => new { at = one.At, suits = one.Suits }), comment }
            )
        ).Is(204);

    private static async Task<IReadOnlyList<JsonElement>> Waiting(Browser by) =>
        [.. (await by.Get("/api/proposals")).Is(200).Body.GetProperty("waiting").EnumerateArray()];

    private static async Task<IReadOnlyList<JsonElement>> ToSettle(Browser by) =>
        [.. (await by.Get("/api/proposals")).Is(200).Body.GetProperty("toSettle").EnumerateArray()];

    private static async Task<int> Unread(Browser by) =>
        (await by.Get("/api/inbox")).Is(200).Body.GetProperty("unread").GetInt32();

    private static IEnumerable<Guid> Ids(JsonElement time, string list) =>
        time.GetProperty(list).EnumerateArray().Select(id => id.GetGuid()).OrderBy(id => id == Tomasz);

    private static async Task<string> Secret(TestMortar mortar, string address) =>
        await mortar.SecretIn(await mortar.MailWith(address, "/suits/"), "/suits/");
}
