using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Groups;

/// <summary>
/// Somebody outside a group who can be named on its events and asked by mail. They are in no list of members, are not
/// counted, and reach nothing but what they are asked to. Who was taken out is found by no query that does not ask for it.
/// </summary>
public sealed class GuestRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required GroupId GroupId { get; init; }

    public required PersonId PersonId { get; set; }

    /// <summary>The mail address, as <see cref="Core.Words.Address"/> writes it.</summary>
    public required string Address { get; init; }

    public required PersonId AddedBy { get; init; }

    /// <summary>When they were taken out again; <c>null</c> while they are there.</summary>
    public Instant? EndedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Guest;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => null;

    GroupId? IRecorded.OfGroup => GroupId;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => EndedAt = now;
}

internal sealed class GuestConfiguration : IEntityTypeConfiguration<GuestRow>
{
    public void Configure(EntityTypeBuilder<GuestRow> builder)
    {
        builder.ToTable("Guests");
        builder.HasIndex(guest => new { guest.GroupId, guest.PersonId }).IsUnique().HasDatabaseName("UX_Guests_Person");
        builder.HasQueryFilter(guest => guest.EndedAt == null);
        builder
            .HasIndex(guest => new { guest.GroupId, guest.Address })
            .IsUnique()
            .HasDatabaseName("UX_Guests_OncePerGroup");
        builder.HasIndex(guest => guest.PersonId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(guest => guest.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(guest => guest.PersonId);
    }
}
