using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Proposals;

/// <summary>How far a question about several times has come.</summary>
public enum ProposalState
{
    /// <summary>It waits for answers.</summary>
    Open,

    /// <summary>One time was settled and is an event now.</summary>
    Settled,

    /// <summary>It was taken back.</summary>
    Withdrawn,
}

/// <summary>Several times put to people as one question.</summary>
/// <param name="ProposedBy">Who put it.</param>
/// <param name="Title">What it is about.</param>
/// <param name="Place">Where; may be empty.</param>
/// <param name="Notes">More about it; may be empty.</param>
/// <param name="Times">The times, in their order.</param>
/// <param name="Zone">The zone in which the event will be kept.</param>
/// <param name="State">How far it has come.</param>
public sealed record Proposal(
    PersonId ProposedBy,
    string Title,
    string Place,
    string Notes,
    IReadOnlyList<ProposedTime> Times,
    string Zone,
    ProposalState State
)
{
    /// <summary>The name of the rule that what is over is not answered or settled any more.</summary>
    private const string Over = "settled";

    /// <summary>Why nothing can be done with it any more by those who could settle it; <c>null</c> while it is open.</summary>
    public Refusal? WhyNotManage =>
        State switch
        {
            ProposalState.Open => null,
            ProposalState.Settled => new Refusal.AgainstRule(
                Over,
                "It is settled already. Open the event to change it."
            ),
            _ => new Refusal.AgainstRule(Over, "It was taken back already. Propose anew."),
        };

    /// <summary>What is told to whoever was asked and comes too late; <c>null</c> while it is open.</summary>
    public string? TooLate =>
        State switch
        {
            ProposalState.Open => null,
            ProposalState.Settled => "One of the times was settled meanwhile. Look for it in your inbox or your mail.",
            _ => "The question was taken back. There is nothing to answer any more.",
        };

    /// <summary>Why it cannot be answered any more; <c>null</c> where it can.</summary>
    public Refusal? WhyNotAnswer => TooLate is { } sentence ? new Refusal.AgainstRule(Over, sentence) : null;

    /// <summary>Why something cannot be said to some of its times, each named by its start; <c>null</c> where it can.</summary>
    public Refusal? WhyNotSay(IEnumerable<Instant> starts) =>
        starts.Except(Times.Select(time => time.Start)).Any()
            ? new Refusal.Unfit(
                "said",
                "One of these is none of the times that were proposed. Reload, and answer again."
            )
            : null;

    /// <summary>The one of its times that begins then.</summary>
    public Outcome<ProposedTime> TimeAt(Instant start)
    {
        foreach (var time in Times.Where(time => time.Start == start))
        {
            return time;
        }

        return new Refusal.Unfit("start", "That is none of the times that were proposed.");
    }

    /// <summary>The event it becomes at one of its times.</summary>
    /// <param name="time">The time.</param>
    /// <param name="named">Who is named on it.</param>
    /// <param name="zones">Reads the clocks.</param>
    public EventDraft At(ProposedTime time, IEnumerable<PersonId> named, ZoneClock zones)
    {
        var zone = zones.Zone(Zone);
        return new EventDraft(
            Title,
            Place,
            Notes,
            ShowAs.Busy,
            new TimeDraft.Clock(time.Start.InZone(zone).LocalDateTime, time.End.InZone(zone).LocalDateTime, Zone)
        )
        {
            Attendees = Attendees.Of(named),
        };
    }
}
