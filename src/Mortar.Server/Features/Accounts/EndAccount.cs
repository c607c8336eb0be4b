using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.Keeping;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>/api/account: what becomes of what when one's own account goes, and having it go.</summary>
internal static class EndAccount
{
    /// <param name="ToHandOn">What somebody else has to keep first, in words; nothing where it can go.</param>
    /// <param name="Groups">Groups that nobody else is in, which go to the bin.</param>
    /// <param name="Own">Calendars of one's own time, which go to the bin.</param>
    /// <param name="Leaves">Groups that one leaves.</param>
    /// <param name="Events">How many events one put in that stay.</param>
    /// <param name="Boards">How many noticeboards one keeps that the world reads, which are paused.</param>
    internal sealed record EndingBody(
        IReadOnlyList<string> ToHandOn,
        IReadOnlyList<string> Groups,
        IReadOnlyList<string> Own,
        IReadOnlyList<string> Leaves,
        int Events,
        int Boards
    );

    /// <param name="Password">Asked for once more.</param>
    /// <param name="KeepsName">Whether one's name stays on what one wrote.</param>
    internal sealed record DeleteBody(string Password, bool KeepsName = false);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/account/ending", Read).WithName("ReadAccountEnding");
        api.MapPost("/account/delete", Delete).WithName("DeleteAccount").RequireRateLimiting(RateLimits.SignIn);
    }

    private static async Task<Ok<EndingBody>> Read(
        Acting acting,
        AccountEndCommands accounts,
        CancellationToken cancellationToken
    )
    {
        var ending = await accounts.Read(acting.Person, cancellationToken);
        return TypedResults.Ok(
            new EndingBody(
                AccountEnd.ToHandOn(ending.Groups),
                [.. ending.Groups.Where(one => one.GoesAlong).Select(one => one.Name)],
                ending.Own,
                [.. ending.Groups.Where(one => !one.GoesAlong).Select(one => one.Name)],
                ending.Events,
                ending.Boards
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        DeleteBody body,
        Acting acting,
        HttpContext context,
        OwnPassword own,
        AccountEndCommands accounts,
        SignIns signIns,
        SignInManager<Account> signIn,
        SecurityLog log,
        CancellationToken cancellationToken
    )
    {
        if (await own.WhyNot(context, acting.Person, body.Password, "password") is { } wrong)
        {
            return wrong;
        }

        var outcome = await accounts.Delete(acting.Act, body.KeepsName, cancellationToken);
        if (outcome is not Outcome<PersonRow>.Done)
        {
            return Problems.Of(outcome.WhyNot);
        }

        log.AccountDeleted(acting.Person.Value, context.Connection.RemoteIpAddress);
        await signIns.EndAll(acting.Person, but: null, CancellationToken.None);
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }
}
