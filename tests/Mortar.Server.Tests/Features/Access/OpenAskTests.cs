using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Asking a person or a group for a calendar, without knowing which they have.</summary>
public partial class OpenAskTests
{
    /// <summary>The number of the request, which differs each time.</summary>
    [GeneratedRegex("\"traceId\":\"[^\"]*\"", RegexOptions.None, matchTimeoutMilliseconds: 1_000)]
    private static partial Regex Trace();

    [Theory]
    [InlineData("ines@example.org")]
    [InlineData("Ines Varga")]
    [InlineData("  ines   varga ")]
    public async Task Whoever_is_asked_chooses_the_calendar_and_the_step(string to)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        (await Ask(priya, to, "view", "To plan the glaze week")).Is(204);

        var ask = Assert.Single(await Asks(ines));
        var set = Guid.CreateVersion7();
        (
            await ines.Post(
                $"/api/open-asks/{ask.Text("id")}/give",
                new { calendarId = calendar.Value, role = "outline" },
                set
            )
        ).Is(204);

        Assert.Equal(("Priya Raman", "To plan the glaze week"), (ask.Text("from"), ask.Text("note")));
        Assert.True(await priya.HasLayer(calendar));
        Assert.Empty(await Asks(ines));
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.False(await priya.HasLayer(calendar));
        Assert.Single(await Asks(ines));
    }

    [Fact]
    public async Task Whoever_has_a_calendar_of_their_own_is_asked_by_name_and_gives_it_also_where_they_do_not_coordinate_the_group()
    {
        await using var mortar = await TestMortar.Start();
        using var dele = await mortar.As(DemoPeople.Dele);
        using var priya = await mortar.As(DemoPeople.Priya);
        // The group they share is not his to coordinate.
        var team = (await dele.Get("/api/groups"))
            .Is(200)
            .Body.EnumerateArray()
            .Single(group => group.GetProperty("id").GetGuid() == World.StudioTeam);
        Assert.False(team.GetProperty("coordinates").GetBoolean());
        var own = await dele.MakeCalendar();
        (await Ask(priya, DemoPeople.Dele.Name, "view", "To plan the glaze week")).Is(204);

        var ask = Assert.Single(await Asks(dele));
        (await dele.Post($"/api/open-asks/{ask.Text("id")}/give", new { calendarId = own.Value, role = "view" })).Is(
            204
        );

        Assert.True(await priya.HasLayer(own));
    }

    [Fact]
    public async Task A_group_is_answered_by_those_who_coordinate_it_with_a_calendar_of_its()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var family = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/groups/{family}",
                new
                {
                    name = "Attic",
                    sort = "family",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var elsewhere = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{elsewhere}",
                new
                {
                    groupId = family,
                    name = "Attic days",
                    description = "",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "none",
                }
            )
        ).Is(200);

        (await Ask(astrid, "studio TEAM", "times")).Is(204);

        Assert.Empty(await Asks(priya)); // in the group, and does not coordinate it
        var ask = Assert.Single(await Asks(ines));
        Assert.Equal("Studio team", ask.Text("groupName"));
        var give = $"/api/open-asks/{ask.Text("id")}/give";
        (await priya.Post(give, new { calendarId = calendar.Value, role = "times" })).IsProblem(404, "not-there");
        (await ines.Post(give, new { calendarId = elsewhere, role = "times" })).IsProblem(422, "unfit");
        (await ines.Post(give, new { calendarId = calendar.Value, role = "none" })).IsProblem(422, "unfit");
        (await ines.Post(give, new { calendarId = calendar.Value, role = "times" })).Is(204);
        (await ines.Post(give, new { calendarId = calendar.Value, role = "edit" })).IsProblem(409, "ask-closed");
        Assert.True(await astrid.HasLayer(calendar));
    }

    [Fact]
    public async Task Asking_tells_nobody_who_is_here_nor_which_groups_there_are()
    {
        await using var mortar = await TestMortar.Start();
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var ines = await mortar.As(DemoPeople.Ines);
        string[] there = ["ines@example.org", "Studio team", "nobody@example.org", "No such people", "Ines Varga"];
        foreach (var role in new[] { "view", "coordinate" })
        {
            var answers = new List<string>();
            foreach (var to in there)
            {
                var id = Guid.CreateVersion7();
                var set = Guid.CreateVersion7();
                var asked = await astrid.Put($"/api/open-asks/{id}", new { to, role }, set: set);
                var undone = await astrid.Post($"/api/changes/{set}/undo");
                answers.Add(
                    Trace().Replace($"{asked.Status} {asked.Text} {undone.Status} {undone.Text}", string.Empty)
                );
            }

            Assert.Single(answers.Distinct());
        }

        Assert.Equal(2, (await Asks(ines)).Count); // to her, and to the group
    }

    [Fact]
    public async Task A_no_is_told_and_the_mail_leads_to_the_request()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        (await Ask(astrid, "ines@example.org", "view", "Who fires when?")).Is(204);
        var id = Assert.Single(await Asks(ines)).Text("id");

        var mail = Assert.Single(
            await mortar.Store(db => db.Mails.Where(one => one.Subject.Contains("asks for a calendar")).ToListAsync())
        );
        (await ines.Post($"/api/open-asks/{id}/refuse")).Is(204);

        var text = await mortar.TextOf(mail);
        Assert.Contains($"/inbox?ask={id}", text, StringComparison.Ordinal);
        Assert.Contains("Who fires when?", text, StringComparison.Ordinal);
        Assert.Contains(
            "Ines Varga did not give you the access you asked for.",
            (await astrid.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("", "Say whom you ask")]
    [InlineData("   ", "Say whom you ask")]
    public async Task Nobody_asked_is_said(string to, string says)
    {
        await using var mortar = await TestMortar.Start();
        using var astrid = await mortar.As(DemoPeople.Astrid);

        Assert.Contains(says, (await Ask(astrid, to, "view")).IsProblem(422, "unfit").Detail, StringComparison.Ordinal);
    }

    private static Task<Answer> Ask(Browser browser, string to, string role, string note = "") =>
        browser.Put(
            $"/api/open-asks/{Guid.CreateVersion7()}",
            new
            {
                to,
                role,
                note,
            }
        );

    private static async Task<List<JsonElement>> Asks(Browser browser) =>
        [.. (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("openAsks").EnumerateArray()];
}
