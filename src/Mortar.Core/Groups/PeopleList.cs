using System.Text.RegularExpressions;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>One person of a pasted list, as it was understood.</summary>
/// <param name="Text">The text it was read from, on one line.</param>
/// <param name="Name">The name; where only an address stands, a guess from it.</param>
/// <param name="Address">The address; <c>null</c> for a name alone, and for what is no address.</param>
/// <param name="Reading">How it was understood.</param>
/// <param name="Doubt">What is doubtful and what would mend it, in a sentence; <c>null</c> where nothing is.</param>
public sealed record ListedPerson(string Text, string Name, Address? Address, ListedReading Reading, string? Doubt);

/// <summary>How one entry of a list was understood.</summary>
public enum ListedReading
{
    /// <summary>A name with an address, or an address alone.</summary>
    Addressed,

    /// <summary>A name alone: somebody without an account and without mail.</summary>
    NameOnly,

    /// <summary>An address that stands in the list before.</summary>
    Again,

    /// <summary>It has an @ and is no address, or it is no name.</summary>
    Unreadable,
}

/// <summary>What would come of one entry of a list in a group.</summary>
public enum ListedFate
{
    /// <summary>Somebody new: a name, with a mail where there is an address.</summary>
    New,

    /// <summary>Somebody with an account, whose address the reader is told in another group: they are asked.</summary>
    Known,

    /// <summary>The same, and they were asked already.</summary>
    Asked,

    /// <summary>In the group already.</summary>
    AlreadyIn,

    /// <summary>In the list before: taken once.</summary>
    Again,

    /// <summary>Neither a name nor an address.</summary>
    Unreadable,
}

/// <summary>
/// Reads a list of people in whatever shape it was copied: one a line, <c>Name &lt;a@b&gt;</c>, commas, semicolons, or
/// the cells of a spreadsheet. Nothing is refused as a whole: each entry says how it was understood.
/// </summary>
public static class PeopleList
{
    /// <summary>The most entries that are read; further ones are left.</summary>
    public const int Most = 500;

    private const StringSplitOptions Tidy = StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries;

    private static readonly char[] Cells = ['\t', ',', ';', '|'];
    private static readonly char[] Quotes = ['"', '\'', '“', '”', ' '];
    private static readonly char[] Around =
    [
        .. Quotes,
        '-',
        '–',
        '—',
        ':',
        ',',
        ';',
        '|',
        '<',
        '>',
        '(',
        ')',
        '[',
        ']',
    ];
    private static readonly char[] AroundAddress = [.. Around, '.', '{', '}'];
    private static readonly char[] OddInNames =
    [
        '@',
        '|',
        '<',
        '>',
        '[',
        ']',
        '{',
        '}',
        '(',
        ')',
        '/',
        '\\',
        ':',
        '=',
        '_',
    ];
    private static readonly string[] Heads = ["name", "address", "mail", "email", "e-mail", "first name", "last name"];

    private static readonly Regex Ats = Of(@"\s*[(\[{]\s*at\s*[)\]}]\s*");
    private static readonly Regex Dots = Of(@"\s*[(\[{]\s*dot\s*[)\]}]\s*");

    /// <summary>An address written out in words: "mei at example.org", "mei at example dot org". Without a domain after it, "at" is a word.</summary>
    private static readonly Regex Spoken = Of(
        @"(?<local>[\w.+-]+)[ \t]+at[ \t]+(?<domain>[\w-]+((\.|[ \t]+dot[ \t]+)[\w-]+)+)"
    );
    private static readonly Regex SpokenDots = Of(@"[ \t]+dot[ \t]+");

    /// <summary>What a numbered or dotted list puts before an entry.</summary>
    private static readonly Regex Marker = Of(@"^\s*(\d{1,3}[.)]|[-*•–])\s+");
    private static readonly Regex Dashes = Of(@"\s[-–—]\s");

    /// <summary>Reads a list. An address that comes twice and one whose domain looks mistyped are doubtful, not refused.</summary>
    /// <param name="text">The pasted text.</param>
    /// <param name="familiar">Domains that are known to be right, for example those of people one shares a group with.</param>
    public static IReadOnlyList<ListedPerson> Read(string? text, IReadOnlyCollection<string> familiar)
    {
        var entries = Entries(text ?? string.Empty).Take(Most).Select(Understand).ToList();
        var domains = entries
            .Where(entry => entry.Address is not null)
            .GroupBy(entry => Domain(entry.Address!.Value), StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.Count(), StringComparer.Ordinal);
        var seen = new HashSet<Address>();
        return
        [
            .. entries.Select(entry =>
                entry.Address is not { } address ? entry
                : !seen.Add(address)
                    ? entry with
                    {
                        Reading = ListedReading.Again,
                        Doubt = "This address stands in the list before. It is taken once.",
                    }
                : Likelier(Domain(address), domains, familiar) is { } better
                    ? entry with
                    {
                        Doubt = $"Is “{Domain(address)}” right? Others have “{better}”.",
                    }
                : entry
            ),
        ];
    }

    /// <summary>What would come of an entry, said before anybody is added.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="arrival">What adding it would come to.</param>
    public static ListedFate FateOf(ListedPerson entry, Arrival arrival) =>
        (entry.Reading, arrival) switch
        {
            (ListedReading.Unreadable, _) => ListedFate.Unreadable,
            (ListedReading.Again, _) => ListedFate.Again,
            (_, Arrival.AlreadyIn) => ListedFate.AlreadyIn,
            (_, Arrival.AlreadyAsked) => ListedFate.Asked,
            (_, Arrival.Asked or Arrival.SaidNo) => ListedFate.Known,
            _ => ListedFate.New,
        };

    /// <summary>
    /// Lines, and what parts people on one: semicolons and commas, unless one address alone stands there, whose cells they
    /// part then. Where a line has several addresses, each entry ends with one.
    /// </summary>
    private static IEnumerable<string> Entries(string text) =>
        PlainText
            .Lines(Written(Dots.Replace(Ats.Replace(text, "@"), ".")))
            .Split('\n', Tidy)
            .SelectMany(line =>
                line.Count(c => c == '@') == 1 ? [line]
                : line.Contains('@', StringComparison.Ordinal) ? Split(line, [';']).SelectMany(EndingWithAddress)
                : Names(line)
            )
            .Where(line => !IsHead(line));

    private static string Written(string text) =>
        Spoken.Replace(
            text,
            found => $"{found.Groups["local"].Value}@{SpokenDots.Replace(found.Groups["domain"].Value, ".")}"
        );

    /// <summary>Several names without addresses: three and more that commas part are no family name with its given one.</summary>
    private static IEnumerable<string> Names(string line) =>
        Split(line, [';'])
            .SelectMany(part => Split(part, [',']) is { Count: > 2 } several && !IsHead(part) ? several : [part]);

    private static IEnumerable<string> EndingWithAddress(string part)
    {
        var pieces = new Queue<string>();
        foreach (var piece in Split(part, [',']))
        {
            // A name has two parts at most, and one stands beside the address already where it is not alone there.
            var isLast = piece.Contains('@', StringComparison.Ordinal);
            var most = isLast && piece.Any(char.IsWhiteSpace) ? 2 : 3;
            pieces.Enqueue(piece);
            while (pieces.Count > (isLast ? most : 2))
            {
                yield return pieces.Dequeue();
            }

            if (isLast)
            {
                yield return string.Join(", ", pieces);
                pieces.Clear();
            }
        }

        foreach (var name in Names(string.Join(", ", pieces)))
        {
            yield return name;
        }
    }

    /// <summary>Parts a text; where it is in quotes, at the edges of cells alone.</summary>
    private static List<string> Split(string text, char[] at)
    {
        var (parts, begin, quoted) = (new List<string>(), 0, false);
        for (var i = 0; i <= text.Length; i++)
        {
            // A quotation mark that is not closed is none.
            if (i < text.Length && text[i] == '"')
            {
                quoted = !quoted && text.IndexOf('"', i + 1) >= 0;
            }
            else if (i == text.Length || ((!quoted || text[i] is '\t' or '|') && at.Contains(text[i])))
            {
                var part = text[begin..i].Trim();
                if (part.Length > 0)
                {
                    parts.Add(part);
                }

                begin = i + 1;
            }
        }

        return parts;
    }

    /// <summary>Whether a line only names the columns of a spreadsheet.</summary>
    private static bool IsHead(string line) =>
        line.Split(Cells, StringSplitOptions.TrimEntries)
            .All(cell => Heads.Contains(cell.Trim(Quotes), StringComparer.OrdinalIgnoreCase));

    private static ListedPerson Understand(string entry)
    {
        // The cells of a spreadsheet stay parted on one line, so that it can be mended and read again.
        var text = PlainText.OneLine(entry.Replace("\t", " | ", StringComparison.Ordinal));
        var (written, address) = Parts(Marker.Replace(entry, string.Empty));
        var (name, isTurned) = InOrder(PlainText.OneLine(written).Trim(Around));
        if (address is null)
        {
            return !name.Any(char.IsLetter) || name.Length > PersonName.Longest
                    ? new ListedPerson(text, name, null, ListedReading.Unreadable, "This is no name and no address.")
                : isTurned
                    ? new ListedPerson(
                        text,
                        name,
                        null,
                        ListedReading.NameOnly,
                        "Read as one person, the family name first. Write two people on two lines."
                    )
                : new ListedPerson(
                    text,
                    name,
                    null,
                    ListedReading.NameOnly,
                    name.Any(c => char.IsDigit(c) || OddInNames.Contains(c)) ? "Is this somebody’s name?" : null
                );
        }

        if (!Address.TryParse(address, out var read))
        {
            return new ListedPerson(text, name, null, ListedReading.Unreadable, Address.Problem(address));
        }

        var called = name.Length > 0 ? name : Guess(read.Value);
        return new ListedPerson(
            text,
            PlainText.Shorten(called, PersonName.Longest),
            read,
            ListedReading.Addressed,
            Doubt: null
        );
    }

    /// <summary>What of an entry is the name and what the address; there is an address wherever there is an @.</summary>
    private static (string Name, string? Address) Parts(string entry)
    {
        var (open, close) = (entry.LastIndexOf('<'), entry.LastIndexOf('>'));
        if (open >= 0 && close > open && entry[open..close].Contains('@', StringComparison.Ordinal))
        {
            return (Joined(Split(entry[..open], ['\t', '|', ';'])), Bare(entry[(open + 1)..close]));
        }

        var cells = Split(Dashes.Replace(entry, "\t"), Cells);
        var at = cells.FindIndex(cell => cell.Contains('@', StringComparison.Ordinal));
        if (at < 0)
        {
            return (Joined(Split(entry, ['\t', '|'])), null);
        }

        // Beside an address in its cell stands more of the name.
        var words = cells[at].Split([' ', '('], Tidy);
        var address = Bare(words.First(word => word.Contains('@', StringComparison.Ordinal)));
        cells[at] = string.Join(' ', words.Where(word => !word.Contains('@', StringComparison.Ordinal)));
        // A name stands before its address, and what follows is something else; unless nothing stands before it.
        var before = Joined(cells[..(at + 1)]);
        return (before.Length > 0 ? before : Joined(cells[(at + 1)..]), address);
    }

    /// <summary>The cells that can be part of a name.</summary>
    private static string Joined(IEnumerable<string> cells) =>
        string.Join(' ', cells.Where(cell => cell.Any(char.IsLetter) && !cell.Contains('@', StringComparison.Ordinal)));

    /// <summary>An address without what was copied along with it.</summary>
    private static string Bare(string address)
    {
        var bare = address.Trim(AroundAddress);
        if (bare.StartsWith("mailto:", StringComparison.OrdinalIgnoreCase))
        {
            bare = bare["mailto:".Length..].Split('?')[0];
        }

        return bare.Length > 0 ? bare : address;
    }

    /// <summary>"Raman, Priya" as she is called.</summary>
    private static (string Name, bool IsTurned) InOrder(string name) =>
        name.Split(',', Tidy) is [var family, var given] ? ($"{given} {family}", true) : (name, false);

    /// <summary>A name made from an address: <c>mei.sato@…</c> is Mei Sato.</summary>
    private static string Guess(Address address) =>
        string.Join(
            ' ',
            address
                .LocalPart.Split(['.', '_', '-', '+'], StringSplitOptions.RemoveEmptyEntries)
                .Select(part => char.ToUpperInvariant(part[0]) + part[1..])
        );

    /// <summary>The domain of an address.</summary>
    public static string DomainOf(string address) => address[(address.IndexOf('@', StringComparison.Ordinal) + 1)..];

    private static string Domain(Address address) => address.Value[(address.LocalPart.Length + 1)..];

    /// <summary>A domain that is one slip away from this one and better known; <c>null</c> where there is none.</summary>
    private static string? Likelier(
        string domain,
        Dictionary<string, int> listed,
        IReadOnlyCollection<string> familiar
    ) =>
        familiar.Contains(domain)
            ? null
            : familiar
                .Concat(listed.Where(other => other.Value > listed[domain]).Select(other => other.Key))
                .FirstOrDefault(other => IsOneSlipAway(domain, other));

    /// <summary>Whether one letter was left out, put in, mistaken or swapped with the next.</summary>
    private static bool IsOneSlipAway(string a, string b)
    {
        if (a == b || Math.Abs(a.Length - b.Length) > 1)
        {
            return false;
        }

        var same = a.Zip(b).TakeWhile(pair => pair.First == pair.Second).Count();
        var (restA, restB) = (a[same..], b[same..]);
        return restA.Length != restB.Length
            ? restA.Length > restB.Length
                ? restA[1..] == restB
                : restB[1..] == restA
            : restA[1..] == restB[1..]
                || (restA.Length > 1 && restA[0] == restB[1] && restA[1] == restB[0] && restA[2..] == restB[2..]);
    }

    private static Regex Of(string pattern) =>
        new(
            pattern,
            RegexOptions.NonBacktracking
                | RegexOptions.IgnoreCase
                | RegexOptions.CultureInvariant
                | RegexOptions.ExplicitCapture
        );
}
