using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>What somebody looks for.</summary>
/// <param name="Words">Words that all have to stand in the title, the place or the notes, in any case and with or without accents; empty for any.</param>
/// <param name="Place">Words that have to stand in the place.</param>
/// <param name="Kind">The kind; <c>null</c> for any.</param>
/// <param name="Person">Somebody who is named on it; <c>null</c> for anybody.</param>
public sealed record EventSearch(string Words, string Place, string? Kind, PersonId? Person)
{
    /// <summary>Whether an event is among those looked for. It is looked at only as the reader sees it.</summary>
    public bool Finds(VisibleEvent.Shown shown) =>
        SoughtWords.AreIn($"{shown.Title}\n{shown.Place}\n{shown.Notes}\n{shown.Kind}", Words)
        && SoughtWords.AreIn(shown.Place, Place)
        && (Kind is not { Length: > 0 } || string.Equals(shown.Kind, Kind, StringComparison.OrdinalIgnoreCase))
        && (Person is not { } person || shown.Attendees.Has(person));

    /// <summary>
    /// Of what was found so many dates of each series and so many in all, in order of time: those that are next, and where
    /// these are fewer, the latest before them.
    /// </summary>
    /// <param name="found">What was found, in any order.</param>
    /// <param name="now">What o'clock it is for the reader.</param>
    /// <param name="ofSeries">The most dates of one series.</param>
    /// <param name="most">The most in all.</param>
    /// <returns>Those, and whether there are more than the last of them allows.</returns>
    public static (IReadOnlyList<VisibleEvent.Shown> Told, bool More) Nearest(
        IEnumerable<VisibleEvent.Shown> found,
        LocalDateTime now,
        int ofSeries,
        int most
    )
    {
        var all = InOrder(NextOfEach(found, now, ofSeries)).ToList();
        return (Next(all, now, most), all.Count > most);
    }

    /// <summary>
    /// Of what was found in a part of the days so many dates of each series. Of all parts together the same are next as of
    /// everything in them, so that what is kept from part to part is bounded by how many series there are.
    /// </summary>
    /// <param name="found">What was found in the part, in any order.</param>
    /// <param name="now">What o'clock it is for the reader.</param>
    /// <param name="ofSeries">The most dates of one series.</param>
    public static IEnumerable<VisibleEvent.Shown> NextOfEach(
        IEnumerable<VisibleEvent.Shown> found,
        LocalDateTime now,
        int ofSeries
    ) => InOrder(found).GroupBy(one => one.Id).SelectMany(same => Next([.. same], now, ofSeries));

    private static IEnumerable<VisibleEvent.Shown> InOrder(IEnumerable<VisibleEvent.Shown> found) =>
        found.OrderBy(one => one.Seen.LocalStart);

    private static List<VisibleEvent.Shown> Next(List<VisibleEvent.Shown> all, LocalDateTime now, int most)
    {
        var over = all.FindIndex(one => one.Seen.LocalEnd > now) is >= 0 and var next ? next : all.Count;
        var from = Math.Max(0, Math.Min(over, all.Count - most));
        return all.GetRange(from, Math.Min(most, all.Count - from));
    }
}
