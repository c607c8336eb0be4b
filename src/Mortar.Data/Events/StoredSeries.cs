using Mortar.Core.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>A series as text in its event's row: it belongs to the event, changes with it and is undone with it.</summary>
internal static class StoredSeries
{
    private sealed record Stored(
        string? Rule,
        LocalDateTime[]? Extra,
        LocalDateTime[]? Excluded,
        StoredOverride[]? Overrides
    );

    private sealed record StoredOverride(
        LocalDateTime Replaces,
        TimeForm Form,
        LocalDateTime Start,
        LocalDateTime End,
        string? Zone,
        string? Title,
        string? Place,
        string? Notes,
        ShowAs ShowAs,
        bool Cancelled
    );

    public static string Text(Series series) =>
        StoredText.Of(
            new Stored(series.RuleText, [.. series.Extra], [.. series.Excluded], [.. series.Overrides.Select(ToStored)])
        );

    public static Series Read(string text)
    {
        var stored = StoredText.Read<Stored>(text);
        return new Series(
            stored.Rule,
            stored.Extra ?? [],
            stored.Excluded ?? [],
            [.. (stored.Overrides ?? []).Select(FromStored)]
        );
    }

    private static StoredOverride ToStored(Override one)
    {
        var (form, start, end, zone) = EventRow.FromTime(one.Time);
        var (title, place, notes, showAs, cancelled) = one.Content;
        return new StoredOverride(one.Replaces, form, start, end, zone, title, place, notes, showAs, cancelled);
    }

    private static Override FromStored(StoredOverride one) =>
        new(
            one.Replaces,
            EventRow.ToTime(one.Form, one.Start, one.End, one.Zone),
            new EventContent(
                one.Title ?? string.Empty,
                one.Place ?? string.Empty,
                one.Notes ?? string.Empty,
                one.ShowAs,
                one.Cancelled
            )
        );
}
