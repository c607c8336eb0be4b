using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Accounts;

/// <summary>/api/sign-ins: where one is signed in, and ending it there.</summary>
internal static class MySignIns
{
    /// <param name="Device">What its browser says it is; may be empty.</param>
    /// <param name="SeenAt">When it was last used, to the hour.</param>
    /// <param name="IsThis">Whether it is the one that asks.</param>
    internal sealed record Body(Guid Id, string Device, Instant StartedAt, Instant SeenAt, bool IsThis);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/sign-ins", List).WithName("ListSignIns");
        api.MapDelete("/sign-ins", EndOthers).WithName("EndOtherSignIns");
        api.MapDelete("/sign-ins/{signInId:guid}", End).WithName("EndSignIn");
    }

    private static async Task<Ok<List<Body>>> List(
        HttpContext context,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var (now, mine) = (db.Now, SignIns.IdOf(context.User));
        return TypedResults.Ok(
            await db
                .SignIns.AsNoTracking()
                .Where(row => row.PersonId == acting.Person && row.EndedAt == null && row.EndsAt > now)
                .OrderByDescending(row => row.SeenAt)
                .Select(row => new Body(row.Id, row.Device, row.StartedAt, row.SeenAt, row.Id == mine))
                .ToListAsync(cancellationToken)
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(
        Guid signInId,
        Acting acting,
        SignIns signIns,
        CancellationToken cancellationToken
    ) =>
        await signIns.EndOne(acting.Person, signInId, cancellationToken)
            ? TypedResults.NoContent()
            : Problems.NotThere("sign-in");

    private static async Task<NoContent> EndOthers(
        HttpContext context,
        Acting acting,
        SignIns signIns,
        CancellationToken cancellationToken
    )
    {
        await signIns.EndAll(acting.Person, SignIns.IdOf(context.User), cancellationToken);
        return TypedResults.NoContent();
    }
}
