using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What is refused of passkeys; that one signs in is played with a browser's virtual authenticator (AccountTests there).</summary>
public class PasskeyTests
{
    private static readonly object Password = new { password = DemoPeople.Password };

    [Fact]
    public async Task The_question_for_a_new_one_takes_the_password_and_asks_for_a_finger_or_a_pin()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();

        (await nobody.Post("/api/passkeys/question", Password)).IsProblem(401, "signed-out");
        (await ines.Post("/api/passkeys/question", new { password = "not hers at all" })).IsProblem(422, "unfit");
        var options = (await ines.Post("/api/passkeys/question", Password)).Is(200).Body.GetProperty("options");

        var selection = options.GetProperty("authenticatorSelection");
        Assert.Equal(("required", "required"), (selection.Text("residentKey"), selection.Text("userVerification")));
        Assert.Equal("ines@example.org", options.GetProperty("user").Text("name"));
        Assert.True(options.Text("challenge").Length >= 22); // 16 bytes at least (Web Authentication, 13.4.3)
    }

    /// <summary>What a device never answered.</summary>
    public static TheoryData<string> Nonsense =>
        [
            "null",
            "5",
            "\"yes\"",
            "[]",
            "{}",
            """{"id":"AA","rawId":"AA","type":"public-key","response":{},"clientExtensionResults":{}}""",
            """{"id":"AA","rawId":"AA","type":"public-key","clientExtensionResults":{},"response":{"clientDataJSON":"AA","attestationObject":"AA","authenticatorData":"AA","signature":"AA"}}""",
        ];

    [Theory]
    [MemberData(nameof(Nonsense))]
    public async Task What_no_device_answered_adds_nothing_and_signs_nobody_in(string credential)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        object answer = new
        {
            name = "blue key",
            credential = System.Text.Json.JsonDocument.Parse(credential).RootElement,
        };

        // Without a question, and with one.
        (await ines.Post("/api/passkeys", answer)).IsProblem(409, "passkey");
        (await ines.Post("/api/passkeys/question", Password)).Is(200);
        (await ines.Post("/api/passkeys", answer)).IsProblem(409, "passkey");
        Assert.Equal("[]", (await ines.Get("/api/passkeys")).Is(200).Text);

        (await nobody.Post("/api/session/passkey", answer)).IsProblem(401, "wrong-sign-in");
        (await nobody.Post("/api/session/passkey/question")).Is(200);
        (await nobody.Post("/api/session/passkey", answer)).IsProblem(401, "wrong-sign-in");
        (await nobody.Get("/api/groups")).IsProblem(401, "signed-out");
    }

    [Theory]
    [InlineData("AAAA")]
    [InlineData("not-base64url!")]
    [InlineData("AA%2BAA")]
    public async Task Those_of_others_and_those_that_never_were_are_not_there(string id)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        (await ines.Put($"/api/passkeys/{id}", new { name = "mine" })).IsProblem(404, "not-there");
        (await ines.Delete($"/api/passkeys/{id}")).IsProblem(404, "not-there");
    }

    [Fact]
    public void A_name_is_short_and_says_something_and_ten_are_enough()
    {
        Assert.Equal("blue key", PasskeyRules.Name(" blue\nkey ").Value);
        Assert.NotNull(PasskeyRules.Name("  ").WhyNot);
        Assert.NotNull(PasskeyRules.Name(new string('x', 61)).WhyNot);
        Assert.Null(PasskeyRules.WhyNotAnother(9));
        Assert.IsType<Refusal.AgainstRule>(PasskeyRules.WhyNotAnother(10));
    }
}
