using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Devices;

/// <summary>A calendar program that reads and writes for somebody with a key of its own. An ended one stays as such.</summary>
public sealed class DeviceRow
{
    /// <summary>The longest description of a program that is kept, in UTF-16 units.</summary>
    public const int LongestProgram = 160;

    public required Guid Id { get; init; }

    public required PersonId Owner { get; init; }

    public required string Name { get; set; }

    public required Role Role { get; init; }

    /// <summary>The hash of its key.</summary>
    public required string Hash { get; init; }

    public required Instant MadeAt { get; init; }

    /// <summary>When its key was last used, to the hour; <c>null</c> for never.</summary>
    public Instant? SeenAt { get; set; }

    /// <summary>What the program that used it then says it is; empty where it says nothing.</summary>
    public string Program { get; set; } = string.Empty;

    public Instant? EndedAt { get; set; }

    public Device ToCore() => new(Name, Role);
}

internal sealed class DeviceConfiguration : IEntityTypeConfiguration<DeviceRow>
{
    public void Configure(EntityTypeBuilder<DeviceRow> builder)
    {
        builder.ToTable("Devices");
        builder.HasIndex(device => device.Hash).IsUnique().HasDatabaseName("UX_Devices_Hash");
        builder.HasIndex(device => device.Owner);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(device => device.Owner);
    }
}
