namespace Mortar.Formats.ICalendar;

/// <summary>Reads the lines of a file into components, and goes on after what it cannot read.</summary>
internal static class ComponentReader
{
    /// <summary>Deeper nesting than this is no calendar but an attempt on the stack.</summary>
    private const int Deepest = 8;

    /// <summary>All components at the top of the text.</summary>
    /// <param name="text">The file, or a kept source.</param>
    /// <param name="findings">Gets a line for each thing that could not be read.</param>
    public static List<Component> Read(string text, FindingList findings)
    {
        var tops = new List<Component>();
        var open = new Stack<Component>();
        foreach (var (number, line) in Unfolded(text))
        {
            var parsed = ContentLine.TryParse(number, line);
            if (parsed is null)
            {
                if (open.Count > 0)
                {
                    findings.Add(
                        Finding.Skipped(
                            number,
                            $"the line “{Finding.Quote(line)}”",
                            "it is not NAME:VALUE; the rest of the event was read"
                        )
                    );
                }
            }
            else if (parsed.Name == "BEGIN" && open.Count < Deepest)
            {
                var component = new Component(parsed.Value.Trim().ToUpperInvariant(), number);
                (open.TryPeek(out var outer) ? outer.Inside : tops).Add(component);
                open.Push(component);
            }
            else if (parsed.Name == "END")
            {
                Close(open, parsed.Value.Trim().ToUpperInvariant());
            }
            else if (open.TryPeek(out var current))
            {
                current.Lines.Add(parsed);
            }
        }

        return tops;
    }

    /// <summary>Closes the component of that name; those inside it that were left open stay marked as not whole.</summary>
    private static void Close(Stack<Component> open, string name)
    {
        if (open.All(component => component.Name != name))
        {
            return;
        }

        while (open.Pop() is var closed)
        {
            if (closed.Name == name)
            {
                closed.Whole = true;
                return;
            }
        }
    }

    /// <summary>Undoes folding (RFC 5545, 3.1); takes CRLF, LF and CR as line ends, since all are met.</summary>
    private static IEnumerable<(int Number, string Line)> Unfolded(string text)
    {
        using var reader = new StringReader(text);
        var pieces = new System.Text.StringBuilder();
        var number = 0;
        var begun = 0;
        while (reader.ReadLine() is { } line)
        {
            number++;
            if (line.Length > 0 && line[0] is ' ' or '\t' && pieces.Length > 0)
            {
                pieces.Append(line, 1, line.Length - 1);
                continue;
            }

            if (pieces.Length > 0)
            {
                yield return (begun, pieces.ToString());
                pieces.Clear();
            }

            begun = number;
            pieces.Append(line);
        }

        if (pieces.Length > 0)
        {
            yield return (begun, pieces.ToString());
        }
    }
}
