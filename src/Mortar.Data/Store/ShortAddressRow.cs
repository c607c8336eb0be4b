using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>What can be reached by a short address.</summary>
internal interface IAddressed
{
    /// <summary>Which sort of thing: the letter before the name in the address.</summary>
    string Space { get; }

    /// <summary>The id of the thing.</summary>
    Guid AddressedId { get; }

    /// <summary>The name by which it is reached; <c>null</c> for none, or while it is not there.</summary>
    string? Leads { get; }
}

/// <summary>
/// That a short address leads somewhere: an index of the rows that have one, kept by <see cref="MortarDb"/> in the save that
/// changes them. It holds what was given up for a while, so that nobody else takes over what is still printed somewhere.
/// </summary>
public sealed class ShortAddressRow
{
    public required string Space { get; init; }

    /// <summary>What the name looks like (<see cref="ShortAddress.Look"/>), which is taken once.</summary>
    public required string Look { get; init; }

    public required string Name { get; set; }

    /// <summary>Where it leads.</summary>
    public required Guid OwnerId { get; set; }

    /// <summary>Until when it is held though it was given up; <c>null</c> while it is in use.</summary>
    public Instant? HeldUntil { get; set; }
}

internal sealed class ShortAddressConfiguration : IEntityTypeConfiguration<ShortAddressRow>
{
    public void Configure(EntityTypeBuilder<ShortAddressRow> builder)
    {
        builder.ToTable("ShortAddresses");
        builder.HasKey(row => new { row.Space, row.Look });
        builder.HasIndex(row => row.OwnerId);
    }
}

/// <summary>Finds and keeps short addresses.</summary>
public static class ShortAddressQueries
{
    /// <summary>What has that address, or had it not long ago; <c>null</c> for nothing. A name is only found as it is written, not by its looks.</summary>
    public static Task<ShortAddressRow?> Addressed(
        this MortarDb db,
        string space,
        string name,
        CancellationToken cancellationToken
    )
    {
        var (look, now) = (ShortAddress.Look(name), db.Now);
        return db
            .ShortAddresses.AsNoTracking()
            .FirstOrDefaultAsync(
                row =>
                    row.Space == space
                    && row.Look == look
                    && row.Name == name
                    && (row.HeldUntil == null || row.HeldUntil > now),
                cancellationToken
            );
    }

    /// <summary>Which of some names are somebody else's, by their looks.</summary>
    public static async Task<IReadOnlySet<string>> TakenAmong(
        this MortarDb db,
        string space,
        IReadOnlyCollection<string> names,
        Guid owner,
        CancellationToken cancellationToken
    )
    {
        var (looks, now) = (names.Select(ShortAddress.Look).ToList(), db.Now);
        var taken = await db
            .ShortAddresses.Where(row =>
                row.Space == space
                && looks.Contains(row.Look)
                && row.OwnerId != owner
                && (row.HeldUntil == null || row.HeldUntil > now)
            )
            .Select(row => row.Look)
            .ToListAsync(cancellationToken);
        return names.Where(name => taken.Contains(ShortAddress.Look(name))).ToHashSet(StringComparer.Ordinal);
    }

    /// <summary>Has a thing's address lead to it, and holds the one it had before.</summary>
    internal static async Task Lead(
        this MortarDb db,
        IAddressed thing,
        string? before,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (thing.Leads == before)
        {
            return;
        }

        if (before is not null && await Find(before) is { } old && old.OwnerId == thing.AddressedId)
        {
            old.HeldUntil = now + NoticeboardRules.OldAddressesLead;
            var oldest = await db
                .ShortAddresses.Where(row =>
                    row.OwnerId == thing.AddressedId && row.HeldUntil != null && row.Look != old.Look
                )
                .OrderByDescending(row => row.HeldUntil)
                .Skip(NoticeboardRules.MostOldAddresses - 1)
                .ToListAsync(cancellationToken);
            db.ShortAddresses.RemoveRange(oldest);
        }

        if (thing.Leads is not { } name)
        {
            return;
        }

        if (await Find(name) is not { } row)
        {
            db.ShortAddresses.Add(
                new ShortAddressRow
                {
                    Space = thing.Space,
                    Look = ShortAddress.Look(name),
                    Name = name,
                    OwnerId = thing.AddressedId,
                }
            );
        }
        else if (row.OwnerId == thing.AddressedId || row.HeldUntil <= now)
        {
            (row.Name, row.OwnerId, row.HeldUntil) = (name, thing.AddressedId, null);
        }
        else
        {
            throw new AddressTakenException();
        }

        ValueTask<ShortAddressRow?> Find(string called) =>
            db.ShortAddresses.FindAsync([thing.Space, ShortAddress.Look(called)], cancellationToken);
    }
}

/// <summary>An address was taken while something that had it was away. Whoever brings it back is told; nothing is written.</summary>
public sealed class AddressTakenException : Exception
{
    /// <inheritdoc />
    public AddressTakenException()
        : this("A short address is somebody else's now.") { }

    /// <inheritdoc />
    public AddressTakenException(string message)
        : base(message) { }

    /// <inheritdoc />
    public AddressTakenException(string message, Exception inner)
        : base(message, inner) { }
}
