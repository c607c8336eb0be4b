using Mortar.Core.Words;

namespace Mortar.Core.Calendars;

/// <summary>How a calendar looks on one's own wall, where it is other than for everybody.</summary>
/// <param name="Name">What one calls it; empty for its own name.</param>
/// <param name="Hue">Its colour; <c>null</c> for its own.</param>
/// <param name="Mark">Its sign; <c>null</c> for its own.</param>
public sealed record LayerLook(string Name, Hue? Hue, Mark? Mark)
{
    /// <summary>As it looks to everybody.</summary>
    public static LayerLook Own { get; } = new(string.Empty, null, null);

    /// <summary>Makes the name safe and checks it.</summary>
    public Checked<LayerLook> Check()
    {
        var look = this with { Name = PlainText.OneLine(Name) };
        return new(
            look,
            look.Name.Length > CalendarSettings.LongestName
                ? [new FieldProblem("look.name", $"A name can have up to {CalendarSettings.LongestName} characters.")]
                : []
        );
    }
}
