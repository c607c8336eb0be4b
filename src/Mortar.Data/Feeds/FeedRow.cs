using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Feeds;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Feeds;

/// <summary>An address at which other calendar programs read what somebody sees. An ended one stays as such.</summary>
public sealed class FeedRow
{
    public required Guid Id { get; init; }

    public required PersonId Owner { get; init; }

    public required FeedOf Of { get; init; }

    public CalendarId? CalendarId { get; init; }

    public Guid? SetId { get; init; }

    public required Role Role { get; set; }

    /// <summary>The hash of its secret.</summary>
    public required string Hash { get; set; }

    public required Instant MadeAt { get; init; }

    /// <summary>When it was last read, to the hour; <c>null</c> for never.</summary>
    public Instant? ReadAt { get; set; }

    public Instant? EndedAt { get; set; }

    public Feed ToCore() => new(Of, CalendarId, SetId, Role);
}

internal sealed class FeedConfiguration : IEntityTypeConfiguration<FeedRow>
{
    public void Configure(EntityTypeBuilder<FeedRow> builder)
    {
        builder.ToTable("Feeds");
        builder.Property(feed => feed.Of).HasConversion<string>();
        builder.HasIndex(feed => feed.Hash).IsUnique().HasDatabaseName("UX_Feeds_Hash");
        builder.HasIndex(feed => feed.Owner);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(feed => feed.Owner);
        builder
            .HasOne<CalendarRow>()
            .WithMany()
            .HasForeignKey(feed => feed.CalendarId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.HasOne<SetRow>().WithMany().HasForeignKey(feed => feed.SetId).OnDelete(DeleteBehavior.Cascade);
    }
}
