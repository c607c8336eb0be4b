using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Proposals;

/// <summary>How one of several times suits somebody.</summary>
public enum Suiting
{
    /// <summary>It suits.</summary>
    Suits,

    /// <summary>It can be done, but is no good time.</summary>
    WouldDo,

    /// <summary>It does not suit.</summary>
    DoesNotSuit,
}

/// <summary>One of several times that are proposed: start included, end excluded.</summary>
public readonly record struct ProposedTime(Instant Start, Instant End);

/// <summary>What somebody said to some of the times, each named by its start.</summary>
public sealed record Suitings(PersonId Person, IReadOnlyDictionary<Instant, Suiting> Said);

/// <summary>How one time suits all who were asked; each of them is in one of the four lists.</summary>
/// <param name="Time">The time.</param>
/// <param name="Suits">Whom it suits.</param>
/// <param name="WouldDo">For whom it would do.</param>
/// <param name="DoesNotSuit">Whom it does not suit.</param>
/// <param name="Silent">Who has not said.</param>
public sealed record Tally(
    ProposedTime Time,
    ImmutableArray<PersonId> Suits,
    ImmutableArray<PersonId> WouldDo,
    ImmutableArray<PersonId> DoesNotSuit,
    ImmutableArray<PersonId> Silent
);

/// <summary>Several times put to people as one question, of which one is settled in the end.</summary>
public static class ProposalRules
{
    /// <summary>A question of one time is an invitation.</summary>
    public const int FewestTimes = 2;

    /// <summary>Nobody answers to more (common practice, no source).</summary>
    public const int MostTimes = 12;

    /// <summary>The longest one time may last.</summary>
    public static readonly Duration Longest = Duration.FromDays(14);

    /// <summary>Whether a question waits for somebody: they have not said it of every time, and one of them lies ahead.</summary>
    /// <param name="times">The times.</param>
    /// <param name="said">What they said; <c>null</c> for nothing yet.</param>
    /// <param name="now">Now.</param>
    public static bool Waits(IReadOnlyCollection<ProposedTime> times, Suitings? said, Instant now) =>
        said?.Said.Count != times.Count && times.Any(time => time.Start > now);

    /// <summary>To put times to people: who could make the event that comes of it.</summary>
    public static Verdict ToPropose(Role role) => AccessRules.ToAdd(role);

    /// <summary>To see the tally, settle one time or take all back: who proposed, while they could make the event, and who may change any event there.</summary>
    /// <param name="role">The step on the calendar the event is to go to.</param>
    /// <param name="actor">Who asks.</param>
    /// <param name="proposedBy">Who put the question.</param>
    public static Verdict ToSettle(Role role, PersonId actor, PersonId proposedBy) =>
        AccessRules.ToChange(role, actor, proposedBy) == Verdict.Granted ? Verdict.Granted : Verdict.Hidden;

    /// <summary>Checks the times and people of a question.</summary>
    /// <param name="times">The times.</param>
    /// <param name="asked">How many are asked besides who asks.</param>
    /// <param name="mostAsked">How many can be.</param>
    /// <param name="now">Times that began before are over.</param>
    public static Checked<IReadOnlyCollection<ProposedTime>> Check(
        IReadOnlyCollection<ProposedTime> times,
        int asked,
        int mostAsked,
        Instant now
    )
    {
        var problems = new List<FieldProblem>();
        if (times.Count is < FewestTimes or > MostTimes)
        {
            problems.Add(
                new FieldProblem("times", $"Propose {FewestTimes} to {MostTimes} times; these are {times.Count}.")
            );
        }
        else if (times.Select(time => time.Start).Distinct().Count() < times.Count)
        {
            problems.Add(new FieldProblem("times", "Two of the times begin at once. Take one of them out."));
        }
        else if (times.Any(time => time.End <= time.Start))
        {
            problems.Add(new FieldProblem("times", "One of the times ends before it starts. Set a later end."));
        }
        else if (times.Any(time => time.End - time.Start > Longest))
        {
            problems.Add(new FieldProblem("times", $"A time can last up to {Longest.Days} days."));
        }
        else if (times.Any(time => time.Start < now))
        {
            problems.Add(new FieldProblem("times", "One of the times is over. Take it out."));
        }

        if (asked == 0)
        {
            problems.Add(new FieldProblem("personIds", "Name somebody else than yourself to ask."));
        }
        else if (asked > mostAsked)
        {
            problems.Add(new FieldProblem("personIds", $"Up to {mostAsked} people can be asked at once."));
        }

        return new(times, problems);
    }

    /// <summary>Checks all of what is to be put to people.</summary>
    /// <param name="words">The title, the place and the notes, as they were given.</param>
    /// <param name="times">The times.</param>
    /// <param name="asked">How many are asked besides who asks.</param>
    /// <param name="anyStranger">Whether somebody among them cannot be named in that calendar.</param>
    /// <param name="now">What o'clock it is.</param>
    /// <param name="zones">Reads the clocks.</param>
    /// <returns>The words made safe, as the event will have them.</returns>
    public static Checked<EventContent> CheckWish(
        (string? Title, string? Place, string? Notes) words,
        IReadOnlyCollection<ProposedTime> times,
        int asked,
        bool anyStranger,
        Instant now,
        ZoneClock zones
    )
    {
        var problems = Check(times, asked, EventRules.MostAttendees, now).Problems.ToList();
        if (anyStranger)
        {
            problems.Add(Attendees.Stranger("personIds"));
        }

        if (PlainText.OneLine(words.Title).Length == 0)
        {
            problems.Add(new FieldProblem("title", "Say what it is about: those asked read only that and the times."));
        }

        // Any day does: the words are what is looked at.
        var day = now.InUtc().Date;
        var check = new EventDraft(
            words.Title,
            words.Place,
            words.Notes,
            ShowAs.Busy,
            new TimeDraft.Days(day, day)
        ).Check(zones);
        return new(check.Value.Content, [.. problems, .. check.Problems]);
    }

    /// <summary>How each time suits, in the order of time.</summary>
    /// <param name="times">The times.</param>
    /// <param name="asked">All who were asked. What anybody else said does not count.</param>
    /// <param name="answered">What they said, one each.</param>
    public static ImmutableArray<Tally> Count(
        IEnumerable<ProposedTime> times,
        IReadOnlyCollection<PersonId> asked,
        IEnumerable<Suitings> answered
    )
    {
        var said = answered.ToDictionary(one => one.Person, one => one.Said);
        return
        [
            .. times
                .OrderBy(time => time.Start)
                .Select(time => new Tally(
                    time,
                    Those(time, Suiting.Suits),
                    Those(time, Suiting.WouldDo),
                    Those(time, Suiting.DoesNotSuit),
                    Those(time, how: null)
                )),
        ];

        ImmutableArray<PersonId> Those(ProposedTime time, Suiting? how) =>
            [.. asked.Where(person => SuitingOf(person, time) == how)];

        Suiting? SuitingOf(PersonId person, ProposedTime time) =>
            said.TryGetValue(person, out var theirs) && theirs.TryGetValue(time.Start, out var how) ? how : null;
    }

    /// <summary>The time that suits best: the fewest it does not suit, then the most it suits well, then the first.</summary>
    /// <returns><c>null</c> while nobody has said anything.</returns>
    public static Tally? Best(IReadOnlyCollection<Tally> tallies) =>
        tallies.Any(tally => tally.Suits.Length + tally.WouldDo.Length + tally.DoesNotSuit.Length > 0)
            ? tallies
                .OrderBy(tally => tally.DoesNotSuit.Length)
                .ThenByDescending(tally => tally.Suits.Length)
                .ThenBy(tally => tally.Time.Start)
                .First()
            : null;

    /// <summary>What was said to the time that was settled, as an answer to the event it became.</summary>
    public static Answer AsAnswer(Suiting? how) =>
        how switch
        {
            Suiting.Suits => Answer.Accepted,
            Suiting.WouldDo => Answer.Tentative,
            Suiting.DoesNotSuit => Answer.Declined,
            _ => Answer.NeedsAction,
        };
}
