using Microsoft.EntityFrameworkCore;
using Mortar.Data.Mail;
using Mortar.Server.Features.Demo;
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
