using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Feeds;

/// <summary>Of what a feed tells.</summary>
public enum FeedOf
{
    /// <summary>One calendar.</summary>
    Calendar,

    /// <summary>The calendars of a set.</summary>
    Set,

    /// <summary>Whatever its owner is named on.</summary>
    Mine,
}

/// <summary>An address at which other calendar programs read what its owner sees, at a step and never beyond their own.</summary>
/// <param name="Of">Of what it tells.</param>
/// <param name="CalendarId">The calendar, where it is of one.</param>
/// <param name="SetId">The set, where it is of one.</param>
/// <param name="Role">The step at most: Times only, Outline or View.</param>
public sealed record Feed(FeedOf Of, CalendarId? CalendarId, Guid? SetId, Role Role)
{
    /// <summary>The most that one person has at a time.</summary>
    public const int Most = 50;

    /// <summary>How many days before today it tells of.</summary>
    public const int DaysBack = 62;

    /// <summary>How many days from today on it tells of.</summary>
    public const int DaysAhead = 400;

    /// <summary>Checks it.</summary>
    public static Checked<Feed> Check(Feed given)
    {
        var problems = new List<FieldProblem>();
        if (given.Role is not (Role.Times or Role.Outline or Role.View))
        {
            problems.Add(new FieldProblem("role", "A feed shows its calendars at Times only, Outline or View."));
        }
        else if (given is { Of: FeedOf.Mine, Role: Role.Times })
        {
            problems.Add(new FieldProblem("role", "A feed of what you are named on shows it at Outline or View."));
        }

        if (
            (given.Of == FeedOf.Calendar) != given.CalendarId.HasValue
            || (given.Of == FeedOf.Set) != given.SetId.HasValue
        )
        {
            problems.Add(
                new FieldProblem("of", "Say of which calendar or set it is, or that it is of what you are named on.")
            );
        }

        return new(given, problems);
    }

    /// <summary>The step at which it shows a calendar: at View its owner's, whatever that is now; else its own, and never beyond theirs.</summary>
    public Role On(Role owners) => Role == Role.View || owners < Role ? owners : Role;

    /// <summary>
    /// As whom it reads: at View as its owner, with what is private to others and open to them. At a lower step it is meant to
    /// be handed on, and reads as somebody who is named on nothing.
    /// </summary>
    public PersonId ReadsAs(PersonId owner) => TellsAll ? owner : PersonId.Nobody;

    /// <summary>What it tells of a calendar.</summary>
    /// <param name="owner">Whose it is.</param>
    /// <param name="owners">Their step on the calendar now.</param>
    /// <param name="occurrences">The calendar's occurrences in the window.</param>
    /// <param name="window">The days.</param>
    public IEnumerable<VisibleEvent> Through(
        PersonId owner,
        Role owners,
        IEnumerable<Occurrence> occurrences,
        Window window
    ) =>
        Of == FeedOf.Mine
            ? VisibleEvent
                .Through(owners, owner, occurrences, window)
                .Where(one =>
                    one is VisibleEvent.Shown shown && shown.Attendees.Has(owner) && (TellsAll || !shown.Private)
                )
            : VisibleEvent.Through(On(owners), ReadsAs(owner), occurrences, window);

    /// <summary>Whether it tells notes, kinds and who is named.</summary>
    public bool TellsAll => Role == Role.View;
}
