using Mortar.Core.Words;

namespace Mortar.Core.Calendars;

/// <summary>A named choice of layers, checked.</summary>
/// <param name="Name">One line, not empty.</param>
/// <param name="Layers">The calendars, each once.</param>
public sealed record LayerSet(string Name, IReadOnlyList<CalendarId> Layers)
{
    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 60;

    /// <summary>The most layers in one set.</summary>
    public const int MostLayers = 500;

    /// <summary>Makes the name safe and checks the set.</summary>
    public static Checked<LayerSet> Check(LayerSet given)
    {
        var set = new LayerSet(PlainText.OneLine(given.Name), [.. given.Layers.Distinct()]);
        var problems = new List<FieldProblem>();
        if (set.Name.Length is 0 or > LongestName)
        {
            problems.Add(new FieldProblem("name", $"Give the set a name of up to {LongestName} characters."));
        }

        if (set.Layers.Count > MostLayers)
        {
            problems.Add(new FieldProblem("layers", $"A set can have up to {MostLayers} layers."));
        }

        return new(set, problems);
    }
}
