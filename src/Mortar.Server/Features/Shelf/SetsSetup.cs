using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Shelf;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Shelf;

/// <summary>/api/sets: named choices of layers, one's own and those given to one's groups.</summary>
internal static class SetsSetup
{
    /// <param name="GroupId">The group that has it too; <c>null</c> for oneself alone.</param>
    /// <param name="Layers">Of these, only calendars that the reader reaches are told.</param>
    /// <param name="Mine">Whether one may change it.</param>
    internal sealed record Body(Guid Id, string Name, Guid? GroupId, IReadOnlyList<SetLayer> Layers, bool Mine);

    internal sealed record WishBody(string Name, Guid? GroupId, IReadOnlyList<SetLayer> Layers);

    public static void MapSets(this RouteGroupBuilder api)
    {
        api.MapGet("/sets", List).WithName("ListSets");
        api.MapPut("/sets/{setId:guid}", Put).WithName("PutSet");
        api.MapDelete("/sets/{setId:guid}", Delete).WithName("DeleteSet");
    }

    private static async Task<Ok<List<Body>>> List(Acting acting, MortarDb db, CancellationToken cancellationToken)
    {
        var groups = GroupsOf(db, acting.Person);
        var standings = await db.StandingsOf(acting.Person, cancellationToken);
        var rows = await db
            .Sets.AsNoTracking()
            .Where(set => set.Owner == acting.Person || (set.GroupId != null && groups.Contains(set.GroupId.Value)))
            .OrderBy(set => set.Name)
            .ToListAsync(cancellationToken);
        return TypedResults.Ok(
            rows.ConvertAll(row => new Body(
                row.Id,
                row.Name,
                row.GroupId?.Value,
                [.. row.ToLayers().Where(layer => standings.ContainsKey(new CalendarId(layer.CalendarId)))],
                row.Owner == acting.Person
            ))
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Put(
        Guid setId,
        WishBody body,
        Acting acting,
        SetCommands sets,
        CancellationToken cancellationToken
    ) =>
        sets.Put(
                acting.Person,
                setId,
                new SetWish(body.Name, body.GroupId is { } group ? new GroupId(group) : null, body.Layers),
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid setId,
        Acting acting,
        SetCommands sets,
        CancellationToken cancellationToken
    ) => sets.Delete(acting.Person, setId, cancellationToken).Answer();

    private static IQueryable<GroupId> GroupsOf(MortarDb db, PersonId person) =>
        db.Members.Where(member => member.PersonId == person).Select(member => member.GroupId);
}
