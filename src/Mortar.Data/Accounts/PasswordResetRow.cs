using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Data.Accounts;

/// <summary>That a new password was asked for by mail. There is a row whether the address leads to an account or not.</summary>
public sealed class PasswordResetRow
{
    public required Guid Id { get; init; }

    /// <summary>Whose; <c>null</c> where the address leads to nobody with an account.</summary>
    public PersonId? PersonId { get; init; }

    /// <summary>The SHA-256 of the address, by which its mails are counted.</summary>
    public required string AddressHash { get; init; }

    /// <summary>The hash of the secret in the link; nothing opens with that of nobody.</summary>
    public required string Hash { get; init; }

    public required Instant AskedAt { get; init; }

    /// <summary>When it was used, or ended by another one that was; <c>null</c> while it was not.</summary>
    public Instant? UsedAt { get; set; }
}

internal sealed class PasswordResetConfiguration : IEntityTypeConfiguration<PasswordResetRow>
{
    public void Configure(EntityTypeBuilder<PasswordResetRow> builder)
    {
        builder.ToTable("PasswordResets");
        builder.HasIndex(row => row.Hash).IsUnique();
        builder.HasIndex(row => new { row.AddressHash, row.AskedAt });
        builder.HasIndex(row => row.PersonId).HasFilter("PersonId IS NOT NULL");
        builder.HasIndex(row => row.AskedAt);
    }
}
