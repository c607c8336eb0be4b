using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>What reading a file came to.</summary>
public abstract record CalendarFileReading
{
    private CalendarFileReading() { }

    /// <summary>A calendar, with what is in it and what could not be taken.</summary>
    /// <param name="Name">The name it gives itself; <c>null</c> where it gives none.</param>
    /// <param name="Events">Its events, one each for a series with all its changes, in the order of the file.</param>
    /// <param name="Findings">What was not taken as it stands, by line; of very many the first that were met.</param>
    /// <param name="FindingsInAll">How many there are.</param>
    /// <param name="LeftOut">For how many of them an event is missing.</param>
    public sealed record Understood(
        string? Name,
        IReadOnlyList<FileEvent> Events,
        IReadOnlyList<Finding> Findings,
        int FindingsInAll,
        int LeftOut
    ) : CalendarFileReading
    {
        /// <summary>What it says of itself (DESCRIPTION, RFC 7986, 5.2); <c>null</c> where it does not.</summary>
        public string? Description { get; init; }

        /// <summary>How often it asks to be fetched again (REFRESH-INTERVAL, RFC 7986, 5.7); <c>null</c> where it does not.</summary>
        public Duration? Refresh { get; init; }
    }

    /// <summary>Not a calendar at all, or too much of one.</summary>
    /// <param name="Sentence">What it is instead, and what to do.</param>
    public sealed record NotACalendar(string Sentence) : CalendarFileReading;
}

/// <summary>One event of a file.</summary>
/// <param name="Uid">Its UID, or one made from its content where it has none.</param>
/// <param name="Time">When.</param>
/// <param name="Content">What; texts made safe and cut to what can be shown.</param>
/// <param name="Series">How it repeats; <c>null</c> for a single event.</param>
/// <param name="Source">Its components as they came, unfolded, so that nothing in them is lost.</param>
public sealed record FileEvent(string Uid, EventTime Time, EventContent Content, Series? Series, string Source)
{
    /// <summary>Whether the file says who of ours is named on it, since it was written here; else the content names nobody.</summary>
    public bool SaysWho { get; init; }

    /// <summary>Who of ours organizes it, by what the file says; nobody has checked that.</summary>
    public PersonId? Organizer { get; init; }

    /// <summary>The overrides that have a component of their own, with it.</summary>
    internal IReadOnlyList<FileOverride> Changes { get; init; } = [];
}

/// <summary>An override and the component it was read from.</summary>
internal sealed record FileOverride(Override Override, Component Component);
