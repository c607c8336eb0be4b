using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Proposals;

/// <summary>Several times put to people as one question.</summary>
public sealed class ProposalRow : IRecorded
{
    public required ProposalId Id { get; init; }

    /// <summary>The calendar the event is to go to.</summary>
    public required CalendarId CalendarId { get; init; }

    public required PersonId ProposedBy { get; init; }

    public required string Title { get; init; }

    public required string Place { get; init; }

    public required string Notes { get; init; }

    /// <summary>The times as milliseconds since 1970: <c>start/end</c>, parted by blanks, in the order of time.</summary>
    public required string Times { get; init; }

    /// <summary>The zone in which the event will be kept.</summary>
    public required string Zone { get; init; }

    public required Instant ProposedAt { get; init; }

    public ProposalState State { get; set; }

    /// <summary>When it was taken back; <c>null</c> where it was not.</summary>
    public Instant? WithdrawnAt { get; set; }

    /// <summary>What became of it; <c>null</c> until it is settled.</summary>
    public EventId? EventId { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Proposal;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => ProposedBy;

    void IRecorded.Vanish(Instant now) => Withdraw(now);

    public void Withdraw(Instant now) => (State, WithdrawnAt) = (ProposalState.Withdrawn, now);

    public void Reopen() => (State, WithdrawnAt) = (ProposalState.Open, null);

    public Proposal ToCore() => new(ProposedBy, Title, Place, Notes, ToTimes(), Zone, State);

    public IReadOnlyList<ProposedTime> ToTimes() =>
        [
            .. Times
                .Split(' ')
                .Select(time => time.Split('/'))
                .Select(ends => new ProposedTime(MillisecondsText.Read(ends[0]), MillisecondsText.Read(ends[1]))),
        ];

    internal static string TimesText(IEnumerable<ProposedTime> times) =>
        string.Join(
            ' ',
            times
                .OrderBy(time => time.Start)
                .Select(time => $"{MillisecondsText.Of(time.Start)}/{MillisecondsText.Of(time.End)}")
        );
}

/// <summary>What somebody said to the times of a question.</summary>
public sealed class SuitingsRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required ProposalId ProposalId { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required PersonId PersonId { get; set; }

    /// <summary>The start of a time in milliseconds since 1970, and how it suits: <c>start/Suits</c>, parted by blanks.</summary>
    public string Said { get; set; } = string.Empty;

    public string Comment { get; set; } = string.Empty;

    /// <summary>Who put the question: told of it in their inbox.</summary>
    public required PersonId ProposedBy { get; init; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Suitings;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => ProposedBy;

    void IRecorded.Vanish(Instant now) => Said = string.Empty;

    public Suitings ToCore() =>
        new(
            PersonId,
            Said.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(one => one.Split('/'))
                .ToDictionary(one => MillisecondsText.Read(one[0]), one => Enum.Parse<Suiting>(one[1]))
        );

    internal static string SaidText(IReadOnlyDictionary<Instant, Suiting> said) =>
        string.Join(' ', said.OrderBy(one => one.Key).Select(one => $"{MillisecondsText.Of(one.Key)}/{one.Value}"));
}

/// <summary>That somebody is asked which of the times suit, with the hash of the secret by which they answer a mail.</summary>
public sealed class ProposalAskedRow
{
    public required ProposalId ProposalId { get; init; }

    public required PersonId PersonId { get; init; }

    /// <summary><c>null</c> where no address of theirs is known: they are asked in their inbox only.</summary>
    public string? Hash { get; set; }
}

file static class MillisecondsText
{
    public static string Of(Instant instant) => instant.ToUnixTimeMilliseconds().ToString(CultureInfo.InvariantCulture);

    public static Instant Read(string text) =>
        Instant.FromUnixTimeMilliseconds(long.Parse(text, CultureInfo.InvariantCulture));
}

internal sealed class ProposalConfiguration : IEntityTypeConfiguration<ProposalRow>
{
    public void Configure(EntityTypeBuilder<ProposalRow> builder)
    {
        builder.ToTable("Proposals");
        builder.Property(row => row.State).HasConversion<string>();
        builder.HasIndex(row => row.CalendarId).HasFilter("State = 'Open'").HasDatabaseName("IX_Proposals_Open");
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(row => row.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.ProposedBy);
    }
}

internal sealed class SuitingsConfiguration : IEntityTypeConfiguration<SuitingsRow>
{
    public void Configure(EntityTypeBuilder<SuitingsRow> builder)
    {
        builder.ToTable("Suitings");
        builder
            .HasIndex(row => new { row.ProposalId, row.PersonId })
            .IsUnique()
            .HasDatabaseName("UX_Suitings_OncePerPerson");
        builder.HasOne<ProposalRow>().WithMany().HasForeignKey(row => row.ProposalId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}

internal sealed class ProposalAskedConfiguration : IEntityTypeConfiguration<ProposalAskedRow>
{
    public void Configure(EntityTypeBuilder<ProposalAskedRow> builder)
    {
        builder.ToTable("ProposalAsked");
        builder.HasKey(row => new { row.PersonId, row.ProposalId });
        builder.HasIndex(row => row.Hash).IsUnique();
        builder.HasIndex(row => row.ProposalId);
        builder.HasOne<ProposalRow>().WithMany().HasForeignKey(row => row.ProposalId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}
