using System.Text.Json;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Mail;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Asking people whether they come, and what they answer: in the inbox, on the event, and by a mailed link.</summary>
public class AnswerTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;
    private static readonly Guid Tomasz = DemoPeople.Tomasz.Id.Value;

    [Fact]
    public async Task Who_is_asked_is_told_by_name_who_asks_and_nobody_else_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (calendar, id) = await Make(ines);
        await mortar.Give(calendar, DemoPeople.Astrid, Role.Edit);
        await Ask(ines, id, 1, Priya);

        var asked = (await priya.Get($"/api/events/{id}/answers")).Is(200).Body;
        Assert.Equal("Ines Varga", asked.Text("organizer"));
        Assert.Equal(JsonValueKind.Null, await Told());

        // Whoever edits can name themselves; that is no question to them.
        var body = World.Event(calendar, "Glaze day", attendees: [Priya, DemoPeople.Astrid.Id.Value]);
        var version = (await astrid.Get($"/api/events/{id}")).Is(200).Body.GetProperty("version").GetInt32();
        (await astrid.Put($"/api/events/{id}", body, version)).Is(200);
        Assert.Equal(JsonValueKind.Null, await Told());

        async Task<JsonValueKind> Told() =>
            (await astrid.Get($"/api/events/{id}/answers")).Is(200).Body.GetProperty("organizer").ValueKind;
    }

    [Fact]
    public async Task Who_is_asked_has_the_event_in_the_inbox_and_answers_there_without_having_the_calendar()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await Make(ines);
        Assert.Empty(await Questions(priya));

        await Ask(ines, id, 1, Priya, Tomasz);

        var question = Assert.Single(await Questions(priya)).GetProperty("event");
        Assert.Equal(("Glaze day", World.Secret), (question.Text("title"), question.Text("notes")));
        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted", comment = "With tiles" })).Is(204);

        Assert.Empty(await Questions(priya));
        var answers = await Answers(ines, id);
        Assert.Equal(
            [("Priya Raman", "accepted", "With tiles"), ("Tomasz Wilk", "needsAction", "")],
            answers.Select(one => (one.Text("name"), one.Text("answer"), one.Text("comment")))
        );
        Assert.Contains(
            "Priya Raman comes to “Glaze day”.",
            (await ines.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
        (await priya.Get($"/api/calendars/{calendar.Value}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Another_time_that_is_suggested_with_a_no_reaches_who_asks_from_the_page_and_from_the_mail()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var guest = mortar.Anonymous();
        var (_, id) = await Make(ines);
        await Ask(ines, id, 1, Priya, Tomasz);
        static object No(string start, string end) =>
            new
            {
                answer = "declined",
                suggestedStart = start,
                suggestedEnd = end,
            };

        (await priya.Put($"/api/events/{id}/answer", No("2026-03-13T16:30:00", "2026-03-13T17:30:00"))).Is(204);
        var secret = await mortar.SecretIn(await mortar.MailWith("tomasz@example.org", "/answer/"), "/answer/");
        (await guest.Put($"/api/answering/{secret}", No("2026-03-16T09:00:00", "2026-03-16T10:00:00"))).Is(204);

        var inbox = (await ines.Get("/api/inbox")).Is(200).Text;
        Assert.Contains(
            "Priya Raman does not come to “Glaze day”. They suggest Fri 13 March, 16:30 to 17:30",
            inbox,
            StringComparison.Ordinal
        );
        Assert.Contains("They suggest Mon 16 March, 09:00 to 10:00", inbox, StringComparison.Ordinal);
        Assert.Contains($"\"eventId\":\"{id}\"", inbox, StringComparison.Ordinal); // it leads there
        Assert.Equal(
            "2026-03-16T09:00:00",
            (await guest.Get($"/api/answering/{secret}")).Is(200).Body.Text("suggestedStart")
        );
    }

    [Fact]
    public async Task Whoever_declines_has_their_time_and_collides_with_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (_, first) = await Make(ines);
        var (_, second) = await Make(ines, "Another");
        await Ask(ines, first, 1, Priya);
        Assert.Equal("busy", await PresenceOfPriya(ines));
        Assert.NotEmpty(await Clashes(ines));

        (await priya.Put($"/api/events/{first}/answer", new { answer = "declined" })).Is(204);

        Assert.Empty(await Clashes(ines));
        Assert.Equal("busy", await PresenceOfPriya(ines)); // by the other one
        await Ask(ines, second, 1, Priya);
        (await priya.Put($"/api/events/{second}/answer", new { answer = "tentative" })).Is(204);
        Assert.Equal("tentative", await PresenceOfPriya(ines));
        var set = Guid.CreateVersion7();
        (await priya.Put($"/api/events/{second}/answer", new { answer = "declined" }, set: set)).Is(204);
        Assert.Equal("outsideHours", await PresenceOfPriya(ines));
        (await priya.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal("tentative", await PresenceOfPriya(ines));
    }

    [Fact]
    public async Task An_answer_to_an_earlier_time_counts_no_more_and_is_asked_for_again()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await Make(ines);
        await Ask(ines, id, 1, Priya);
        (await priya.Put($"/api/events/{id}/answer", new { answer = "declined" })).Is(204);

        (await ines.Put($"/api/events/{id}", Body(calendar, "Another title"), 2)).Is(200);
        Assert.Equal("declined", (await Answers(ines, id))[0].Text("answer")); // the time is the same

        (await ines.Put($"/api/events/{id}", Body(calendar, "Another title", "2026-03-16T21:00:00"), 3)).Is(200);
        var moved = (await Answers(ines, id))[0];
        Assert.Equal(("needsAction", true), (moved.Text("answer"), moved.GetProperty("toEarlierTime").GetBoolean()));
        Assert.Single(await Questions(priya));
    }

    [Fact]
    public async Task One_date_of_a_series_is_answered_by_itself()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (_, id) = await Make(ines, rule: "FREQ=DAILY;COUNT=3");
        await Ask(ines, id, 1, Priya);

        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted" })).Is(204);
        (await priya.Put($"/api/events/{id}/answer?only=2026-03-17T20:00:00", new { answer = "declined" })).Is(204);

        async Task<string> On(string day) =>
            (await Answers(ines, id, $"?only=2026-03-{day}T20:00:00"))[0].Text("answer");
        Assert.Equal(["accepted", "declined", "accepted"], [await On("16"), await On("17"), await On("18")]);
        (await priya.Put($"/api/events/{id}/answer?only=2026-03-17T21:00:00", new { answer = "declined" })).IsProblem(
            404,
            "not-there"
        );
    }

    [Fact]
    public async Task A_mailed_link_answers_for_who_has_no_account_and_for_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var nina = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members",
                new
                {
                    people = new[]
                    {
                        new
                        {
                            id = nina,
                            name = "Nina Bell",
                            address = "nina@example.org",
                        },
                    },
                }
            )
        ).Is(200);
        var (_, id) = await Make(ines, named: nina);
        await Ask(ines, id, 1, nina);
        var mail = Assert.Single(
            await mortar.Store(db => db.Mails.Where(one => one.Subject.Contains("whether you come")).ToListAsync())
        );
        Assert.Equal("nina@example.org", mail.To);
        Assert.Contains("Mon 16 March", await mortar.TextOf(mail), StringComparison.Ordinal);
        var secret = await mortar.SecretIn(mail, "/answer/");
        using var guest = new Browser(mortar.Url);

        var question = (await guest.Get($"/api/answering/{secret}")).Is(200).Body;
        Assert.Equal(("Nina Bell", "needsAction"), (question.Text("name"), question.Text("answer")));
        (await guest.Put($"/api/answering/{secret}", new { answer = "accepted", comment = "Gladly" })).Is(204);

        Assert.Equal("accepted", (await Answers(ines, id))[0].Text("answer"));
        var there = await guest.Get($"/api/answering/{new string('0', 32)}");
        there.IsProblem(404, "not-there");
        (await guest.Get($"/api/events/{id}")).Is(401);

        // Asked again, the newer mail leads there and the older one nowhere; its secret is kept nowhere.
        await Ask(ines, id, 2, nina);
        (await guest.Get($"/api/answering/{secret}")).IsProblem(404, "not-there");
        var hashes = await mortar.Store(db => db.Asked.Select(row => row.Hash).ToListAsync());
        Assert.DoesNotContain(secret, hashes);
    }

    [Fact]
    public async Task Who_was_asked_by_mail_is_told_what_became_of_it_once_it_has_rested()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, id) = await Make(ines);
        await Ask(ines, id, 1, Priya, Tomasz);
        Assert.Equal(0, await Tell(mortar)); // being asked is what they know

        (await ines.Put($"/api/events/{id}", Body(calendar, "Glaze day", "2026-03-16T19:00:00"), 2)).Is(200);
        Assert.Equal(0, await Tell(mortar, rested: false));
        Assert.Equal(2, await Tell(mortar));
        Assert.Equal(0, await Tell(mortar)); // once

        var moved = await Mails(mortar, "Changed: Glaze day");
        var text = await mortar.TextOf(moved[0]);
        Assert.Contains("Mon 16 March, 19:00", text, StringComparison.Ordinal);
        Assert.Contains("(before: Mon 16 March, 20:00", text, StringComparison.Ordinal);
        using var guest = mortar.Anonymous();
        var secret = await mortar.SecretIn(moved[0], "/answer/");
        (await guest.Get($"/api/answering/{secret}")).Is(200); // the newest mail leads to the question

        var set = Guid.CreateVersion7();
        (await ines.Delete($"/api/events/{id}", 3, set)).Is(200);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal(0, await Tell(mortar)); // a slip that was put right
        (await ines.Delete($"/api/events/{id}", 5)).Is(200);
        Assert.Equal(2, await Tell(mortar));
        var off = await Mails(mortar, "Called off: Glaze day");
        Assert.DoesNotContain("/answer/", off[0].Body, StringComparison.Ordinal);
        Assert.Equal(2, off.Count);
    }

    /// <summary>
    /// The event itself stays as it is, and still each message about it needs a higher SEQUENCE than the one before it
    /// (RFC 5546, 2.1.4): the question has 1, being named and asked.
    /// </summary>
    [Fact]
    public async Task What_goes_to_the_bin_with_its_calendar_is_called_off_and_on_again_with_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, id) = await Make(ines);
        await Ask(ines, id, 1, Priya);
        var over = Guid.CreateVersion7();
        var past = new
        {
            calendarId = calendar.Value,
            title = "Last month",
            showAs = "busy",
            time = World.Hours("2026-02-16T19:00:00", "2026-02-16T20:00:00"),
            attendees = new[] { Priya },
        };
        (await ines.Put($"/api/events/{over}", past)).Is(200);
        await Ask(ines, over, 1, Priya);
        var version = (await ines.Get($"/api/calendars/{calendar.Value}")).Body.GetProperty("version").GetInt32();

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", version)).Is(204);
        Assert.Equal(0, await Tell(mortar, rested: false));
        Assert.Equal(1, await Tell(mortar)); // nobody comes to what is over
        Assert.Equal(0, await Tell(mortar)); // once

        Assert.Equal("2", await Sequence(mortar, "Called off: Glaze day"));
        (await ines.BringBack(calendar)).Is(200);
        Assert.Equal(0, await Tell(mortar, rested: false));
        Assert.Equal(1, await Tell(mortar));
        Assert.Equal(0, await Tell(mortar));
        Assert.Equal("3", await Sequence(mortar, "Changed: Glaze day"));

        // Asked anew she is told that this is off, not what she was told before.
        (await ines.Delete($"/api/events/{id}", 2)).Is(200);
        Assert.Equal(1, await Tell(mortar));
        Assert.Equal(2, (await Mails(mortar, "Called off: Glaze day")).Count);
    }

    private static async Task<string> Sequence(TestMortar mortar, string subject)
    {
        var mail = await Received(mortar, one => one.Subject!.StartsWith(subject, StringComparison.Ordinal));
        var part = mail.BodyParts.OfType<TextPart>().Single(one => one.ContentType.IsMimeType("text", "calendar"));
        return part.Text.Split("SEQUENCE:")[1].Split('\r', '\n')[0];
    }

    [Fact]
    public async Task A_cancellation_goes_out_as_such_to_who_is_not_asked_any_more()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, id) = await Make(ines);
        await Ask(ines, id, 1, Priya, Tomasz);
        // What it becomes without her is not hers to know.
        (
            await ines.Put(
                $"/api/events/{id}",
                Body(calendar, "Priya's leaving party", "2026-03-16T18:00:00", named: Tomasz),
                2
            )
        ).Is(200);

        Assert.Equal(2, await Tell(mortar));

        var told = Assert.Single(await Mails(mortar, "You are not asked any more: Glaze day"));
        Assert.Equal("priya@example.org", told.To);
        var words = await mortar.TextOf(told);
        Assert.Contains("20:00", words, StringComparison.Ordinal);
        Assert.DoesNotContain("18:00", words, StringComparison.Ordinal);
        Assert.DoesNotContain("leaving", words, StringComparison.Ordinal);
        var received = await Received(
            mortar,
            mail => mail.Subject!.StartsWith("You are not asked", StringComparison.Ordinal)
        );
        var part = received.BodyParts.OfType<TextPart>().Single(one => one.ContentType.IsMimeType("text", "calendar"));
        Assert.Equal("CANCEL", part.ContentType!.Parameters["method"]);
        Assert.Contains("METHOD:CANCEL", part.Text, StringComparison.Ordinal);
        Assert.Contains($"UID:{id}@mortar", part.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("STATUS:", part.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("leaving", received.ToString(), StringComparison.Ordinal);
        Assert.DoesNotContain("leaving", part.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("DTSTART", part.Text, StringComparison.Ordinal);
        Assert.DoesNotContain(World.Secret, part.Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Who_claims_a_name_is_told_of_changes_and_not_of_the_claim()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
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
        var (calendar, id) = await Make(ines, named: nina);
        await Ask(ines, id, 1, nina);
        var join = await mortar.MailWith("nina@example.org", "/join/");

        (await astrid.Post($"/api/joining/{await mortar.SecretIn(join, "/join/")}")).Is(204);

        Assert.Equal(0, await Tell(mortar));
        var named = DemoPeople.Astrid.Id.Value;
        (await ines.Put($"/api/events/{id}", Body(calendar, "Glaze day", "2026-03-16T19:00:00", named: named), 3)).Is(
            200
        );
        Assert.Equal(1, await Tell(mortar));
        Assert.Equal("astrid@example.org", Assert.Single(await Mails(mortar, "Changed: Glaze day")).To);
    }

    [Fact]
    public async Task A_guardian_answers_for_their_ward_and_nobody_for_somebody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (_, id) = await Make(ines);
        await Ask(ines, id, 1, Priya);
        var forPriya = new { answer = "accepted", @for = Priya };
        (await dele.Put($"/api/events/{id}/answer", forPriya)).IsProblem(404, "not-there");
        Assert.Empty(await Questions(dele));

        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members/{Priya}/guardians",
                new { guardians = new[] { DemoPeople.Dele.Id.Value } }
            )
        ).Is(204);

        Assert.Empty(await Questions(dele)); // Priya answers for herself until she lets him
        using var priya = await mortar.As(DemoPeople.Priya);
        await priya.SayYesToGuardians();

        Assert.Equal("Priya Raman", Assert.Single(await Questions(dele)).Text("name"));
        (await dele.Put($"/api/events/{id}/answer", forPriya)).Is(204);
        Assert.Equal("accepted", (await Answers(ines, id))[0].Text("answer"));
        Assert.Contains(
            "Priya Raman comes to “Glaze day” (Dele Okoro answered).",
            (await ines.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Only_who_is_named_is_asked_and_answers()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await Make(ines);
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var dele = await mortar.As(DemoPeople.Dele);

        var stranger = new { personIds = new[] { DemoPeople.Mei.Id.Value } };
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", stranger, 1, null)).IsProblem(422, "unfit");
        (await dele.Put($"/api/events/{id}/answer", new { answer = "accepted" })).IsProblem(403, "not-allowed");
        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted" })).IsProblem(404, "not-there"); // not asked
        (await ines.Put($"/api/events/{id}/answer", new { answer = "accepted" })).IsProblem(403, "not-allowed");
        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted", comment = new string('x', 501) })).Is(
            404
        );
        await Ask(ines, id, 1, Priya);
        (
            await priya.Put($"/api/events/{id}/answer", new { answer = "accepted", comment = new string('x', 501) })
        ).IsProblem(422, "unfit");
        (await priya.Put($"/api/events/{id}/answer", new { answer = "maybe" })).Is(400);
    }

    [Fact]
    public async Task Who_was_asked_is_told_in_the_inbox_what_others_change_about_it_since()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        (await priya.Post("/api/inbox/seen")).Is(204);
        (await tomasz.Post("/api/inbox/seen")).Is(204);
        var (calendar, id) = await Make(ines);
        (await ines.Put($"/api/events/{id}", Body(calendar, "Before she was asked"), 1)).Is(200);
        await Ask(ines, id, 2, Priya);

        (await ines.Put($"/api/events/{id}", Body(calendar, "Glaze morning", "2026-03-16T21:00:00"), 3)).Is(200);
        (await ines.Delete($"/api/events/{id}", 4)).Is(200);

        async Task<string[]> Told(Browser browser) =>
            [
                .. (await browser.Get("/api/inbox"))
                    .Is(200)
                    .Body.GetProperty("notices")
                    .EnumerateArray()
                    .Where(one => !one.GetProperty("seen").GetBoolean())
                    .Select(one => one.Text("sentence")),
            ];
        var told = await Told(priya);
        Assert.Equal(2, told.Length);
        Assert.Equal("“Glaze morning”: Ines Varga deleted it.", told[0]);
        Assert.StartsWith(
            "“Before she was asked”: Ines Varga moved it from Mon 16 March",
            told[1],
            StringComparison.Ordinal
        );
        Assert.Contains(
            "changed the title from “Before she was asked” to “Glaze morning”",
            told[1],
            StringComparison.Ordinal
        );
        Assert.Empty(await Told(tomasz)); // named, and not asked: he does not see the calendar
        Assert.Empty(await Told(ines)); // she did it herself
        (await priya.Post("/api/inbox/seen")).Is(204);
        Assert.DoesNotContain("\"seen\":false", (await priya.Get("/api/inbox")).Is(200).Text, StringComparison.Ordinal);
    }

    /// <summary>Another calendar program answers by mail; somebody else tries to in her name.</summary>
    [Fact]
    public async Task A_reply_by_mail_is_read_and_one_in_anothers_name_is_ignored_and_said_to_be()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (_, id) = await Make(ines);
        await Ask(ines, id, 1, Priya, Tomasz);
        var asked = await Received(mortar, mail => mail.To.Mailboxes.Any(to => to.Address == "priya@example.org"));
        var request = asked
            .BodyParts.OfType<TextPart>()
            .Single(part => part.ContentType.IsMimeType("text", "calendar"));
        Assert.Equal("REQUEST", request.ContentType.Parameters["method"]);
        var uid = request.Text.Split("UID:")[1].Split('\n')[0].Trim();
        var to = asked.ReplyTo.Mailboxes.Single().Address;
        Assert.DoesNotContain("tomasz", request.Text, StringComparison.OrdinalIgnoreCase); // whose address is theirs alone

        await Reply(mortar, to, "tomasz@example.org", "priya@example.org", uid, "DECLINED");
        await Reply(mortar, to, "priya@example.org", "tomasz@example.org", uid, "DECLINED");
        await Reply(mortar, to, "priya@example.org", "priya@example.org", "another@mortar", "DECLINED");
        await Reply(mortar, to, "priya@example.org", "priya@example.org", uid, "DELEGATED");
        await Reply(
            mortar,
            $"answer-{new string('0', 32)}@example.org",
            "priya@example.org",
            "priya@example.org",
            uid,
            "DECLINED"
        );
        Assert.All(await Answers(ines, id), one => Assert.Equal("needsAction", one.Text("answer")));

        await Reply(mortar, to, "Priya@Example.org", "priya@example.org", uid, "ACCEPTED");

        Assert.Equal(["accepted", "needsAction"], (await Answers(ines, id)).Select(one => one.Text("answer")));
        await Reply(
            mortar,
            to,
            "priya@example.org",
            "priya@example.org",
            uid,
            "TENTATIVE",
            "DTSTART;TZID=America/Halifax:20260317T160000"
        );
        var wish = (await Answers(ines, id))[0];
        Assert.Equal(
            ("tentative", "2026-03-17T19:00:00", "2026-03-17T21:00:00"), // as long as before
            (wish.Text("answer"), wish.Text("suggestedStart"), wish.Text("suggestedEnd"))
        );
        var fates = mortar
            .Services.GetRequiredService<StandIns.PostRoom>()
            .Arrived.Select(mail => mail.Fate)
            .OfType<string>()
            .ToList();
        Assert.Equal("Read as an answer.", fates[0]);
        Assert.Equal(
            2,
            fates.Count(fate => fate.Contains("does not come from who was asked", StringComparison.Ordinal))
        );
        Assert.Equal(5, fates.Count(fate => fate.StartsWith("Ignored", StringComparison.Ordinal)));
    }

    /// <summary>Mails overtake one another: the newest by SEQUENCE and then by DTSTAMP counts (RFC 5546, 2.1.5), and nothing is lost by one that is wrong.</summary>
    [Fact]
    public async Task Of_several_replies_by_mail_the_newest_counts_and_a_wish_for_another_time_is_not_perhaps()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (_, id) = await Make(ines);
        await Ask(ines, id, 1, Priya);
        var asked = await Received(mortar, mail => mail.To.Mailboxes.Any(to => to.Address == "priya@example.org"));
        var request = asked
            .BodyParts.OfType<TextPart>()
            .Single(part => part.ContentType.IsMimeType("text", "calendar"));
        var uid = request.Text.Split("UID:")[1].Split('\n')[0].Trim();
        var to = asked.ReplyTo.Mailboxes.Single().Address;
        const string priya = "priya@example.org";
        async Task<string> After(string partStat, string more, string? counter = null)
        {
            await Reply(mortar, to, priya, priya, uid, partStat, counter, more);
            return (await Answers(ines, id))[0].Text("answer");
        }

        Assert.Equal("accepted", await After("ACCEPTED", "DTSTAMP:20260311T120000Z"));
        Assert.Equal("accepted", await After("DECLINED", "DTSTAMP:20260311T115900Z")); // overtaken
        Assert.Equal("accepted", await After("DECLINED", "DTSTAMP:20260311T120000Z")); // the same again
        Assert.Equal("tentative", await After("TENTATIVE", "DTSTAMP:20260311T120001Z"));
        Assert.Equal("tentative", await After("NEEDS-ACTION", "DTSTAMP:20260311T120002Z")); // no answer
        Assert.Equal(
            "needsAction",
            await After("NEEDS-ACTION", "DTSTAMP:20260311T120003Z", "DTSTART;TZID=America/Halifax:20260317T160000")
        );
        // A stamp of the year 9999 is no moment, a time of that year no wish; and both keep no later one back.
        Assert.Equal("declined", await After("DECLINED", "DTSTAMP:99991231T235959Z"));
        Assert.Equal("declined", await After("ACCEPTED", "DTSTAMP:20260311T120004Z", "DTSTART:99991231T235959Z"));
        Assert.Equal("accepted", await After("ACCEPTED", "DTSTAMP:20260311T120005Z"));
        Assert.Equal(
            9,
            mortar.Services.GetRequiredService<StandIns.PostRoom>().Arrived.Count(mail => mail.Fate is not null)
        );
    }

    private static async Task<int> Tell(TestMortar mortar, bool rested = true)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        var now = mortar.Services.GetRequiredService<NodaTime.IClock>().GetCurrentInstant();
        return await scope
            .ServiceProvider.GetRequiredService<AnswerCommands>()
            .TellAsked(now, NodaTime.Duration.FromMinutes(rested ? 0 : 1), CancellationToken.None);
    }

    private static Task<List<MailRow>> Mails(TestMortar mortar, string subject) =>
        mortar.Store(db => db.Mails.Where(mail => mail.Subject.StartsWith(subject)).ToListAsync());

    /// <summary>A mail as it arrives, as soon as it does.</summary>
    private static Task<MimeMessage> Received(TestMortar mortar, Func<MimeMessage, bool> isMeant) =>
        World.Eventually<MimeMessage>(() =>
            Task.FromResult(
                Directory
                    .EnumerateFiles(Path.Combine(mortar.Data, "post-room"), "*.eml")
                    .Select(file => MimeMessage.Load(file))
                    .FirstOrDefault(isMeant)
            )
        );

    private static async Task Reply(
        TestMortar mortar,
        string to,
        string from,
        string about,
        string uid,
        string partStat,
        string? counter = null,
        string? more = null
    )
    {
        var calendar = new TextPart("calendar")
        {
            Text = $"""
                BEGIN:VCALENDAR
                VERSION:2.0
                METHOD:{(counter is null ? "REPLY" : "COUNTER")}
                BEGIN:VEVENT
                {counter ?? "SEQUENCE:0"}
                {more ?? "X-MORE:"}
                UID:{uid}
                ATTENDEE;PARTSTAT={partStat}:mailto:{about}
                END:VEVENT
                END:VCALENDAR
                """.ReplaceLineEndings("\r\n"),
        };
        using var message = new MimeMessage(
            [MailboxAddress.Parse(from)],
            [MailboxAddress.Parse(to)],
            "Re: Glaze day",
            calendar
        );
        using var client = new SmtpClient();
        await client.ConnectAsync(
            "127.0.0.1",
            mortar.Services.GetRequiredService<StandIns.PostRoomPort>().Value,
            SecureSocketOptions.None
        );
        await client.SendAsync(message);
        await client.DisconnectAsync(quit: true);
    }

    private static async Task<(CalendarId Calendar, Guid Id)> Make(
        Browser ines,
        string title = "Glaze day",
        string? rule = null,
        Guid? named = null
    )
    {
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Body(calendar, title, rule: rule, named: named))).Is(200);
        return (calendar, id);
    }

    private static object Body(
        CalendarId calendar,
        string title,
        string start = "2026-03-16T20:00:00",
        string? rule = null,
        Guid? named = null
    ) =>
        new
        {
            calendarId = calendar.Value,
            title,
            place = "Glaze room",
            notes = World.Secret,
            showAs = "busy",
            time = World.Hours(start, "2026-03-16T22:00:00"),
            attendees = named is { } one ? new[] { one } : [Priya, Tomasz],
            rule,
        };

    private static async Task Ask(Browser ines, Guid id, int version, params Guid[] personIds) =>
        (await ines.Send(HttpMethod.Post, $"/api/events/{id}/ask", new { personIds }, version, null)).Is(204);

    private static async Task<List<JsonElement>> Questions(Browser browser) =>
        [.. (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("questions").EnumerateArray()];

    private static async Task<List<JsonElement>> Answers(Browser browser, Guid id, string date = "") =>
        [.. (await browser.Get($"/api/events/{id}/answers{date}")).Is(200).Body.GetProperty("people").EnumerateArray()];

    private static async Task<string> PresenceOfPriya(Browser ines) => (
            await ines.Post(
                "/api/free",
                new
                {
                    people = new[] { Priya },
                    places = Array.Empty<Guid>(),
                    time = World.Hours("2026-03-16T20:30:00", "2026-03-16T21:00:00"),
                    group = World.StudioTeam,
                }
            )
        ).Is(200).Body.GetProperty("people")[0].Text("presence");

    private static async Task<List<JsonElement>> Clashes(Browser ines) =>
        [
            .. (await ines.Get("/api/clashes?from=2026-03-16&to=2026-03-16"))
                .Is(200)
                .Body.GetProperty("clashes")
                .EnumerateArray()
                .Where(one => one.GetProperty("people").EnumerateArray().Any(who => who.GetGuid() == Priya)),
        ];
}
