using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Preferences;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Groups;

/// <summary>A person, with or without an account.</summary>
public sealed class PersonRow
{
    public required PersonId Id { get; init; }

    public required string Name { get; set; }

    /// <summary>Counts who was called otherwise, in the order in which it was; 0 for who never was.</summary>
    public long Renamed { get; set; }

    /// <summary>The mail address, as <see cref="Address"/> writes it; <c>null</c> for somebody who has none.</summary>
    public string? Address { get; set; }

    /// <summary>The zone in which they see the wall.</summary>
    public required string Zone { get; set; }

    /// <summary>Their <see cref="PersonPreferences"/> as stored text, but for the zone; <c>null</c> for those one begins with.</summary>
    public string? Preferences { get; set; }

    /// <summary>How they like to see time.</summary>
    public PersonPreferences ToPreferences() =>
        (Preferences is { } stored ? StoredText.Read<PersonPreferences>(stored) : PersonPreferences.In(Zone)) with
        {
            Zone = Zone,
        };

    /// <summary>Takes note that they are here; whether that is news, since the hour is enough.</summary>
    public bool Sees(Instant now)
    {
        if (SeenAt is { } seen && now - seen < Duration.FromHours(1))
        {
            return false;
        }

        SeenAt = now;
        return true;
    }

    public void Apply(PersonPreferences preferences)
    {
        (Zone, Preferences) = (preferences.Zone, StoredText.Of(preferences));
        if (preferences.Digest == DigestRhythm.Never)
        {
            DigestedAt = null; // chosen again, it begins with what comes after
        }
    }

    /// <summary>When they were last here, to the hour; <c>null</c> for never.</summary>
    public Instant? SeenAt { get; set; }

    /// <summary>When they were last written a digest, or it was found that nothing had changed; <c>null</c> for never.</summary>
    public Instant? DigestedAt { get; set; }

    /// <summary>The sequence of the last change a digest told them of.</summary>
    public long DigestedUpTo { get; set; }

    /// <summary>The sequence of the last change their inbox has shown them.</summary>
    public long SeenChanges { get; set; }

    /// <summary>When they looked through their inbox last; <c>null</c> for never. By it is known what ended by its date since.</summary>
    public Instant? InboxSeenAt { get; set; }

    /// <summary>The sequence of the first change that may have to be told by mail; <c>null</c> where none has.</summary>
    public long? TellFrom { get; set; }

    /// <summary>After when access may have ended by its date of which they are to be told by mail; <c>null</c> where none has.</summary>
    public Instant? TellEndsAfter { get; set; }

    /// <summary>When they were last written at once what others did; <c>null</c> for never.</summary>
    public Instant? ToldAt { get; set; }
}

/// <summary>A group.</summary>
public sealed class GroupRow : IRecorded, IAddressed
{
    /// <summary>Where groups are reached: <c>/g/name</c>.</summary>
    public const string AddressSpace = "g";

    public required GroupId Id { get; init; }

    public required string Name { get; set; }

    public required GroupSort Sort { get; set; }

    public required string Zone { get; set; }

    public required IsoDayOfWeek FirstDay { get; set; }

    /// <summary>When usual hours begin, in minutes of the day.</summary>
    public int DayBegins { get; set; } = 480;

    /// <summary>When they end, in minutes of the day.</summary>
    public int DayEnds { get; set; } = 1_140;

    /// <summary>How many are needed when as <see cref="StoredCover"/> writes it; <c>null</c> for nobody.</summary>
    public string? Cover { get; set; }

    /// <summary>The calendar whose whole days are days off for all.</summary>
    public CalendarId? DaysOff { get; set; }

    /// <summary>The name in its short address; <c>null</c> for none.</summary>
    public string? Address { get; set; }

    /// <summary>Since when it is at rest; <c>null</c> while it is at work. <see cref="MortarDb"/> keeps its calendars true.</summary>
    public Instant? RestsSince { get; set; }

    /// <summary>When it went to the bin; <c>null</c> while it is there.</summary>
    public Instant? DeletedAt { get; set; }

    /// <summary>How it is with it.</summary>
    public GroupState State() =>
        DeletedAt is not null ? GroupState.InBin
        : RestsSince is not null ? GroupState.AtRest
        : GroupState.There;

    public GroupSettings ToSettings() =>
        new(Name, Sort, Zone, FirstDay)
        {
            Address = Address ?? string.Empty,
            DayBegins = LocalTime.FromMinutesSinceMidnight(DayBegins),
            DayEnds = LocalTime.FromMinutesSinceMidnight(DayEnds),
            DaysOff = DaysOff,
            Cover = StoredCover.Read(Cover),
        };

    public void Apply(GroupSettings settings)
    {
        DaysOff = settings.DaysOff;
        Address = string.IsNullOrEmpty(settings.Address) ? null : settings.Address;
        Cover = StoredCover.Text(settings.Cover);
        (Name, Sort, Zone, FirstDay) = (settings.Name, settings.Sort, settings.Zone, settings.FirstDay);
        DayBegins = (settings.DayBegins.Hour * 60) + settings.DayBegins.Minute;
        DayEnds = (settings.DayEnds.Hour * 60) + settings.DayEnds.Minute;
    }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Group;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => null;

    GroupId? IRecorded.OfGroup => Id;

    PersonId? IRecorded.Concerns => null;

    void IRecorded.Vanish(Instant now) => throw new NotSupportedException("A group cannot be taken back yet.");

    string IAddressed.Space => AddressSpace;

    Guid IAddressed.AddressedId => Id.Value;

    string? IAddressed.Leads => Address;
}

/// <summary>
/// Somebody's place in a group. Who has left, and who was asked and has not said yes, is found by no query that does not
/// ask for it: nothing of them is known or counted by accident.
/// </summary>
public sealed class MemberRow : IRecorded
{
    /// <summary>The filter that leaves out those who have left.</summary>
    internal const string Left = "left";

    /// <summary>The filter that leaves out those who were asked and have not said yes.</summary>
    internal const string Asked = "asked";

    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required GroupId GroupId { get; init; }

    public required PersonId PersonId { get; init; }

    /// <summary>Whether they keep the group's order.</summary>
    public bool Coordinates { get; set; }

    /// <summary>Where a name without an account can be reached, as a coordinator wrote it; <c>null</c> for no address and for those with accounts.</summary>
    public string? Address { get; set; }

    /// <summary>The SHA-256 of the secret in the mailed link by which the name is claimed; <c>null</c> where none is out.</summary>
    public string? ClaimHash { get; set; }

    /// <summary>When that mail was sent last.</summary>
    public Instant? InvitedAt { get; set; }

    /// <summary>When they were asked to be in it and have not said yes; <c>null</c> for who is in, and for a name.</summary>
    public Instant? AskedAt { get; set; }

    /// <summary>Who asked them last; <c>null</c> for who was never asked.</summary>
    public PersonId? AskedBy { get; set; }

    /// <summary>When they last said no.</summary>
    public Instant? SaidNoAt { get; set; }

    /// <summary>Who claimed this name, which has left with that; <c>null</c> for nobody.</summary>
    public PersonId? ClaimedBy { get; set; }

    public Instant? LeftAt { get; set; }

    public MemberPlace Place() =>
        LeftAt is not null ? MemberPlace.Outside
        : AskedAt is not null ? MemberPlace.Asked
        : MemberPlace.Member;

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Member;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => null;

    GroupId? IRecorded.OfGroup => GroupId;

    PersonId? IRecorded.Concerns => PersonId;

    void IRecorded.Vanish(Instant now) => LeftAt = now;
}

internal sealed class PersonConfiguration : IEntityTypeConfiguration<PersonRow>
{
    public void Configure(EntityTypeBuilder<PersonRow> builder)
    {
        builder.ToTable("People");
        builder.HasIndex(person => person.Address).IsUnique().HasDatabaseName("UX_People_Address");
        builder.HasIndex(person => person.Renamed);
    }
}

internal sealed class GroupConfiguration : IEntityTypeConfiguration<GroupRow>
{
    public void Configure(EntityTypeBuilder<GroupRow> builder)
    {
        builder.ToTable("Groups");
        builder.Property(row => row.DayBegins).HasDefaultValue(480).HasSentinel(480);
        builder.Property(row => row.DayEnds).HasDefaultValue(1_140).HasSentinel(1_140);
    }
}

internal sealed class MemberConfiguration : IEntityTypeConfiguration<MemberRow>
{
    public void Configure(EntityTypeBuilder<MemberRow> builder)
    {
        builder.ToTable("Members");
        builder.HasKey(member => new { member.GroupId, member.PersonId });
        builder.HasIndex(member => member.PersonId);
        builder.HasIndex(member => member.Id).IsUnique().HasDatabaseName("UX_Members_Id");
        builder.HasIndex(member => member.ClaimHash).IsUnique().HasDatabaseName("UX_Members_ClaimHash");
        builder.HasQueryFilter(MemberRow.Left, member => member.LeftAt == null);
        builder.HasQueryFilter(MemberRow.Asked, member => member.AskedAt == null);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(member => member.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(member => member.PersonId);
    }
}
