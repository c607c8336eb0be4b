using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Groups;

/// <summary>
/// That somebody sees and answers for a member of a group. One that ended, or waits for a yes, is found by no query that
/// does not ask for it.
/// </summary>
public sealed class GuardianRow : IRecorded
{
    /// <summary>The filter that leaves out those that ended.</summary>
    internal const string Ended = "ended";

    /// <summary>The filter that leaves out those that wait for a yes.</summary>
    internal const string Asked = "asked";

    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required GroupId GroupId { get; init; }

    /// <summary>For whom.</summary>
    public required PersonId WardId { get; set; }

    public required PersonId GuardianId { get; set; }

    /// <summary>When the ward was asked, who has not said yes; <c>null</c> where nobody waits for them.</summary>
    public Instant? WardAskedAt { get; set; }

    /// <summary>When the guardian was asked, who has not said yes; <c>null</c> where nobody waits for them.</summary>
    public Instant? GuardianAskedAt { get; set; }

    /// <summary>Who chose them last.</summary>
    public PersonId? ChosenBy { get; set; }

    public Instant? EndedAt { get; set; }

    /// <summary>Whether it counts: as with a place in a group, it does once all who are asked said yes.</summary>
    public MemberPlace Place() =>
        EndedAt is not null ? MemberPlace.Outside
        : WardAskedAt is null && GuardianAskedAt is null ? MemberPlace.Member
        : MemberPlace.Asked;

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Guardian;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => null;

    GroupId? IRecorded.OfGroup => GroupId;

    PersonId? IRecorded.Concerns => GuardianId;

    void IRecorded.Vanish(Instant now) => EndedAt = now;
}

internal sealed class GuardianConfiguration : IEntityTypeConfiguration<GuardianRow>
{
    public void Configure(EntityTypeBuilder<GuardianRow> builder)
    {
        builder.ToTable("Guardians");
        builder
            .HasIndex(row => new
            {
                row.GroupId,
                row.WardId,
                row.GuardianId,
            })
            .IsUnique()
            .HasDatabaseName("UX_Guardians_WardGuardian");
        builder.HasQueryFilter(GuardianRow.Ended, row => row.EndedAt == null);
        builder.HasQueryFilter(GuardianRow.Asked, row => row.WardAskedAt == null && row.GuardianAskedAt == null);
        builder.HasIndex(row => row.GuardianId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(row => row.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.WardId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.GuardianId);
    }
}
