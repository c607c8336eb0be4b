using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;

namespace Mortar.Data.Devices;

/// <summary>
/// Under which name a program put an event into a calendar; it is found there again by all. Two have one name where whoever put
/// the second in is told nothing of the first.
/// </summary>
public sealed class ObjectNameRow
{
    public required CalendarId CalendarId { get; init; }

    public required string Name { get; init; }

    public required EventId EventId { get; init; }
}

/// <summary>The alarms that somebody set on an event by a program of theirs.</summary>
public sealed class OwnAlarmsRow
{
    public required PersonId PersonId { get; init; }

    public required EventId EventId { get; init; }

    /// <summary>The alarms as the program wrote them; <c>null</c> where they are those of the event again.</summary>
    public string? Text { get; set; }

    /// <summary>Counts what anybody set, in the order in which it was.</summary>
    public long Stamp { get; set; }
}

/// <summary>A property that a program set on a calendar for its owner, and Mortar does not know (RFC 4918, 4.2).</summary>
public sealed class OwnPropertyRow
{
    public required PersonId PersonId { get; init; }

    public required CalendarId CalendarId { get; init; }

    /// <summary>Its name with its namespace: <c>{namespace}name</c>.</summary>
    public required string Name { get; init; }

    /// <summary>The element as it came.</summary>
    public required string Xml { get; set; }
}

/// <summary>
/// That an event went from a calendar to another one: an index by the calendar it left, kept by <see cref="Store.MortarDb"/>
/// in the save of the change, which the log tells of the one it came to.
/// </summary>
public sealed class LeftCalendarRow
{
    public required CalendarId CalendarId { get; init; }

    public required EventId EventId { get; init; }

    public long Sequence { get; init; }

    /// <summary>The change, while it is saved: its sequence is not known before.</summary>
    public ChangeRow? Change { get; init; }
}

internal sealed class ObjectNameConfiguration : IEntityTypeConfiguration<ObjectNameRow>
{
    public void Configure(EntityTypeBuilder<ObjectNameRow> builder)
    {
        builder.ToTable("ObjectNames");
        builder.HasKey(row => new
        {
            row.CalendarId,
            row.Name,
            row.EventId,
        });
        builder.HasIndex(row => row.EventId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(row => row.CalendarId).OnDelete(DeleteBehavior.Cascade);
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class OwnAlarmsConfiguration : IEntityTypeConfiguration<OwnAlarmsRow>
{
    public void Configure(EntityTypeBuilder<OwnAlarmsRow> builder)
    {
        builder.ToTable("OwnAlarms");
        builder.HasKey(row => new { row.PersonId, row.EventId });
        builder.HasIndex(row => row.Stamp);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class OwnPropertyConfiguration : IEntityTypeConfiguration<OwnPropertyRow>
{
    public void Configure(EntityTypeBuilder<OwnPropertyRow> builder)
    {
        builder.ToTable("OwnProperties");
        builder.HasKey(row => new
        {
            row.PersonId,
            row.CalendarId,
            row.Name,
        });
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(row => row.CalendarId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class LeftCalendarConfiguration : IEntityTypeConfiguration<LeftCalendarRow>
{
    public void Configure(EntityTypeBuilder<LeftCalendarRow> builder)
    {
        builder.ToTable("LeftCalendars");
        builder.HasKey(row => new { row.CalendarId, row.Sequence });
        builder.HasIndex(row => row.Sequence);
        builder
            .HasOne(row => row.Change)
            .WithMany()
            .HasForeignKey(row => row.Sequence)
            .OnDelete(DeleteBehavior.Cascade);
    }
}
