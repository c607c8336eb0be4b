using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>One person, several addresses.</summary>
public class AddressTests
{
    private static async Task<string> Secret(TestMortar mortar, string address) =>
        await mortar.SecretIn(await mortar.MailWith(address, "/address/"), "/address/");

    [Fact]
    public async Task An_invitation_to_a_confirmed_address_arrives_at_the_same_account()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "p.work@example.org", role = "view" }
            )
        ).Is(204);
        (await priya.Post("/api/addresses", new { address = "P.Work@Example.org" })).Is(204);
        Assert.DoesNotContain("Glaze tests", (await priya.Get("/api/inbox")).Text, StringComparison.Ordinal);

        (await priya.Post($"/api/addresses/confirm/{await Secret(mortar, "p.work@example.org")}")).Is(204);

        Assert.Contains("Glaze tests", (await priya.Get("/api/inbox")).Text, StringComparison.Ordinal);
        var other = Guid.NewGuid();
        (
            await ines.Put(
                $"/api/calendars/{(await ines.MakeCalendar()).Value}/invitations/{other}",
                new { address = "p.work@example.org", role = "view" }
            )
        ).Is(204);
        (await priya.Post($"/api/invitations/{other}/accept")).Is(204);
    }

    [Fact]
    public async Task Nobody_confirms_an_address_that_somebody_else_asked_for()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var nobody = mortar.Anonymous();
        (await mei.Post("/api/addresses", new { address = "victim@example.org" })).Is(204);
        var secret = await Secret(mortar, "victim@example.org");

        (await priya.Post($"/api/addresses/confirm/{secret}")).IsProblem(404, "not-there");
        (await nobody.Post($"/api/addresses/confirm/{secret}")).IsProblem(401, "signed-out");
        Assert.False(
            Assert
                .Single((await mei.Get("/api/addresses")).Is(200).Body.EnumerateArray())
                .GetProperty("isConfirmed")
                .GetBoolean()
        );
    }

    [Fact]
    public async Task Asking_says_nothing_of_other_accounts_and_an_address_stays_whose_it_is()
    {
        await using var mortar = await TestMortar.Start();
        using var mei = await mortar.As(DemoPeople.Mei);
        var free = await mei.Post("/api/addresses", new { address = "free@example.org" });
        var taken = await mei.Post("/api/addresses", new { address = DemoPeople.Dele.Address });

        Assert.Equal((free.Status, free.Text), (taken.Status, taken.Text));
        (await mei.Post($"/api/addresses/confirm/{await Secret(mortar, DemoPeople.Dele.Address)}")).IsProblem(
            409,
            "has-account"
        );
        (await mei.Post("/api/addresses", new { address = "no address" })).IsProblem(422, "unfit");
        (await mei.Post("/api/addresses", new { address = DemoPeople.Mei.Address })).IsProblem(409, "already-yours");
    }

    [Fact]
    public async Task One_signs_in_by_any_of_them_until_it_is_taken_out()
    {
        await using var mortar = await TestMortar.Start();
        using var first = await mortar.As(DemoPeople.Priya);
        (await first.Post("/api/addresses", new { address = "priya.home@example.org" })).Is(204);
        using var second = mortar.Anonymous();
        var signIn = new { address = "priya.home@example.org", password = DemoPeople.Password };
        (await second.Post("/api/session", signIn)).Is(401);

        (await first.Post($"/api/addresses/confirm/{await Secret(mortar, "priya.home@example.org")}")).Is(204);
        (await second.Post("/api/session", signIn)).Is(204);

        var id = Assert
            .Single((await first.Get("/api/addresses")).Is(200).Body.EnumerateArray())
            .GetProperty("id")
            .GetGuid();
        (await first.Delete($"/api/addresses/{id}")).Is(204);
        using var third = mortar.Anonymous();
        (await third.Post("/api/session", signIn)).Is(401);
    }

    [Fact]
    public async Task An_invitation_does_not_tell_whose_a_further_address_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        (await priya.Post("/api/addresses", new { address = "p.work@example.org" })).Is(204);
        (await priya.Post($"/api/addresses/confirm/{await Secret(mortar, "p.work@example.org")}")).Is(204);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var path = $"/api/calendars/{calendar.Value}/invitations";

        (await ines.Put($"{path}/{Guid.NewGuid()}", new { address = "priya@example.org", role = "edit" })).IsProblem(
            409,
            "already-in"
        );
        (await ines.Put($"{path}/{Guid.NewGuid()}", new { address = "p.work@example.org", role = "edit" })).Is(204);
    }

    [Fact]
    public async Task Neither_a_pasted_list_nor_adding_tells_whose_a_further_address_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        (await priya.Post("/api/addresses", new { address = "p.work@example.org" })).Is(204);
        (await priya.Post($"/api/addresses/confirm/{await Secret(mortar, "p.work@example.org")}")).Is(204);
        var group = $"/api/groups/{Guid.NewGuid()}";
        (
            await ines.Put(
                group,
                new
                {
                    name = "Evening class",
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);

        var read = (await ines.Post($"{group}/people", new { text = "p.work@example.org\npriya@example.org" })).Is(200);
        Assert.Equal(
            [("P Work", "new"), ("Priya Raman", "known")],
            read.Body.EnumerateArray().Select(entry => (entry.Text("name"), entry.Text("fate")))
        );

        // She who has it is not asked: it is a name with a mail, as of somebody whom nobody here knows.
        (
            await ines.Put(
                $"{group}/members",
                new
                {
                    people = new[]
                    {
                        new
                        {
                            id = Guid.NewGuid(),
                            name = "P Work",
                            address = "p.work@example.org",
                        },
                    },
                }
            )
        ).Is(200);
        Assert.Equal("[]", (await ines.Get($"{group}/asked")).Is(200).Text);
        Assert.DoesNotContain("Evening class", (await priya.Get("/api/inbox")).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Priya", (await ines.Get($"{group}/members")).Is(200).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_confirmed_address_becomes_the_first_with_the_password_and_the_old_one_is_told_and_stays()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var nobody = mortar.Anonymous();
        const string Next = "p.o'work@example.org"; // more than letters and dots, as addresses may have (RFC 5322, 3.2.3)
        (await priya.Post("/api/addresses", new { address = Next })).Is(204);
        var id = (await priya.Get("/api/addresses")).Body.EnumerateArray().Single().GetProperty("id").GetGuid();
        var first = $"/api/addresses/{id}/first";
        object password = new { password = DemoPeople.Password };

        (await priya.Post(first, password)).IsProblem(409, "not-confirmed");
        (await priya.Post($"/api/addresses/confirm/{await Secret(mortar, Next)}")).Is(204);
        (await priya.Post(first, new { password = "not hers at all" })).IsProblem(422, "unfit");
        (await mei.Post(first, password)).IsProblem(404, "not-there");
        (await nobody.Post(first, password)).IsProblem(401, "signed-out");
        Assert.Equal(DemoPeople.Priya.Address, await FirstOf(priya));

        (await nobody.Post("/api/password/forgotten", new { address = DemoPeople.Priya.Address })).Is(204);
        var reset = await mortar.SecretIn(await mortar.MailWith(DemoPeople.Priya.Address, "/reset/"), "/reset/");
        (await priya.Post(first, password)).Is(204);

        Assert.Equal(Next, await FirstOf(priya)); // and she is signed in still
        Assert.Equal(
            DemoPeople.Priya.Address,
            (await priya.Get("/api/addresses")).Body.EnumerateArray().Single().Text("address")
        );
        Assert.NotNull(await mortar.MailWith(DemoPeople.Priya.Address, $"goes to {Next} from now on"));
        (await nobody.Post($"/api/password/reset/{reset}", new { password = "four glazes two kilns" })).IsProblem(
            409,
            "link-ended"
        );
        foreach (var address in new[] { Next, DemoPeople.Priya.Address })
        {
            using var again = mortar.Anonymous();
            (await again.Post("/api/session", new { address, password = DemoPeople.Password })).Is(204);
        }

        // Everything about the account works as before under it.
        (
            await priya.Put("/api/password", new { current = DemoPeople.Password, password = "four glazes two kilns" })
        ).Is(204);
        password = new { password = "four glazes two kilns" };
        (await priya.Post("/api/passkeys/question", password)).Is(200);

        // Back again, and nothing of it is left over.
        id = (await priya.Get("/api/addresses")).Body.EnumerateArray().Single().GetProperty("id").GetGuid();
        (await priya.Post($"/api/addresses/{id}/first", password)).Is(204);
        Assert.Equal(DemoPeople.Priya.Address, await FirstOf(priya));
        (await mei.Post("/api/addresses", new { address = Next })).Is(204);
    }

    [Fact]
    public async Task Another_name_is_what_everybody_reads()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var ines = await mortar.As(DemoPeople.Ines);
        var members = $"/api/groups/{World.StudioTeam}/members";
        Assert.Contains("Priya Raman", (await ines.Get(members)).Text, StringComparison.Ordinal);

        (await priya.Put("/api/name", new { name = "  " })).IsProblem(422, "unfit");
        (await priya.Put("/api/name", new { name = new string('x', 81) })).IsProblem(422, "unfit");
        (await priya.Put("/api/name", new { name = "Priya\u202e\nRaman-Holt" })).Is(204);

        Assert.Contains("\"Priya Raman-Holt\"", (await ines.Get(members)).Text, StringComparison.Ordinal);
        Assert.Equal("Priya Raman-Holt", (await priya.Get("/api/session")).Body.GetProperty("person").Text("name"));
    }

    private static async Task<string> FirstOf(Browser who) =>
        (await who.Get("/api/session")).Is(200).Body.GetProperty("person").Text("address");
}
