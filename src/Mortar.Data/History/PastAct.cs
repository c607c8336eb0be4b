using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Kinds;
using NodaTime;

namespace Mortar.Data.History;

/// <summary>Of what a history is.</summary>
public abstract record HistoryOfWhat
{
    private HistoryOfWhat() { }

    /// <summary>Of what one did oneself, everywhere.</summary>
    public sealed record Mine : HistoryOfWhat;

    /// <summary>Of a calendar.</summary>
    public sealed record Calendar(CalendarId Id) : HistoryOfWhat;

    /// <summary>Of a group, its people and its calendars.</summary>
    public sealed record Group(GroupId Id) : HistoryOfWhat;
}

/// <summary>What of a history is looked for.</summary>
/// <param name="Of">Whose history.</param>
/// <param name="Actor">Only what one person did.</param>
/// <param name="Topic">Only what is about this.</param>
/// <param name="Event">Only what became of one event.</param>
/// <param name="From">Not before.</param>
/// <param name="Until">Before.</param>
/// <param name="Before">Only what came before this act: the last of the page before.</param>
public sealed record HistoryWish(
    HistoryOfWhat Of,
    PersonId? Actor = null,
    HistoryTopic? Topic = null,
    EventId? Event = null,
    Instant? From = null,
    Instant? Until = null,
    ChangeSetId? Before = null
);

/// <summary>What became of an act since.</summary>
public enum ActState
{
    /// <summary>It stands.</summary>
    Done,

    /// <summary>It was undone.</summary>
    Undone,
}

/// <summary>One act of somebody, as far as the reader may know of it.</summary>
/// <param name="Act">Its name, by which it is undone.</param>
/// <param name="At">When.</param>
/// <param name="Actor">Who.</param>
/// <param name="ActorName">Their name.</param>
/// <param name="Count">How many things it changed.</param>
/// <param name="Deeds">The first of what it did.</param>
/// <param name="Topic">What it is about.</param>
/// <param name="CalendarId">The calendar it was in; <c>null</c> where in several, or none.</param>
/// <param name="IsUndo">Whether it took back another one.</param>
/// <param name="State">What became of it.</param>
/// <param name="CanBeUndone">Whether the reader may try to undo it.</param>
public sealed record PastAct(
    ChangeSetId Act,
    Instant At,
    PersonId Actor,
    string ActorName,
    int Count,
    IReadOnlyList<Deed> Deeds,
    HistoryTopic Topic,
    CalendarId? CalendarId,
    bool IsUndo,
    ActState State,
    bool CanBeUndone
);

/// <summary>Some acts, the latest first.</summary>
/// <param name="Acts">The acts.</param>
/// <param name="Next">Named as <see cref="HistoryWish.Before"/> it brings the acts before these; <c>null</c> where there are none.</param>
public sealed record HistoryPage(IReadOnlyList<PastAct> Acts, ChangeSetId? Next);
