using System.Globalization;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>What somebody looks for.</summary>
/// <param name="Words">Words that all have to stand in the title, the place or the notes, in any case and with or without accents; empty for any.</param>
/// <param name="Place">Words that have to stand in the place.</param>
/// <param name="Kind">The kind; <c>null</c> for any.</param>
/// <param name="Person">Somebody who is named on it; <c>null</c> for anybody.</param>
public sealed record EventSearch(string Words, string Place, string? Kind, PersonId? Person)
{
    private const CompareOptions Loosely =
        CompareOptions.IgnoreCase | CompareOptions.IgnoreNonSpace | CompareOptions.IgnoreWidth;

    /// <summary>Whether an event is among those looked for. It is looked at only as the reader sees it.</summary>
    public bool Finds(VisibleEvent.Shown shown) =>
        Has($"{shown.Title}\n{shown.Place}\n{shown.Notes}\n{shown.Kind}", Words)
        && Has(shown.Place, Place)
        && (Kind is not { Length: > 0 } || string.Equals(shown.Kind, Kind, StringComparison.OrdinalIgnoreCase))
        && (Person is not { } person || shown.Attendees.Has(person));

    private static bool Has(string text, string words) =>
        words
            .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .All(word => CultureInfo.InvariantCulture.CompareInfo.IndexOf(text, word, Loosely) >= 0);
}
