using System.Diagnostics;
using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Wire;

/// <summary>What is long on an event, once for all its dates that have it alike: a series of a month is no longer an answer than its notes.</summary>
/// <param name="Notes"><c>null</c> where the reader's step does not show them.</param>
internal sealed record BrickTexts(
    string? Notes,
    IReadOnlyList<Guid> Attendees,
    IReadOnlyList<Guid> Editors,
    string? Repeats,
    string? Rule
);

/// <summary>Lays bricks whose texts stand in a table beside them.</summary>
internal sealed class BrickTable(DateTimeZone reader)
{
    private readonly List<BrickTexts> all = [];
    private readonly Dictionary<EventId, List<(VisibleEvent.Shown Shown, int At)>> known = [];

    /// <summary>The texts of the bricks that were laid.</summary>
    public IReadOnlyList<BrickTexts> Texts => all;

    public BrickBody Lay(CalendarId calendar, VisibleEvent visible) =>
        visible switch
        {
            VisibleEvent.Busy busy => new BrickBody.Busy(
                calendar.Value,
                busy.Span.Start.InZone(reader).LocalDateTime,
                busy.Span.End.InZone(reader).LocalDateTime,
                busy.Tentative
            ),
            VisibleEvent.Shown shown => Lay(shown),
            _ => throw new UnreachableException(),
        };

    public BrickBody.Event Lay(VisibleEvent.Shown shown) => BrickBody.Of(shown, reader, IndexOf(shown));

    private int IndexOf(VisibleEvent.Shown shown)
    {
        if (!known.TryGetValue(shown.Id, out var sorts))
        {
            known[shown.Id] = sorts = [];
        }

        foreach (var (other, at) in sorts)
        {
            if (
                other.Notes == shown.Notes
                && other.Attendees.Equals(shown.Attendees)
                && other.Editors.Equals(shown.Editors)
                && other.Repeats == shown.Repeats
                && Equals(other.Rule, shown.Rule)
            )
            {
                return at;
            }
        }

        sorts.Add((shown, all.Count));
        all.Add(
            new BrickTexts(
                shown.Notes,
                [.. shown.Attendees.Select(person => person.Value)],
                [.. shown.Editors.Select(person => person.Value)],
                shown.Repeats,
                shown.Rule?.ToString()
            )
        );
        return all.Count - 1;
    }
}
