using System.Globalization;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>What others call a person.</summary>
public static class PersonName
{
    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int Longest = 80;

    /// <summary>Makes a name safe and checks it.</summary>
    public static Checked<string> Check(string? given)
    {
        var name = PlainText.OneLine(given);
        return new(
            name,
            name.Length is > 0 and <= Longest
                ? []
                :
                [
                    new FieldProblem(
                        "name",
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"Give a name of 1 to {Longest} characters, as others know you; this has {name.Length}."
                        )
                    ),
                ]
        );
    }
}
