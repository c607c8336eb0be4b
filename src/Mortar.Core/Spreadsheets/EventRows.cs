using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>Events as rows: one an occurrence, with as much of each as the reader sees.</summary>
public static class EventRows
{
    /// <summary>What stands over them.</summary>
    public static IReadOnlyList<Column> Columns { get; } =
    [
        new("Calendar", 20),
        new("Group", 18),
        new("Title", 32),
        new("Starts on", 12),
        new("Starts at", 10),
        new("Ends on", 12),
        new("Ends at", 10),
        new("Lasts", 9),
        new("Whole days", 11),
        new("Time zone", 18),
        new("Place", 20),
        new("Kind", 14),
        new("People", 32),
        new("Organizer", 18),
        new("Counts as", 11),
        new("Called off", 10),
        new("Repeats", 32),
        new("Notes", 40),
    ];

    /// <summary>The row of one.</summary>
    /// <param name="what">The occurrence, or a stretch of which only the times are seen.</param>
    /// <param name="calendar">What its calendar is called.</param>
    /// <param name="group">What the calendar's group is called.</param>
    /// <param name="reader">The zone on whose clock the times are told.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="names">What the people are called who are named on it.</param>
    public static IReadOnlyList<Cell> Row(
        VisibleEvent what,
        string calendar,
        string group,
        DateTimeZone reader,
        ZoneClock clock,
        IReadOnlyDictionary<PersonId, string> names
    )
    {
        Cell[] whose = [Cell.Of(calendar), Cell.Of(group)];
        if (what is VisibleEvent.Busy busy)
        {
            return
            [
                .. whose,
                Cell.Of("Busy"),
                .. When(ZoneClock.Shown(busy.Span, reader), reader, busy.Span.Duration),
                Cell.Empty,
                Cell.Empty,
                Cell.Empty,
                Cell.Empty,
                Cell.Of(busy.Tentative ? "perhaps" : "busy"),
            ];
        }

        var shown = (VisibleEvent.Shown)what;
        return
        [
            .. whose,
            Cell.Of(shown.Title),
            .. When(shown.Seen, reader, clock.Span(shown.Agreed, reader).Duration),
            Cell.Of(shown.Place),
            Cell.Of(shown.Kind),
            Cell.Of(Names(shown.Attendees)),
            Cell.Of(shown.Organizer is { } organizer ? names.GetValueOrDefault(organizer) : null),
            Cell.Of(
                shown.ShowAs switch
                {
                    ShowAs.Free => "free",
                    ShowAs.Tentative => "perhaps",
                    _ => "busy",
                }
            ),
            Cell.Of(shown.Cancelled ? "yes" : null),
            Cell.Of(
                shown.Dates > 1
                    ? $"{shown.Repeats}; this row stands for {Wording.Count(shown.Dates, "time", "times")}"
                    : shown.Repeats
            ),
            Cell.Of(shown.Notes),
        ];

        string Names(IEnumerable<PersonId> people) =>
            string.Join(
                ", ",
                people
                    .Select(person => names.GetValueOrDefault(person))
                    .OfType<string>()
                    .Order(StringComparer.OrdinalIgnoreCase)
            );
    }

    private static Cell[] When(EventTime time, DateTimeZone reader, Duration length) =>
        time is EventTime.AllDay days
            ?
            [
                Cell.Of(days.First),
                Cell.Empty,
                Cell.Of(days.Last),
                Cell.Empty,
                Cell.Empty,
                Cell.Of(days.TimesToBeSet ? "times to be set" : "yes"),
                Cell.Empty,
            ]
            :
            [
                Cell.Of(time.LocalStart.Date),
                Cell.Of(time.LocalStart.TimeOfDay),
                Cell.Of(time.LocalEnd.Date),
                Cell.Of(time.LocalEnd.TimeOfDay),
                Cell.Of(length),
                Cell.Empty,
                Cell.Of(time is EventTime.Floating ? "on every clock" : reader.Id),
            ];
}
