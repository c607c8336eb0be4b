using System.Globalization;
using System.Text;

namespace Mortar.Core.Words;

/// <summary>
/// A name in an address that people say and type: <c>raku-club</c>. Letters of the Latin alphabet, digits and single hyphens,
/// which look alike in every program and need no escapes (the unreserved characters of RFC 3986, 2.3, less those that get lost
/// at the end of a sentence).
/// </summary>
public static class ShortAddress
{
    /// <summary>The fewest characters.</summary>
    public const int Shortest = 3;

    /// <summary>The most characters.</summary>
    public const int Longest = 40;

    /// <summary>Names that could be taken for a part of Mortar, or for those who run it (common practice, no source).</summary>
    private static readonly HashSet<string> Reserved = new(StringComparer.Ordinal)
    {
        "about",
        "abuse",
        "account",
        "accounts",
        "admin",
        "administrator",
        "api",
        "assets",
        "billing",
        "board",
        "bin",
        "contact",
        "error",
        "feed",
        "feeds",
        "group",
        "groups",
        "health",
        "help",
        "home",
        "inbox",
        "index",
        "link",
        "live",
        "login",
        "logout",
        "mail",
        "new",
        "noticeboard",
        "noticeboards",
        "null",
        "operator",
        "owner",
        "people",
        "post-room",
        "postmaster",
        "preferences",
        "privacy",
        "robots",
        "root",
        "search",
        "security",
        "sign-in",
        "sign-up",
        "signin",
        "signup",
        "staff",
        "static",
        "status",
        "support",
        "system",
        "terms",
        "test",
        "undefined",
        "wall",
        "webmaster",
        "www",
    };

    /// <summary>Words that make any name misleading: who reads them gives away a password, or believes that Mortar speaks.</summary>
    private static readonly string[] Misleading =
    [
        "mortar",
        "password",
        "sign-in",
        "signin",
        "log-in",
        "login",
        "official",
        "verify",
        "webmaster",
        "postmaster",
    ];

    /// <summary>A wished name as it would be kept, and what is wrong with it. Whether it is taken is another question.</summary>
    public static Checked<string> Check(string? given, string path = "name")
    {
        var name = PlainText.OneLine(given).Trim().ToLowerInvariant();
        return WhyNot(name) is { } sentence
            ? new Checked<string>(name, [new FieldProblem(path, sentence)])
            : new Checked<string>(name);
    }

    /// <summary>
    /// What a name looks like at a glance: two names that look alike are never two people's. Digits stand for the letters they
    /// are taken for, and hyphens for nothing (after the idea of a skeleton in UTS #39, 4, for the few characters there are).
    /// </summary>
    public static string Look(string name) =>
        name.Replace("-", "", StringComparison.Ordinal)
            .Replace('0', 'o')
            .Replace('1', 'l')
            .Replace('i', 'l')
            .Replace('5', 's')
            .Replace('8', 'b')
            .Replace("rn", "m", StringComparison.Ordinal)
            .Replace("vv", "w", StringComparison.Ordinal);

    /// <summary>The nearest name that a title can have: accents go, everything else that is no letter or digit parts words. Empty where nothing is left.</summary>
    public static string Of(string title)
    {
        var words = new StringBuilder();
        foreach (var c in Unaccented(title))
        {
            if (char.IsAsciiLetterOrDigit(c))
            {
                words.Append(char.ToLowerInvariant(c));
            }
            else if (words.Length > 0 && words[^1] != '-')
            {
                words.Append('-');
            }
        }

        var name = words.ToString().Trim('-');
        return name.Length <= Longest
            ? name
            : name[..(name.LastIndexOf('-', Longest) is > 0 and var end ? end : Longest)];
    }

    /// <summary>Names to take instead of one that cannot be had, the nearest first; each fit, none known to be taken.</summary>
    /// <param name="wished">What was wished.</param>
    /// <param name="title">What it is the address of.</param>
    /// <param name="group">Whose it is.</param>
    /// <param name="year">This year.</param>
    public static IEnumerable<string> Instead(string wished, string title, string group, int year)
    {
        var (name, whose) = (Of(wished.Length > 0 ? wished : title), Of(group));
        string[] nearest =
        [
            name,
            Of(title),
            Of($"{whose} {name}"),
            Of($"{name} {whose}"),
            Of($"{whose} {Of(title)}"),
            string.Create(CultureInfo.InvariantCulture, $"{name}-{year}"),
            $"{name}-calendar",
            $"our-{name}",
            .. Enumerable.Range(2, 8).Select(number => string.Create(CultureInfo.InvariantCulture, $"{name}-{number}")),
        ];
        return nearest.Where(one => WhyNot(one) is null).Distinct(StringComparer.Ordinal);
    }

    /// <summary>Whether a name was drawn by lot, 128 bits as 32 letters, so that nobody guesses it.</summary>
    public static bool IsDrawn(string name) => name.Length == 32 && name.All(char.IsAsciiHexDigitLower);

    private static string? WhyNot(string name) =>
        IsDrawn(name) ? "Names like this are drawn by lot. Choose one that can be said."
        : name.Length is < Shortest or > Longest
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"An address has {Shortest} to {Longest} characters; this has {name.Length}."
            )
        : !name.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-')
            ? "Use letters from a to z, digits and hyphens: an address has to be typed on any keyboard."
        : name[0] == '-' || name[^1] == '-' || name.Contains("--", StringComparison.Ordinal)
            ? "A hyphen stands between two words, one at a time."
        : !name.Any(char.IsAsciiLetterLower) ? "An address has at least one letter."
        : Reserved.Contains(name) ? "This name is kept for Mortar itself. Choose another."
        : Misleading.FirstOrDefault(word => Look(name).Contains(Look(word), StringComparison.Ordinal)) is { } word
            ? $"A name with “{word}” in it could mislead people. Choose another."
        : null;

    /// <summary>Letters without their accents: what Unicode takes apart (NFKD), and those that it does not (from memory).</summary>
    private static string Unaccented(string text)
    {
        var apart = new StringBuilder();
        foreach (var rune in text.Normalize(NormalizationForm.FormKD).EnumerateRunes())
        {
            if (Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark)
            {
                continue;
            }

            apart.Append(
                rune.Value switch
                {
                    'ß' => "ss",
                    'ø' or 'Ø' => "o",
                    'æ' or 'Æ' => "ae",
                    'œ' or 'Œ' => "oe",
                    'đ' or 'Đ' or 'ð' or 'Ð' => "d",
                    'ł' or 'Ł' => "l",
                    'þ' or 'Þ' => "th",
                    'ı' => "i",
                    '\'' or '’' => "",
                    _ => rune.ToString(),
                }
            );
        }

        return apart.ToString();
    }
}
