using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>That somebody was reminded of one time of an event. Written with the mail, so that neither is without the other and nothing is told twice.</summary>
public sealed class ReminderRow
{
    public required PersonId PersonId { get; init; }

    public required EventId EventId { get; init; }

    /// <summary>When what they are reminded of begins: moved to another time, it is another thing to be reminded of.</summary>
    public required Instant Start { get; init; }

    /// <summary>The start by which the series counts it; the empty text for a single event.</summary>
    public required string Only { get; init; }

    public required Instant GivenAt { get; init; }

    public LocalDateTime? ToOnly() => AnswerRow.OnlyOf(Only);

    /// <summary>When they put it away; <c>null</c> while it is to be shown.</summary>
    public Instant? SeenAt { get; set; }
}

/// <summary>Up to when reminders were looked for, so that after a restart nothing is left out and nothing old is dug up.</summary>
public sealed class ReminderClockRow
{
    public const int Only = 1;

    public int Id { get; init; } = Only;

    public required Instant LookedUpTo { get; set; }
}

internal sealed class ReminderConfiguration : IEntityTypeConfiguration<ReminderRow>
{
    public void Configure(EntityTypeBuilder<ReminderRow> builder)
    {
        builder.ToTable("Reminders");
        builder.HasKey(row => new
        {
            row.PersonId,
            row.EventId,
            row.Start,
        });
        builder
            .HasIndex(row => new { row.PersonId, row.GivenAt })
            .HasFilter("SeenAt IS NULL")
            .HasDatabaseName("IX_Reminders_Shown");
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}

internal sealed class ReminderClockConfiguration : IEntityTypeConfiguration<ReminderClockRow>
{
    public void Configure(EntityTypeBuilder<ReminderClockRow> builder) => builder.ToTable("ReminderClock");
}
