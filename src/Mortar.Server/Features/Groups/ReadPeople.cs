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
    internal sealed record EntryBody(string Text, string Name, string? Address, ListedFate Fate, string? Doubt);

    internal static void Map(RouteGroupBuilder api) =>
        api.MapPost("/groups/{groupId:guid}/people", Handle).WithName(nameof(ReadPeople));

    private static async Task<Results<Ok<List<EntryBody>>, ProblemHttpResult>> Handle(
        Guid groupId,
        Body body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var id = new GroupId(groupId);
        var me = await db.Members.FirstOrDefaultAsync(
            member => member.GroupId == id && member.PersonId == acting.Person,
            cancellationToken
        );
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

        var known = await db.AddressedTo(acting.Person)
            .Where(person => person.Address != null)
            .ToDictionaryAsync(person => person.Address!, cancellationToken);
        var inGroup = await (
            from member in db.Members
            where member.GroupId == id
            join person in db.People on member.PersonId equals person.Id
            select person.Address ?? member.Address
        ).ToListAsync(cancellationToken);
        var waiting = await db.MembershipsWaiting(id).Select(row => row.PersonId).ToHashSetAsync(cancellationToken);
        var asked = known.Where(one => waiting.Contains(one.Value.Id)).Select(one => one.Key).ToHashSet();
        var taken = inGroup.OfType<string>().ToHashSet(StringComparer.Ordinal);
        var familiar = known.Keys.Select(address => address[(address.IndexOf('@', StringComparison.Ordinal) + 1)..]);
        return TypedResults.Ok(
            PeopleList
                .Read(body.Text, [.. familiar.Distinct()])
                .Select(entry => new EntryBody(
                    entry.Text,
                    entry.Address is { } one && known.TryGetValue(one.Value, out var person) ? person.Name : entry.Name,
                    entry.Address?.Value,
                    PeopleList.FateOf(entry, taken, known.Keys, asked),
                    entry.Doubt
                ))
                .ToList()
        );
    }
}
