using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Noticeboards;

/// <summary>A noticeboard. An ended one stays as such.</summary>
public sealed class NoticeboardRow : IRecorded, IAddressed
{
    /// <summary>The letter before its name in an address.</summary>
    public const string AddressSpace = "b";

    public required NoticeboardId Id { get; init; }

    /// <summary>The group on whose pages it is kept; its calendars may be of others too.</summary>
    public required GroupId GroupId { get; init; }

    /// <summary>Who made or last changed it: as long as they coordinate all of its calendars the world may read it.</summary>
    public required PersonId Keeper { get; set; }

    /// <summary>The name it is reached by.</summary>
    public required string Address { get; set; }

    /// <summary>Its settings as stored text.</summary>
    public string Settings { get; set; } = string.Empty;

    /// <summary>The calendars on it, in order; an index of what the settings say.</summary>
    public IReadOnlyList<Guid> Calendars { get; set; } = [];

    public BoardState State { get; set; }

    /// <summary>When it was ended; <c>null</c> while it is there.</summary>
    public Instant? EndedAt { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Noticeboard;

    Guid IRecorded.SubjectId => Id.Value;

    CalendarId? IRecorded.OfCalendar => null;

    GroupId? IRecorded.OfGroup => GroupId;

    PersonId? IRecorded.Concerns => Keeper;

    void IRecorded.Vanish(Instant now) => EndedAt = now;

    string IAddressed.Space => AddressSpace;

    Guid IAddressed.AddressedId => Id.Value;

    string? IAddressed.Leads => EndedAt is null ? Address : null;

    public Noticeboard ToCore() => StoredText.Read<Noticeboard>(Settings);

    public void Apply(Noticeboard board) =>
        (Settings, Calendars) = (StoredText.Of(board), [.. board.Layers.Select(layer => layer.CalendarId.Value)]);
}

/// <summary>How often a noticeboard was opened on a day; by whom is not known.</summary>
public sealed class NoticeboardOpensRow
{
    public required NoticeboardId NoticeboardId { get; init; }

    /// <summary>The day on the noticeboard's clock, as <c>2026-03-14</c>.</summary>
    public required string Day { get; init; }

    public int Opens { get; set; }
}

internal sealed class NoticeboardConfiguration : IEntityTypeConfiguration<NoticeboardRow>
{
    public void Configure(EntityTypeBuilder<NoticeboardRow> builder)
    {
        builder.ToTable("Noticeboards");
        builder.HasIndex(row => row.Keeper);
        builder.HasIndex(row => row.GroupId);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(row => row.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.Keeper);
    }
}

internal sealed class NoticeboardOpensConfiguration : IEntityTypeConfiguration<NoticeboardOpensRow>
{
    public void Configure(EntityTypeBuilder<NoticeboardOpensRow> builder)
    {
        builder.ToTable("NoticeboardOpens");
        builder.HasKey(row => new { row.NoticeboardId, row.Day });
        builder.HasOne<NoticeboardRow>().WithMany().HasForeignKey(row => row.NoticeboardId);
    }
}
