using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Changes;

/// <summary>One row of the change log. Written by <see cref="Store.MortarDb"/> alone.</summary>
public sealed class ChangeRow
{
    public long Sequence { get; init; }

    public required ChangeSetId Set { get; init; }

    public required Instant At { get; init; }

    public required PersonId Actor { get; init; }

    /// <summary>The act that this one takes back; <c>null</c> for an act of its own.</summary>
    public ChangeSetId? Undoes { get; init; }

    public required Subject Subject { get; init; }

    public required Guid SubjectId { get; init; }

    public CalendarId? CalendarId { get; init; }

    /// <summary>The group, for what is about a group as such: its people, its guests, its settings.</summary>
    public GroupId? GroupId { get; init; }

    public PersonId? Concerns { get; init; }

    public string? Before { get; init; }

    public string? After { get; init; }

    /// <summary>Those to whom an event was given by itself, by its stored state; nobody where it was not there.</summary>
    public static ISet<PersonId> GivenOfEvent(string? state) =>
        // Most events are given to nobody; a file of thousands is not read through for that.
        state is not null
        && (
            state.Contains("\"GivenTo\"", StringComparison.Ordinal)
            || state.Contains("\"Editors\"", StringComparison.Ordinal)
        )
        && StoredText.Read<EventRow>(state) is { DeletedAt: null } row
            ? EventRow.ToAttendees(row.GivenTo).Concat(EventRow.ToAttendees(row.Editors)).ToHashSet()
            : new HashSet<PersonId>();

    /// <summary>The event before the change; <c>null</c> where it was not there, or in the bin.</summary>
    public Event? EventBefore() => EventOf(Before);

    /// <summary>The event after the change; <c>null</c> where it is in the bin.</summary>
    public Event? EventAfter() => EventOf(After);

    /// <summary>The version the event had after the change.</summary>
    public int VersionAfter() => After is { } state ? StoredText.Read<EventRow>(state).Version : 0;

    /// <summary>An event by its stored state; <c>null</c> where it was not there, or in the bin.</summary>
    public static Event? EventOf(string? state) =>
        state is not null && StoredText.Read<EventRow>(state) is { DeletedAt: null } row ? row.ToCore() : null;

    public Change ToCore() => new(Sequence, Set, At, Actor, Subject, SubjectId, Before, After);
}

internal sealed class ChangeConfiguration : IEntityTypeConfiguration<ChangeRow>
{
    public void Configure(EntityTypeBuilder<ChangeRow> builder)
    {
        builder.ToTable("Changes");
        builder.HasKey(change => change.Sequence);
        builder.Property(change => change.Sequence).ValueGeneratedOnAdd();
        builder.HasIndex(change => change.Set);
        builder.HasIndex(change => new { change.Actor, change.Sequence });
        builder.HasIndex(change => change.Undoes).HasFilter("Undoes IS NOT NULL");
        builder.HasIndex(change => new { change.SubjectId, change.Sequence });
        builder.HasIndex(change => new { change.CalendarId, change.Sequence });
        // Most changes are about neither; a row less in two indexes for each.
        builder.HasIndex(change => new { change.GroupId, change.Sequence }).HasFilter("GroupId IS NOT NULL");
        builder.HasIndex(change => new { change.Concerns, change.Sequence }).HasFilter("Concerns IS NOT NULL");
    }
}
