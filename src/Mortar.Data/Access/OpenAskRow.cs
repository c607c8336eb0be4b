using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>A request for some calendar of a person or a group, which whoever answers chooses.</summary>
public sealed class OpenAskRow : IRecorded
{
    public required AskId Id { get; init; }

    /// <summary>Who asks.</summary>
    public required PersonId PersonId { get; init; }

    /// <summary>Who is asked; <c>null</c> where a group is.</summary>
    public PersonId? ToPersonId { get; init; }

    /// <summary>The group that is asked: any of its coordinators can answer.</summary>
    public GroupId? ToGroupId { get; init; }

    /// <summary>The step that is asked for; once it is granted, the one that was given.</summary>
    public required Role Role { get; set; }

    public required string Note { get; set; }

    public required AskState State { get; set; }

    public required Instant AskedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.OpenAsk;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => null;

    PersonId? IRecorded.Concerns => PersonId;

    void IRecorded.Vanish(Instant now) => State = AskState.Withdrawn;
}

internal sealed class OpenAskConfiguration : IEntityTypeConfiguration<OpenAskRow>
{
    public void Configure(EntityTypeBuilder<OpenAskRow> builder)
    {
        builder.ToTable(
            "OpenAsks",
            table => table.HasCheckConstraint("CK_OpenAsks_To", "(ToPersonId IS NULL) <> (ToGroupId IS NULL)")
        );
        builder
            .HasIndex(ask => new { ask.PersonId, ask.ToPersonId })
            .IsUnique()
            .HasFilter("State = 'Waiting' AND ToPersonId IS NOT NULL")
            .HasDatabaseName("UX_OpenAsks_OnePerson");
        builder
            .HasIndex(ask => new { ask.PersonId, ask.ToGroupId })
            .IsUnique()
            .HasFilter("State = 'Waiting' AND ToGroupId IS NOT NULL")
            .HasDatabaseName("UX_OpenAsks_OneGroup");
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(ask => ask.PersonId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(ask => ask.ToPersonId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(ask => ask.ToGroupId);
    }
}
