using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Many people are invited to a calendar at once, each as the pasted list is understood.</summary>
public class InviteManyTests
{
    [Fact]
    public async Task Each_entry_says_how_it_is_understood_and_what_would_come_of_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}/invitations";
        (await ines.Put($"{path}/{Guid.NewGuid()}", new { address = "waits@example.org", role = "view" })).Is(204);

        var read = (
            await ines.Post(
                $"{path}/read",
                new
                {
                    text = """
                    1. "Okoro, Dele" <dele@example.org>;
                    mailto:nina@example.org
                    (nina at example.org), waits@example.org
                    Ines Varga	ines@example.org
                    Somebody Without
                    broken@@example
                    """,
                }
            )
        ).Is(200);

        Assert.Equal(
            [
                ("Dele Okoro", "dele@example.org", "invited"),
                ("Nina", "nina@example.org", "invited"),
                ("Nina", "nina@example.org", "again"),
                ("Waits", "waits@example.org", "invitedAlready"),
                ("Ines Varga", "ines@example.org", "hasStep"),
                ("Somebody Without", null, "noAddress"),
                ("broken@@example", null, "unreadable"),
            ],
            read.Body.EnumerateArray()
                .Select(one =>
                    (
                        one.Text("name") is { Length: > 0 } name ? name : one.Text("text"),
                        one.GetProperty("address").GetString(),
                        one.Text("fate")
                    )
                )
        );
    }

    [Fact]
    public async Task All_are_invited_in_one_act_that_says_what_became_of_each_and_is_taken_back_whole()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}/invitations";
        (await ines.Put($"{path}/{Guid.NewGuid()}", new { address = "waits@example.org", role = "view" })).Is(204);
        var set = Guid.NewGuid();
        var body = new
        {
            people = new[]
            {
                One("dele@example.org", "edit"),
                One("nina@example.org", "view"),
                One("NINA@example.org", "view"),
                One("waits@example.org", "view"),
                One("ines@example.org", "view"),
            },
            message = "For the spring",
        };

        var became = (await ines.Put(path, body, set: set)).Is(200).Body;

        Assert.Equal(
            ["invited", "invited", "again", "invitedAlready", "hasStep"],
            became.EnumerateArray().Select(one => one.Text("fate"))
        );
        (await ines.Put(path, body, set: set)).Is(200); // sent again since its answer was lost
        Assert.Equal(
            [("dele@example.org", "edit"), ("nina@example.org", "view"), ("waits@example.org", "view")],
            await Waiting(ines, calendar)
        );
        Assert.Equal(
            ["dele@example.org", "nina@example.org"],
            await mortar.Store(db =>
                db.Mails.Where(mail => mail.To == "dele@example.org" || mail.To == "nina@example.org")
                    .OrderBy(mail => mail.To)
                    .Select(mail => mail.To)
                    .ToListAsync()
            )
        );
        var mine = Assert.Single(
            (await dele.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray()
        );
        Assert.Equal(("edit", "For the spring"), (mine.Text("role"), mine.Text("message")));

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal([("waits@example.org", "view")], await Waiting(ines, calendar));
        Assert.Empty((await dele.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray());
    }

    [Fact]
    public async Task Where_one_is_written_wrongly_or_they_are_too_many_nobody_is_invited()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}/invitations";
        object Of(params object[] people) => new { people };

        (await ines.Put(path, Of(One("nina@example.org", "view"), One("no address", "view")))).IsProblem(422, "unfit");
        (await ines.Put(path, Of(One("nina@example.org", "view"), One("lars@example.org", "none")))).IsProblem(
            422,
            "unfit"
        );
        (await ines.Put(path, Of())).IsProblem(422, "unfit");
        (
            await ines.Put(path, Of([.. Enumerable.Range(0, 201).Select(one => One($"a{one}@example.org", "view"))]))
        ).IsProblem(422, "unfit");
        (
            await ines.Put(
                path,
                new { people = new[] { One("nina@example.org", "view") }, message = new string('x', 1_001) }
            )
        ).IsProblem(422, "unfit");

        Assert.Empty(await Waiting(ines, calendar));
        Assert.False(await mortar.Store(db => db.Mails.AnyAsync(mail => mail.To == "nina@example.org")));
        (await ines.Put(path, Of([.. Enumerable.Range(0, 200).Select(one => One($"a{one}@example.org", "view"))]))).Is(
            200
        );
        Assert.Equal(200, (await Waiting(ines, calendar)).Count);
    }

    private static object One(string address, string role) =>
        new
        {
            id = Guid.CreateVersion7(),
            address,
            role,
        };

    private static async Task<List<(string Address, string Role)>> Waiting(Browser browser, CalendarId calendar) =>
        [
            .. (await browser.Get($"/api/calendars/{calendar.Value}/access"))
                .Is(200)
                .Body.GetProperty("invitations")
                .EnumerateArray()
                .Select(one => (one.Text("address"), one.Text("role")))
                .Order(),
        ];
}
