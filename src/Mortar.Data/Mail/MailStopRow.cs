using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Mortar.Data.Mail;

/// <summary>An address whose owner wants no mail from here. Nothing is written to it until they say otherwise.</summary>
public sealed class MailStopRow
{
    /// <summary>As <see cref="Core.Words.Address"/> writes it.</summary>
    public required string Address { get; init; }

    public required Instant StoppedAt { get; init; }
}

internal sealed class MailStopConfiguration : IEntityTypeConfiguration<MailStopRow>
{
    public void Configure(EntityTypeBuilder<MailStopRow> builder)
    {
        builder.ToTable("MailStops");
        builder.HasKey(row => row.Address);
    }
}
