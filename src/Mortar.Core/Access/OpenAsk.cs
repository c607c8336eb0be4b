using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>Who a request that names no calendar is to.</summary>
/// <param name="Person">One person; <c>null</c> where it is to a group.</param>
/// <param name="Group">Those who coordinate a group; <c>null</c> where it is to a person.</param>
public sealed record AskedParty(PersonId? Person, GroupId? Group);

/// <summary>What is found of whoever asks names.</summary>
/// <param name="AtAddress">Whom mail to it reaches; <c>null</c> where it is no address, or nobody's.</param>
/// <param name="Known">Those who are called so, of the people one shares a group with.</param>
/// <param name="Groups">The groups that are called so, whoever is in them.</param>
public sealed record Namesakes(PersonId? AtAddress, IReadOnlyList<PersonId> Known, IReadOnlyList<GroupId> Groups);

/// <summary>Requests to a person or a group for a calendar of theirs, by name or address.</summary>
public static class OpenAsk
{
    /// <summary>
    /// Whom a name means: an address is one person; a name that of somebody known, else every group that is called so.
    /// Nobody is no mistake: that nobody is called so is not told, nor which groups there are. Only of people one shares a
    /// group with it is said that two have the name.
    /// </summary>
    /// <param name="actor">Who asks.</param>
    /// <param name="name">What they wrote, on one line.</param>
    /// <param name="found">What is found of it.</param>
    public static Checked<IReadOnlyList<AskedParty>> Means(PersonId actor, string name, Namesakes found)
    {
        if (name.Length == 0)
        {
            return new([], [new FieldProblem("to", "Say whom you ask: an address, or the name of a person or group.")]);
        }

        var known = found.Known.Where(person => person != actor).ToList();
        if (known.Count > 1)
        {
            return new(
                [],
                [new FieldProblem("to", $"{known.Count} people you know are called so. Use the address instead.")]
            );
        }

        return new(
            Address.TryParse(name, out _)
                ? (found.AtAddress is { } person && person != actor ? [new(person, null)] : [])
            : known.Count == 1 ? [new(known[0], null)]
            : [.. found.Groups.Select(group => new AskedParty(null, group))]
        );
    }
}
