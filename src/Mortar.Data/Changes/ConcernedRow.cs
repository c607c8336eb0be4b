using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Changes;

/// <summary>
/// That a change of an event may concern somebody who did not make it: an index by person, kept by <see cref="MortarDb"/>
/// in the save of the change, since who was taken off an event is found in its past alone. Whether it is told to them is
/// decided when it is read (<see cref="NoticeRules"/>).
/// </summary>
public sealed class ConcernedRow
{
    public required PersonId PersonId { get; init; }

    public long Sequence { get; init; }

    /// <summary>The change, while it is saved: its sequence is not known before.</summary>
    public ChangeRow? Change { get; init; }
}

internal sealed class ConcernedConfiguration : IEntityTypeConfiguration<ConcernedRow>
{
    public void Configure(EntityTypeBuilder<ConcernedRow> builder)
    {
        builder.ToTable("ConcernedByEvents");
        builder.HasKey(row => new { row.PersonId, row.Sequence });
        builder.HasIndex(row => row.Sequence);
        builder.HasOne(row => row.Change).WithMany().HasForeignKey(row => row.Sequence);
    }
}
