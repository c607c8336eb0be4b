using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Groups;

/// <summary>How many of whom a group needs when, as text in one column.</summary>
internal static class StoredCover
{
    /// <param name="Begins">In minutes of the day; no hours for whole days.</param>
    private sealed record Stored(string? Name, int? Begins, int? Ends, Guid[]? People, int[] Days);

    public static string? Text(ImmutableArray<CoverNeed> needs) =>
        needs.IsEmpty
            ? null
            : StoredText.Of(
                needs
                    .Select(need => new Stored(
                        need.Name.Length > 0 ? need.Name : null,
                        need.Part.IsWhole ? null : Minutes(need.Part.Begins),
                        need.Part.Ends is { } ends ? Minutes(ends) : null,
                        need.People.IsEmpty ? null : [.. need.People.Select(one => one.Value)],
                        [.. need.FromMonday]
                    ))
                    .ToArray()
            );

    public static ImmutableArray<CoverNeed> Read(string? text) =>
        text switch
        {
            null => [],
            ['[', ..] => [.. StoredText.Read<Stored[]>(text).Select(FromStored)],
            // Before there could be several: seven numbers with spaces. Changes from then can still be undone.
            _ => [new CoverNeed([.. text.Split(' ').Select(one => int.Parse(one, CultureInfo.InvariantCulture))])],
        };

    private static CoverNeed FromStored(Stored one) =>
        new([.. one.Days])
        {
            Name = one.Name ?? string.Empty,
            Part = one.Begins is { } begins
                ? new DayPart(
                    LocalTime.FromMinutesSinceMidnight(begins),
                    one.Ends is { } ends ? LocalTime.FromMinutesSinceMidnight(ends) : null
                )
                : DayPart.Whole,
            People = [.. (one.People ?? []).Select(id => new PersonId(id))],
        };

    private static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;
}
