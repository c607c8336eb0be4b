using Mortar.Core.Words;

namespace Mortar.Formats.ICalendar;

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
