using System.Globalization;
using Mortar.Core.Calendars;

namespace Mortar.Formats.ICalendar;

/// <summary>The colours of CSS Color Level 3, 4.3, that are nearest to the hues, as programs want them that show a colour by its number.</summary>
public static class HueColors
{
    private static readonly Dictionary<Hue, int> Codes = new()
    {
        [Hue.Iron] = 0xB22222,
        [Hue.Ember] = 0xD2691E,
        [Hue.Ochre] = 0xB8860B,
        [Hue.Olive] = 0x808000,
        [Hue.Moss] = 0x228B22,
        [Hue.Copper] = 0x2E8B57,
        [Hue.Teal] = 0x008080,
        [Hue.Lake] = 0x4682B4,
        [Hue.Cobalt] = 0x4169E1,
        [Hue.Violet] = 0x9370DB,
        [Hue.Plum] = 0x9932CC,
        [Hue.Rose] = 0xC71585,
    };

    /// <summary>A hue as <c>#RRGGBB</c>.</summary>
    public static string Code(Hue hue) => string.Create(CultureInfo.InvariantCulture, $"#{Codes[hue]:X6}");

    /// <summary>The hue that is nearest to <c>#RRGGBB</c> or <c>#RRGGBBAA</c>; <c>null</c> where the text is neither.</summary>
    public static Hue? Nearest(string text)
    {
        text = text.Trim();
        if (
            text.Length is not (7 or 9)
            || text[0] != '#'
            || !int.TryParse(
                text.AsSpan(1, 6),
                NumberStyles.AllowHexSpecifier,
                CultureInfo.InvariantCulture,
                out var wanted
            )
        )
        {
            return null;
        }

        return Codes.MinBy(one => Distance(one.Value, wanted)).Key;
    }

    private static int Distance(int one, int other) =>
        Square((one >> 16) - (other >> 16))
        + Square(((one >> 8) & 255) - ((other >> 8) & 255))
        + Square((one & 255) - (other & 255));

    private static int Square(int number) => number * number;
}
