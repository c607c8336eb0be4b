using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups/{groupId}/guests: people outside the group who can be named on its events and asked by mail.</summary>
internal static class Guests
{
    /// <param name="Address">Told to coordinators of the group, and to who wrote it.</param>
    /// <param name="MayRemove">Whether the reader may take them out.</param>
    internal sealed record Body(Guid PersonId, string Name, ToldAddress? Address, bool MayRemove);

    /// <param name="Text">One address, with a name or without.</param>
    internal sealed record NewBody(string Text);

    /// <param name="PersonId">Who has the address: the new guest, or somebody of the group.</param>
    internal sealed record NamedBody(Guid PersonId, string Name);

    public static void Map(RouteGroupBuilder api)
    {
        var guests = api.MapGroup("/groups/{groupId:guid}/guests");
        guests.MapGet("/", List).WithName("ListGuests");
        guests.MapPut("/{personId:guid}", Add).WithName("AddGuest");
        guests.MapDelete("/{personId:guid}", Remove).WithName("RemoveGuest");
        guests.MapPost("/{personId:guid}/claim", Claim).WithName("ClaimGuest");
    }

    private static async Task<Results<Ok<List<Body>>, ProblemHttpResult>> List(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var me = await db.PlaceIn(groupId, acting.Person).AsNoTracking().FirstOrDefaultAsync(cancellationToken);
        if (me is null)
        {
            return Problems.NotThere("group");
        }

        var found = await (
            from guest in db.Guests.AsNoTracking()
            where guest.GroupId == groupId
            join person in db.People on guest.PersonId equals person.Id
            orderby person.Name
            select new { guest, person.Name }
        ).ToListAsync(cancellationToken);
        return TypedResults.Ok(
            found.ConvertAll(one =>
            {
                var (guest, coordinates) = (one.guest, me.Coordinates);
                return new Body(
                    guest.PersonId.Value,
                    one.Name,
                    ToldAddress.OfGuest(coordinates, acting.Person, guest.AddedBy, guest.Address),
                    MemberRules.ToEndGuest(isMember: true, coordinates, acting.Person, guest.AddedBy) == Verdict.Granted
                );
            })
        );
    }

    private static Task<Results<Ok<NamedBody>, ProblemHttpResult>> Add(
        GroupId groupId,
        PersonId personId,
        NewBody body,
        Acting acting,
        GuestCommands guests,
        CancellationToken cancellationToken
    ) =>
        guests
            .Add(acting.Act, groupId, personId, body.Text, cancellationToken)
            .Answer(row => Task.FromResult(new NamedBody(row.Id.Value, row.Name)));

    private static Task<Results<NoContent, ProblemHttpResult>> Remove(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        GuestCommands guests,
        CancellationToken cancellationToken
    ) => guests.Remove(acting.Act, groupId, personId, cancellationToken).Answer();

    /// <summary>Says that one is that guest, who is known there by an address of one's own.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> Claim(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        ClaimCommands claims,
        CancellationToken cancellationToken
    ) => claims.ClaimGuest(acting.Act, groupId, personId, cancellationToken).Answer();
}
