using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Proposals;

/// <summary>/api/suits/{secret}: which of several times suit, asked by mail and said without an account.</summary>
internal static class SuitsByMail
{
    /// <param name="Zone">The zone the times are in: that of who is asked.</param>
    /// <param name="Over">Why there is nothing to say any more; <c>null</c> while there is.</param>
    internal sealed record Body(ProposalsSetup.AskedBody Asked, string Zone, string? Over);

    internal static void Map(RouteGroupBuilder api)
    {
        var link = api.MapGroup("/suits/{secret}").RequireRateLimiting(RateLimits.Reading).AllowAnonymous();
        link.MapGet("/", Read).WithName("ReadProposal");
        link.MapPut("/", Say).WithName("SayWhichSuitsByMail");
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        string secret,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await db.ProposalBy(secret, cancellationToken) is not { } one)
        {
            return Problems.NotThere("question");
        }

        var zone = await db.ZoneOf(one.Whose, zones, cancellationToken);
        var name = (await db.People.FindAsync([one.Whose], cancellationToken))!.Name;

        // How they stand to the times by their calendars is not told: a mail can be passed on.
        return TypedResults.Ok(
            new Body(
                ProposalsSetup.Of(one, name, zone, new Dictionary<Instant, Presence>()),
                zone.Id,
                one.Row.ToCore().TooLate
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Say(
        string secret,
        ProposalsSetup.SuitsBody body,
        MortarDb db,
        ProposalCommands proposals,
        CancellationToken cancellationToken
    ) =>
        await db.ProposalBy(secret, cancellationToken) is { } one
            ? await proposals
                .Say(Act.By(one.Whose), one.Row.Id, one.Whose, ProposalsSetup.Wish(body), cancellationToken)
                .Answer()
            : Problems.NotThere("question");
}
