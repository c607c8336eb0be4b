using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Changes;
using Mortar.Core.Reminders;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Calendars;

/// <summary>A shared calendar.</summary>
public sealed class CalendarRow : IRecorded
{
    public required CalendarId Id { get; init; }

    public required GroupId GroupId { get; init; }

    public required string Name { get; set; }

    public required string Description { get; set; }

    public required Hue Hue { get; set; }

    public required Mark Mark { get; set; }

    public required string Zone { get; set; }

    public required Purpose Purpose { get; set; }

    public required Role GroupDefault { get; set; }

    public WhoseTime Takes { get; set; }

    public PersonId? Person { get; set; }

    /// <summary>Whether it takes one booking at a time, where it is a place.</summary>
    public bool OneAtATime { get; set; }

    /// <summary>Whether a coordinator agrees to what others enter, where it is for absences.</summary>
    public bool Agreed { get; set; }

    /// <summary>The kinds as stored text; <c>null</c> for none.</summary>
    public string? Kinds { get; set; }

    /// <summary>Whether its events come from the web.</summary>
    public bool FromWeb { get; set; }

    /// <summary>When it went to the bin, or from the walls with its group; <c>null</c> while it is there.</summary>
    public Instant? DeletedAt { get; set; }

    /// <summary>Whether it went with its group, to rest or to the bin, and comes back with it alone.</summary>
    public bool WithGroup { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Calendar;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => Id;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => DeletedAt = now;

    /// <summary>The calendar as a wish finds it that goes to it.</summary>
    internal WishedCalendar ToCore(IReadOnlyCollection<PersonId> strangers, bool hasCopy) =>
        new(Id, GroupId, Settings(), strangers, hasCopy);

    /// <summary>A new one with given settings.</summary>
    internal static CalendarRow Of(CalendarSettings settings, CalendarId id, GroupId group)
    {
        var row = new CalendarRow
        {
            Id = id,
            GroupId = group,
            Name = settings.Name,
            Description = settings.Description,
            Hue = settings.Hue,
            Mark = settings.Mark,
            Zone = settings.Zone,
            Purpose = settings.Purpose,
            GroupDefault = settings.GroupDefault,
        };
        row.Apply(settings);
        return row;
    }

    public CalendarSettings Settings() =>
        new(Name, Description, Hue, Mark, Zone, Purpose, GroupDefault)
        {
            Takes = Takes,
            Person = Person,
            OneAtATime = OneAtATime,
            Agreed = Agreed,
            FromWeb = FromWeb,
            Kinds = Kinds is { } kinds ? StoredText.Read<Kind[]>(kinds) : [],
        };

    public void Apply(CalendarSettings settings)
    {
        (Takes, Person, OneAtATime, Agreed) = (settings.Takes, settings.Person, settings.OneAtATime, settings.Agreed);
        FromWeb = settings.FromWeb;
        Kinds = settings.Kinds.Count == 0 ? null : StoredText.Of(settings.Kinds.ToArray());
        (Name, Description, Hue, Mark, Zone, Purpose, GroupDefault) = (
            settings.Name,
            settings.Description,
            settings.Hue,
            settings.Mark,
            settings.Zone,
            settings.Purpose,
            settings.GroupDefault
        );
    }
}

/// <summary>How a calendar lies on one person's wall.</summary>
public sealed class LayerRow
{
    public required PersonId PersonId { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required bool Shown { get; set; }

    /// <summary>Whether it was taken off the shelf, and is found again by looking for it; the access to it stays.</summary>
    public bool OffShelf { get; set; }

    /// <summary>Whether it has a lane of its own instead of lying over the others.</summary>
    public bool Beside { get; set; }

    /// <summary>Its place on the shelf; <c>null</c> where it was never moved.</summary>
    public int? Place { get; set; }

    /// <summary>How many minutes before I am reminded of everything in it; below 0 never; <c>null</c> as its events say.</summary>
    public int? Reminder { get; set; }

    public CalendarReminder ToReminder() =>
        Reminder switch
        {
            null => new CalendarReminder.AsEventsSay(),
            < 0 => new CalendarReminder.Never(),
            { } minutes => new CalendarReminder.Before(minutes),
        };

    public void Apply(CalendarReminder reminder) =>
        Reminder = reminder switch
        {
            CalendarReminder.Before before => before.Minutes,
            CalendarReminder.Never => -1,
            _ => null,
        };

    /// <summary>My own colour for it; <c>null</c> for the calendar's.</summary>
    public Hue? Hue { get; set; }

    /// <summary>My own sign for it.</summary>
    public Mark? Mark { get; set; }

    /// <summary>My own name for it.</summary>
    public string? Name { get; set; }
}

internal sealed class CalendarConfiguration : IEntityTypeConfiguration<CalendarRow>
{
    public void Configure(EntityTypeBuilder<CalendarRow> builder)
    {
        builder.ToTable("Calendars", table => table.HasCheckConstraint("CK_Calendars_Name", "length(Name) > 0"));
        builder.HasIndex(calendar => calendar.GroupId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(calendar => calendar.GroupId);
    }
}

internal sealed class LayerConfiguration : IEntityTypeConfiguration<LayerRow>
{
    public void Configure(EntityTypeBuilder<LayerRow> builder)
    {
        builder.ToTable("Layers");
        builder.HasKey(layer => new { layer.PersonId, layer.CalendarId });
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(layer => layer.PersonId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(layer => layer.CalendarId);
    }
}

/// <summary>Finds layers.</summary>
public static class Layers
{
    /// <summary>How calendars lie on somebody's wall, to be read; without those that they never changed.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, LayerRow>> LayersOf(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        await db
            .Layers.AsNoTracking()
            .Where(layer => layer.PersonId == person)
            .ToDictionaryAsync(layer => layer.CalendarId, cancellationToken);

    /// <summary>How a calendar lies on somebody's wall, to be changed; where they never changed it, as it lies at first.</summary>
    public static async Task<LayerRow> OwnLayer(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        if (await db.Layers.FindAsync([person, calendar], cancellationToken) is { } known)
        {
            return known;
        }

        var row = new LayerRow
        {
            PersonId = person,
            CalendarId = calendar,
            Shown = true,
        };
        db.Layers.Add(row);
        return row;
    }
}
