using Microsoft.EntityFrameworkCore;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Shelf;

/// <summary>What somebody wants with a set of layers.</summary>
/// <param name="Group">The group that is to have it too; <c>null</c> for oneself alone.</param>
public sealed record SetWish(string Name, GroupId? Group, IReadOnlyList<SetLayer> Layers);

/// <summary>Keeps named choices of layers: whose they are changes them, and nobody else.</summary>
public sealed class SetCommands(MortarDb db)
{
    /// <summary>Makes a set or changes it.</summary>
    public async Task<Outcome<int>> Put(PersonId owner, Guid id, SetWish wish, CancellationToken cancellationToken)
    {
        var set = LayerSet.Check(
            new LayerSet(wish.Name, [.. wish.Layers.Select(layer => new CalendarId(layer.CalendarId))])
        );
        if (set.WhyNot is { } unfit)
        {
            return unfit;
        }

        if (
            wish.Group is { } group
            && !await db.Members.AnyAsync(
                member => member.PersonId == owner && member.GroupId == group,
                cancellationToken
            )
        )
        {
            return new Refusal.NotThere("group");
        }

        Refusal? refusal = null;
        await db.WriteUnlogged(
            async () =>
            {
                var row = await db.Sets.FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                if (row is not null && row.Owner != owner)
                {
                    refusal = new Refusal.NotThere("set");
                    return;
                }

                if (row is null)
                {
                    row = new SetRow
                    {
                        Id = id,
                        Owner = owner,
                        Name = set.Value.Name,
                        Layers = string.Empty,
                    };
                    db.Sets.Add(row);
                }

                (row.Name, row.GroupId) = (set.Value.Name, wish.Group);
                row.Apply(wish.Layers.DistinctBy(layer => layer.CalendarId));
            },
            cancellationToken
        );
        return refusal is { } why ? why : 1;
    }

    /// <summary>Takes a set away.</summary>
    public async Task<Outcome<int>> Delete(PersonId owner, Guid id, CancellationToken cancellationToken)
    {
        Refusal? refusal = null;
        await db.WriteUnlogged(
            async () =>
            {
                if (
                    await db.Sets.FirstOrDefaultAsync(one => one.Id == id && one.Owner == owner, cancellationToken) is
                    { } row
                )
                {
                    db.Sets.Remove(row);
                }
                else
                {
                    refusal = new Refusal.NotThere("set");
                }
            },
            cancellationToken
        );
        return refusal is { } why ? why : 1;
    }
}
