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

    private static readonly char[] Breaks = ['\n', ';'];
    private static readonly char[] Cells = ['\t', ','];
    private static readonly char[] Quotes = ['"', '\'', '“', '”', ' '];
    private static readonly string[] Heads = ["name", "address", "mail", "email", "e-mail", "first name", "last name"];

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

    /// <summary>What would come of an entry.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="inGroup">The addresses that are in the group.</param>
    /// <param name="known">The addresses that the reader is told in other groups.</param>
    /// <param name="asked">Those of them whose owners were asked to be in the group already.</param>
    public static ListedFate FateOf(
        ListedPerson entry,
        IReadOnlyCollection<string> inGroup,
        IReadOnlyCollection<string> known,
        IReadOnlyCollection<string> asked
    ) =>
        entry.Reading switch
        {
            ListedReading.Unreadable => ListedFate.Unreadable,
            ListedReading.Again => ListedFate.Again,
            _ when entry.Address is null => ListedFate.New,
            _ when inGroup.Contains(entry.Address.Value.Value) => ListedFate.AlreadyIn,
            _ when asked.Contains(entry.Address.Value.Value) => ListedFate.Asked,
            _ when known.Contains(entry.Address.Value.Value) => ListedFate.Known,
            _ => ListedFate.New,
        };

    /// <summary>Lines and what semicolons part; and, where a line holds several addresses, what commas part.</summary>
    private static IEnumerable<string> Entries(string text) =>
        PlainText
            .Lines(text)
            .Split(Breaks, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .SelectMany(line =>
                line.Count(c => c == '@') > 1
                    ? line.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                    : [line]
            )
            .Where(line => !IsHead(line));

    /// <summary>Whether a line only names the columns of a spreadsheet.</summary>
    private static bool IsHead(string line) =>
        line.Split(Cells, StringSplitOptions.TrimEntries)
            .All(cell => Heads.Contains(cell.Trim(Quotes), StringComparer.OrdinalIgnoreCase));

    private static ListedPerson Understand(string entry)
    {
        var text = PlainText.OneLine(entry);
        var (name, address) = Parts(entry);
        name = PlainText.OneLine(name).Trim(Quotes);
        if (address is null)
        {
            return name.Any(char.IsLetter) && name.Length <= PersonName.Longest
                ? new ListedPerson(text, name, null, ListedReading.NameOnly, Doubt: null)
                : new ListedPerson(text, name, null, ListedReading.Unreadable, "This is no name and no address.");
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
        if (open >= 0 && close > open)
        {
            return (entry[..open], entry[(open + 1)..close]);
        }

        var cells = entry.Split(Cells, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (cells.Length == 1)
        {
            cells = entry.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        }

        return (
            string.Join(' ', cells.Where(cell => !cell.Contains('@', StringComparison.Ordinal))),
            cells.FirstOrDefault(cell => cell.Contains('@', StringComparison.Ordinal))?.Trim(Quotes)
        );
    }

    /// <summary>A name made from an address: <c>mei.sato@…</c> is Mei Sato.</summary>
    private static string Guess(Address address) =>
        string.Join(
            ' ',
            address
                .LocalPart.Split(['.', '_', '-', '+'], StringSplitOptions.RemoveEmptyEntries)
                .Select(part => char.ToUpperInvariant(part[0]) + part[1..])
        );

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
}
