using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Accounts;

/// <summary>A further address of somebody with an account. It leads to them once they have shown that its mail reaches them.</summary>
public sealed class AddressRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required PersonId PersonId { get; init; }

    /// <summary>As <see cref="Core.Words.Address"/> writes it.</summary>
    public required string Address { get; init; }

    /// <summary>The hash of the secret in the mail that asks for it; <c>null</c> once it is confirmed.</summary>
    public string? Hash { get; set; }

    public required Instant AskedAt { get; set; }

    public Instant? ConfirmedAt { get; set; }
}

internal sealed class AddressConfiguration : IEntityTypeConfiguration<AddressRow>
{
    public void Configure(EntityTypeBuilder<AddressRow> builder)
    {
        builder.ToTable("Addresses");
        builder
            .HasIndex(row => row.Address)
            .IsUnique()
            .HasFilter("ConfirmedAt IS NOT NULL")
            .HasDatabaseName("UX_Addresses_Confirmed");
        builder
            .HasIndex(row => new { row.PersonId, row.Address })
            .IsUnique()
            .HasDatabaseName("UX_Addresses_PersonAddress");
        builder.HasIndex(row => row.Hash).IsUnique().HasDatabaseName("UX_Addresses_Hash");
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}
