using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>POST /api/groups/{id}/people: how a pasted list is understood, before anybody is added.</summary>
internal static class ReadPeople
{
    internal sealed record Body(string Text);

    /// <param name="Text">What it was read from.</param>
    /// <param name="Name">The name; of somebody known, the one they gave themselves.</param>
    /// <param name="Doubt">What is doubtful; <c>null</c> where nothing is.</param>
    internal sealed record EntryBody(string Text, string Name, ToldAddress? Address, ListedFate Fate, string? Doubt);

    internal static void Map(RouteGroupBuilder api) =>
        api.MapPost("/groups/{groupId:guid}/people", Handle).WithName(nameof(ReadPeople));

    private static async Task<Results<Ok<List<EntryBody>>, ProblemHttpResult>> Handle(
        GroupId groupId,
        Body body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var me = await db.PlaceIn(groupId, acting.Person).AsNoTracking().FirstOrDefaultAsync(cancellationToken);
        if (MemberRules.ToKeep(me is not null, me?.Coordinates == true) is var verdict and not Verdict.Granted)
        {
            return verdict == Verdict.Hidden
                ? Problems.NotThere("group")
                : Problems.Of(
                    StatusCodes.Status403Forbidden,
                    "not-allowed",
                    "That is for those who coordinate the group."
                );
        }

        var familiar = await db.AddressedTo(acting.Person)
            .Where(person => person.Address != null)
            .Select(person => person.Address!)
            .ToListAsync(cancellationToken);
        var entries = PeopleList.Read(body.Text, [.. familiar.Select(PeopleList.DomainOf).Distinct()]);
        var newcomers = await Newcomers.Read(
            db,
            acting.Person,
            groupId,
            [],
            [.. entries.Select(entry => entry.Address).OfType<Address>()],
            cancellationToken
        );
        return TypedResults.Ok(
            entries
                .Select(entry => new EntryBody(
                    entry.Text,
                    newcomers.Known(id: null, entry.Address)?.Name ?? entry.Name,
                    ToldAddress.AsWritten(entry.Address?.Value),
                    PeopleList.FateOf(entry, newcomers.Of(id: null, entry.Address)),
                    entry.Doubt
                ))
                .ToList()
        );
    }
}
