using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using NodaTime;

namespace Mortar.Data.WebCalendars;

/// <summary>An address that is fetched, once for all calendars that come from it.</summary>
public sealed class WebSourceRow
{
    public required Guid Id { get; init; }

    /// <summary>The whole address, which may hold a secret.</summary>
    public required string Address { get; init; }

    /// <summary>What its host calls the version that was fetched last (ETag); <c>null</c> where it does not.</summary>
    public string? ETag { get; set; }

    /// <summary>When that was changed, as its host says it (Last-Modified).</summary>
    public string? LastModified { get; set; }

    /// <summary>The SHA-256 of what was fetched last; <c>null</c> while nothing was.</summary>
    public string? Digest { get; set; }

    /// <summary>When it was last known to be so.</summary>
    public Instant? AsOf { get; set; }

    /// <summary>When it is fetched again.</summary>
    public required Instant DueAt { get; set; }

    /// <summary>Until when it is left alone, since so much in it was another; <c>null</c> where it never was.</summary>
    public Instant? RestsUntil { get; set; }

    /// <summary>When it was last asked for.</summary>
    public Instant? TriedAt { get; set; }

    /// <summary>How many minutes are between two times where all is well.</summary>
    public int EveryMinutes { get; set; }

    /// <summary>How many times in a row it could not be fetched.</summary>
    public int Failures { get; set; }

    /// <summary>Since when it cannot be; <c>null</c> where it can.</summary>
    public Instant? FailingSince { get; set; }

    /// <summary>Why not, in words.</summary>
    public string? Problem { get; set; }
}

/// <summary>What was fetched last, packed: whoever adds the same address has it at once.</summary>
public sealed class WebFileRow
{
    public required Guid SourceId { get; init; }

    /// <summary>The file, packed (RFC 7932).</summary>
    public required byte[] Packed { get; set; }
}

/// <summary>A calendar whose events come from an address.</summary>
public sealed class WebCalendarRow
{
    public required CalendarId CalendarId { get; init; }

    public required Guid SourceId { get; set; }

    /// <summary>The digest of the file that is in it; <c>null</c> while none is.</summary>
    public string? Applied { get; set; }
}

internal sealed class WebSourceConfiguration : IEntityTypeConfiguration<WebSourceRow>
{
    public void Configure(EntityTypeBuilder<WebSourceRow> builder)
    {
        builder.ToTable("WebSources");
        builder.HasIndex(source => source.Address).IsUnique().HasDatabaseName("UX_WebSources_Address");
        builder.HasIndex(source => source.DueAt);
    }
}

internal sealed class WebFileConfiguration : IEntityTypeConfiguration<WebFileRow>
{
    public void Configure(EntityTypeBuilder<WebFileRow> builder)
    {
        builder.ToTable("WebFiles");
        builder.HasKey(file => file.SourceId);
        builder.HasOne<WebSourceRow>().WithMany().HasForeignKey(file => file.SourceId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class WebCalendarConfiguration : IEntityTypeConfiguration<WebCalendarRow>
{
    public void Configure(EntityTypeBuilder<WebCalendarRow> builder)
    {
        builder.ToTable("WebCalendars");
        builder.HasKey(calendar => calendar.CalendarId);
        builder.HasIndex(calendar => calendar.SourceId);
        builder
            .HasOne<CalendarRow>()
            .WithMany()
            .HasForeignKey(calendar => calendar.CalendarId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.HasOne<WebSourceRow>().WithMany().HasForeignKey(calendar => calendar.SourceId);
    }
}
