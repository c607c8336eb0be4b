using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Answers;
using Mortar.Core.Letters;
using NodaTime;

namespace Mortar.Data.Mail;

/// <summary>A mail that is to go out. Written with what it tells of, sent afterwards, so that neither is without the other.</summary>
public sealed class MailRow
{
    /// <summary>What the address of answers to one question begins with; the rest of it is its secret.</summary>
    public const string AnswerPrefix = "answer-";

    public long Id { get; init; }

    public required string To { get; init; }

    public required string Subject { get; init; }

    /// <summary>The words; empty once they have gone out, since they hold links that open something.</summary>
    public required string Body { get; set; }

    /// <summary>The event it asks about: the mail carries it as other calendar programs read it. <c>null</c> for a mail of words.</summary>
    public Guid? AsksAbout { get; init; }

    /// <summary>Who asks, or else had it written: told where it cannot be sent. <c>null</c> where nobody is.</summary>
    public Guid? AskedBy { get; init; }

    /// <summary>The part before the @ of the address that takes the answers; <c>null</c> where none are awaited.</summary>
    public string? AnswersTo { get; set; }

    /// <summary>By whose act it was written, for counting; <c>null</c> for what Mortar writes by itself.</summary>
    public Guid? CausedBy { get; set; }

    /// <summary>Which go out before it where many wait.</summary>
    public MailRank Rank { get; set; }

    /// <summary>What it tells of that event; <see cref="ToldOfEvent.Nothing"/> for a question.</summary>
    public ToldOfEvent Tells { get; init; }

    public required Instant WrittenAt { get; init; }

    public Instant? SentAt { get; set; }

    public int Attempts { get; set; }

    /// <summary>When it was given up; <c>null</c> while it was not.</summary>
    public Instant? GivenUpAt { get; set; }

    /// <summary>Whether it still is to go out.</summary>
    public bool Waits() => SentAt is null && GivenUpAt is null;

    /// <summary>It has gone out, and what it said is kept here no longer.</summary>
    public void WentOut(Instant now) => (SentAt, Body, AnswersTo) = (now, string.Empty, null);

    /// <summary>It is tried no more, and what it said is kept no longer.</summary>
    public void GiveUp(Instant now) => (GivenUpAt, Body, AnswersTo) = (now, string.Empty, null);

    /// <summary>Until when it is kept back, since who gets it has quiet hours; <c>null</c> where it is not.</summary>
    public Instant? QuietUntil { get; init; }

    /// <summary>Not before this is it tried again.</summary>
    public Instant DueAt { get; set; }
}

internal sealed class MailConfiguration : IEntityTypeConfiguration<MailRow>
{
    public void Configure(EntityTypeBuilder<MailRow> builder)
    {
        builder.ToTable("Mails");
        builder.Property(mail => mail.Tells).HasConversion<string>();
        builder.Property(mail => mail.Id).ValueGeneratedOnAdd();
        builder.Property(mail => mail.Rank).HasConversion<int>();
        builder
            .HasIndex(mail => new { mail.Rank, mail.DueAt })
            .HasFilter("SentAt IS NULL AND GivenUpAt IS NULL")
            .HasDatabaseName("IX_Mails_Waiting");
        builder.HasIndex(mail => new { mail.CausedBy, mail.WrittenAt });
        builder.HasIndex(mail => new { mail.To, mail.WrittenAt });
    }
}
