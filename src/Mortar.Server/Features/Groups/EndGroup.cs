using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>Ending a group: POST /api/groups/{id}/rest and /wake; DELETE puts it in the bin; GET /ending says what that would take along.</summary>
internal static class EndGroup
{
    /// <param name="Rest">The calendars that go from the walls where it is put to rest; those that are not seen as a number.</param>
    /// <param name="Stay">Those that stay then, since they are of one person's time.</param>
    /// <param name="WhyNotBin">Why it cannot go to the bin, where others coordinate calendars of it; <c>null</c> where it can.</param>
    /// <param name="Members">How many are in it.</param>
    internal sealed record EndingBody(
        IReadOnlyList<string> Rest,
        IReadOnlyList<string> Stay,
        string? WhyNotBin,
        int Members
    );

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/groups/{groupId:guid}/ending", Read).WithName("ReadGroupEnding");
        api.MapPost("/groups/{groupId:guid}/rest", Rest).WithName("PutGroupToRest");
        api.MapPost("/groups/{groupId:guid}/wake", Wake).WithName("WakeGroup");
        api.MapDelete("/groups/{groupId:guid}", Delete).WithName("DeleteGroup");
    }

    private static async Task<Results<Ok<EndingBody>, ProblemHttpResult>> Read(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var me = await db.PlaceIn(groupId, acting.Person).AsNoTracking().FirstOrDefaultAsync(cancellationToken);
        if (MemberRules.ToKeep(me is not null, me?.Coordinates == true).WhyNotOfGroup() is { } refusal)
        {
            return Problems.Of(refusal);
        }

        var calendars = await db.CalendarsEnding(acting.Person, groupId, cancellationToken);
        var rest = calendars.ToLookup(one => GroupEnding.TakesAlong(GroupState.AtRest, one.IsSomebodysOwn));
        return TypedResults.Ok(
            new EndingBody(
                GroupEnding.Named(rest[true]),
                GroupEnding.Named(rest[false]),
                GroupEnding.WhyNotBin(calendars)?.Sentence,
                await db.Members.CountAsync(member => member.GroupId == groupId, cancellationToken)
            )
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Rest(
        GroupId groupId,
        Acting acting,
        GroupEndCommands groups,
        CancellationToken cancellationToken
    ) => groups.Rest(acting.Act, groupId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Wake(
        GroupId groupId,
        Acting acting,
        GroupEndCommands groups,
        CancellationToken cancellationToken
    ) => groups.Wake(acting.Act, groupId, cancellationToken).Answer();

    /// <param name="name">The group's name, typed to show that this one is meant.</param>
    private static Task<Results<NoContent, ProblemHttpResult>> Delete(
        GroupId groupId,
        [FromQuery] string? name,
        Acting acting,
        GroupEndCommands groups,
        CancellationToken cancellationToken
    ) => groups.Delete(acting.Act, groupId, name, cancellationToken).Answer();
}
