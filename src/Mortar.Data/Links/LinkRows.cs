using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Links;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Links;

/// <summary>A link that gives a step on a calendar, or one of its events to read, to whoever holds it. An ended one stays as such.</summary>
public sealed class LinkRow : IRecorded
{
    public required LinkId Id { get; init; }

    public required CalendarId CalendarId { get; init; }

    /// <summary>The one event it gives out; <c>null</c> for the whole calendar.</summary>
    public EventId? EventId { get; init; }

    public string Name { get; set; } = string.Empty;

    public required Role Role { get; set; }

    public int? MostUses { get; set; }

    public Instant? EndsAt { get; set; }

    /// <summary>How many have put the calendar on their wall by it since it was made or renewed.</summary>
    public int Uses { get; set; }

    /// <summary>The hash of its secret.</summary>
    public string Hash { get; set; } = string.Empty;

    public required PersonId MadeBy { get; init; }

    /// <summary>When a coordinator ended it; <c>null</c> while it leads somewhere.</summary>
    public Instant? EndedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Link;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => EndedAt = now;

    public LinkTerms Terms() => new(Name, Role, MostUses, EndsAt);

    public void Apply(LinkTerms terms) =>
        (Name, Role, MostUses, EndsAt) = (terms.Name, terms.Role, terms.MostUses, terms.EndsAt);
}

/// <summary>That somebody put a calendar on their wall by a link: they have its step for as long as it leads somewhere.</summary>
public sealed class LinkHolderRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required LinkId LinkId { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required PersonId PersonId { get; init; }

    /// <summary>When they left the calendar; <c>null</c> while they are there.</summary>
    public Instant? LeftAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.LinkHolder;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => PersonId;

    void IRecorded.Vanish(Instant now) => LeftAt = now;
}

/// <summary>Reads links.</summary>
public static class LinkQueries
{
    /// <summary>
    /// Links that still have something to lead to: a calendar that is there and, where it is about one event, that event in
    /// the calendar whose coordinator made the link. An event that was moved, deleted or made private takes its links along.
    /// </summary>
    public static IQueryable<LinkRow> LeadingLinks(this MortarDb db) =>
        db.Links.Where(link =>
            db.Calendars.Any(owner => owner.Id == link.CalendarId && owner.DeletedAt == null)
            && (
                link.EventId == null
                || db.Events.Any(row =>
                    row.Id == link.EventId && row.CalendarId == link.CalendarId && row.DeletedAt == null && !row.Private
                )
            )
        );
}

internal sealed class LinkConfiguration : IEntityTypeConfiguration<LinkRow>
{
    public void Configure(EntityTypeBuilder<LinkRow> builder)
    {
        builder.ToTable("Links");
        builder.HasIndex(link => link.Hash).IsUnique().HasDatabaseName("UX_Links_Hash");
        builder.HasIndex(link => link.CalendarId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(link => link.CalendarId);
        builder.HasOne<EventRow>().WithMany().HasForeignKey(link => link.EventId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(link => link.MadeBy);
    }
}

internal sealed class LinkHolderConfiguration : IEntityTypeConfiguration<LinkHolderRow>
{
    public void Configure(EntityTypeBuilder<LinkHolderRow> builder)
    {
        builder.ToTable("LinkHolders");
        builder
            .HasIndex(holder => new { holder.LinkId, holder.PersonId })
            .IsUnique()
            .HasDatabaseName("UX_LinkHolders_LinkPerson");
        builder.HasIndex(holder => holder.PersonId);
        builder.HasIndex(holder => holder.CalendarId);
        builder.HasOne<LinkRow>().WithMany().HasForeignKey(holder => holder.LinkId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(holder => holder.PersonId);
    }
}
