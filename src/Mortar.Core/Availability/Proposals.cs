using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>How one of several times suits somebody.</summary>
public enum Vote
{
    /// <summary>It suits.</summary>
    Yes,

    /// <summary>It can be done, but is no good time.</summary>
    IfNeedBe,

    /// <summary>It does not suit.</summary>
    No,
}

/// <summary>One of several times that are proposed: start included, end excluded.</summary>
public readonly record struct ProposedTime(Instant Start, Instant End);

/// <summary>What somebody said to some of the times, each named by its start.</summary>
public sealed record Ballot(PersonId Person, IReadOnlyDictionary<Instant, Vote> Votes);

/// <summary>How one time suits all who were asked; each of them is in one of the four lists.</summary>
/// <param name="Time">The time.</param>
/// <param name="Yes">Whom it suits.</param>
/// <param name="IfNeedBe">Who can if need be.</param>
/// <param name="No">Whom it does not suit.</param>
/// <param name="Silent">Who has not said.</param>
public sealed record Tally(
    ProposedTime Time,
    ImmutableArray<PersonId> Yes,
    ImmutableArray<PersonId> IfNeedBe,
    ImmutableArray<PersonId> No,
    ImmutableArray<PersonId> Silent
);

/// <summary>Several times put to people as one question, of which one is settled in the end.</summary>
public static class Proposals
{
    /// <summary>A question of one time is an invitation.</summary>
    public const int FewestTimes = 2;

    /// <summary>Nobody answers to more (common practice, no source).</summary>
    public const int MostTimes = 12;

    /// <summary>The longest one time may last.</summary>
    public static readonly Duration Longest = Duration.FromDays(14);

    /// <summary>To put times to people: who could make the event that comes of it.</summary>
    public static Verdict ToPropose(Role role) => AccessRules.ToAdd(role);

    /// <summary>To see the tally, settle one time or take all back: who proposed, while they could make the event, and who may change any event there.</summary>
    /// <param name="role">The step on the calendar the event is to go to.</param>
    /// <param name="actor">Who asks.</param>
    /// <param name="proposedBy">Who put the question.</param>
    public static Verdict ToSettle(Role role, PersonId actor, PersonId proposedBy) =>
        AccessRules.ToChange(role, actor, proposedBy) == Verdict.Granted ? Verdict.Granted : Verdict.Hidden;

    /// <summary>What is wrong with the times and people of a question; empty where nothing is.</summary>
    /// <param name="times">The times.</param>
    /// <param name="asked">How many are asked besides who asks.</param>
    /// <param name="mostAsked">How many can be.</param>
    /// <param name="now">Times that began before are over.</param>
    public static IReadOnlyList<FieldProblem> Check(
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

        return problems;
    }

    /// <summary>How each time suits, in the order of time.</summary>
    /// <param name="times">The times.</param>
    /// <param name="asked">All who were asked. What anybody else said does not count.</param>
    /// <param name="ballots">What they said, one each.</param>
    public static ImmutableArray<Tally> Count(
        IEnumerable<ProposedTime> times,
        IReadOnlyCollection<PersonId> asked,
        IEnumerable<Ballot> ballots
    )
    {
        var said = ballots.ToDictionary(ballot => ballot.Person, ballot => ballot.Votes);
        return
        [
            .. times
                .OrderBy(time => time.Start)
                .Select(time => new Tally(
                    time,
                    Those(time, Vote.Yes),
                    Those(time, Vote.IfNeedBe),
                    Those(time, Vote.No),
                    Those(time, vote: null)
                )),
        ];

        ImmutableArray<PersonId> Those(ProposedTime time, Vote? vote) =>
            [.. asked.Where(person => VoteOf(person, time) == vote)];

        Vote? VoteOf(PersonId person, ProposedTime time) =>
            said.TryGetValue(person, out var votes) && votes.TryGetValue(time.Start, out var vote) ? vote : null;
    }

    /// <summary>The time that suits best: the fewest it does not suit, then the most it suits well, then the first.</summary>
    /// <returns><c>null</c> while nobody has said anything.</returns>
    public static Tally? Best(IReadOnlyCollection<Tally> tallies) =>
        tallies.Any(tally => tally.Yes.Length + tally.IfNeedBe.Length + tally.No.Length > 0)
            ? tallies
                .OrderBy(tally => tally.No.Length)
                .ThenByDescending(tally => tally.Yes.Length)
                .ThenBy(tally => tally.Time.Start)
                .First()
            : null;

    /// <summary>What a vote for the time that was settled says as an answer to the event it became.</summary>
    public static Answer AsAnswer(Vote? vote) =>
        vote switch
        {
            Vote.Yes => Answer.Accepted,
            Vote.IfNeedBe => Answer.Tentative,
            Vote.No => Answer.Declined,
            _ => Answer.NeedsAction,
        };
}
