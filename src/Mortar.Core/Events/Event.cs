using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Events;

/// <summary>How an event counts for the time of those it takes (TRANSP and STATUS of RFC 5545).</summary>
public enum ShowAs
{
    /// <summary>It takes the time.</summary>
    Busy,

    /// <summary>It may take the time; not settled.</summary>
    Tentative,

    /// <summary>It takes no time.</summary>
    Free,
}

/// <summary>What an event is, apart from when.</summary>
/// <remarks>What is not in the constructor is what most events do not have.</remarks>
/// <param name="Title">One line; may be empty, which the interface shows as "untitled".</param>
/// <param name="Place">One line; empty where none is named.</param>
/// <param name="Notes">Lines of text; empty where there are none.</param>
/// <param name="ShowAs">How it counts for people's time.</param>
/// <param name="Cancelled">Called off but still on the plan (STATUS:CANCELLED); takes no time.</param>
public sealed record EventContent(string Title, string Place, string Notes, ShowAs ShowAs, bool Cancelled)
{
    /// <summary>An event of which nothing is said.</summary>
    public static EventContent Blank { get; } =
        new(string.Empty, string.Empty, string.Empty, ShowAs.Busy, Cancelled: false);

    /// <summary>The people named on it (ATTENDEE).</summary>
    public Attendees Attendees { get; init; } = Attendees.None;

    /// <summary>What sort of event in its calendar, one line (the first of CATEGORIES); empty for none.</summary>
    public string Kind { get; init; } = string.Empty;

    /// <summary>Whether those who may not change it and are not named on it see its times only (CLASS:PRIVATE).</summary>
    public bool Private { get; init; }

    /// <summary>How many minutes before the start its people are reminded; <c>null</c> for not at all.</summary>
    public int? Reminder { get; init; }

    /// <summary>Whether only those who may change it see who is named; everybody else finds at most themselves.</summary>
    public bool HidesAttendees { get; init; }
}

/// <summary>An event: single, or a series with all that belongs to it.</summary>
/// <param name="Id">Made by the client.</param>
/// <param name="CalendarId">Where it lives.</param>
/// <param name="Uid">Its name in files (UID); the same in every copy.</param>
/// <param name="AddedBy">Who put it in; with the step <em>Add</em> only they may change it.</param>
/// <param name="Time">When; for a series, the first occurrence.</param>
/// <param name="Content">What.</param>
/// <param name="Series">How it repeats; <c>null</c> for a single event.</param>
/// <param name="Version">Counts changes from 1.</param>
public sealed record Event(
    EventId Id,
    CalendarId CalendarId,
    string Uid,
    PersonId AddedBy,
    EventTime Time,
    EventContent Content,
    Series? Series,
    int Version
)
{
    /// <summary>Those it is given to by itself, to be read, whatever they see of its calendar.</summary>
    public Attendees GivenTo { get; init; } = Attendees.None;

    /// <summary>Those who may also change it, and it alone.</summary>
    public Attendees Editors { get; init; } = Attendees.None;

    /// <summary>The same, given to somebody by itself no longer. They stay named on it where they are.</summary>
    public Event NoLongerGivenTo(PersonId person) =>
        this with
        {
            GivenTo = Attendees.Of(GivenTo.Where(one => one != person)),
            Editors = Attendees.Of(Editors.Where(one => one != person)),
        };

    /// <summary>What it is on each date that was changed by itself, and on all others.</summary>
    public IEnumerable<EventContent> Contents =>
        Series is { } series ? series.Overrides.Select(one => one.Content).Append(Content) : [Content];

    /// <summary>Everybody named on some date of it.</summary>
    public IEnumerable<PersonId> Named => Contents.SelectMany(one => one.Attendees).Distinct();

    /// <summary>The same event with something made of its content, and of that of each of its single dates.</summary>
    public Event WithContents(Func<EventContent, EventContent> made) =>
        this with
        {
            Content = made(Content),
            Series = Series is { } series
                ? series with
                {
                    Overrides = [.. series.Overrides.Select(one => one with { Content = made(one.Content) })],
                }
                : null,
        };

    /// <summary>The event given by itself to nobody who is not named on it any more.</summary>
    public Event WithoutStrangers() =>
        GivenTo.Count + Editors.Count == 0
            ? this
            : this with
            {
                GivenTo = Attendees.Of(GivenTo.Intersect(Named)),
                Editors = Attendees.Of(Editors.Intersect(Named)),
            };
}
