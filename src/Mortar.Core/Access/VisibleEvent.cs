using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
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

    /// <summary>For <see cref="Role.Times"/>, and for what is private to others: the calendar is busy. Overlapping and touching stretches are one.</summary>
    public sealed record Busy : VisibleEvent
    {
        internal Busy(Interval span, bool tentative) => (Span, Tentative) = (span, tentative);

        /// <summary>Start included, end excluded.</summary>
        public Interval Span { get; }

        /// <summary>Whether nothing in it is settled.</summary>
        public bool Tentative { get; }

        /// <summary>Busy stretches of several calendars, or of days that were read apart: those that meet are one.</summary>
        public static IEnumerable<Busy> Joined(IEnumerable<Busy> busy, Window window) =>
            busy.GroupBy(one => one.Tentative)
                .SelectMany(alike =>
                    Stretches
                        .Merged(alike.Select(one => one.Span), window.Span)
                        .Select(span => new Busy(span, alike.Key))
                );
    }

    /// <summary>From <see cref="Role.Outline"/> on, where it is not private to others: one occurrence, with what the step shows.</summary>
    public sealed record Shown : VisibleEvent
    {
        internal Shown(Occurrence occurrence, EventTime seen, Attendees? named, bool mayChange, bool mayGiveAway)
        {
            var (whole, content) = (occurrence.Event, occurrence.Content);
            (Id, CalendarId, Version) = (whole.Id, whole.CalendarId, whole.Version);
            (Start, Agreed, Seen, Repeats) = (occurrence.Start, occurrence.Time, seen, occurrence.Repeats);
            Dates = occurrence.Dates;
            (Title, Place, ShowAs, Cancelled) = (content.Title, content.Place, content.ShowAs, content.Cancelled);
            (Private, MayChange, MayGiveAway, Rule) = (content.Private, mayChange, mayGiveAway, occurrence.Rule);
            Attendees = named ?? Attendees.None;
            Editors = mayGiveAway ? whole.Editors : Attendees.None;
            if (named is not null)
            {
                (Notes, Kind, Reminder) = (content.Notes, content.Kind, content.Reminder);
                (Organizer, HidesAttendees) = (whole.AddedBy, content.HidesAttendees);
            }
        }

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

        /// <summary>For how many dates it stands: one, and more for the band of a day that has too many to tell apart.</summary>
        public int Dates { get; }

        /// <summary>The title; may be empty.</summary>
        public string Title { get; }

        /// <summary>The place; may be empty.</summary>
        public string Place { get; }

        /// <summary>The notes; <c>null</c> where the step does not show them.</summary>
        public string? Notes { get; }

        /// <summary>Its kind; <c>null</c> where the step does not show it.</summary>
        public string? Kind { get; }

        /// <summary>The people named on it; nobody where the step does not show them.</summary>
        public Attendees Attendees { get; }

        /// <summary>Who put it in or was handed it; <c>null</c> where the step does not show it.</summary>
        public PersonId? Organizer { get; }

        /// <summary>How many minutes before people are reminded; <c>null</c> for not at all.</summary>
        public int? Reminder { get; }

        /// <summary>Whether others see its times only.</summary>
        public bool Private { get; }

        /// <summary>Whether only those who may change it see who is named.</summary>
        public bool HidesAttendees { get; }

        /// <summary>How it counts.</summary>
        public ShowAs ShowAs { get; }

        /// <summary>Called off.</summary>
        public bool Cancelled { get; }

        /// <summary>How it repeats, as a sentence; <c>null</c> for a single event.</summary>
        public string? Repeats { get; }

        /// <summary>The one rule it repeats by, on the event's own clock and with its end as a day; <c>null</c> for a single event, and for a series that takes more to say.</summary>
        public RecurrenceRule? Rule { get; }

        /// <summary>Whether this reader may change it.</summary>
        public bool MayChange { get; }

        /// <summary>Whether this reader may also delete it, move it away, hand it over and give it to others.</summary>
        public bool MayGiveAway { get; }

        /// <summary>Those who may change it by themselves; told to those who may give it to them.</summary>
        public Attendees Editors { get; }
    }

    /// <summary>
    /// What a reader at <paramref name="role"/> sees of a calendar's occurrences; for <see cref="Role.None"/> nothing but
    /// what is given to them by itself.
    /// </summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="occurrences">The calendar's occurrences in the window.</param>
    /// <param name="window">The window; busy stretches are cut at its edges, so that a length outside it is not told.</param>
    public static IEnumerable<VisibleEvent> Through(
        Role role,
        PersonId reader,
        IEnumerable<Occurrence> occurrences,
        Window window
    )
    {
        var (shown, hidden) = (new List<Occurrence>(), new List<Occurrence>());
        foreach (var one in occurrences)
        {
            (IsShown(role, reader, one) ? shown : hidden).Add(one);
        }

        return shown
            .Select(one => (VisibleEvent)SeenBy(role, reader, one, window.Reader))
            .Concat(role == Role.None ? [] : BusyStretches(hidden, window));
    }

    /// <summary>One occurrence as a reader at <paramref name="role"/> sees it; <c>null</c> where they see at most that the calendar is busy.</summary>
    public static Shown? Show(Role role, PersonId reader, Occurrence occurrence, DateTimeZone zone) =>
        IsShown(role, reader, occurrence) ? SeenBy(role, reader, occurrence, zone) : null;

    /// <summary>
    /// A whole event as far as a reader knows what it is: all of it, or at <see cref="Role.Outline"/> its times, title and
    /// place. <c>null</c> where they see at most that the calendar is busy.
    /// </summary>
    public static Event? Known(Role role, PersonId reader, Event whole) =>
        !IsThere(role, reader, whole) ? null
        : SeesEverything(role, reader, whole) ? WithNamesSeen(role, reader, whole)
        : whole.WithContents(Outlined) with { AddedBy = default, GivenTo = Attendees.None, Editors = Attendees.None };

    private static EventContent Outlined(EventContent content) =>
        EventContent.Blank with
        {
            Title = content.Private ? string.Empty : content.Title,
            Place = content.Private ? string.Empty : content.Place,
            ShowAs = content.ShowAs,
            Cancelled = content.Cancelled,
        };

    /// <summary>An event as a reader who may export takes it along: one that is private to others has nothing but its times.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    /// <returns>
    /// The event and whether it is whole, so that what it came from may go along too; no event where it takes no time
    /// that could be told. The name of one that is not whole leads back to nothing.
    /// </returns>
    public static (Event? Event, bool IsWhole) ToExport(Role role, PersonId reader, Event whole)
    {
        if (SeesEverything(role, reader, whole))
        {
            // What it came from may name those whom the reader is not to find there.
            var namesAll =
                AccessRules.ToChange(role, reader, whole) == Verdict.Granted
                || !whole.Contents.Any(content => content.HidesAttendees);
            return (WithNamesSeen(role, reader, whole), namesAll);
        }

        if (!TakesTime(whole))
        {
            return (null, IsWhole: false);
        }

        // One of them is enough: which dates are the private ones is told by nothing.
        return (
            whole.WithContents(TimesOf) with
            {
                Id = default,
                AddedBy = default,
                Uid = $"busy-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(whole.Uid)))[..32]}",
                Version = 1,
            },
            IsWhole: false
        );
    }

    /// <summary>
    /// An event as any reader takes it along: from View on as <see cref="ToExport"/> says; at <see cref="Role.Outline"/> its
    /// times, titles and places, under a name that tells nothing of where it came from; where only events are given by
    /// themselves, those. At <see cref="Role.Times"/> there are no events to tell apart.
    /// </summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    public static (Event? Event, bool IsWhole) ToTake(Role role, PersonId reader, Event whole)
    {
        if (role >= Role.View || SeesEverything(role, reader, whole))
        {
            return ToExport(role, reader, whole);
        }

        if (!IsThere(role, reader, whole))
        {
            return role == Role.Outline ? ToExport(role, reader, whole) : (null, IsWhole: false);
        }

        return (
            whole.WithContents(content => content.Private ? TimesOf(content) : Outlined(content)) with
            {
                Id = default,
                AddedBy = default,
                GivenTo = Attendees.None,
                Editors = Attendees.None,
                Uid = whole.Id.Value.ToString("N"),
                Version = 1,
            },
            IsWhole: false
        );
    }

    /// <summary>Whether some date of an event is there for a reader as an event, and not only as a busy time.</summary>
    public static bool IsThere(Role role, PersonId reader, Event whole) =>
        AccessRules.OnEvent(role, reader, whole) >= Role.Outline
        && whole.Contents.Any(content => SeesContent(role, reader, whole, content));

    /// <summary>Whether a reader sees an event with everything on each of its dates.</summary>
    public static bool SeesEverything(Role role, PersonId reader, Event whole) =>
        AccessRules.OnEvent(role, reader, whole) >= Role.View
        && whole.Contents.All(content => SeesContent(role, reader, whole, content));

    /// <summary>
    /// Whether everybody with the same step on its calendar sees an event alike, but for whether they may change it:
    /// where nothing is private, kept from some or given by itself.
    /// </summary>
    public static bool IsAlikeForAll(Event whole) =>
        whole.GivenTo.Count == 0
        && whole.Editors.Count == 0
        && !whole.Contents.Any(content => content.Private || content.HidesAttendees);

    /// <summary>
    /// Whether a reader may see that an event was changed: where it is there for them whatever is new about it, and where
    /// they see at most that the calendar is busy, only another time taken. It is told of nothing else.
    /// </summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="before">The event before; <c>null</c> where it was not in the calendar.</param>
    /// <param name="after">The event after; <c>null</c> where it is not in the calendar any more.</param>
    public static bool IsChangeSeen(Role role, PersonId reader, Event? before, Event? after) =>
        ToldAnew(role, reader, before, after) is not (Event: false, Busy: false);

    /// <summary>
    /// What a reader has to be told anew when an event was changed: the event, where it is or was there for them, and when
    /// the calendar is busy, where what they see only as that takes another time. Of anything else they are told nothing.
    /// </summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="before">The event before; <c>null</c> where it was not in the calendar.</param>
    /// <param name="after">The event after; <c>null</c> where it is not in the calendar any more.</param>
    public static (bool Event, bool Busy) ToldAnew(Role role, PersonId reader, Event? before, Event? after)
    {
        var (was, now) = (Hidden(before), Hidden(after));
        return (
            new[] { before, after }.Any(one => one is not null && IsThere(role, reader, one)),
            role > Role.None && (was?.Time, was?.Content, was?.Series) != (now?.Time, now?.Content, now?.Series)
        );

        Event? Hidden(Event? whole) =>
            whole is not null
            && whole.Contents.Any(content =>
                content is { Cancelled: false, ShowAs: not ShowAs.Free } && !IsSeen(whole, content)
            )
                ? whole.WithContents(content => IsSeen(whole, content) ? NoTime : TimesOf(content))
                : null;

        bool IsSeen(Event whole, EventContent content) =>
            AccessRules.OnEvent(role, reader, whole) >= Role.Outline && SeesContent(role, reader, whole, content);
    }

    /// <summary>A whole event that a reader sees, without the names that are not for them.</summary>
    public static Event WithNamesSeen(Role role, PersonId reader, Event whole) =>
        whole.Contents.Any(content => content.HidesAttendees)
            ? whole.WithContents(content =>
                content with
                {
                    Attendees = AccessRules.NamesSeen(role, reader, whole, content),
                }
            )
            : whole;

    private static bool TakesTime(Event whole) =>
        whole.Contents.Any(content => content is { Cancelled: false, ShowAs: not ShowAs.Free });

    /// <summary>Stands for a date that is told as itself, where only the busy ones are looked at.</summary>
    private static readonly EventContent NoTime = EventContent.Blank with { ShowAs = ShowAs.Free };

    private static EventContent TimesOf(EventContent content) =>
        EventContent.Blank with
        {
            Title = "Busy",
            ShowAs = content.ShowAs,
            Cancelled = content.Cancelled,
            Private = true,
        };

    internal static bool IsShown(Role role, PersonId reader, Occurrence one) =>
        AccessRules.OnEvent(role, reader, one.Event) >= Role.Outline
        && SeesContent(role, reader, one.Event, one.Content);

    internal static bool SeesContent(Role role, PersonId reader, Event whole, EventContent content) =>
        !content.Private
        || AccessRules.SeesPrivate(
            AccessRules.OnEvent(role, reader, whole),
            reader,
            whole.AddedBy,
            content.Attendees.Has(reader) || whole.GivenTo.Has(reader)
        );

    private static Shown SeenBy(Role role, PersonId reader, Occurrence occurrence, DateTimeZone zone) =>
        new(
            occurrence,
            occurrence.SeenIn(zone),
            AccessRules.OnEvent(role, reader, occurrence.Event) >= Role.View
                ? AccessRules.NamesSeen(role, reader, occurrence.Event, occurrence.Content)
                : null,
            AccessRules.ToChange(role, reader, occurrence.Event) == Verdict.Granted,
            AccessRules.ToGiveAway(role, reader, occurrence.Event) == Verdict.Granted
        );

    internal static IEnumerable<Busy> BusyStretches(IEnumerable<Occurrence> occurrences, Window window)
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
