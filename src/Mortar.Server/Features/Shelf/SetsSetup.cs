using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
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

    private static async Task<Results<NoContent, ProblemHttpResult>> Put(
        Guid setId,
        WishBody body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var (wish, problems) = LayerSet.Check(
            new LayerSet(body.Name, [.. body.Layers.Select(layer => new CalendarId(layer.CalendarId))])
        );
        if (problems.Count > 0)
        {
            return Problems.Unfit(problems);
        }

        GroupId? group = body.GroupId is { } id ? new GroupId(id) : null;
        if (group is { } given && !await GroupsOf(db, acting.Person).AnyAsync(one => one == given, cancellationToken))
        {
            return Problems.NotThere("group");
        }

        var isOthers = false;
        await db.WriteUnlogged(
            async () =>
            {
                var row = await db.Sets.FirstOrDefaultAsync(set => set.Id == setId, cancellationToken);
                if (row is not null && row.Owner != acting.Person)
                {
                    isOthers = true;
                    return;
                }

                if (row is null)
                {
                    row = new SetRow
                    {
                        Id = setId,
                        Owner = acting.Person,
                        Name = wish.Name,
                        Layers = string.Empty,
                    };
                    db.Sets.Add(row);
                }

                (row.Name, row.GroupId) = (wish.Name, group);
                row.Apply(body.Layers.DistinctBy(layer => layer.CalendarId));
            },
            cancellationToken
        );
        return isOthers ? Problems.NotThere("set") : TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid setId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.Sets.FirstOrDefaultAsync(set => set.Id == setId && set.Owner == acting.Person, cancellationToken)
            is not { } row
        )
        {
            return Problems.NotThere("set");
        }

        db.Sets.Remove(row);
        await db.SaveChangesAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static IQueryable<GroupId> GroupsOf(MortarDb db, PersonId person) =>
        db.Members.Where(member => member.PersonId == person).Select(member => member.GroupId);
}
