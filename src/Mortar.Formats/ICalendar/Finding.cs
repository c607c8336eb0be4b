using Mortar.Core.Words;

namespace Mortar.Formats.ICalendar;

/// <summary>What was found in a file: all of it is counted, and as much is kept as anybody reads. A file can be nothing but bad lines.</summary>
internal sealed class FindingList
{
    /// <summary>How many are kept of those that come first as the file is read.</summary>
    private const int MostKept = 1_000;

    private readonly List<Finding> kept = [];

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>For how many of them an event is missing.</summary>
    public int LeftOut { get; private set; }

    /// <summary>Those that are kept, by line.</summary>
    public IReadOnlyList<Finding> Kept => [.. kept.OrderBy(finding => finding.Line)];

    public void Add(Finding finding)
    {
        Count++;
        LeftOut += finding.LeftOut ? 1 : 0;
        if (kept.Count < MostKept)
        {
            kept.Add(finding);
        }
    }
}

/// <summary>Something in a file that was not taken just as it stands.</summary>
/// <param name="Line">The 1-based line of the file.</param>
/// <param name="LeftOut">Whether a whole event is missing because of it; otherwise it is in, but not as it stands.</param>
/// <param name="What">The thing, as the reader would name it.</param>
/// <param name="Why">Why, and what was done instead.</param>
public sealed record Finding(int Line, bool LeftOut, string What, string Why)
{
    internal static Finding Skipped(int line, string what, string why) => new(line, LeftOut: false, what, why);

    internal static Finding Missing(int line, string what, string why) => new(line, LeftOut: true, what, why);

    /// <summary>A piece of the file that is fit to stand in a sentence.</summary>
    internal static string Quote(string text) => PlainText.Shorten(PlainText.OneLine(text), 40);
}
