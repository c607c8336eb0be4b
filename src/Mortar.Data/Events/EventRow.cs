using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>The forms of <see cref="EventTime"/>.</summary>
public enum TimeForm
{
    Timed,
    AllDay,
    Floating,

    /// <summary>Days whose hours are not known yet.</summary>
    ToBeSet,
}

/// <summary>An event as it is stored: its local time is the truth, the two instants are an index for ranges.</summary>
public sealed class EventRow : IRecorded
{
    /// <summary>Stands in the index for "goes on for ever"; later than any date an event can have.</summary>
    public static readonly Instant Forever = Instant.FromUtc(9000, 1, 1, 0, 0);

    public required EventId Id { get; init; }

    public required CalendarId CalendarId { get; set; }

    public required string Uid { get; init; }

    public required PersonId AddedBy { get; set; }

    public string Title { get; set; } = string.Empty;

    public string Place { get; set; } = string.Empty;

    public string Notes { get; set; } = string.Empty;

    public ShowAs ShowAs { get; set; }

    public bool Cancelled { get; set; }

    /// <summary>The people named on it as stored text; <c>null</c> for nobody.</summary>
    public string? Attendees { get; set; }

    /// <summary>Those it is given to by itself as stored text; <c>null</c> for nobody.</summary>
    public string? GivenTo { get; set; }

    /// <summary>Those who may also change it by itself as stored text; <c>null</c> for nobody.</summary>
    public string? Editors { get; set; }

    public string Kind { get; set; } = string.Empty;

    public bool Private { get; set; }

    /// <summary>Whether only those who may change it see who is named.</summary>
    public bool HidesAttendees { get; set; }

    /// <summary>Minutes before the start.</summary>
    public int? Reminder { get; set; }

    /// <summary>The longest reminder of any of its dates, in minutes; <c>null</c> where none has one. An index for what is due.</summary>
    public int? LongestReminder { get; set; }

    public TimeForm TimeForm { get; set; }

    /// <summary>The local start; for whole days the first day at midnight.</summary>
    public LocalDateTime Start { get; set; }

    /// <summary>The local end; for whole days the last day at midnight.</summary>
    public LocalDateTime End { get; set; }

    public string? Zone { get; set; }

    /// <summary>The series as <see cref="StoredSeries"/> writes it; <c>null</c> for a single event.</summary>
    public string? Series { get; set; }

    /// <summary>Nothing of it lies before this (whole days and floating times read as UTC).</summary>
    public Instant IndexStart { get; set; }

    /// <summary>Nothing of it lies after this; <see cref="Forever"/> where it goes on for ever.</summary>
    public Instant IndexEnd { get; set; }

    /// <summary>The components it came from, unfolded; <c>null</c> where it was made here.</summary>
    public string? Source { get; set; }

    public Instant? DeletedAt { get; set; }

    /// <summary>The act that put it in the bin; <c>null</c> where it is not there. Kept true by the store.</summary>
    public ChangeSetId? DeletedIn { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Event;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => DeletedAt = now;

    /// <summary>Whether somebody else has to do with it; most events of a file are read no further for that.</summary>
    internal bool MayConcernOthersThan(PersonId person) =>
        AddedBy != person
        || Attendees is not null
        || GivenTo is not null
        || Editors is not null
        || Series?.Contains(nameof(Attendees), StringComparison.Ordinal) == true;

    /// <summary>The event of the row.</summary>
    public Event ToCore() =>
        new(
            Id,
            CalendarId,
            Uid,
            AddedBy,
            ToTime(TimeForm, Start, End, Zone),
            new EventContent(Title, Place, Notes, ShowAs, Cancelled)
            {
                Attendees = ToAttendees(Attendees),
                Kind = Kind,
                Private = Private,
                Reminder = Reminder,
                HidesAttendees = HidesAttendees,
            },
            Series is { } series ? StoredSeries.Read(series) : null,
            Version
        )
        {
            GivenTo = ToAttendees(GivenTo),
            Editors = ToAttendees(Editors),
        };

    /// <summary>Takes over what Core made of it, and keeps the index true.</summary>
    public void Apply(Event whole, ZoneClock clock)
    {
        Apply(whole.Time, whole.Content, whole.Series, clock);
        (GivenTo, Editors) = (FromAttendees(whole.GivenTo), FromAttendees(whole.Editors));
    }

    /// <summary>Takes over when, what and how it repeats, and keeps the index true.</summary>
    public void Apply(EventTime time, EventContent content, Series? series, ZoneClock clock)
    {
        (Title, Place, Notes, ShowAs, Cancelled) = content;
        (Attendees, Kind, Private, Reminder, HidesAttendees) = (
            FromAttendees(content.Attendees),
            content.Kind,
            content.Private,
            content.Reminder,
            content.HidesAttendees
        );
        (TimeForm, Start, End, Zone) = FromTime(time);
        LongestReminder = (series?.Overrides.Select(one => one.Content.Reminder) ?? []).Append(content.Reminder).Max();
        Series = series is null ? null : StoredSeries.Text(series);
        var whole = ToCore();
        IndexStart = whole.FirstStart(clock);
        IndexEnd = whole.LastEnd(clock) ?? Forever;
    }

    /// <summary>Names one person wherever another was named, on single dates too: the two are one.</summary>
    internal void Rename(PersonId from, PersonId to)
    {
        (Attendees, GivenTo, Editors) = (Renamed(Attendees), Renamed(GivenTo), Renamed(Editors));
        Series = Series?.Replace(from.Value.ToString("N"), to.Value.ToString("N"), StringComparison.Ordinal);

        string? Renamed(string? people) =>
            FromAttendees(Core.Events.Attendees.Of(ToAttendees(people).Select(person => person == from ? to : person)));
    }

    internal static Attendees ToAttendees(string? text) =>
        text is null
            ? Core.Events.Attendees.None
            : Core.Events.Attendees.Of(text.Split(' ').Select(id => new PersonId(Guid.ParseExact(id, "N"))));

    internal static string? FromAttendees(Attendees attendees) =>
        attendees.Count == 0 ? null : string.Join(' ', attendees.Select(one => one.Value.ToString("N")));

    internal static EventTime ToTime(TimeForm form, LocalDateTime start, LocalDateTime end, string? zone) =>
        form switch
        {
            TimeForm.Timed => EventTime.InZone(
                start,
                end,
                zone ?? throw new UnreachableException("CK_Events_Zone holds.")
            ),
            TimeForm.AllDay => EventTime.Days(start.Date, end.Date),
            TimeForm.ToBeSet => EventTime.DaysToBeSet(start.Date, end.Date),
            TimeForm.Floating => EventTime.OnEveryClock(start, end),
            _ => throw new UnreachableException(),
        };

    internal static (TimeForm Form, LocalDateTime Start, LocalDateTime End, string? Zone) FromTime(EventTime time) =>
        time switch
        {
            EventTime.Timed timed => (TimeForm.Timed, timed.Start, timed.End, timed.Zone),
            EventTime.AllDay days => (
                days.TimesToBeSet ? TimeForm.ToBeSet : TimeForm.AllDay,
                days.First.AtMidnight(),
                days.Last.AtMidnight(),
                null
            ),
            EventTime.Floating floating => (TimeForm.Floating, floating.Start, floating.End, null),
            _ => throw new UnreachableException(),
        };
}

internal sealed class EventConfiguration : IEntityTypeConfiguration<EventRow>
{
    public void Configure(EntityTypeBuilder<EventRow> builder)
    {
        builder.ToTable(
            "Events",
            table =>
            {
                table.HasCheckConstraint("CK_Events_Order", "Start <= End AND IndexStart <= IndexEnd");
                table.HasCheckConstraint("CK_Events_Zone", "(TimeForm = 'Timed') = (Zone IS NOT NULL)");
            }
        );
        builder.Property(row => row.TimeForm).HasConversion<string>();
        builder
            .HasIndex(row => new
            {
                row.CalendarId,
                row.IndexEnd,
                row.IndexStart,
            })
            .HasFilter("DeletedAt IS NULL")
            .HasDatabaseName("IX_Events_Range");
        builder
            .HasIndex(row => new { row.CalendarId, row.Uid })
            .IsUnique()
            .HasFilter("DeletedAt IS NULL")
            .HasDatabaseName("UX_Events_Uid");
        builder
            .HasIndex(row => row.IndexEnd)
            .HasFilter("LongestReminder IS NOT NULL AND DeletedAt IS NULL")
            .HasDatabaseName("IX_Events_Reminders");
        builder
            .HasIndex(row => new { row.CalendarId, row.DeletedAt })
            .HasFilter("DeletedAt IS NOT NULL")
            .HasDatabaseName("IX_Events_Bin");
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(row => row.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.AddedBy);
    }
}
