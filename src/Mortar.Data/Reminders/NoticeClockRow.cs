using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>Up to where the log was looked through for what has to be told by mail.</summary>
public sealed class NoticeClockRow
{
    public const int Only = 1;

    public int Id { get; init; } = Only;

    /// <summary>The sequence of the last change that was looked at.</summary>
    public required long UpTo { get; set; }

    /// <summary>Up to when it was looked which access had ended by its date.</summary>
    public required Instant EndsUpTo { get; set; }
}

internal sealed class NoticeClockConfiguration : IEntityTypeConfiguration<NoticeClockRow>
{
    public void Configure(EntityTypeBuilder<NoticeClockRow> builder) => builder.ToTable("NoticeClock");
}
