using System.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>A component with all its lines and the components inside it, whether we know them or not.</summary>
internal sealed class Component(string name, int beginsAt)
{
    /// <summary>Its name in upper case, for example <c>VEVENT</c>.</summary>
    public string Name { get; } = name;

    /// <summary>The physical line of its BEGIN.</summary>
    public int Line { get; } = beginsAt;

    /// <summary>Its own properties, in order.</summary>
    public List<ContentLine> Lines { get; } = [];

    /// <summary>The components inside it, in order.</summary>
    public List<Component> Inside { get; } = [];

    /// <summary>Whether its END was there.</summary>
    public bool Whole { get; set; }

    /// <summary>The same with some only of the components inside it.</summary>
    public Component WithInside(Func<Component, bool> isKept)
    {
        var copy = new Component(Name, Line) { Whole = Whole };
        copy.Lines.AddRange(Lines);
        copy.Inside.AddRange(Inside.Where(isKept));
        return copy;
    }

    public ContentLine? First(string name) => Lines.Find(line => line.Name == name);

    public IEnumerable<ContentLine> All(string name) => Lines.Where(line => line.Name == name);

    /// <summary>Puts <paramref name="replacement"/> where the first line of that name was, and drops the others of it.</summary>
    public void Replace(string name, params IEnumerable<ContentLine> replacement)
    {
        var at = Lines.FindIndex(line => line.Name == name);
        Lines.RemoveAll(line => line.Name == name);
        Lines.InsertRange(at < 0 ? Lines.Count : at, replacement);
    }

    /// <summary>The component as unfolded lines, each ended by <c>\n</c>: the form in which a source is kept.</summary>
    public string ToText()
    {
        var text = new StringBuilder();
        foreach (var line in Unfolded())
        {
            text.Append(line).Append('\n');
        }

        return text.ToString();
    }

    /// <summary>All its lines from BEGIN to END, unfolded.</summary>
    public IEnumerable<string> Unfolded() =>
        Lines
            .Select(line => line.Text)
            .Prepend($"BEGIN:{Name}")
            .Concat(Inside.SelectMany(inside => inside.Unfolded()))
            .Append($"END:{Name}");
}
