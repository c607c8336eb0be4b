using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Calendars;

/// <summary>A layer of a set.</summary>
public sealed record SetLayer(Guid CalendarId, bool Beside);

/// <summary>A named choice of layers: somebody's own, or given to a group.</summary>
public sealed class SetRow
{
    public required Guid Id { get; init; }

    public required PersonId Owner { get; init; }

    /// <summary>The group that has it too; <c>null</c> for the owner alone.</summary>
    public GroupId? GroupId { get; set; }

    public required string Name { get; set; }

    /// <summary>Its <see cref="SetLayer"/>s as stored text.</summary>
    public required string Layers { get; set; }

    public IReadOnlyList<SetLayer> ToLayers() => StoredText.Read<SetLayer[]>(Layers);

    public void Apply(IEnumerable<SetLayer> layers) => Layers = StoredText.Of(layers.ToArray());
}

internal sealed class SetConfiguration : IEntityTypeConfiguration<SetRow>
{
    public void Configure(EntityTypeBuilder<SetRow> builder)
    {
        builder.ToTable("Sets", table => table.HasCheckConstraint("CK_Sets_Name", "length(Name) > 0"));
        builder.HasIndex(set => set.Owner);
        builder.HasIndex(set => set.GroupId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(set => set.Owner);
        builder.HasOne<GroupRow>().WithMany().HasForeignKey(set => set.GroupId);
    }
}
