using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What has ended stays ended, by any way back.</summary>
public class EndedTests
{
    private static readonly Guid Raku = DemoPeople.Stable("Raku club");
    private static readonly Guid Dele = DemoPeople.Dele.Id.Value;
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    [Fact]
    public async Task Whose_dated_coordinate_is_over_brings_back_nothing_they_ended_or_gave()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        (await ines.Put($"{path}/access/{Dele}", new { role = "coordinate", lastDay = "2026-03-13" })).Is(204);
        var url = (await dele.Put($"{path}/links/{Raku}", new { role = "edit", lastDay = "2026-03-13" }))
            .Is(200)
            .Body.Text("url");
        (await hanne.Post($"/api/links/{url.Split("/link/")[1]}/use")).Is(204);
        var (ended, endedGroup) = (Guid.NewGuid(), Guid.NewGuid());
        (await dele.Put($"{path}/group-access/{Raku}", new { role = "edit", lastDay = "2026-03-13" })).Is(204);
        (await dele.Delete($"{path}/group-access/{Raku}", set: endedGroup)).Is(204);
        (await dele.Delete($"{path}/links/{Raku}", set: ended)).Is(204);

        clock.Now += Duration.FromDays(7);

        Assert.Equal(404, (await dele.Get(path)).Status);
        (await dele.Post($"/api/changes/{ended}/undo")).IsProblem(404, "not-there");
        (await dele.Post($"/api/changes/{endedGroup}/undo")).IsProblem(404, "not-there");
        Assert.Equal(404, (await hanne.Get(path)).Status);
        Assert.Equal(404, (await dele.Get(path)).Status);
    }

    [Theory]
    [InlineData("access")]
    [InlineData("group")]
    [InlineData("link")]
    [InlineData("invitation")]
    [InlineData("default")]
    [InlineData("oneself")]
    public async Task Nobody_gives_for_longer_than_they_hold_it_themselves(string what)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        (await ines.Put($"{path}/access/{Dele}", new { role = "coordinate", lastDay = "2026-03-13" })).Is(204);

        (await Give(null)).IsProblem(409, "outlasts-you");
        if (what != "default") // which has no end
        {
            (await Give("2026-03-14")).IsProblem(409, "outlasts-you");
            Assert.InRange((await Give("2026-03-13")).Status, 200, 204);
        }

        Task<Answer> Give(string? lastDay) =>
            what switch
            {
                "access" => dele.Put($"{path}/access/{Priya}", new { role = "times", lastDay }),
                "oneself" => dele.Put($"{path}/access/{Dele}", new { role = "coordinate", lastDay }),
                "group" => dele.Put($"{path}/group-access/{Raku}", new { role = "view", lastDay }),
                "link" => dele.Put($"{path}/links/{Guid.NewGuid()}", new { role = "view", lastDay }),
                "invitation" => dele.Put(
                    $"{path}/invitations/{Guid.NewGuid()}",
                    new
                    {
                        address = "nina@example.org",
                        role = "view",
                        lastDay,
                    }
                ),
                _ => dele.Put(path, World.Calendar(groupDefault: "edit"), 1),
            };
    }

    [Fact]
    public async Task An_invitation_lapses_with_its_senders_right_and_stands_again_once_another_sends_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var anyone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        (await ines.Put($"{path}/access/{Dele}", new { role = "coordinate" })).Is(204);
        var id = Guid.NewGuid();
        (await dele.Put($"{path}/invitations/{id}", new { address = "hanne@example.org", role = "edit" })).Is(204);
        var (known, stranger) = (Guid.NewGuid(), Guid.NewGuid());
        (await dele.Put($"{path}/invitations/{stranger}", new { address = "new@example.org", role = "edit" })).Is(204);
        var mail = await mortar.Store(db => db.Mails.SingleAsync(one => one.To == "new@example.org"));
        var link = $"/api/invitation-links/{await mortar.SecretIn(mail, "/invitation/")}";
        Assert.Equal(
            System.Text.Json.JsonValueKind.Null,
            (await anyone.Get(link)).Is(200).Body.GetProperty("closed").ValueKind
        );

        (await ines.Put($"{path}/access/{Dele}", new { role = "view" })).Is(204);

        Assert.Empty((await hanne.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray());
        (await hanne.Post($"/api/invitations/{id}/accept")).IsProblem(409, "invitation-closed");
        Assert.Equal(404, (await hanne.Get(path)).Status);
        Assert.Contains("can no longer give this access", (await anyone.Get(link)).Is(200).Body.Text("closed"));
        (
            await anyone.Post(
                $"{link}/account",
                new
                {
                    name = "New",
                    password = "long enough to keep",
                    zone = "Europe/London",
                }
            )
        ).IsProblem(404, "not-there");
        var told = (await ines.Get($"{path}/access")).Is(200).Body.GetProperty("invitations").EnumerateArray();
        Assert.All(told, one => Assert.True(one.GetProperty("lapsed").GetBoolean()));

        (await ines.Post($"{path}/invitations/{id}/send-again")).Is(204);
        (await hanne.Post($"/api/invitations/{id}/accept")).Is(204);
        Assert.True(await hanne.HasLayer(calendar));
    }

    [Fact]
    public async Task An_undo_brings_no_older_mail_and_no_older_link_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var anyone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        var (again, renewed, corrected) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());

        // An invitation that was sent again.
        var id = Guid.NewGuid();
        (await ines.Put($"{path}/invitations/{id}", new { address = "nina@example.org", role = "view" })).Is(204);
        (await ines.Post($"{path}/invitations/{id}/send-again", set: again)).Is(204);
        (await ines.Post($"/api/changes/{again}/undo")).IsProblem(409, "sent");
        var mails = await Mails("nina@example.org", "/invitation/");
        Assert.Equal([404, 200], await Statuses("/api/invitation-links/", mails));

        // A link that was renewed.
        var link = Guid.NewGuid();
        var old = Secret(await ines.Put($"{path}/links/{link}", new { role = "view" }));
        var current = Secret(await ines.Post($"{path}/links/{link}/renew", set: renewed));
        (await ines.Post($"/api/changes/{renewed}/undo")).IsProblem(409, "sent");
        Assert.Equal([404, 200], await Statuses("/api/links/", [old, current]));

        // A name whose address was corrected: taken back, neither mail leads anywhere.
        var name = Guid.NewGuid();
        var people = new[]
        {
            new
            {
                id = name,
                name = "Bea",
                address = "bea@exmaple.org",
            },
        };
        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people })).Is(200);
        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members/{name}",
                new { name = "Bea", address = "bea@example.org" },
                set: corrected
            )
        ).Is(204);
        (await ines.Post($"/api/changes/{corrected}/undo")).Is(200);
        string[] both = [.. await Mails("bea@exmaple.org", "/join/"), .. await Mails("bea@example.org", "/join/")];
        Assert.Equal([404, 404], await Statuses("/api/joining/", both));

        async Task<List<string>> Mails(string to, string before)
        {
            var all = new List<string>();
            foreach (
                var mail in await mortar.Store(db =>
                    db.Mails.AsNoTracking().Where(mail => mail.To == to).OrderBy(mail => mail.Id).ToListAsync()
                )
            )
            {
                all.Add(await mortar.SecretIn(mail, before));
            }

            return all;
        }

        static string Secret(Answer made) => made.Is(200).Body.Text("url").Split("/link/")[1];

        async Task<List<int>> Statuses(string at, IEnumerable<string> secrets)
        {
            var all = new List<int>();
            foreach (var secret in secrets)
            {
                all.Add((await anyone.Get(at + secret)).Status);
            }

            return all;
        }
    }

    [Theory]
    [InlineData("moved")]
    [InlineData("private")]
    [InlineData("deleted")]
    public async Task A_link_to_one_event_and_its_title_end_with_where_and_what_it_was(string how)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var anyone = mortar.Anonymous();
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(from, DemoPeople.Priya, Role.Coordinate);
        var id = await ines.MakeEvent(from, "Open day");
        var link = $"/api/calendars/{from.Value}/links/{Guid.NewGuid()}";
        var made = (await priya.Put(link, new { role = "view", eventId = id })).Is(200).Body.Text("url");
        var secret = $"/api/links/{made.Split("/link/")[1]}";
        (await anyone.Get(secret)).Is(200);

        (
            how switch
            {
                "moved" => await ines.Put($"/api/events/{id}", World.Event(to, "Secret day"), 1),
                "private" => await ines.Put(
                    $"/api/events/{id}",
                    new
                    {
                        calendarId = from.Value,
                        title = "Secret day",
                        time = World.Hours(),
                        showAs = "busy",
                        @private = true,
                    },
                    1
                ),
                _ => await ines.Delete($"/api/events/{id}", 1),
            }
        ).Is(200);

        (await anyone.Get(secret)).IsProblem(404, "not-there");
        (await anyone.Get($"{secret}/wall?from=2026-03-09&to=2026-03-15")).IsProblem(404, "not-there");
        (await priya.Get(link)).IsProblem(404, "not-there");
        var list = (await priya.Get($"/api/calendars/{from.Value}/access")).Is(200).Text;
        Assert.DoesNotContain("Secret day", list);
        Assert.DoesNotContain("Open day", list);
    }

    [Theory]
    [InlineData("over")]
    [InlineData("not asked")]
    [InlineData("bin")]
    public async Task A_mailed_question_ends_with_being_asked_with_the_event_and_some_time_after_it(string how)
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var anyone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View); // she sees it anyway; the link is another thing
        var id = Guid.CreateVersion7();
        object Body(params Guid[] attendees) =>
            new
            {
                calendarId = calendar.Value,
                title = "Stock count",
                time = World.Hours(),
                showAs = "busy",
                attendees,
            };
        (await ines.Put($"/api/events/{id}", Body(Priya))).Is(200);
        var ask = new { personIds = new[] { Priya } };
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", ask, 1, null)).Is(204);
        var mail = await mortar.Store(db => db.Mails.SingleAsync(one => one.AsksAbout == id));
        var link = $"/api/answering/{await mortar.SecretIn(mail, "/answer/")}";
        (await anyone.Get(link)).Is(200);

        switch (how)
        {
            case "over":
                clock.Now += Duration.FromDays(29);
                (await anyone.Get(link)).Is(200);
                clock.Now += Duration.FromDays(4);
                break;
            case "not asked":
                (await ines.Put($"/api/events/{id}", Body(), 2)).Is(200);
                break;
            case "bin":
                (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
                break;
        }

        (await anyone.Get(link)).IsProblem(404, "not-there");
        (await anyone.Put(link, new { answer = "declined" })).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Whoever_left_does_not_come_back_by_undo_and_ones_own_answer_can_be_taken_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (left, yes, no) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        (await priya.Delete($"/api/groups/{World.StudioTeam}/members/{Priya}", set: left)).Is(204);

        (await priya.Post($"/api/changes/{left}/undo")).IsProblem(404, "not-there");
        Assert.Equal(404, (await priya.Get($"/api/groups/{World.StudioTeam}/members")).Status);

        var people = new[] { new { id = DemoPeople.Astrid.Id.Value, name = "Astrid" } };
        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people })).Is(200);
        (await astrid.Post($"/api/memberships/{World.StudioTeam}/accept", set: yes)).Is(204);
        (await astrid.Post($"/api/changes/{yes}/undo")).Is(200);
        Assert.Equal(404, (await astrid.Get($"/api/groups/{World.StudioTeam}/members")).Status);
        (await astrid.Post($"/api/memberships/{World.StudioTeam}/decline", set: no)).Is(204);
        (await astrid.Post($"/api/changes/{no}/undo")).Is(200);
        await astrid.SayYes(World.StudioTeam);
    }

    [Fact]
    public async Task An_undo_leaves_no_calendar_without_a_coordinator_who_stays()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        var given = Guid.NewGuid();
        (await ines.Put($"{path}/access/{Dele}", new { role = "coordinate" }, set: given)).Is(204);
        var me = DemoPeople.Ines.Id.Value;
        (await ines.Put($"{path}/access/{me}", new { role = "coordinate", lastDay = "2026-03-20" })).Is(204);

        (await ines.Post($"/api/changes/{given}/undo")).IsProblem(409, "last-coordinator");
    }

    [Fact]
    public async Task Who_may_only_change_an_event_does_not_give_it_or_bring_it_back_by_undo()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Edit);
        var id = Guid.CreateVersion7();
        object body = new
        {
            calendarId = calendar.Value,
            title = "Stock count",
            time = World.Hours(),
            showAs = "busy",
            attendees = new[] { Priya, Dele },
        };
        (await ines.Put($"/api/events/{id}", body)).Is(200);
        (await dele.Put($"/api/events/{id}/editors", new { personIds = new[] { Priya, Dele } }, 1)).Is(200);
        var (taken, deleted) = (Guid.NewGuid(), Guid.NewGuid());
        (await dele.Put($"/api/events/{id}/editors", new { personIds = new[] { Dele } }, 2, taken)).Is(200);
        Assert.Equal(404, (await priya.Get($"/api/events/{id}")).Status);

        await mortar.Give(calendar, DemoPeople.Dele, Role.None); // what is left to him is to change this one

        (await dele.Put($"/api/events/{id}", body, 3)).Is(200);
        (await dele.Post($"/api/changes/{taken}/undo")).IsProblem(403, "not-allowed");
        Assert.Equal(404, (await priya.Get($"/api/events/{id}")).Status);
        await mortar.Give(calendar, DemoPeople.Dele, Role.Edit);
        (await dele.Put($"/api/events/{id}/editors", new { personIds = new[] { Priya, Dele } }, 3)).Is(200);
        (await dele.Put($"/api/events/{id}/editors", new { personIds = new[] { Dele } }, 4, deleted)).Is(200);
        await mortar.Give(calendar, DemoPeople.Dele, Role.None);
        (await dele.Post($"/api/changes/{deleted}/undo")).IsProblem(403, "not-allowed");
        Assert.Equal(404, (await priya.Get($"/api/events/{id}")).Status);
    }
}
