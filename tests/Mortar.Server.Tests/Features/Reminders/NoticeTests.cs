using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.Reminders;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What others did reaches those whom it concerns, in the ways they chose: seen from their inbox, screen and mail.</summary>
public class NoticeTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;
    private static readonly Guid Dele = DemoPeople.Dele.Id.Value;
    private const string Later = "2026-03-13T14:00:00";

    [Fact]
    public async Task Put_on_moved_taken_off_and_called_off_stand_in_the_inbox_of_who_was_on_it_and_in_no_other()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await mortar.Give(calendar, DemoPeople.Mei, Role.View);
        await AllSeen(ines, priya, mei);

        var id = await Make(ines, calendar, Priya);
        await Change(ines, id, calendar, 1, Later, Priya);
        await Change(ines, id, calendar, 2, Later);
        (await ines.Put($"/api/events/{id}", Body(calendar, Later, [Priya]), 3)).Is(200);
        (await ines.Delete($"/api/events/{id}", 4)).Is(200);

        Assert.Equal(
            [
                "“Celadon”: Ines Varga deleted it.",
                "Ines Varga put you on “Celadon”, Fri 13 March, 14:00 to 15:30.",
                "Ines Varga took you off “Celadon”, Fri 13 March, 14:00 to 15:30.",
                "“Celadon”: Ines Varga moved it from Thu 12 March, 14:00 to 15:30 to Fri 13 March, 14:00 to 15:30.",
                "Ines Varga put you on “Celadon”, Thu 12 March, 14:00 to 15:30.",
            ],
            await News(priya)
        );
        Assert.Empty(await News(mei));
        Assert.Empty(await News(ines));
    }

    [Fact]
    public async Task Many_events_of_one_act_are_one_line_and_what_is_over_is_none()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await AllSeen(priya);

        var set = Guid.NewGuid();
        foreach (var title in new[] { "Bisque", "Celadon", "Raku", "Slip" })
        {
            (
                await ines.Put(
                    $"/api/events/{Guid.CreateVersion7()}",
                    World.Event(calendar, title, attendees: Priya),
                    set: set
                )
            ).Is(200);
        }

        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                World.Event(
                    calendar,
                    "Long ago",
                    World.Hours("2026-03-02T14:00:00", "2026-03-02T15:00:00"),
                    attendees: Priya
                )
            )
        ).Is(200);

        Assert.Equal(
            ["Ines Varga changed 4 events that concern you: “Bisque”, “Celadon”, “Raku” and 1 more."],
            await News(priya)
        );
    }

    [Fact]
    public async Task A_calendar_that_comes_to_the_group_or_goes_is_told_to_who_was_in_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        await AllSeen(priya, astrid);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{id}", World.Calendar("Open kiln", groupDefault: "view"))).Is(200);
        (await ines.Put($"/api/calendars/{Guid.CreateVersion7()}", World.Calendar("For nobody"))).Is(200);
        (await ines.Delete($"/api/calendars/{id}?name=Open kiln", 1)).Is(204);

        Assert.Equal(
            [
                "Ines Varga put the calendar “Open kiln” of “Studio team” in the bin.",
                "Ines Varga made the calendar “Open kiln” in “Studio team”. You have the step View on it.",
            ],
            await News(priya)
        );
        Assert.Empty(await News(astrid)); // she is in another group
    }

    [Fact]
    public async Task Who_came_later_does_not_learn_what_was_there_and_went_before()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        await AllSeen(priya);
        var (gone, back) = (Guid.CreateVersion7(), await ines.MakeCalendar());
        (await ines.Put($"/api/calendars/{gone}", World.Calendar("Secret kiln", groupDefault: "view"))).Is(200);
        (await ines.Delete($"/api/calendars/{gone}?name=Secret kiln", 1)).Is(204);
        (await ines.Delete($"/api/calendars/{back.Value}?name=Glaze tests", 1)).Is(204);
        (await ines.BringBack(back)).Is(200);

        var them = new[] { new { id = DemoPeople.Astrid.Id.Value, name = "Astrid Lindqvist" } };
        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people = them })).Is(200);
        await astrid.SayYes(World.StudioTeam);
        await mortar.Give(back, DemoPeople.Astrid, Role.View);

        var inbox = (await astrid.Get("/api/inbox")).Is(200).Text;
        Assert.DoesNotContain("Secret kiln", inbox, StringComparison.Ordinal);
        Assert.DoesNotContain(" in the bin", inbox, StringComparison.Ordinal);
        Assert.DoesNotContain("” back", inbox, StringComparison.Ordinal);
        Assert.Contains(await News(priya), said => said.Contains("“Secret kiln” of", StringComparison.Ordinal)); // she had it
    }

    [Fact]
    public async Task Access_that_ends_by_its_date_is_told_by_the_name_the_calendar_had_then()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        (await ines.Put($"{path}/access/{Dele}", new { role = "add", lastDay = "2026-03-13" })).Is(204);
        await AllSeen(dele);
        await Told(mortar, "access", "atOnce", dele);
        Assert.Equal(0, await Give(mortar));
        clock.Now += Duration.FromDays(3);
        (await ines.Put(path, World.Calendar("Secret glazes"), 1)).Is(200);

        Assert.Equal(["Your step Add on “Glaze tests” has ended, as it was given up to then."], await News(dele));
        Assert.Equal(1, await Give(mortar));
        Assert.Equal(0, await Give(mortar));
        Assert.Contains(
            "Your step Add on “Glaze tests” has ended",
            await mortar.TextOf(Assert.Single(await ToldBy(mortar, "dele@example.org"))),
            StringComparison.Ordinal
        );

        await AllSeen(dele);
        Assert.Empty(await News(dele));
    }

    [Fact]
    public async Task A_mail_at_once_tells_each_thing_once_those_that_come_close_together_in_one_and_what_was_taken_back_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        Assert.Equal(0, await Give(mortar)); // what was before is not dug up

        var id = await Make(ines, calendar, Priya);
        Assert.Equal(1, await Give(mortar));
        Assert.Equal(0, await Give(mortar));
        var first = Assert.Single(await ToldBy(mortar, "priya@example.org"));
        Assert.Equal("Ines Varga put you on “Celadon”, Thu 12 March, 14:00 to 15:30.", first.Subject);

        await Change(ines, id, calendar, 1, Later, Priya);
        var slip = Guid.NewGuid();
        (await ines.Delete($"/api/events/{id}", 2, set: slip)).Is(200);
        (await ines.Post($"/api/changes/{slip}/undo")).Is(200);
        await Make(ines, calendar, Priya);
        Assert.Equal(0, await Give(mortar, Duration.FromMinutes(4))); // she was just written to
        Assert.Equal(1, await Give(mortar, Duration.FromMinutes(6)));
        var second = (await ToldBy(mortar, "priya@example.org"))[1];
        Assert.Equal("2 changes that concern you", second.Subject);
        var text = await mortar.TextOf(second);
        Assert.Contains("moved it from Thu 12 March", text, StringComparison.Ordinal);
        Assert.Contains("put you on “Celadon”, Thu 12 March", text, StringComparison.Ordinal);
        Assert.DoesNotContain("deleted", text, StringComparison.Ordinal);
        Assert.DoesNotContain("back", text, StringComparison.Ordinal);
        Assert.DoesNotContain(World.Secret, text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task In_quiet_hours_nothing_comes_and_afterwards_only_what_one_still_may_know()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await mortar.Give(other, DemoPeople.Priya, Role.View);
        var now = await Now(mortar);
        var minute = now.InZone(DateTimeZoneProviders.Tzdb["Europe/London"]).TimeOfDay.PlusMinutes(-1);
        var from = (minute.Hour * 60) + minute.Minute;
        (await priya.Put("/api/preferences", Preferences(quiet: new { from, to = (from + 120) % 1_440 }))).Is(200);
        await AllSeen(priya);
        Assert.Equal(0, await Give(mortar));

        await Make(ines, calendar, Priya);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                World.Event(other, "Secret firing", attendees: Priya)
            )
        ).Is(200);
        Assert.Equal(2, (await News(priya)).Count); // the inbox has it
        Assert.Empty(await OnScreen(priya));
        Assert.Equal(0, await Give(mortar));
        await mortar.Give(other, DemoPeople.Priya, Role.None);

        Assert.Equal(1, await Give(mortar, Duration.FromMinutes(121)));
        var text = await mortar.TextOf(Assert.Single(await ToldBy(mortar, "priya@example.org")));
        Assert.Contains("put you on “Celadon”", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Secret", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_asked_in_quiet_hours_is_mailed_when_they_end_and_not_at_all_to_who_wants_no_mail()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var dele = await mortar.As(DemoPeople.Dele);
        await Told(mortar, "asks", "none", dele);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}/invitations";
        var now = await Now(mortar);
        var minute = now.InZone(DateTimeZoneProviders.Tzdb["Europe/London"]).TimeOfDay.PlusMinutes(-1);
        var from = (minute.Hour * 60) + minute.Minute;
        (await priya.Put("/api/preferences", Preferences(quiet: new { from, to = (from + 120) % 1_440 }))).Is(200);

        foreach (var address in new[] { "priya@example.org", "dele@example.org", "mei@example.org" })
        {
            (
                await ines.Put(
                    $"{path}/{Guid.CreateVersion7()}",
                    new
                    {
                        address,
                        role = "view",
                        message = "",
                    }
                )
            ).Is(204);
        }

        var mails = await mortar.Store(db =>
            db.Mails.AsNoTracking().Where(mail => mail.Subject.Contains("Glaze tests")).ToListAsync()
        );
        Assert.Equal(
            ["mei@example.org", "priya@example.org"],
            mails.Select(mail => mail.To).Order(StringComparer.Ordinal)
        );
        var held = mails.Single(mail => mail.To == "priya@example.org");
        Assert.InRange(held.QuietUntil!.Value, now + Duration.FromMinutes(110), now + Duration.FromMinutes(121));
        Assert.Null(held.SentAt);
        Assert.Contains(
            "“Glaze tests”",
            Assert.Single((await Inbox(dele)).GetProperty("invitations").EnumerateArray()).GetRawText(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Each_way_is_chosen_by_itself()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await AllSeen(priya);
        Assert.Equal(0, await Give(mortar));
        (await priya.Put("/api/preferences", Preferences(Table("plan", inbox: false, screen: true, mail: "none")))).Is(
            200
        );

        var id = await Make(ines, calendar, Priya);

        Assert.Empty(await News(priya));
        Assert.Equal(["Ines Varga put you on “Celadon”, Thu 12 March, 14:00 to 15:30."], await OnScreen(priya));
        Assert.Equal(0, await Give(mortar));
        Assert.Empty(await ToldBy(mortar, "priya@example.org"));

        (
            await priya.Put("/api/preferences", Preferences(Table("plan", inbox: true, screen: false, mail: "atOnce")))
        ).Is(200);
        await Change(ines, id, calendar, 1, Later, Priya);

        Assert.Equal(2, (await News(priya)).Count);
        Assert.Empty(await OnScreen(priya));
        Assert.Equal(1, await Give(mortar));
    }

    [Fact]
    public async Task A_digest_tells_what_the_table_sends_to_it_and_of_no_event_twice()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (
            await priya.Put(
                "/api/preferences",
                Preferences(Table("plan", inbox: true, screen: true, mail: "digest"), digest: "daily")
            )
        ).Is(200);
        var morning = Instant.FromUtc(2026, 3, 12, 8, 0);
        Assert.Equal(0, await Digest(mortar, morning));

        await Make(ines, calendar, Priya);
        await ines.MakeEvent(calendar, "Raku");
        Assert.Equal(1, await Digest(mortar, morning + Duration.FromDays(1)));

        var mail = Assert.Single(
            await mortar.Store(db => db.Mails.Where(one => one.Subject.StartsWith("What changed")).ToListAsync())
        );
        var lines = (await mortar.TextOf(mail))
            .Split('\n')
            .Where(line => line.StartsWith("- ", StringComparison.Ordinal));
        Assert.Equal(
            [
                "- Ines Varga put you on “Celadon”, Thu 12 March, 14:00 to 15:30.",
                "- “Raku”, Thu 12 March, 14:00 to 15:30: new, by Ines Varga.",
            ],
            lines
        );
        Assert.Equal(0, await Give(mortar));
    }

    [Fact]
    public async Task Who_was_asked_by_mail_hears_of_a_move_by_the_mail_with_the_event_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var id = await Make(ines, calendar, Priya);
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", new { personIds = new[] { Priya } }, 1, null)).Is(
            204
        );
        Assert.Equal(0, await Give(mortar));

        var version = (await ines.Get($"/api/events/{id}")).Is(200).Body.GetProperty("version").GetInt32();
        await Change(ines, id, calendar, version, Later, Priya);

        Assert.Equal(0, await Give(mortar));
        Assert.Empty(await ToldBy(mortar, "priya@example.org"));
    }

    [Fact]
    public async Task A_state_that_nobody_understands_keeps_nobody_else_from_being_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await mortar.Give(calendar, DemoPeople.Mei, Role.View);
        Assert.Equal(0, await Give(mortar));
        var broken = (await Make(ines, calendar, Priya)).ToString().ToUpperInvariant();
        await Make(ines, calendar, DemoPeople.Mei.Id.Value);
        Assert.Equal(
            1,
            await mortar.Store(db =>
                db.Database.ExecuteSqlAsync($"UPDATE Changes SET After = '{{' WHERE SubjectId = {broken}")
            )
        );

        Assert.Equal(1, await Give(mortar));
        Assert.Single(await ToldBy(mortar, "mei@example.org"));
        Assert.Equal(0, await Give(mortar)); // and it is over
    }

    [Fact]
    public async Task What_is_asked_stays_in_the_inbox_and_quiet_hours_end_at_another_time_than_they_begin()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);

        (
            await priya.Put("/api/preferences", Preferences(Table("asks", inbox: false, screen: true, mail: "none")))
        ).IsProblem(422, "unfit");
        (await priya.Put("/api/preferences", Preferences(quiet: new { from = 600, to = 600 }))).IsProblem(422, "unfit");
        (await priya.Put("/api/preferences", Preferences(Table("plan", true, true, "sometimes")))).IsProblem(
            400,
            "unreadable"
        );
        var lacking = Table("plan", true, true, "none");
        Assert.True(lacking.Remove("keeping"));
        (await priya.Put("/api/preferences", Preferences(lacking))).IsProblem(400, "unreadable");
        Assert.Equal(
            "atOnce",
            (await priya.Get("/api/session"))
                .Is(200)
                .Body.GetProperty("person")
                .GetProperty("preferences")
                .GetProperty("told")
                .GetProperty("plan")
                .Text("mail")
        );
    }

    private static Task<Guid> Make(Browser by, CalendarId calendar, params Guid[] named) =>
        MakeAt(by, calendar, "2026-03-12T14:00:00", named);

    private static async Task<Guid> MakeAt(Browser by, CalendarId calendar, string start, Guid[] named)
    {
        var id = Guid.CreateVersion7();
        (await by.Put($"/api/events/{id}", Body(calendar, start, named))).Is(200);
        return id;
    }

    private static async Task Change(
        Browser by,
        Guid id,
        CalendarId calendar,
        int version,
        string start,
        params Guid[] named
    ) => (await by.Put($"/api/events/{id}", Body(calendar, start, named), version)).Is(200);

    private static object Body(CalendarId calendar, string start, Guid[] named) =>
        World.Event(calendar, time: World.Hours(start, $"{start[..11]}15:30:00"), attendees: named);

    private static async Task AllSeen(params Browser[] browsers)
    {
        foreach (var one in browsers)
        {
            (await one.Post("/api/inbox/seen")).Is(204);
        }
    }

    private static async Task<JsonElement> Inbox(Browser browser) => (await browser.Get("/api/inbox")).Is(200).Body;

    /// <summary>What is new in somebody's inbox, newest first.</summary>
    private static async Task<IReadOnlyList<string>> News(Browser browser) =>
        [
            .. (await Inbox(browser))
                .GetProperty("notices")
                .EnumerateArray()
                .Where(notice => !notice.GetProperty("seen").GetBoolean())
                .Select(notice => notice.Text("sentence")),
        ];

    private static async Task<IReadOnlyList<string>> OnScreen(Browser browser) =>
        [
            .. (await Inbox(browser))
                .GetProperty("onScreen")
                .EnumerateArray()
                .Select(news => news.Text("sentence"))
                .Where(sentence => sentence.Contains("put you on", StringComparison.Ordinal)),
        ];

    private static async Task Told(TestMortar mortar, string topic, string mail, Browser browser)
    {
        (await browser.Put("/api/preferences", Preferences(Table(topic, inbox: true, screen: true, mail)))).Is(200);
        Assert.NotNull(mortar);
    }

    private static Dictionary<string, object> Table(string topic, bool inbox, bool screen, string mail)
    {
        string[] topics = ["plan", "handed", "calendars", "access", "deleted", "asks", "answers", "keeping"];
        var table = topics.ToDictionary(
            one => one,
            _ =>
                (object)
                    new
                    {
                        inbox = true,
                        screen = false,
                        mail = "none",
                    }
        );
        table[topic] = new
        {
            inbox,
            screen,
            mail,
        };
        return table;
    }

    private static object Preferences(
        Dictionary<string, object>? told = null,
        object? quiet = null,
        string digest = "never"
    ) =>
        new
        {
            zone = "Europe/London",
            secondZone = (string?)null,
            eventCalendar = (Guid?)null,
            firstDay = "monday",
            clock = "hours24",
            locale = "",
            dayBegins = 480,
            dayEnds = 1_140,
            eventMinutes = 60,
            digest,
            told,
            quiet,
        };

    /// <summary>The mails that told somebody at once what others did.</summary>
    private static Task<List<MailRow>> ToldBy(TestMortar mortar, string address) =>
        mortar.Store(db =>
            db.Mails.AsNoTracking()
                .Where(mail =>
                    mail.To == address
                    && (
                        mail.Subject.Contains("put you on")
                        || mail.Subject.Contains("concern you")
                        || mail.Subject.Contains("moved it")
                        || mail.Subject.Contains("has ended")
                    )
                )
                .OrderBy(mail => mail.Id)
                .ToListAsync()
        );

    private static Task<Instant> Now(TestMortar mortar) =>
        Task.FromResult(mortar.Services.GetRequiredService<IClock>().GetCurrentInstant());

    private static async Task<int> Give(TestMortar mortar, Duration later = default)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        var now = await Now(mortar) + later;
        return (
            await scope.ServiceProvider.GetRequiredService<NoticeCommands>().Give(now, CancellationToken.None)
        ).Mails;
    }

    private static async Task<int> Digest(TestMortar mortar, Instant now)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<DigestCommands>().Give(now, CancellationToken.None);
    }
}
