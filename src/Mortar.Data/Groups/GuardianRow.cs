using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Groups;

/// <summary>That somebody sees and answers for a member of a group. One that ended stays as such.</summary>
public sealed class GuardianRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required GroupId GroupId { get; init; }

    /// <summary>For whom.</summary>
    public required PersonId WardId { get; set; }

    public required PersonId GuardianId { get; set; }

    public Instant? EndedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Guardian;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => null;

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
        builder.HasIndex(row => row.GuardianId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(row => row.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.WardId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.GuardianId);
    }
}
