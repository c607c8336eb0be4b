using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Absences;

/// <summary>Whether a coordinator agreed to an absence, and what they wrote; one for each absence, with the latest answer.</summary>
public sealed class AgreementRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required EventId EventId { get; init; }

    public required CalendarId CalendarId { get; set; }

    /// <summary>Who entered it, and is told.</summary>
    public required PersonId Whose { get; set; }

    /// <summary><c>null</c> where the answer was taken back.</summary>
    public bool? Agrees { get; set; }

    public string Comment { get; set; } = string.Empty;

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Agreement;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => Whose;

    void IRecorded.Vanish(Instant now) => Agrees = null;
}

internal sealed class AgreementConfiguration : IEntityTypeConfiguration<AgreementRow>
{
    public void Configure(EntityTypeBuilder<AgreementRow> builder)
    {
        builder.ToTable("Agreements");
        builder.HasIndex(row => row.EventId).IsUnique().HasDatabaseName("UX_Agreements_Event");
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId);
        builder.HasOne<CalendarRow>().WithMany().HasForeignKey(row => row.CalendarId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.Whose);
    }
}
