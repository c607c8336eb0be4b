using Microsoft.EntityFrameworkCore;
using Mortar.Core.Letters;
using Mortar.Data.Mail;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A forgotten password is not final, and a new one ends what the old one opened.</summary>
public class PasswordTests
{
    private const string New = "four glazes two kilns";

    [Fact]
    public async Task Who_forgot_their_password_sets_a_new_one_by_mail_once_and_all_other_sign_ins_end()
    {
        await using var mortar = await TestMortar.Start();
        using var elsewhere = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        var secret = await Ask(mortar, nobody, "INES@example.org");
        (await elsewhere.Get("/api/groups")).Is(200); // asking alone ends nothing

        (await nobody.Post($"/api/password/reset/{secret}", new { password = "short" })).IsProblem(422, "unfit");
        (await elsewhere.Get("/api/groups")).Is(200); // nor does a password that is refused
        (await nobody.Post($"/api/password/reset/{secret}", new { password = New })).Is(204);

        (await elsewhere.Get("/api/groups")).IsProblem(401, "signed-out");
        Assert.Equal(401, await SignIn(nobody, DemoPeople.Password));
        Assert.Equal(204, await SignIn(nobody, New));
        Assert.NotNull(await mortar.MailWith("ines@example.org", "was changed just now"));
        using var again = mortar.Anonymous();
        (await again.Post($"/api/password/reset/{secret}", new { password = "something else here" })).IsProblem(
            409,
            "link-ended"
        );
        Assert.Equal(204, await SignIn(again, New));
    }

    [Fact]
    public async Task Unknown_addresses_are_told_the_same_and_nothing_is_sent_to_them()
    {
        await using var mortar = await TestMortar.Start();
        using var nobody = mortar.Anonymous();

        var known = (await nobody.Post("/api/password/forgotten", new { address = "ines@example.org" })).Is(204);
        var unknown = (await nobody.Post("/api/password/forgotten", new { address = "who@example.org" })).Is(204);

        Assert.Equal(known.Text, unknown.Text);
        Assert.Equal(["ines@example.org"], await Mailed(mortar));
        Assert.Equal(2, await mortar.Store(db => db.PasswordResets.CountAsync())); // as much is done for either
        (await nobody.Post("/api/password/forgotten", new { address = "no address" })).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task The_link_is_good_for_thirty_minutes()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var nobody = mortar.Anonymous();
        var secret = await Ask(mortar, nobody, "ines@example.org");

        clock.Now += Duration.FromMinutes(30);

        (await nobody.Post($"/api/password/reset/{secret}", new { password = New })).IsProblem(409, "link-ended");
        Assert.Equal(204, await SignIn(nobody, DemoPeople.Password));
    }

    [Fact]
    public async Task One_address_is_sent_three_mails_an_hour_and_using_one_ends_the_others()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var nobody = mortar.Anonymous();
        var first = await Ask(mortar, nobody, "ines@example.org");
        for (var i = 0; i < 4; i++)
        {
            (await nobody.Post("/api/password/forgotten", new { address = "ines@example.org" })).Is(204);
        }

        Assert.Equal(3, (await Mailed(mortar)).Count);
        (await nobody.Post($"/api/password/reset/{first}", new { password = New })).Is(204);
        Assert.Equal(
            0,
            await mortar.Store(db => db.PasswordResets.CountAsync(row => row.PersonId != null && row.UsedAt == null))
        );
    }

    [Fact]
    public async Task A_link_of_an_account_that_is_gone_opens_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var nobody = mortar.Anonymous();
        var secret = await Ask(mortar, nobody, "ines@example.org");
        await mortar.Store(db => db.Users.Where(user => user.Email == "ines@example.org").ExecuteDeleteAsync());

        (await nobody.Post($"/api/password/reset/{secret}", new { password = New })).IsProblem(404, "not-there");
        (await nobody.Post("/api/password/reset/0123", new { password = New })).IsProblem(409, "link-ended");
    }

    [Fact]
    public async Task Of_two_who_use_one_link_at_once_one_sets_the_password()
    {
        await using var mortar = await TestMortar.Start();
        using var one = mortar.Anonymous();
        using var two = mortar.Anonymous();
        var secret = await Ask(mortar, one, "ines@example.org");
        (await two.Get("/api/session")).Is(200);

        var answers = await Task.WhenAll(
            one.Post($"/api/password/reset/{secret}", new { password = New }),
            two.Post($"/api/password/reset/{secret}", new { password = "something else here" })
        );

        Assert.Equal([204, 409], answers.Select(answer => answer.Status).Order());
        Assert.Equal(204, await SignIn(one, answers[0].Status == 204 ? New : "something else here"));
    }

    [Fact]
    public async Task How_often_others_have_mails_written_to_an_address_keeps_nobody_from_a_new_password()
    {
        await using var mortar = await TestMortar.Start();
        using var nobody = mortar.Anonymous();
        await mortar.Store(async db =>
        {
            for (var i = 0; i < MailLimits.ToOne; i++)
            {
                db.Mails.Add(
                    new MailRow
                    {
                        To = "ines@example.org",
                        Subject = "Flood",
                        Body = "",
                        WrittenAt = db.Now,
                        SentAt = db.Now,
                        CausedBy = DemoPeople.Dele.Id.Value,
                    }
                );
            }

            return await db.SaveChangesAsync();
        });
        var secret = await Ask(mortar, nobody, "ines@example.org");

        (await nobody.Post($"/api/password/reset/{secret}", new { password = New })).Is(204);

        Assert.Equal(204, await SignIn(nobody, New));
        Assert.NotNull(await mortar.MailWith("ines@example.org", "was changed just now"));
    }

    [Fact]
    public async Task Who_knows_the_password_changes_it_and_stays_signed_in_here_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = mortar.Anonymous();
        Assert.Equal(204, await SignIn(ines, DemoPeople.Password));
        using var elsewhere = await mortar.As(DemoPeople.Ines);

        var wrong = (await ines.Put("/api/password", new { current = "not it", password = New })).IsProblem(
            422,
            "unfit"
        );
        Assert.Contains("until now", wrong.Detail, StringComparison.Ordinal);
        (await ines.Put("/api/password", new { current = DemoPeople.Password, password = "short" })).IsProblem(
            422,
            "unfit"
        );
        (await elsewhere.Get("/api/groups")).Is(200);
        (await ines.Put("/api/password", new { current = DemoPeople.Password, password = New })).Is(204);

        (await ines.Get("/api/groups")).Is(200);
        (await elsewhere.Get("/api/groups")).IsProblem(401, "signed-out");
        using var nobody = mortar.Anonymous();
        Assert.Equal(401, await SignIn(nobody, DemoPeople.Password));
        Assert.Equal(204, await SignIn(nobody, New));
    }

    [Fact]
    public async Task One_sees_where_one_is_signed_in_and_ends_it_there_one_by_one_or_all()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var second = await mortar.As(DemoPeople.Ines);
        using var third = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var all = (await ines.Get("/api/sign-ins")).Is(200).Body.EnumerateArray().ToList();
        Assert.Equal(3, all.Count);
        Assert.Single(all, one => one.GetProperty("isThis").GetBoolean());
        var of2 = (await second.Get("/api/sign-ins"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("isThis").GetBoolean())
            .Text("id");

        (await priya.Delete($"/api/sign-ins/{of2}")).IsProblem(404, "not-there");
        (await second.Get("/api/groups")).Is(200);
        (await ines.Delete($"/api/sign-ins/{of2}")).Is(204);
        (await second.Get("/api/groups")).IsProblem(401, "signed-out");
        (await third.Get("/api/groups")).Is(200);
        (await ines.Delete("/api/sign-ins")).Is(204);

        (await third.Get("/api/groups")).IsProblem(401, "signed-out");
        (await ines.Get("/api/groups")).Is(200);
        (await priya.Get("/api/groups")).Is(200);
        Assert.Single((await ines.Get("/api/sign-ins")).Is(200).Body.EnumerateArray());
        (await ines.Delete($"/api/sign-ins/{of2}")).IsProblem(404, "not-there");
    }

    private static async Task<string> Ask(TestMortar mortar, Browser browser, string address)
    {
        (await browser.Post("/api/password/forgotten", new { address })).Is(204);
        return await mortar.SecretIn(await mortar.MailWith(address.ToLowerInvariant(), "/reset/"), "/reset/");
    }

    private static async Task<int> SignIn(Browser browser, string password) =>
        (await browser.Post("/api/session", new { address = "ines@example.org", password })).Status;

    private static Task<List<string>> Mailed(TestMortar mortar) =>
        mortar.Store(db => db.Mails.Select(mail => mail.To).ToListAsync());
}
