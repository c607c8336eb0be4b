using CsCheck;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Server.Features.Demo;
using Mortar.Server.StandIns;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class MailTests
{
    [Fact]
    public async Task A_mail_that_cannot_be_sent_waits_and_what_it_tells_of_is_done_all_the_same()
    {
        // Nothing listens on the port of a listener that has been stopped.
        using var closed = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        closed.Start();
        var port = ((System.Net.IPEndPoint)closed.LocalEndpoint).Port;
        closed.Stop();
        await using var mortar = await TestMortar.Start(
            "SmtpHost=127.0.0.1",
            FormattableString.Invariant($"SmtpPort={port}")
        );
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();

        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "priya@example.org", role = "view" }
            )
        ).Is(204);

        var waiting = await World.Eventually(() =>
            mortar.Store<MailRow?>(db => db.Mails.AsNoTracking().FirstOrDefaultAsync(mail => mail.Attempts > 0))
        );
        Assert.Null(waiting.SentAt);
        var hers = (await priya.Get("/api/inbox")).Body;
        Assert.Single(hers.GetProperty("invitations").EnumerateArray());

        // Who had it written sees that it waits and when it is tried again; nobody else does.
        var told = (await ines.Get("/api/inbox")).Is(200).Body;
        Assert.Equal(1, told.GetProperty("mails").GetProperty("count").GetInt32());
        Assert.Equal(1, told.GetProperty("unread").GetInt32());
        Assert.Equal(System.Text.Json.JsonValueKind.Null, hers.GetProperty("mails").ValueKind);
    }

    [Fact]
    public async Task One_that_the_server_does_not_take_keeps_no_other_back()
    {
        await using var post = new PickyPost(refused: "nobody@example.org");
        await using var mortar = await TestMortar.Start(
            "SmtpHost=127.0.0.1",
            FormattableString.Invariant($"SmtpPort={post.Port}")
        );
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        foreach (var address in new[] { "nobody@example.org", "nina@example.org" })
        {
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                    new { address, role = "view" }
                )
            ).Is(204);
        }

        await World.Eventually(() =>
            mortar.Store<MailRow?>(db =>
                db.Mails.AsNoTracking()
                    .FirstOrDefaultAsync(mail => mail.To == "nina@example.org" && mail.SentAt != null)
            )
        );
        var refused = await World.Eventually(() =>
            mortar.Store<MailRow?>(db =>
                db.Mails.AsNoTracking()
                    .FirstOrDefaultAsync(mail => mail.To == "nobody@example.org" && mail.Attempts > 0)
            )
        );
        Assert.Null(refused.SentAt);
        Assert.Equal(
            1,
            (await ines.Get("/api/inbox")).Is(200).Body.GetProperty("mails").GetProperty("count").GetInt32()
        );
    }

    /// <summary>
    /// Whatever is wrong with the mail server: mails wait, whoever had them written is told, the operator is, and when it
    /// works again each arrives, as the one mail it is.
    /// </summary>
    [Theory]
    [InlineData(nameof(PostManner.Hangs), "does not answer in time")]
    [InlineData(nameof(PostManner.HasBadCertificate), "a certificate that is not trusted")]
    [InlineData(nameof(PostManner.HangsAtText), "does not answer in time", true)]
    [InlineData(nameof(PostManner.BreaksOff), "hangs up", true)]
    [InlineData(nameof(PostManner.TalksNonsense), "what is not SMTP", true)]
    [InlineData(nameof(PostManner.IsClosing), "not available", true)]
    public async Task What_is_wrong_with_the_mail_server_is_no_mails_fault(
        string manner,
        string sentence,
        bool isDeep = false
    )
    {
        Assert.SkipUnless(!isDeep || Deep.Is, "Of the deep tests.");
        await using var post = new PickyPost(manner: Enum.Parse<PostManner>(manner));
        await using var mortar = await TestMortar.Start(
            "SmtpHost=127.0.0.1",
            FormattableString.Invariant($"SmtpPort={post.Port}"),
            "SmtpPatience=1"
        );
        using var ines = await mortar.As(DemoPeople.Ines);
        using var watcher = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        foreach (var address in new[] { "nina@example.org", "olle@example.org" })
        {
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                    new { address, role = "view" }
                )
            ).Is(204);
        }

        await World.Eventually(() =>
            mortar.Store(db =>
                db.Mails.AsNoTracking().FirstOrDefaultAsync(mail => mail.Attempts > MailLife.TriesOfUnfit - 1)
            )
        );
        Assert.True(await mortar.Store(db => db.Mails.AllAsync(mail => mail.GivenUpAt == null && mail.SentAt == null)));
        var told = (await ines.Get("/api/inbox")).Is(200).Body.GetProperty("mails");
        Assert.Equal(2, told.GetProperty("count").GetInt32());
        Assert.Equal("degraded", (await watcher.Get("/health")).Is(200).Body.Text("status"));
        var mail = (await watcher.Get("/health")).Body.GetProperty("checks").GetProperty("mail");
        Assert.Contains(sentence, mail.Text("sentence"), StringComparison.Ordinal);
        Assert.DoesNotContain("127.0.0.1", mail.Text("sentence"), StringComparison.Ordinal);

        post.Manner = PostManner.Takes;

        await World.Eventually(async () =>
            await mortar.Store(db => db.Mails.AllAsync(one => one.SentAt != null)) ? mortar : null
        );
        Assert.Equal(
            ["nina@example.org", "olle@example.org"],
            post.Had.Where(one => one.IsTaken).Select(one => one.To).Order()
        );
        Assert.All(
            post.Had.GroupBy(one => one.To),
            same => Assert.Single(same.Select(one => one.MessageId).Distinct())
        );
        Assert.Equal(
            System.Text.Json.JsonValueKind.Null,
            (await ines.Get("/api/inbox")).Body.GetProperty("mails").ValueKind
        );
        await World.Eventually(async () =>
            (await watcher.Get("/health")).Body.Text("status") == "healthy" ? mortar : null
        );
    }

    [Fact]
    public async Task What_somebody_waits_for_goes_before_what_goes_to_many()
    {
        await using var post = new PickyPost(manner: PostManner.IsClosing);
        await using var mortar = await TestMortar.Start(
            "SmtpHost=127.0.0.1",
            FormattableString.Invariant($"SmtpPort={post.Port}")
        );
        using var ines = await mortar.As(DemoPeople.Ines);
        var people = Enumerable
            .Range(0, 40)
            .Select(n => new
            {
                id = Guid.CreateVersion7(),
                name = $"Potter {n}",
                address = $"potter{n}@example.org",
            });
        (await ines.Put($"/api/groups/{World.StudioTeam}/members", new { people })).Is(200);
        var calendar = await ines.MakeCalendar();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "nina@example.org", role = "view" }
            )
        ).Is(204);

        post.Manner = PostManner.Takes;

        await World.Eventually(() => Task.FromResult(post.Had.Count == 41 ? post : null));
        // Six go out side by side.
        Assert.Contains("nina@example.org", post.Had.Take(6).Select(one => one.To));
        Assert.InRange(post.Lines, 1, 20); // one connection carries many
    }

    [Fact]
    public async Task One_that_waits_is_not_kept_waiting_by_a_clock_that_was_put_back()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        await mortar.Store(async db =>
        {
            foreach (var (to, minutes) in new[] { ("nina@example.org", 60), ("olle@example.org", 5) })
            {
                db.Mails.Add(
                    new MailRow
                    {
                        To = to,
                        Subject = "Glaze day",
                        Body = "Do you come?",
                        WrittenAt = clock.Now,
                        DueAt = clock.Now + Duration.FromMinutes(minutes),
                        Attempts = 1,
                    }
                );
            }

            return await db.SaveChangesAsync();
        });
        using var ines = await mortar.As(DemoPeople.Ines);
        await ines.MakeCalendar(); // a commit, after which the sender looks

        await World.Eventually(() =>
        {
            // The clock goes on, by a minute or two at most: one whose first try was in vain is tried again.
            clock.Now += Duration.FromMilliseconds(100);
            return mortar.Store(db =>
                db.Mails.FirstOrDefaultAsync(mail => mail.To == "nina@example.org" && mail.SentAt != null)
            );
        });
        // The other one waits as it should: nothing waits for an hour, and five minutes are not over.
        Assert.Null(
            await mortar.Store(db =>
                db.Mails.Where(mail => mail.To == "olle@example.org").Select(mail => mail.SentAt).SingleAsync()
            )
        );
    }

    [Fact]
    public async Task One_that_cannot_be_put_together_is_given_up_told_and_keeps_no_other_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        // As an earlier release let it be written.
        await mortar.Store(async db =>
        {
            foreach (var to in new[] { "a:b@example.org", "mailto:wren@example.org?subject=x", "nina@example.org" })
            {
                db.Mails.Add(
                    new MailRow
                    {
                        To = to,
                        Subject = $"To {to}",
                        Body = "Hello",
                        AskedBy = DemoPeople.Ines.Id.Value,
                        WrittenAt = SystemClock.Instance.GetCurrentInstant(),
                        Attempts = MailLife.TriesOfUnfit - 1,
                    }
                );
            }

            return await db.SaveChangesAsync();
        });
        (await ines.Post("/api/inbox/seen")).Is(204);
        var calendar = await ines.MakeCalendar(); // a commit, after which the sender looks

        await World.Eventually(() =>
            mortar.Store(db =>
                db.Mails.AsNoTracking()
                    .FirstOrDefaultAsync(mail => mail.To == "nina@example.org" && mail.SentAt != null)
            )
        );
        await World.Eventually(async () =>
            await mortar.Store(db => db.Mails.CountAsync(mail => mail.GivenUpAt != null && mail.Body == "")) == 2
                ? mortar
                : null
        );
        var arrived = mortar.Services.GetRequiredService<PostRoom>().Arrived;
        Assert.Equal("nina@example.org", Assert.Single(arrived).To); // once
        var told = (await ines.Get("/api/inbox")).Is(200).Body.GetProperty("mails");
        Assert.Equal(
            ["To a:b@example.org", "To mailto:wren@example.org?subject=x"],
            told.GetProperty("givenUp").EnumerateArray().Select(subject => subject.GetString()).Order()
        );
        Assert.Equal(0, told.GetProperty("count").GetInt32());
        Assert.True(await ines.HasLayer(calendar));
    }

    /// <summary>Whatever can be written here as an address, the library that sends it reads as just that.</summary>
    [Theory]
    [InlineData("priya@example.org", "priya@example.org")]
    [InlineData(" Priya@Example.ORG ", "priya@example.org")]
    [InlineData("mailto:priya@example.org?subject=Hello", "priya@example.org")] // RFC 6068, 2
    [InlineData("o'neill+clay@sub.example.org", "o'neill+clay@sub.example.org")]
    [InlineData("größe@töpfe.example.org", "größe@töpfe.example.org")] // RFC 6531, 3.3
    [InlineData("a:b@example.org", null)]
    [InlineData("a b@example.org", null)]
    [InlineData("\"a b\"@example.org", null)]
    [InlineData(".a@example.org", null)]
    [InlineData("a..b@example.org", null)]
    [InlineData("a@example", null)]
    [InlineData("a@-x.example.org", null)]
    [InlineData("a@[127.0.0.1]", null)]
    [InlineData("a@127.0.0.1", null)]
    [InlineData("a@example.org,b@example.org", null)]
    [InlineData("a@b@example.org", null)]
    [InlineData("<a@example.org>", null)]
    [InlineData("group:a@example.org;", null)]
    [InlineData("a\\b@example.org", null)]
    public void An_address_is_what_the_mail_library_accepts(string written, string? read)
    {
        Assert.Equal(read, Address.TryParse(written, out var address) ? address.Value.Value : null);
        Assert.True(read is null || MailboxAddress.Parse(read).Address == read);
    }

    [Fact]
    public void No_text_is_an_address_here_and_another_one_for_the_mail_library()
    {
        var part = Gen.Char["aZ9.-+_':;<>()[]@\\\" \t,%ßé/"].Array[0, 12].Select(letters => new string(letters));
        Gen.Select(part, part)
            .Select(parts => $"{parts.Item1}@{parts.Item2}.org")
            .Sample(
                text =>
                {
                    if (Address.TryParse(text, out var address))
                    {
                        Assert.True(MailboxAddress.TryParse(address.Value.Value, out var mailbox), text);
                        Assert.Equal(address.Value.Value, mailbox.Address);
                    }
                },
                iter: 20_000
            );
    }

    [Fact]
    public async Task Nobody_is_written_to_again_and_again()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        var calendar = Guid.CreateVersion7();
        (await hanne.Put($"/api/calendars/{calendar}", World.Calendar("Hers"))).Is(200);
        var invitation = $"/api/calendars/{calendar}/invitations/{Guid.NewGuid()}";
        (await hanne.Put(invitation, new { address = "stranger@example.org", role = "view" })).Is(204);
        for (var i = 1; i < MailLimits.ByOneToOne; i++)
        {
            (await hanne.Post($"{invitation}/send-again")).Is(204);
        }

        var refused = (await hanne.Post($"{invitation}/send-again")).IsProblem(429, "too-often");

        Assert.Contains("Try again in 60 minutes", refused.Detail, StringComparison.Ordinal);
        Assert.Equal(TimeSpan.FromHours(1), refused.Headers.RetryAfter?.Delta);
        Assert.Equal(
            MailLimits.ByOneToOne,
            await mortar.Store(db => db.Mails.CountAsync(mail => mail.To == "stranger@example.org"))
        );
        clock.Now += Duration.FromHours(1);
        (await hanne.Post($"{invitation}/send-again")).Is(204);
    }

    [Fact]
    public async Task Who_gets_mail_stops_it_by_a_link_in_it_and_has_it_again()
    {
        await using var mortar = await TestMortar.Start("PublicUrl=https://mortar.example.org");
        using var anyone = mortar.Anonymous();
        Task Write() =>
            mortar.Store(db =>
                db.Write<int>(
                    Mortar.Data.Store.Act.By(DemoPeople.Ines.Id),
                    () =>
                    {
                        db.Mails.Add(
                            new MailRow
                            {
                                To = "nina@example.org",
                                Subject = "Glaze day",
                                Body = "Do you come?",
                                WrittenAt = SystemClock.Instance.GetCurrentInstant(),
                            }
                        );
                        return Task.FromResult<Outcome<int>>(1);
                    },
                    CancellationToken.None
                )
            );
        await Write();
        var file = await World.Eventually(() =>
            Task.FromResult(Directory.EnumerateFiles(Path.Combine(mortar.Data, "post-room"), "*.eml").FirstOrDefault())
        );
        using var mail = await MimeMessage.LoadAsync(file, TestContext.Current.CancellationToken);
        var header = Assert.IsType<string>(mail.Headers[HeaderId.ListUnsubscribe]);
        Assert.Equal("List-Unsubscribe=One-Click", mail.Headers["List-Unsubscribe-Post"]); // RFC 8058, 3.1
        var link = new Uri(header.Trim('<', '>')).AbsolutePath;
        Assert.Contains("https://mortar.example.org/stop/", mail.TextBody, StringComparison.Ordinal);

        (await anyone.Get("/api/mail-stops/made-up")).IsProblem(404, "not-there");
        Assert.Equal("""{"address":"nina@example.org","stopped":false}""", (await anyone.Get(link)).Is(200).Text);
        using (var program = new HttpClient { BaseAddress = mortar.Url })
        using (var press = new FormUrlEncodedContent([new("List-Unsubscribe", "One-Click")]))
        {
            // A mail program has no cookie and no token.
            var pressed = await program.PostAsync(link, press, TestContext.Current.CancellationToken);
            Assert.Equal(System.Net.HttpStatusCode.NoContent, pressed.StatusCode);
        }

        await Write();
        Assert.Equal(1, await mortar.Store(db => db.Mails.CountAsync(one => one.To == "nina@example.org")));
        (await anyone.Delete(link)).Is(204);
        await Write();
        Assert.Equal(2, await mortar.Store(db => db.Mails.CountAsync(one => one.To == "nina@example.org")));
    }

    [Fact]
    public async Task A_mail_is_sent_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.NewGuid();
        var invitation = new { address = "nina@example.org", role = "view" };
        (await ines.Put($"/api/calendars/{calendar.Value}/invitations/{id}", invitation)).Is(204);
        (await ines.Put($"/api/calendars/{calendar.Value}/invitations/{id}", invitation)).Is(204);
        (await ines.Post($"/api/calendars/{calendar.Value}/invitations/{id}/send-again")).Is(204);

        await World.Eventually(async () =>
            await mortar.Store(db => db.Mails.AllAsync(mail => mail.SentAt != null)) ? mortar : null
        );

        var mails = (await mortar.Anonymous().Get("/api/post-room"))
            .Is(200)
            .Body.EnumerateArray()
            .Select(mail => mail.Text("to"));
        Assert.Equal(["nina@example.org", "nina@example.org"], mails);
    }
}
