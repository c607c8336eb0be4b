using System.Globalization;

namespace Mortar.Core.Words;

/// <summary>Small pieces of English sentences.</summary>
public static class Wording
{
    /// <summary>"a", "a and b", "a, b and c".</summary>
    public static string List(IEnumerable<string> items)
    {
        var all = items.ToList();
        return all.Count > 1 ? $"{string.Join(", ", all.Take(all.Count - 1))} and {all[^1]}" : string.Concat(all);
    }

    /// <summary>"1 date", "2 dates".</summary>
    public static string Count(int number, string one, string many) =>
        string.Create(CultureInfo.InvariantCulture, $"{number} {(number == 1 ? one : many)}");

    /// <summary>"1st", "22nd", "13th".</summary>
    public static string Nth(int number) =>
        number.ToString(CultureInfo.InvariantCulture)
        + (
            (number % 100) is >= 11 and <= 13
                ? "th"
                : (number % 10) switch
                {
                    1 => "st",
                    2 => "nd",
                    3 => "rd",
                    _ => "th",
                }
        );

    /// <summary>"first", "last", "second-to-last", "20th".</summary>
    public static string Position(int position) =>
        position switch
        {
            -1 => "last",
            < 0 => Position(-position) + "-to-last",
            1 => "first",
            2 => "second",
            3 => "third",
            4 => "fourth",
            5 => "fifth",
            _ => Nth(position),
        };

    /// <summary>"January".</summary>
    public static string Month(int month) => CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(month);
}
