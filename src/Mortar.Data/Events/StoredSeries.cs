using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>A series as text in its event's row: it belongs to the event, changes with it and is undone with it.</summary>
internal static class StoredSeries
{
    private sealed record Stored(
        string[]? Rules,
        string[]? ExceptRules,
        LocalDateTime[]? Extra,
        LocalDateTime[]? Excluded,
        StoredOverride[]? Overrides,
        string? NotShown,
        int NominalDays,
        Guid? ContinuedFrom
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
        bool Cancelled,
        OverrideRange Range,
        string? Attendees,
        string? Kind,
        bool Private,
        int? Reminder,
        bool HidesAttendees = false
    );

    public static string Text(Series series) =>
        StoredText.Of(
            new Stored(
                [.. series.Rules.Select(rule => rule.ToString())],
                [.. series.ExceptRules.Select(rule => rule.ToString())],
                [.. series.Extra],
                [.. series.Excluded],
                [.. series.Overrides.Select(ToStored)],
                series.NotShown,
                series.NominalDays,
                series.ContinuedFrom?.Value
            )
        );

    public static Series Read(string text)
    {
        var stored = StoredText.Read<Stored>(text);
        return new Series
        {
            Rules = Rules(stored.Rules),
            ExceptRules = Rules(stored.ExceptRules),
            Extra = stored.Extra ?? [],
            Excluded = stored.Excluded ?? [],
            Overrides = [.. (stored.Overrides ?? []).Select(FromStored)],
            NotShown = stored.NotShown,
            NominalDays = stored.NominalDays,
            ContinuedFrom = stored.ContinuedFrom is { } id ? new EventId(id) : null,
        };
    }

    /// <summary>Only rules that were read before are written, so none is wrong.</summary>
    private static List<RecurrenceRule> Rules(string[]? texts) => [.. (texts ?? []).Select(RecurrenceRule.Of)];

    private static StoredOverride ToStored(Override one)
    {
        var (form, start, end, zone) = EventRow.FromTime(one.Time);
        var (title, place, notes, showAs, cancelled) = one.Content;
        return new StoredOverride(
            one.Replaces,
            form,
            start,
            end,
            zone,
            title,
            place,
            notes,
            showAs,
            cancelled,
            one.Range,
            EventRow.FromAttendees(one.Content.Attendees),
            one.Content.Kind.Length > 0 ? one.Content.Kind : null,
            one.Content.Private,
            one.Content.Reminder,
            one.Content.HidesAttendees
        );
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
            {
                Attendees = EventRow.ToAttendees(one.Attendees),
                Kind = one.Kind ?? string.Empty,
                Private = one.Private,
                Reminder = one.Reminder,
                HidesAttendees = one.HidesAttendees,
            },
            one.Range
        );
}
