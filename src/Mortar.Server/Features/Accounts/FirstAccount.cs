using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>The code that whoever started Mortar reads on the console and makes the first account with. Good once, and only while there is no account.</summary>
internal sealed class FirstAccountCode
{
    /// <summary>Without letters and digits that are taken for one another.</summary>
    private const string Letters = "ABCDEFGHJKMNPQRSTUVWXYZ23456789";

    public string Value { get; } =
        $"{RandomNumberGenerator.GetString(Letters, 4)}-{RandomNumberGenerator.GetString(Letters, 4)}";

    public bool Matches(string? given) =>
        CryptographicOperations.FixedTimeEquals(
            Encoding.UTF8.GetBytes(Value),
            Encoding.UTF8.GetBytes((given ?? string.Empty).Trim().ToUpperInvariant())
        );
}

/// <summary>POST /api/first-account: makes the first account of a new Mortar and signs it in.</summary>
internal static class FirstAccount
{
    internal sealed record Body(string Code, string Name, string Address, string Password, string Zone);

    internal static void Map(RouteGroupBuilder api) =>
        api.MapPost("/first-account", Handle)
            .WithName(nameof(FirstAccount))
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);

    private static async Task<Results<NoContent, ProblemHttpResult>> Handle(
        Body body,
        FirstAccountCode code,
        MortarDb db,
        MakeAccount accounts,
        SignInManager<Account> signIn,
        CancellationToken cancellationToken
    )
    {
        if (await db.Users.AnyAsync(cancellationToken))
        {
            return Problems.NotThere("page");
        }

        if (!code.Matches(body.Code))
        {
            return Problems.Unfit([
                new FieldProblem(
                    "code",
                    "That is not the code on the console. It is printed each time Mortar starts without an account."
                ),
            ]);
        }

        if (!Address.TryParse(body.Address, out var address))
        {
            return Problems.Unfit([
                new FieldProblem("address", "That is not a mail address. It should look like name@example.org."),
            ]);
        }

        var outcome = await accounts.For(
            address.Value,
            new MakeAccount.Wish(body.Name, body.Password, body.Zone),
            cancellationToken,
            onlyAsFirst: true
        );
        if (outcome is not Outcome<Account>.Done made)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIn.SignInAsync(made.Value, isPersistent: true);
        return TypedResults.NoContent();
    }
}
