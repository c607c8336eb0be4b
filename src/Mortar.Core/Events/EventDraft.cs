using System.Diagnostics;
using System.Globalization;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>What somebody wants an event to be, before it is checked.</summary>
public sealed record EventDraft(string? Title, string? Place, string? Notes, ShowAs ShowAs, TimeDraft Time)
{
    /// <inheritdoc cref="EventContent.Attendees"/>
    public Attendees Attendees { get; init; } = Attendees.None;

    /// <inheritdoc cref="EventContent.Kind"/>
    public string? Kind { get; init; }

    /// <inheritdoc cref="EventContent.Private"/>
    public bool Private { get; init; }

    /// <inheritdoc cref="EventContent.Reminder"/>
    public int? Reminder { get; init; }

    /// <inheritdoc cref="EventContent.HidesAttendees"/>
    public bool HidesAttendees { get; init; }
}

/// <summary>A time as it is given: whole days, or a start and an end on the clock of a zone.</summary>
public abstract record TimeDraft
{
    private TimeDraft() { }

    /// <summary>Days, both included: whole ones, or such whose hours will be set later.</summary>
    public sealed record Days(LocalDate First, LocalDate Last, bool TimesToBeSet = false) : TimeDraft;

    /// <summary>On the clock of a zone.</summary>
    public sealed record Clock(LocalDateTime Start, LocalDateTime End, string Zone) : TimeDraft;

    /// <summary>On every reader's own clock.</summary>
    public sealed record Floating(LocalDateTime Start, LocalDateTime End) : TimeDraft;
}

/// <summary>A draft after the check, text made safe.</summary>
/// <param name="Time">When; <c>null</c> where the time is none.</param>
/// <param name="Content">What.</param>
public sealed record CheckedDraft(EventTime? Time, EventContent Content);

/// <summary>The limits of an event.</summary>
public static class EventRules
{
    /// <summary>The longest title and place, in UTF-16 units.</summary>
    public const int LongestLine = 500;

    /// <summary>The longest notes, in UTF-16 units.</summary>
    public const int LongestNotes = 20_000;

    /// <summary>The longest an event may last, in days.</summary>
    public const int LongestDays = 3_660;

    /// <summary>The longest kind, in UTF-16 units.</summary>
    public const int LongestKind = 60;

    /// <summary>The most people that can be named on one event.</summary>
    public const int MostAttendees = 500;

    /// <summary>The longest before the start that a reminder can be, in minutes: eight weeks.</summary>
    public const int LongestReminder = 8 * 7 * 24 * 60;

    private static readonly LocalDate Earliest = new(1900, 1, 1);
    private static readonly LocalDate Latest = new(2200, 12, 31);

    /// <summary>Checks a draft; every field that is wrong is named.</summary>
    public static Checked<CheckedDraft> Check(this EventDraft draft, ZoneClock clock)
    {
        var problems = new List<FieldProblem>();
        var title = PlainText.OneLine(draft.Title);
        var place = PlainText.OneLine(draft.Place);
        var notes = PlainText.Lines(draft.Notes);
        TooLong(problems, "title", "A title", title, LongestLine);
        TooLong(problems, "place", "A place", place, LongestLine);
        TooLong(problems, "notes", "Notes", notes, LongestNotes);
        var kind = PlainText.OneLine(draft.Kind);
        TooLong(problems, "kind", "A kind", kind, LongestKind);
        if (draft.Attendees.Count > MostAttendees)
        {
            problems.Add(new FieldProblem("attendees", $"Up to {MostAttendees} people can be named on one event."));
        }

        if (draft.Reminder is < 0 or > LongestReminder)
        {
            problems.Add(new FieldProblem("reminder", "A reminder comes up to eight weeks before the start."));
        }

        var time = Check(problems, draft.Time, clock);
        return new(
            new CheckedDraft(
                time,
                new EventContent(title, place, notes, draft.ShowAs, Cancelled: false)
                {
                    Attendees = draft.Attendees,
                    Kind = kind,
                    Private = draft.Private,
                    Reminder = draft.Reminder,
                    HidesAttendees = draft.HidesAttendees,
                }
            ),
            problems
        );
    }

    /// <summary>Checks a time alone.</summary>
    public static Checked<EventTime?> Check(this TimeDraft draft, ZoneClock clock)
    {
        var problems = new List<FieldProblem>();
        return new(Check(problems, draft, clock), problems);
    }

    private static void TooLong(List<FieldProblem> problems, string path, string what, string text, int longest)
    {
        if (text.Length > longest)
        {
            problems.Add(
                new FieldProblem(
                    path,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{what} can have up to {longest} characters; this has {text.Length}. Shorten it, or move part of it to the notes."
                    )
                )
            );
        }
    }

    private static EventTime? Check(List<FieldProblem> problems, TimeDraft draft, ZoneClock clock) =>
        draft switch
        {
            TimeDraft.Days days when days.Last < days.First => Refuse(
                problems,
                "time.last",
                "The last day is before the first. Choose a last day on or after it."
            ),
            TimeDraft.Days days when OutOfRange(problems, days.First, days.Last) => null,
            TimeDraft.Days { TimesToBeSet: true } days => EventTime.DaysToBeSet(days.First, days.Last),
            TimeDraft.Days days => EventTime.Days(days.First, days.Last),
            TimeDraft.Clock set when !clock.Knows(set.Zone) => Refuse(
                problems,
                "time.zone",
                $"There is no time zone named “{PlainText.Shorten(PlainText.OneLine(set.Zone), 60)}”. Use a name such as Europe/London."
            ),
            TimeDraft.Clock set when set.End < set.Start => Refuse(
                problems,
                "time.end",
                "The event would end before it starts. Set a later end."
            ),
            TimeDraft.Clock set when OutOfRange(problems, set.Start.Date, set.End.Date) => null,
            TimeDraft.Clock set when clock.LosesItsHours(set.Start, set.End, set.Zone) => Refuse(
                problems,
                "time.start",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The clocks of {set.Zone} skip {set.Start:HH:mm} on {set.Start:d MMMM yyyy}, and nothing of this event would be left. Begin at {clock.Resolved(set.Start, set.Zone):HH:mm}, or end later."
                )
            ),
            TimeDraft.Clock set => EventTime.InZone(set.Start, set.End, set.Zone),
            TimeDraft.Floating set when set.End < set.Start => Refuse(
                problems,
                "time.end",
                "The event would end before it starts. Set a later end."
            ),
            TimeDraft.Floating set when OutOfRange(problems, set.Start.Date, set.End.Date) => null,
            TimeDraft.Floating set => EventTime.OnEveryClock(set.Start, set.End),
            _ => throw new UnreachableException(),
        };

    private static EventTime? Refuse(List<FieldProblem> problems, string path, string sentence)
    {
        problems.Add(new FieldProblem(path, sentence));
        return null;
    }

    private static bool OutOfRange(List<FieldProblem> problems, LocalDate first, LocalDate last)
    {
        if (first < Earliest || last > Latest)
        {
            problems.Add(new FieldProblem("time", "Dates from 1900 to 2200 can be used."));
            return true;
        }

        if (Period.DaysBetween(first, last) > LongestDays)
        {
            problems.Add(new FieldProblem("time", "An event can last up to ten years. Make a series instead."));
            return true;
        }

        return false;
    }
}
