using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>An occurrence after it has passed the access rules: the only form in which one may leave for a client.</summary>
/// <remarks>
/// The constructors are private and each case carries only what its step shows, so that a leak does not compile:
/// a busy stretch has no id, no title and no number of events behind it.
/// </remarks>
public abstract record VisibleEvent
{
    private VisibleEvent() { }

    /// <summary>For <see cref="Role.Times"/>: the calendar is busy. Overlapping and touching stretches are one.</summary>
    public sealed record Busy : VisibleEvent
    {
        internal Busy(Interval span, bool tentative) => (Span, Tentative) = (span, tentative);

        /// <summary>Start included, end excluded.</summary>
        public Interval Span { get; }

        /// <summary>Whether nothing in it is settled.</summary>
        public bool Tentative { get; }
    }

    /// <summary>From <see cref="Role.Outline"/> on: one occurrence, with what the step shows.</summary>
    public sealed record Shown : VisibleEvent
    {
        internal Shown(Occurrence occurrence, EventTime seen, string? notes, bool mayChange) =>
            (Id, CalendarId, Version, Start, Agreed, Seen, Title, Place, Notes, ShowAs, Cancelled, Repeats, MayChange) =
                (
                    occurrence.Event.Id,
                    occurrence.Event.CalendarId,
                    occurrence.Event.Version,
                    occurrence.Start,
                    occurrence.Time,
                    seen,
                    occurrence.Content.Title,
                    occurrence.Content.Place,
                    notes,
                    occurrence.Content.ShowAs,
                    occurrence.Content.Cancelled,
                    occurrence.Repeats,
                    mayChange
                );

        /// <summary>The event it belongs to.</summary>
        public EventId Id { get; }

        /// <summary>The calendar it lives in.</summary>
        public CalendarId CalendarId { get; }

        /// <summary>The version of the event.</summary>
        public int Version { get; }

        /// <summary>By which start the series counts it; <c>null</c> for a single event.</summary>
        public LocalDateTime? Start { get; }

        /// <summary>When, as agreed.</summary>
        public EventTime Agreed { get; }

        /// <summary>When, on the reader's clock.</summary>
        public EventTime Seen { get; }

        /// <summary>The title; may be empty.</summary>
        public string Title { get; }

        /// <summary>The place; may be empty.</summary>
        public string Place { get; }

        /// <summary>The notes; <c>null</c> where the step does not show them.</summary>
        public string? Notes { get; }

        /// <summary>How it counts.</summary>
        public ShowAs ShowAs { get; }

        /// <summary>Called off.</summary>
        public bool Cancelled { get; }

        /// <summary>How it repeats, as a sentence; <c>null</c> for a single event.</summary>
        public string? Repeats { get; }

        /// <summary>Whether this reader may change it.</summary>
        public bool MayChange { get; }
    }

    /// <summary>What a reader at <paramref name="role"/> sees of a calendar's occurrences; nothing for <see cref="Role.None"/>.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="occurrences">The calendar's occurrences in the window.</param>
    /// <param name="window">The window; busy stretches are cut at its edges, so that a length outside it is not told.</param>
    public static IEnumerable<VisibleEvent> Through(
        Role role,
        PersonId reader,
        IEnumerable<Occurrence> occurrences,
        Window window
    ) =>
        role switch
        {
            Role.None => [],
            Role.Times => BusyStretches(occurrences, window),
            _ => occurrences.Select(one => Show(role, reader, one, window.Reader)),
        };

    /// <summary>One occurrence as a reader at <paramref name="role"/> sees it.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Below <see cref="Role.Outline"/> there is no single occurrence to see.</exception>
    public static Shown Show(Role role, PersonId reader, Occurrence occurrence, DateTimeZone zone)
    {
        if (role < Role.Outline)
        {
            throw new ArgumentOutOfRangeException(nameof(role), role, "Below Outline no single event is seen.");
        }

        return new Shown(
            occurrence,
            occurrence.SeenIn(zone),
            role >= Role.View ? occurrence.Content.Notes : null,
            AccessRules.ToChange(role, reader, occurrence.Event.AddedBy) == Verdict.Granted
        );
    }

    private static IEnumerable<Busy> BusyStretches(IEnumerable<Occurrence> occurrences, Window window)
    {
        var taken = occurrences
            .Where(one => one.Content is { ShowAs: not ShowAs.Free, Cancelled: false })
            .ToLookup(one => one.Content.ShowAs == ShowAs.Tentative);
        return Merged(tentative: false).Concat(Merged(tentative: true));

        IEnumerable<Busy> Merged(bool tentative) =>
            Stretches
                .Merged(taken[tentative].Select(one => one.Span), window.Span)
                .Select(span => new Busy(span, tentative));
    }
}
