using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Links;

/// <summary>POST /api/links/{secret}/account: whoever opens a link at Add or more makes an account there, and has its calendar.</summary>
internal static class AccountAtLink
{
    internal sealed record Body(string Name, string Address, string Password, string Zone);

    internal static void Map(RouteGroupBuilder link) =>
        link.MapPost("/account", Handle)
            .WithName("MakeAccountAtLink")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);

    private static async Task<Results<NoContent, ProblemHttpResult>> Handle(
        string secret,
        Body body,
        MakeAccount accounts,
        SignInManager<Account> signIn,
        CancellationToken cancellationToken
    )
    {
        var outcome = await accounts.AtLink(
            secret,
            body.Address,
            new MakeAccount.Wish(body.Name, body.Password, body.Zone),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done made)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIn.SignInAsync(made.Value, isPersistent: true);
        return TypedResults.NoContent();
    }
}
