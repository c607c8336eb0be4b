using Mortar.Core.Accounts;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A code beside the password: asked for, good once, and recovered from.</summary>
public class SecondFactorTests
{
    private const string Ines = "ines@example.org";

    /// <summary>RFC 6238, Appendix B, SHA-1: the key is the ASCII of 12345678901234567890. It holds the app of these tests to the standard.</summary>
    [Theory]
    [InlineData(59, "94287082")]
    [InlineData(1111111109, "07081804")]
    [InlineData(1111111111, "14050471")]
    [InlineData(1234567890, "89005924")]
    [InlineData(2000000000, "69279037")]
    [InlineData(20000000000, "65353130")]
    public void The_app_of_these_tests_shows_what_the_standard_says(long seconds, string code) =>
        Assert.Equal(
            code,
            Totp.Code("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ", DateTimeOffset.FromUnixTimeSeconds(seconds), digits: 8)
        );

    [Fact]
    public async Task Once_it_is_on_the_password_alone_opens_nothing_and_a_code_is_good_once()
    {
        await using var mortar = await TestMortar.Start();
        using var elsewhere = await mortar.As(DemoPeople.Ines);
        using var ines = await mortar.As(DemoPeople.Ines);
        var key = await Key(ines);

        (await On(ines, key, "000000", DemoPeople.Password)).IsProblem(422, "unfit");
        (await On(ines, key, Now(key), "not hers at all")).IsProblem(422, "unfit");
        (await On(ines, "not a key", Now(key), DemoPeople.Password)).IsProblem(422, "unfit");
        Assert.False(await IsOn(ines)); // nothing of it was kept
        var first = Now(key);
        var codes = (await On(ines, key, first, DemoPeople.Password)).Is(200).Body.GetProperty("codes");
        Assert.Equal(10, codes.GetArrayLength());
        Assert.True(await IsOn(ines));
        (await elsewhere.Get("/api/groups")).IsProblem(401, "signed-out");
        Assert.NotNull(await mortar.MailWith(Ines, "takes a code of an authenticator app"));
        (await On(ines, key, Now(key), DemoPeople.Password)).IsProblem(409, "is-on");

        using var other = mortar.Anonymous();
        (await other.Post("/api/session/second", new { code = Now(key) })).IsProblem(401, "wrong-sign-in"); // no password yet
        (await SignIn(other, "not hers at all")).IsProblem(401, "wrong-sign-in");
        (await SignIn(other)).IsProblem(401, "second-factor");
        (await other.Get("/api/groups")).IsProblem(401, "signed-out");
        (await other.Post("/api/session/second", new { code = "12" })).IsProblem(422, "unfit");
        (await other.Post("/api/session/second", new { code = first })).IsProblem(422, "unfit"); // used when it was switched on
        var second = Next(key);
        (await other.Post("/api/session/second", new { code = second })).Is(204);
        (await other.Get("/api/groups")).Is(200);

        using var again = mortar.Anonymous();
        (await SignIn(again)).IsProblem(401, "second-factor");
        (await again.Post("/api/session/second", new { code = second })).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task A_recovery_code_opens_once_and_new_ones_end_those_from_before()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var key = await Key(ines);
        (await ines.Post("/api/second-factor/codes", new { password = DemoPeople.Password })).IsProblem(
            404,
            "not-there"
        );
        var codes = await Codes(await On(ines, key, Now(key), DemoPeople.Password));

        using var lost = mortar.Anonymous();
        (await SignIn(lost)).IsProblem(401, "second-factor");
        (await lost.Post("/api/session/second", new { code = $" {codes[0].ToLowerInvariant()} " })).Is(204);
        Assert.Equal(
            9,
            (await lost.Get("/api/second-factor")).Is(200).Body.GetProperty("recoveryCodesLeft").GetInt32()
        );
        using var twice = mortar.Anonymous();
        (await SignIn(twice)).IsProblem(401, "second-factor");
        (await twice.Post("/api/session/second", new { code = codes[0] })).IsProblem(422, "unfit");

        (await lost.Post("/api/second-factor/codes", new { password = "not hers at all" })).IsProblem(422, "unfit");
        var fresh = await Codes(await lost.Post("/api/second-factor/codes", new { password = DemoPeople.Password }));
        (await twice.Post("/api/session/second", new { code = codes[1] })).IsProblem(422, "unfit");
        (await twice.Post("/api/session/second", new { code = fresh[1] })).Is(204);
    }

    [Fact]
    public async Task It_is_switched_off_with_the_password_and_what_was_of_it_leads_nowhere()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var key = await Key(ines);
        await Codes(await On(ines, key, Now(key), DemoPeople.Password));

        (await ines.Post("/api/second-factor/off", new { password = "not hers at all" })).IsProblem(422, "unfit");
        (await ines.Post("/api/second-factor/off", new { password = DemoPeople.Password })).Is(204);

        Assert.Equal("""{"isOn":false,"recoveryCodesLeft":0}""", (await ines.Get("/api/second-factor")).Is(200).Text);
        using var other = mortar.Anonymous();
        (await SignIn(other)).Is(204);
    }

    [Fact]
    public async Task Whoever_guesses_codes_is_slowed_down()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var key = await Key(ines);
        await Codes(await On(ines, key, Now(key), DemoPeople.Password));
        using var thief = mortar.Anonymous();
        (await SignIn(thief)).IsProblem(401, "second-factor");

        for (var guess = 0; guess < 5; guess++)
        {
            (await thief.Post("/api/session/second", new { code = $"99999{guess}x" })).IsProblem(422, "unfit");
        }

        (await thief.Post("/api/session/second", new { code = Next(key) })).IsProblem(429, "too-often");
    }

    [Fact]
    public void A_code_is_read_as_people_type_it_and_the_last_ones_are_remembered()
    {
        Assert.Equal("123456", SecondFactorRules.Read(" 123 456 "));
        Assert.Equal("WHRKR-2G9V6", SecondFactorRules.Read("whrkr-2g9v6"));
        Assert.False(SecondFactorRules.IsOfApp("12345"));
        Assert.False(SecondFactorRules.IsOfApp("１２３４５６")); // other digits than ASCII's
        Assert.Null(SecondFactorRules.Accept("111111 222222", "111111"));
        Assert.Equal("111111 222222", SecondFactorRules.Accept("111111", "222222"));
        Assert.Equal(
            SecondFactorRules.Remembered,
            SecondFactorRules.Accept(string.Join(' ', Enumerable.Range(0, 20)), "x")!.Split(' ').Length
        );
    }

    private static async Task<string> Key(Browser who) =>
        (await who.Get("/api/second-factor/key")).Is(200).Body.Text("key");

    private static string Now(string key) => Totp.Code(key, DateTimeOffset.UtcNow);

    /// <summary>That of the next half minute, which a phone whose clock is a little ahead shows already.</summary>
    private static string Next(string key) => Totp.Code(key, DateTimeOffset.UtcNow.AddSeconds(30));

    private static Task<Answer> On(Browser who, string key, string code, string password) =>
        who.Post(
            "/api/second-factor",
            new
            {
                key,
                code,
                password,
            }
        );

    private static Task<string[]> Codes(Answer answer) =>
        Task.FromResult(
            answer.Is(200).Body.GetProperty("codes").EnumerateArray().Select(one => one.GetString()!).ToArray()
        );

    private static async Task<bool> IsOn(Browser who) =>
        (await who.Get("/api/second-factor")).Is(200).Body.GetProperty("isOn").GetBoolean();

    private static Task<Answer> SignIn(Browser who, string password = DemoPeople.Password) =>
        who.Post("/api/session", new { address = Ines, password });
}
