using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>That one time of a clash is fine as it is, until one of the two changes.</summary>
public sealed class FineClashRow : IRecorded
{
    /// <summary>Made of the key, so that two who mark the same mark it once.</summary>
    public required Guid Id { get; init; }

    /// <summary>What names it (<see cref="Core.Availability.Clash.KeyOf"/>).</summary>
    public required string Key { get; init; }

    /// <summary>The calendar of the first of the two: those who see it are told.</summary>
    public required CalendarId CalendarId { get; init; }

    /// <summary>When it is over, and of no interest any more.</summary>
    public required Instant Until { get; init; }

    public Instant? EndedAt { get; set; }

    public int Version { get; set; }

    public static Guid IdOf(string key) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes(key)).AsSpan(0, 16), bigEndian: true);

    Subject IRecorded.Subject => Subject.FineClash;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => EndedAt = now;
}

internal sealed class FineClashConfiguration : IEntityTypeConfiguration<FineClashRow>
{
    public void Configure(EntityTypeBuilder<FineClashRow> builder)
    {
        builder.ToTable("FineClashes");
        builder.HasIndex(row => row.Until).HasFilter("EndedAt IS NULL");
    }
}

/// <summary>Writes what is fine.</summary>
public static class FineClashes
{
    /// <summary>Marks one time of a clash as fine; whether it may be is decided before.</summary>
    public static Task<Outcome<FineClashRow>> MarkFine(
        this MortarDb db,
        Act act,
        string key,
        CalendarId calendar,
        Instant until,
        CancellationToken cancellationToken
    ) =>
        db.Write<FineClashRow>(
            act,
            async () =>
            {
                var id = FineClashRow.IdOf(key);
                if (await db.FineClashes.FindAsync([id], cancellationToken) is { } known)
                {
                    known.EndedAt = null;
                    return known;
                }

                var row = new FineClashRow
                {
                    Id = id,
                    Key = key,
                    CalendarId = calendar,
                    Until = until,
                };
                db.FineClashes.Add(row);
                return row;
            },
            cancellationToken
        );
}
