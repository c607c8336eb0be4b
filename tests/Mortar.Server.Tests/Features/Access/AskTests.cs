using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

public partial class AskTests
{
    /// <summary>The number of the request, which differs each time.</summary>
    [GeneratedRegex("\"traceId\":\"[^\"]*\"", RegexOptions.None, matchTimeoutMilliseconds: 1_000)]
    private static partial Regex Trace();

    [Theory]
    [InlineData("view", true)] // just what was asked for
    [InlineData("outline", true)] // less
    [InlineData("edit", true)] // more
    [InlineData("none", false)]
    public async Task A_coordinator_gives_what_was_asked_for_or_less_or_more(string given, bool fit)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        (await Ask(astrid, calendar, "view", "For the glaze table")).Is(204);

        var ask = Assert.Single(await Asks(ines));
        var answer = await ines.Post($"/api/asks/{ask.Text("id")}/grant", new { role = given });

        Assert.Equal(
            ("Glaze tests", "view", "For the glaze table"),
            (ask.Text("calendarName"), ask.Text("role"), ask.Text("note"))
        );
        Assert.Equal(fit ? 204 : 422, answer.Status);
        Assert.Equal(fit, await astrid.HasLayer(calendar));
        Assert.Equal(fit ? 0 : 1, (await Asks(ines)).Count);
    }

    [Fact]
    public async Task No_is_told_without_the_calendars_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        (await Ask(astrid, calendar, "view")).Is(204);

        (await ines.Post($"/api/asks/{(await Asks(ines))[0].Text("id")}/refuse")).Is(204);

        var inbox = (await astrid.Get("/api/inbox")).Is(200).Text;
        Assert.Contains("Ines Varga did not give you the access you asked for.", inbox, StringComparison.Ordinal);
        Assert.DoesNotContain("Glaze tests", inbox, StringComparison.Ordinal);
        Assert.False(await astrid.HasLayer(calendar));
    }

    [Fact]
    public async Task Asking_tells_nobody_whether_a_calendar_is_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (there, deleted, never) = (
            await ines.MakeCalendar(),
            await ines.MakeCalendar(),
            new CalendarId(Guid.NewGuid())
        );
        (await ines.Delete($"/api/calendars/{deleted.Value}?name=Glaze tests", 1)).Is(204);

        foreach (var role in new[] { "view", "coordinate", "none" })
        {
            var answers = new List<Answer>();
            foreach (var calendar in new[] { there, deleted, never })
            {
                answers.Add(await Ask(astrid, calendar, role));
            }

            Assert.Single(
                answers.Select(answer => (answer.Status, Trace().Replace(answer.Text, string.Empty))).Distinct()
            );
        }
    }

    [Fact]
    public async Task Asking_again_changes_what_waits_and_it_can_be_taken_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        var id = Guid.NewGuid();
        (await Ask(astrid, calendar, "view", id: id)).Is(204);
        (await Ask(astrid, calendar, "edit", "To help out")).Is(204);

        var ask = Assert.Single(await Asks(ines));
        (await astrid.Delete($"/api/asks/{id}")).Is(204);

        Assert.Equal((id.ToString(), "edit"), (ask.Text("id"), ask.Text("role")));
        Assert.Empty(await Asks(ines));
        (await ines.Post($"/api/asks/{id}/grant", new { role = "view" })).IsProblem(409, "ask-closed");
    }

    [Fact]
    public async Task Given_by_mistake_it_is_taken_back_with_one_undo_and_waits_again()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (calendar, set) = (await ines.MakeCalendar(), Guid.NewGuid());
        (await Ask(astrid, calendar, "view")).Is(204);
        var id = (await Asks(ines))[0].Text("id");
        (await ines.Send(HttpMethod.Post, $"/api/asks/{id}/grant", new { role = "edit" }, null, set)).Is(204);

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.False(await astrid.HasLayer(calendar));
        Assert.Equal(id, Assert.Single(await Asks(ines)).Text("id"));
    }

    private static Task<Answer> Ask(
        Browser browser,
        CalendarId calendar,
        string role,
        string note = "",
        Guid? id = null
    ) => browser.Put($"/api/calendars/{calendar.Value}/asks/{id ?? Guid.NewGuid()}", new { role, note });

    private static async Task<List<JsonElement>> Asks(Browser browser) =>
        [.. (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("asks").EnumerateArray()];

    [Fact]
    public async Task Who_coordinates_is_told_by_mail_and_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);

        (
            await mei.Put(
                $"/api/calendars/{calendar.Value}/asks/{Guid.NewGuid()}",
                new { role = "edit", note = "For the fair" }
            )
        ).Is(204);

        var mails = await mortar.Store(db =>
            db.Mails.Where(mail => mail.Subject.Contains("Glaze tests")).ToListAsync()
        );
        var mail = Assert.Single(mails);
        Assert.Equal("ines@example.org", mail.To);
        var text = await mortar.TextOf(mail);
        Assert.Contains("Mei Sato (mei@example.org) asks for the step Edit", text, StringComparison.Ordinal);
        Assert.Contains("For the fair", text, StringComparison.Ordinal);
        Assert.Matches("/inbox\\?ask=[0-9a-f-]{36}(\n|$)", text);
    }
}
