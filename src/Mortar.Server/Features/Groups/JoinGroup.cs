using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/joining/{token}: a name in a group, claimed by its mailed link, with a new account or the one at hand.</summary>
internal static class JoinGroup
{
    /// <param name="HasAccount">Whether the address has an account, so that one signs in instead of making one. Told to who holds the link only.</param>
    internal sealed record Body(string GroupName, string Name, ToldAddress Address, bool HasAccount);

    internal sealed record AccountBody(string Name, string Password, string Zone);

    internal static void Map(RouteGroupBuilder api)
    {
        var link = api.MapGroup("/joining/{token}");
        link.MapGet("/", Read).WithName(nameof(JoinGroup)).AllowAnonymous().RequireRateLimiting(RateLimits.Reading);
        link.MapPost("/account", MakeAccount)
            .WithName("JoinWithNewAccount")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
        link.MapPost("/", Claim).WithName("JoinAsMyself").RequireRateLimiting(RateLimits.Reading);
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        string token,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (await ClaimCommands.ByToken(db, token, cancellationToken) is not { Address: { } address } member)
        {
            return Problems.NotThere("invitation");
        }

        return TypedResults.Ok(
            new Body(
                await db
                    .Groups.Where(row => row.Id == member.GroupId)
                    .Select(row => row.Name)
                    .SingleAsync(cancellationToken),
                await db
                    .People.Where(person => person.Id == member.PersonId)
                    .Select(person => person.Name)
                    .SingleAsync(cancellationToken),
                ToldAddress.OfMail(address),
                Address.TryParse(address, out var parsed)
                    && await db.PersonAt(parsed.Value, cancellationToken) is not null
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> MakeAccount(
        string token,
        AccountBody body,
        MortarDb db,
        MakeAccount accounts,
        ClaimCommands claims,
        SignInManager<Account> signIn,
        CancellationToken cancellationToken
    )
    {
        if (
            await ClaimCommands.ByToken(db, token, cancellationToken) is not { Address: { } written }
            || !Address.TryParse(written, out var address)
        )
        {
            return Problems.NotThere("invitation");
        }

        var outcome = await accounts.For(
            address.Value,
            new MakeAccount.Wish(body.Name, body.Password, body.Zone),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done made)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIn.SignInAsync(made.Value, isPersistent: true);
        return
            await claims.Claim(Act.By(new PersonId(made.Value.Id)), token, cancellationToken).Answer()
                is { Result: ProblemHttpResult problem }
            ? problem
            : TypedResults.NoContent();
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Claim(
        string token,
        Acting acting,
        ClaimCommands claims,
        CancellationToken cancellationToken
    ) => claims.Claim(acting.Act, token, cancellationToken).Answer();
}
