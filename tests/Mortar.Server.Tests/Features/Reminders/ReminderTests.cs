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

/// <summary>Reminders and digests: the right people at the right instant, once, also after a restart.</summary>
public class ReminderTests
{
    private static readonly Instant Start = Instant.FromUtc(2026, 3, 16, 14, 0);

    [Fact]
    public async Task Those_named_are_reminded_once_by_mail_and_on_the_screen_and_put_it_away()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Outline);
        await Make(ines, calendar, 30, DemoPeople.Priya.Id.Value);
        var due = Start - Duration.FromMinutes(30);

        Assert.Equal(0, await Give(mortar, due - Duration.FromMinutes(5), due - Duration.FromSeconds(1)));
        Assert.Equal(1, await Give(mortar, due - Duration.FromSeconds(1), due));
        Assert.Equal(0, await Give(mortar, due - Duration.FromMinutes(5), due + Duration.FromMinutes(1))); // looked twice

        var mail = Assert.Single(await Reminding(mortar));
        Assert.Equal(("priya@example.org", "Glaze day, Mon 16 March, 14:00 to 15:00"), (mail.To, mail.Subject));
        Assert.DoesNotContain(World.Secret, await mortar.TextOf(mail), StringComparison.Ordinal); // an outline shows no notes
        var shown = Assert.Single((await priya.Get("/api/reminders")).Is(200).Body.EnumerateArray());
        Assert.Equal("Glaze day", shown.GetProperty("event").Text("title"));
        Assert.Empty((await ines.Get("/api/reminders")).Is(200).Body.EnumerateArray());
        var away = new { eventId = shown.GetProperty("event").Text("eventId"), start = shown.Text("start") };
        (await ines.Post("/api/reminders/seen", away)).IsProblem(404, "not-there");
        (await priya.Post("/api/reminders/seen", away)).Is(204);
        Assert.Empty((await priya.Get("/api/reminders")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task Moved_it_is_another_thing_to_be_reminded_of_and_what_is_hidden_reminds_nobody()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var id = await Make(ines, calendar, 30, DemoPeople.Priya.Id.Value);
        var due = Start - Duration.FromMinutes(30);
        Assert.Equal(1, await Give(mortar, due - Duration.FromMinutes(1), due));

        (
            await ines.Put($"/api/events/{id}", Body(calendar, 30, "2026-03-16T16:00:00", DemoPeople.Priya.Id.Value), 1)
        ).Is(200);
        var later = due + Duration.FromHours(2);
        Assert.Equal(1, await Give(mortar, later - Duration.FromMinutes(1), later));

        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        (
            await ines.Put($"/api/events/{id}", Body(calendar, 30, "2026-03-16T18:00:00", DemoPeople.Priya.Id.Value), 2)
        ).Is(200);
        var last = due + Duration.FromHours(4);
        Assert.Equal(0, await Give(mortar, last - Duration.FromMinutes(1), last));
    }

    [Fact]
    public async Task Nothing_of_a_calendar_in_the_bin_reminds_anybody()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await Make(ines, calendar, 30, DemoPeople.Priya.Id.Value);
        var asked = new { personIds = new[] { DemoPeople.Priya.Id.Value } };
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", asked, 1, null)).Is(204); // she has it by itself
        var due = Start - Duration.FromMinutes(30);
        Assert.Equal(1, await Give(mortar, due - Duration.FromMinutes(1), due));
        (
            await ines.Put($"/api/events/{id}", Body(calendar, 30, "2026-03-16T16:00:00", DemoPeople.Priya.Id.Value), 2)
        ).Is(200);

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);

        var later = due + Duration.FromHours(2);
        Assert.Equal(0, await Give(mortar, later - Duration.FromMinutes(1), later));
        Assert.Empty((await priya.Get("/api/reminders")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task One_chooses_for_a_calendar_to_be_reminded_of_everything_or_nothing_in_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var choice = $"/api/shelf/{calendar.Value}/reminder";
        Assert.Equal("asEventsSay", (await priya.Get(choice)).Is(200).Body.Text("kind"));
        (await priya.Put(choice, new { kind = "before", minutes = 60 })).Is(204);
        (await ines.Put(choice, new { kind = "never" })).Is(204);
        (await priya.Put(choice, new { kind = "before", minutes = 1_000_000 })).IsProblem(422, "unfit");
        (await tomasz.Put(choice, new { kind = "never" })).IsProblem(404, "not-there");
        await Make(ines, calendar, null);
        await Make(ines, calendar, 60);

        var due = Start - Duration.FromMinutes(60);
        Assert.Equal(1, await Give(mortar, due - Duration.FromMinutes(1), due));

        Assert.Equal(["priya@example.org", "priya@example.org"], (await Reminding(mortar)).Select(mail => mail.To));
        (await priya.Put("/api/preferences", Preferences(remindsByMail: false))).Is(200);
        (await priya.Put(choice, new { kind = "before", minutes = 30 })).Is(204);
        await Make(ines, calendar, 10);
        var near = Start - Duration.FromMinutes(10);
        Assert.Equal(1, await Give(mortar, near - Duration.FromMinutes(1), near)); // on the screen only
        Assert.Equal(2, (await Reminding(mortar)).Count);
    }

    [Fact]
    public async Task What_came_due_while_nobody_was_there_is_given_after_the_restart_unless_it_is_over()
    {
        var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var now = await Now(mortar);
        await MakeAt(ines, calendar, "Soon", now + Duration.FromMinutes(20), 40); // due twenty minutes ago
        await MakeAt(ines, calendar, "Over", now - Duration.FromMinutes(30), 10);
        await MakeAt(ines, calendar, "Long ago", now + Duration.FromMinutes(20), 180); // due before anybody went
        await World.Eventually<ReminderClockRow>(async () =>
            await mortar.Store(db => db.ReminderClock.FirstOrDefaultAsync())
        );

        await using var again = await mortar.Restart(async db =>
        {
            (await db.ReminderClock.SingleAsync()).LookedUpTo -= Duration.FromHours(1);
            await db.SaveChangesAsync();
        });

        var mail = await World.Eventually<MailRow>(async () => (await Reminding(again)).FirstOrDefault());
        Assert.StartsWith("Soon", mail.Subject, StringComparison.Ordinal);
        await World.Eventually<MailRow>(() =>
            again.Store(db => db.Mails.FirstOrDefaultAsync(one => one.Id == mail.Id && one.SentAt != null))
        );
        Assert.Single(await Reminding(again));
    }

    /// <summary>What comes due is told apart by what was given, not by what the clock showed.</summary>
    [Fact]
    public async Task A_clock_that_is_put_back_loses_no_reminder_and_gives_none_twice()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var noon = clock.Now;
        await MakeAt(ines, calendar, "First", noon + Duration.FromMinutes(30), 20);
        clock.Now = noon + Duration.FromMinutes(15);
        await World.Eventually<MailRow>(async () => (await Reminding(mortar)).FirstOrDefault());

        clock.Now = noon - Duration.FromMinutes(45);
        await World.Eventually<ReminderClockRow>(() =>
            mortar.Store(db => db.ReminderClock.FirstOrDefaultAsync(row => row.LookedUpTo <= clock.Now))
        );
        await MakeAt(ines, calendar, "Second", noon - Duration.FromMinutes(30), 14);
        clock.Now += Duration.FromMinutes(2);
        await World.Eventually<MailRow>(async () =>
            (await Reminding(mortar)).Find(mail => mail.Subject.StartsWith("Second", StringComparison.Ordinal))
        );

        clock.Now = noon + Duration.FromMinutes(16);
        await MakeAt(ines, calendar, "Third", clock.Now + Duration.FromMinutes(10), 9);
        clock.Now += Duration.FromMinutes(2);
        await World.Eventually<MailRow>(async () =>
            (await Reminding(mortar)).Find(mail => mail.Subject.StartsWith("Third", StringComparison.Ordinal))
        );
        Assert.Equal(3, (await Reminding(mortar)).Count);
    }

    [Fact]
    public async Task A_digest_is_written_again_after_the_clock_was_far_ahead_and_tells_nothing_twice()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        (await priya.Put("/api/preferences", Preferences(digest: "daily"))).Is(200);
        var morning = Instant.FromUtc(2026, 3, 12, 8, 0);
        Assert.Equal(0, await Digest(mortar, morning));
        await ines.MakeEvent(calendar, "Celadon");
        Assert.Equal(1, await Digest(mortar, morning + Duration.FromDays(365))); // the clock was wrong by a year

        Assert.Equal(0, await Digest(mortar, morning + Duration.FromHours(1))); // and is right again
        await ines.MakeEvent(calendar, "Raku");
        Assert.Equal(1, await Digest(mortar, morning + Duration.FromDays(1)));
        Assert.Equal(0, await Digest(mortar, morning + Duration.FromDays(1) - Duration.FromHours(1)));
        Assert.Equal(0, await Digest(mortar, morning + Duration.FromDays(1) + Duration.FromMinutes(1)));
    }

    [Fact]
    public async Task A_digest_tells_what_others_changed_as_often_as_one_chose_and_no_more_than_one_sees()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        await mortar.Give(other, DemoPeople.Priya, Role.Times);
        (await priya.Put("/api/preferences", Preferences(digest: "daily"))).Is(200);
        var morning = Instant.FromUtc(2026, 3, 12, 8, 0);
        Assert.Equal(0, await Digest(mortar, morning)); // it begins with what comes after

        await ines.MakeEvent(calendar, "Celadon");
        await ines.MakeEvent(other, "Quite secret");
        await priya.MakeEvent(calendar, "My own");
        Assert.Equal(0, await Digest(mortar, morning + Duration.FromHours(10))); // not due yet
        Assert.Equal(1, await Digest(mortar, morning + Duration.FromDays(1)));
        Assert.Equal(0, await Digest(mortar, morning + Duration.FromDays(1) + Duration.FromMinutes(1))); // once
        Assert.Equal(0, await Digest(mortar, morning + Duration.FromDays(2))); // nothing new

        var mail = Assert.Single(
            await mortar.Store(db => db.Mails.Where(one => one.Subject.StartsWith("What changed")).ToListAsync())
        );
        Assert.Equal("priya@example.org", mail.To);
        var text = await mortar.TextOf(mail);
        Assert.Contains("“Celadon”, Thu 12 March, 14:00 to 15:30: new, by Ines Varga.", text, StringComparison.Ordinal);
        Assert.DoesNotContain("secret", text, StringComparison.Ordinal);
        Assert.DoesNotContain("My own", text, StringComparison.Ordinal);
    }

    private static async Task<Guid> Make(Browser by, CalendarId calendar, int? reminder, params Guid[] named)
    {
        var id = Guid.CreateVersion7();
        (await by.Put($"/api/events/{id}", Body(calendar, reminder, "2026-03-16T14:00:00", named))).Is(200);
        return id;
    }

    private static async Task MakeAt(Browser by, CalendarId calendar, string title, Instant at, int reminder)
    {
        var start = at.InUtc().LocalDateTime; // London is on UTC in the middle of March
        (
            await by.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = calendar.Value,
                    title,
                    showAs = "busy",
                    time = World.Hours(Text(start), Text(start.PlusMinutes(5))),
                    reminder,
                }
            )
        ).Is(200);

        static string Text(LocalDateTime time) => NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(time);
    }

    private static object Body(CalendarId calendar, int? reminder, string start, params Guid[] named) =>
        new
        {
            calendarId = calendar.Value,
            title = "Glaze day",
            notes = World.Secret,
            showAs = "busy",
            time = World.Hours(
                start,
                $"2026-03-16T{int.Parse(start[11..13], System.Globalization.CultureInfo.InvariantCulture) + 1}:00:00"
            ),
            attendees = named,
            reminder,
        };

    private static object Preferences(bool remindsByMail = true, string digest = "never") =>
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
            remindsByMail,
            digest,
        };

    private static async Task<int> Give(TestMortar mortar, Instant after, Instant now)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        return (
            await scope.ServiceProvider.GetRequiredService<ReminderCommands>().Give(after, now, CancellationToken.None)
        ).Count;
    }

    private static async Task<int> Digest(TestMortar mortar, Instant now)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<DigestCommands>().Give(now, CancellationToken.None);
    }

    /// <summary>What Mortar writes by itself, but for digests.</summary>
    private static Task<List<MailRow>> Reminding(TestMortar mortar) =>
        mortar.Store(db =>
            db.Mails.AsNoTracking()
                .Where(mail => mail.CausedBy == null && !mail.Subject.StartsWith("What changed"))
                .ToListAsync()
        );

    private static Task<Instant> Now(TestMortar mortar) =>
        Task.FromResult(mortar.Services.GetRequiredService<IClock>().GetCurrentInstant());
}
