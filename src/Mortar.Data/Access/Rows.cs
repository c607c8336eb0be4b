using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>The step that was given to one person on one calendar. Ended access stays as <see cref="Role.None"/>.</summary>
public sealed class GrantRow : IRecorded
{
    public required Guid Id { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required PersonId PersonId { get; init; }

    public required Role Role { get; set; }

    /// <summary>From when on it counts no more; <c>null</c> where it has no end.</summary>
    public Instant? EndsAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Grant;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => PersonId;

    public Grant ToCore() => new(Role, Way.Own, EndsAt);

    /// <summary>Gives a step beside what is there.</summary>
    public void Raise(Role role, Instant? endsAt, Instant now)
    {
        var raised = ToCore().Raised(role, endsAt, now);
        (Role, EndsAt) = (raised.Role, raised.EndsAt);
    }

    void IRecorded.Vanish(Instant now) => Role = Role.None;
}

/// <summary>The step that was given to everybody in a group on one calendar. Ended access stays as <see cref="Role.None"/>.</summary>
public sealed class GroupGrantRow : IRecorded
{
    public required Guid Id { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required GroupId GroupId { get; init; }

    public required Role Role { get; set; }

    /// <summary>From when on it counts no more; <c>null</c> where it has no end.</summary>
    public Instant? EndsAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.GroupGrant;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => Role = Role.None;
}

/// <summary>Somebody's request for a step on a calendar.</summary>
public sealed class AskRow : IRecorded
{
    public required AskId Id { get; init; }

    public required CalendarId CalendarId { get; init; }

    /// <summary>Who asks.</summary>
    public required PersonId PersonId { get; init; }

    /// <summary>The step that is asked for; once it is granted, the one that was given.</summary>
    public required Role Role { get; set; }

    public required string Note { get; set; }

    public required AskState State { get; set; }

    public required Instant AskedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Ask;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => PersonId;

    void IRecorded.Vanish(Instant now) => State = AskState.Withdrawn;
}

/// <summary>An invitation to one step on one calendar.</summary>
public sealed class InvitationRow : IRecorded
{
    public required InvitationId Id { get; init; }

    public required CalendarId CalendarId { get; init; }

    /// <summary>Where it was sent, as <see cref="Address"/> writes it.</summary>
    public required string Address { get; init; }

    /// <summary>The person of that address; <c>null</c> until there is one.</summary>
    public PersonId? PersonId { get; set; }

    public required Role Role { get; set; }

    public required string Message { get; set; }

    public required InvitationState State { get; set; }

    public required PersonId InvitedBy { get; set; }

    public required Instant SentAt { get; set; }

    /// <summary>The hash of the secret in the mailed link; empty where none is out. Whoever holds that has shown that mail to the address reaches them.</summary>
    public string LinkHash { get; set; } = string.Empty;

    /// <summary>Whether it asks for a calendar of theirs in return.</summary>
    public bool InReturn { get; set; }

    /// <summary>The last day of the access it leads to, as an end; <c>null</c> where that has none.</summary>
    public Instant? EndsAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Invitation;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    /// <summary>The one invited while it waits; whoever sent it once it is answered.</summary>
    PersonId? IRecorded.Concerns =>
        State is InvitationState.Accepted or InvitationState.Declined ? InvitedBy : PersonId;

    void IRecorded.Vanish(Instant now) => State = InvitationState.Withdrawn;
}

internal sealed class GrantConfiguration : IEntityTypeConfiguration<GrantRow>
{
    public void Configure(EntityTypeBuilder<GrantRow> builder)
    {
        builder.ToTable("Grants");
        builder
            .HasIndex(grant => new { grant.CalendarId, grant.PersonId })
            .IsUnique()
            .HasDatabaseName("UX_Grants_CalendarPerson");
        builder.HasIndex(grant => grant.PersonId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(grant => grant.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(grant => grant.PersonId);
    }
}

internal sealed class GroupGrantConfiguration : IEntityTypeConfiguration<GroupGrantRow>
{
    public void Configure(EntityTypeBuilder<GroupGrantRow> builder)
    {
        builder.ToTable("GroupGrants");
        builder
            .HasIndex(grant => new { grant.CalendarId, grant.GroupId })
            .IsUnique()
            .HasDatabaseName("UX_GroupGrants_CalendarGroup");
        builder.HasIndex(grant => grant.GroupId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(grant => grant.CalendarId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(grant => grant.GroupId);
    }
}

internal sealed class AskConfiguration : IEntityTypeConfiguration<AskRow>
{
    public void Configure(EntityTypeBuilder<AskRow> builder)
    {
        builder.ToTable("Asks");
        builder
            .HasIndex(ask => new { ask.CalendarId, ask.PersonId })
            .IsUnique()
            .HasFilter("State = 'Waiting'")
            .HasDatabaseName("UX_Asks_OneWaiting");
        builder.HasIndex(ask => ask.PersonId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(ask => ask.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(ask => ask.PersonId);
    }
}

internal sealed class InvitationConfiguration : IEntityTypeConfiguration<InvitationRow>
{
    public void Configure(EntityTypeBuilder<InvitationRow> builder)
    {
        builder.ToTable("Invitations");
        builder
            .HasIndex(invitation => invitation.LinkHash)
            .IsUnique()
            .HasFilter("LinkHash <> ''")
            .HasDatabaseName("UX_Invitations_LinkHash");
        builder.HasIndex(invitation => invitation.PersonId);
        builder
            .HasIndex(invitation => new { invitation.CalendarId, invitation.Address })
            .IsUnique()
            .HasFilter("State = 'Waiting'")
            .HasDatabaseName("UX_Invitations_OneWaiting");
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(invitation => invitation.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(invitation => invitation.PersonId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(invitation => invitation.InvitedBy);
    }
}
