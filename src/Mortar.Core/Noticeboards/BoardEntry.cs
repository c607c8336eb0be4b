using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Noticeboards;

/// <summary>
/// One thing on a noticeboard, as everybody in the world sees it. It is made of what the access rules let through for a
/// stranger at the layer's step (<see cref="VisibleEvent"/>), less what the noticeboard does not tell.
/// </summary>
public sealed record BoardEntry
{
    private BoardEntry(CalendarId calendarId, EventTime time, Interval span) =>
        (CalendarId, Time, Span) = (calendarId, time, span);

    /// <summary>The calendar it is in.</summary>
    public CalendarId CalendarId { get; }

    /// <summary>When, on the visitor's clock.</summary>
    public EventTime Time { get; }

    /// <summary>The real time it takes: start included, end excluded.</summary>
    public Interval Span { get; }

    /// <summary>The event; <c>null</c> where all that is told is that the calendar is busy.</summary>
    public EventId? Event { get; private init; }

    /// <summary>By which start its series counts it; <c>null</c> for a single event.</summary>
    public LocalDateTime? Occurrence { get; private init; }

    /// <summary>The title; may be empty.</summary>
    public string Title { get; private init; } = string.Empty;

    /// <summary>The place; empty where there is none or none is told.</summary>
    public string Place { get; private init; } = string.Empty;

    /// <summary>The notes; empty where there are none or none are told.</summary>
    public string Notes { get; private init; } = string.Empty;

    /// <summary>Its kind; <c>null</c> for none.</summary>
    public string? Kind { get; private init; }

    /// <summary>Who is named on it, where that is told.</summary>
    public Attendees People { get; private init; } = Attendees.None;

    /// <summary>How it repeats; <c>null</c> for a single event.</summary>
    public string? Repeats { get; private init; }

    /// <summary>Called off.</summary>
    public bool Cancelled { get; private init; }

    /// <summary>Not settled.</summary>
    public bool Tentative { get; private init; }

    /// <summary>Whether it takes nobody's time.</summary>
    public bool Free { get; private init; }

    /// <summary>How often the event was changed, from 0; <c>null</c> where not all of it is told, and so not that something else of it was changed.</summary>
    public int? Revision { get; private init; }

    /// <summary>For how many dates of a day it stands.</summary>
    public int Dates { get; private init; } = 1;

    /// <summary>The first day it touches, on the visitor's clock.</summary>
    public LocalDate FirstDay => Time.LocalStart.Date;

    /// <summary>The last day it touches; an end at midnight touches the day before it.</summary>
    public LocalDate LastDay =>
        Time.LocalEnd > Time.LocalStart && Time.LocalEnd.TimeOfDay == LocalTime.Midnight
            ? Time.LocalEnd.Date.PlusDays(-1)
            : Time.LocalEnd.Date;

    /// <summary>What a noticeboard shows of one of its calendars.</summary>
    /// <param name="board">The noticeboard.</param>
    /// <param name="layer">The calendar on it.</param>
    /// <param name="occurrences">The calendar's occurrences in the window.</param>
    /// <param name="window">The days, on the visitor's clock.</param>
    /// <param name="zones">Zone rules.</param>
    public static IEnumerable<BoardEntry> Of(
        Noticeboard board,
        BoardLayer layer,
        IEnumerable<Occurrence> occurrences,
        Window window,
        ZoneClock zones
    ) =>
        VisibleEvent
            .Through(layer.Role, PersonId.Nobody, occurrences, window)
            .Select(one =>
                one switch
                {
                    VisibleEvent.Shown shown => Told(board, shown, zones.Span(shown.Agreed, window.Reader)),
                    VisibleEvent.Busy busy => new BoardEntry(
                        layer.CalendarId,
                        ZoneClock.Shown(busy.Span, window.Reader),
                        busy.Span
                    )
                    {
                        Tentative = busy.Tentative,
                    },
                    _ => throw new System.Diagnostics.UnreachableException(),
                }
            );

    private static BoardEntry Told(Noticeboard board, VisibleEvent.Shown shown, Interval span) =>
        new(shown.CalendarId, shown.Seen, span)
        {
            Event = shown.Id,
            Occurrence = shown.Start,
            Title = shown.Title,
            Place = board.ShowsPlaces ? shown.Place : string.Empty,
            Notes = shown.Notes ?? string.Empty,
            Kind = shown.Kind,
            People = board.ShowsPeople ? shown.Attendees : Attendees.None,
            Repeats = shown.Repeats,
            Cancelled = shown.Cancelled,
            Tentative = shown.ShowAs == ShowAs.Tentative,
            Free = shown.ShowAs == ShowAs.Free,
            Revision = shown.Notes is null ? null : shown.Version - 1,
            Dates = shown.Dates,
        };
}
