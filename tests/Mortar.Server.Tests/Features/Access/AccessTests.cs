using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.StandIns;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class AccessTests
{
    [Fact]
    public async Task An_invitation_arrives_in_the_inbox_and_by_mail_and_accepted_it_is_a_layer()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();

        await Invite(ines, calendar, " Priya@Example.org ", "edit", "For the spring tests");

        var invitation = Assert.Single(
            (await priya.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray()
        );
        Assert.Equal(
            ("Glaze tests", "Ines Varga", "For the spring tests"),
            (invitation.Text("calendarName"), invitation.Text("from"), invitation.Text("message"))
        );
        Assert.Equal(
            "You will see everything in “Glaze tests” and can add, change and delete any event.",
            invitation.Text("sentence")
        );
        var mail = await Mail(mortar, "priya@example.org");
        Assert.Contains(invitation.Text("sentence"), mail.Text, StringComparison.Ordinal);
        Assert.Contains($"{mortar.Url}invitation/", mail.Text, StringComparison.Ordinal);
        (await priya.Post($"/api/invitations/{invitation.Text("id")}/accept")).Is(204);
        Assert.True(await priya.HasLayer(calendar));
        Assert.Contains(
            "Priya Raman accepted your invitation to “Glaze tests”.",
            (await ines.Get("/api/inbox")).Text,
            StringComparison.Ordinal
        );
        (await priya.Post($"/api/invitations/{invitation.Text("id")}/accept")).IsProblem(409, "invitation-closed");
    }

    [Fact]
    public async Task Declined_it_leaves_no_trace_on_the_wall()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Invite(ines, calendar, "priya@example.org", "view");

        (await priya.Post($"/api/invitations/{id}/decline")).Is(204);

        Assert.False(await priya.HasLayer(calendar));
        Assert.Contains("Priya Raman declined", (await ines.Get("/api/inbox")).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_invitation_is_for_the_one_invited_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        var id = await Invite(ines, calendar, "priya@example.org", "view");

        (await tomasz.Post($"/api/invitations/{id}/accept")).IsProblem(404, "not-there");
        (await tomasz.Post($"/api/invitations/{Guid.NewGuid()}/accept")).IsProblem(404, "not-there");

        Assert.False(await tomasz.HasLayer(calendar));
    }

    [Fact]
    public async Task An_unknown_address_makes_an_account_by_the_mailed_link_and_then_has_the_same_invitation()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nina = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await Invite(ines, calendar, "nina@example.org", "outline");
        var token = (await Mail(mortar, "nina@example.org")).Text.Split("/invitation/")[1].Split('\n')[0].Trim();

        var seen = (await nina.Get($"/api/invitation-links/{token}")).Is(200).Body;
        Assert.Equal(
            ("Glaze tests", false, false),
            (
                seen.Text("calendarName"),
                seen.GetProperty("hasAccount").GetBoolean(),
                seen.GetProperty("isMine").GetBoolean()
            )
        );
        (
            await nina.Post(
                $"/api/invitation-links/{token}/account",
                new
                {
                    name = "Nina Holt",
                    password = "short",
                    zone = "Europe/London",
                }
            )
        ).IsProblem(422, "unfit");
        (
            await nina.Post(
                $"/api/invitation-links/{token}/account",
                new
                {
                    name = "Nina Holt",
                    password = "a long one, please",
                    zone = "Europe/London",
                }
            )
        ).Is(204);

        var invitation = Assert.Single(
            (await nina.Get("/api/inbox")).Is(200).Body.GetProperty("invitations").EnumerateArray()
        );
        (await nina.Post($"/api/invitations/{invitation.Text("id")}/accept")).Is(204);
        Assert.True(await nina.HasLayer(calendar));
        (await nina.Delete("/api/session")).Is(204);
        (await nina.Post("/api/session", new { address = "nina@example.org", password = "wrong, I think" })).IsProblem(
            401,
            "wrong-sign-in"
        );
        (await nina.Post("/api/session", new { address = "nina@example.org", password = "a long one, please" })).Is(
            204
        );
        Assert.True(await nina.HasLayer(calendar));
        (
            await mortar
                .Anonymous()
                .Post(
                    $"/api/invitation-links/{token}/account",
                    new
                    {
                        name = "Thief",
                        password = "a long one, please",
                        zone = "Europe/London",
                    }
                )
        ).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task A_withdrawn_invitation_leads_nowhere()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Invite(ines, calendar, "priya@example.org", "view");
        var token = (await Mail(mortar, "priya@example.org")).Text.Split("/invitation/")[1].Split('\n')[0].Trim();

        (await ines.Delete($"/api/calendars/{calendar.Value}/invitations/{id}")).Is(204);

        (await priya.Post($"/api/invitations/{id}/accept")).IsProblem(409, "invitation-closed");
        (await priya.Get($"/api/invitation-links/{token}")).IsProblem(404, "not-there");
        Assert.Empty((await priya.Get("/api/inbox")).Body.GetProperty("invitations").EnumerateArray());
        await Invite(ines, calendar, "priya@example.org", "edit");
    }

    [Theory]
    [InlineData("priya", "view", 422, "unfit")]
    [InlineData("priya@example.org\nBcc: all@example.org", "view", 422, "unfit")]
    [InlineData("priya@example.org", "none", 422, "unfit")]
    [InlineData("ines@example.org", "view", 409, "already-in")]
    [InlineData("dele@example.org", "view", 409, "already-invited")]
    public async Task An_invitation_that_cannot_be_is_refused_with_the_way_out(
        string address,
        string role,
        int status,
        string type
    )
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await Invite(ines, calendar, "dele@example.org", "view");

        (
            await ines.Put($"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}", new { address, role })
        ).IsProblem(status, type);
    }

    [Fact]
    public async Task What_giving_would_mean_is_said_with_the_names_one_may_know()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var meaning = (
            await ines.Post(
                $"/api/calendars/{calendar.Value}/invitations/meaning",
                new { addresses = new[] { "priya@example.org", "nina@example.org" }, role = "outline" }
            )
        )
            .Is(200)
            .Body;

        Assert.Equal(
            "Priya Raman and nina@example.org will see titles and places in “Glaze tests”, not notes.",
            meaning.Text("sentence")
        );
    }

    [Fact]
    public async Task A_calendar_keeps_its_last_coordinator()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var me = DemoPeople.Ines.Id.Value;

        (await ines.Put($"/api/calendars/{calendar.Value}/access/{me}", new { role = "edit" })).IsProblem(
            409,
            "last-coordinator"
        );
        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{me}")).IsProblem(409, "last-coordinator");
        await mortar.Give(calendar, DemoPeople.Priya, Role.Coordinate);
        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{me}")).Is(204);

        Assert.False(await ines.HasLayer(calendar));
    }

    [Fact]
    public async Task The_inbox_does_not_tell_somebody_whose_access_ended_the_later_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Surprise for Priya"), 1)).Is(200);

        var inbox = (await priya.Get("/api/inbox")).Is(200);

        Assert.Contains("Ines Varga ended your access to “Glaze tests”.", inbox.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Surprise", inbox.Text, StringComparison.Ordinal);
        Assert.Equal(2, inbox.Body.GetProperty("unread").GetInt32());
        (await priya.Post("/api/inbox/seen")).Is(204);
        Assert.Equal(0, (await priya.Get("/api/inbox")).Body.GetProperty("unread").GetInt32());
    }

    [Fact]
    public async Task An_address_is_no_way_to_find_out_a_name()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await mortar.As(DemoPeople.Hanne);
        var own = new CalendarId(DemoPeople.Stable("calendar Hanne’s time"));

        await Invite(hanne, own, "astrid@example.org", "view");
        await Invite(hanne, own, "tomasz@example.org", "view");

        var access = (await hanne.Get($"/api/calendars/{own.Value}/access")).Is(200).Text;
        Assert.DoesNotContain("Astrid", access, StringComparison.Ordinal);
        Assert.Contains("Tomasz Wilk", access, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Every_text_field_takes_markup_and_control_characters_as_text()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        const string Given = "<b>x</b>\u0000\u001b\u202E";
        var (calendar, group) = (Guid.NewGuid(), Guid.NewGuid());
        var settings = new
        {
            groupId = World.StudioTeam,
            name = Given,
            description = Given,
            hue = "lake",
            mark = "drop",
            zone = "Europe/London",
            purpose = "events",
            groupDefault = "none",
        };

        (await ines.Put($"/api/calendars/{calendar}", settings)).Is(200);
        (
            await ines.Put(
                $"/api/groups/{group}",
                new
                {
                    name = Given,
                    sort = "club",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        await Invite(ines, new CalendarId(calendar), "priya@example.org", "view", Given);

        var layer = (await ines.Get($"/api/calendars/{calendar}")).Body;
        Assert.Equal(("<b>x</b>", "<b>x</b>"), (layer.Text("name"), layer.Text("description")));
        Assert.Contains((await ines.Get("/api/groups")).Body.EnumerateArray(), one => one.Text("name") == "<b>x</b>");
        var invitation = Assert.Single(
            (await priya.Get("/api/inbox")).Body.GetProperty("invitations").EnumerateArray()
        );
        Assert.Equal(("<b>x</b>", "<b>x</b>"), (invitation.Text("calendarName"), invitation.Text("message")));
    }

    private static async Task<Guid> Invite(
        Browser ines,
        CalendarId calendar,
        string address,
        string role,
        string message = ""
    )
    {
        var id = Guid.NewGuid();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{id}",
                new
                {
                    address,
                    role,
                    message,
                }
            )
        ).Is(204);
        return id;
    }

    private static Task<ArrivedMail> Mail(TestMortar mortar, string to)
    {
        var postRoom = mortar.Services.GetRequiredService<PostRoom>();
        return World.Eventually(() => Task.FromResult(postRoom.Arrived.FirstOrDefault(mail => mail.To == to)));
    }

    [Fact]
    public async Task What_is_given_in_return_is_given_with_the_answer_and_only_of_what_one_coordinates()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (calendar, id) = (await ines.MakeCalendar(), Guid.NewGuid());
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{id}",
                new
                {
                    address = "astrid@example.org",
                    role = "view",
                    inReturn = true,
                    lastDay = "2026-03-27",
                }
            )
        ).Is(204);
        var home = DemoPeople.Stable("calendar Home");
        var accept = $"/api/invitations/{id}/accept";

        (await astrid.Post($"{accept}?inReturn={calendar.Value}&inReturnRole=view")).IsProblem(404, "not-there");
        (await astrid.Post($"{accept}?inReturn={home}")).IsProblem(422, "unfit");
        Assert.False(await astrid.HasLayer(calendar));
        (await astrid.Post($"{accept}?inReturn={home}&inReturnRole=times")).Is(204);

        Assert.True(await ines.HasLayer(new CalendarId(home)));
        var access = (await ines.Get($"/api/calendars/{calendar.Value}/access")).Is(200).Body;
        var hers = access.GetProperty("people").EnumerateArray().Single(one => one.Text("name") == "Astrid Lindqvist");
        Assert.Equal("2026-03-27", hers.Text("lastDay"));
    }

    [Fact]
    public async Task Twenty_changes_of_one_grant_at_once_leave_a_log_in_which_each_begins_where_the_last_ended()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var browsers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => mortar.As(DemoPeople.Ines)));
        string[] roles = ["times", "outline", "view", "add", "edit"];

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 20)
                .Select(one =>
                    browsers[one % 4]
                        .Put(
                            $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
                            new { role = roles[one % 5] }
                        )
                )
        );

        Assert.All(answers, answer => answer.Is(204));
        var (log, now) = await mortar.Store(async db =>
            (
                await db
                    .Changes.Where(change => change.Subject == Subject.Grant && change.Concerns == DemoPeople.Priya.Id)
                    .Where(change => change.CalendarId == calendar)
                    .OrderBy(change => change.Sequence)
                    .ToListAsync(),
                await db.Grants.SingleAsync(row => row.CalendarId == calendar && row.PersonId == DemoPeople.Priya.Id)
            )
        );
        Assert.Null(log[0].Before);
        Assert.Equal(log.Select(change => change.After).SkipLast(1), log.Skip(1).Select(change => change.Before));
        Assert.Equal(log.Count, now.Version);
        Assert.Contains($"\"Role\":\"{now.Role}\"", log[^1].After, StringComparison.Ordinal);
        Assert.Single(log.Select(change => change.SubjectId).Distinct());
        Array.ForEach(browsers, one => one.Dispose());
    }
}
