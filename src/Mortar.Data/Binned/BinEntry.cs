using Mortar.Core.Binned;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using NodaTime;

namespace Mortar.Data.Binned;

/// <summary>Where something waits in the bin.</summary>
/// <param name="Kind">What sort of thing.</param>
/// <param name="CalendarId">The calendar it is of, or that it is; none for a group.</param>
/// <param name="Act">The act that put it there, for events and dates.</param>
/// <param name="Id">Which event, proposal or group; <c>null</c> for the calendar, and for all events of the act.</param>
public sealed record BinPlace(BinKind Kind, CalendarId CalendarId, ChangeSetId? Act = null, Guid? Id = null);

/// <summary>One of the things of an entry.</summary>
/// <param name="Id">The event or proposal.</param>
/// <param name="Title">Its title; may be empty.</param>
/// <param name="Time">When it is, for an event.</param>
/// <param name="Repeats">Whether it is a series.</param>
public sealed record BinnedThing(Guid Id, string Title, EventTime? Time = null, bool Repeats = false);

/// <summary>What one act put in the bin of one calendar, or a calendar that is there itself.</summary>
/// <param name="Place">Where it waits.</param>
/// <param name="Calendar">The calendar; <c>null</c> for a group.</param>
/// <param name="GroupName">The group it is of, or that it is.</param>
/// <param name="Count">How many things: events, dates, the events in a calendar, or the calendars of a group.</param>
/// <param name="Things">The first of them.</param>
/// <param name="Out">For dates, which of the series.</param>
/// <param name="DeletedBy">The name of who deleted it.</param>
/// <param name="DeletedAt">When.</param>
/// <param name="Erased">What has to be typed to have it go for good; <c>null</c> where that is not the reader's.</param>
public sealed record BinEntry(
    BinPlace Place,
    CalendarRow? Calendar,
    string GroupName,
    int Count,
    IReadOnlyList<BinnedThing> Things,
    TakenOut? Out,
    string DeletedBy,
    Instant DeletedAt,
    string? Erased
);
