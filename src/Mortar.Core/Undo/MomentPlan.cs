using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Undo;

/// <summary>What becomes of an event where its calendar is brought back to how it was at a moment.</summary>
public enum MomentFate
{
    /// <summary>It was there and is not any more.</summary>
    Comes,

    /// <summary>It is there and was not yet.</summary>
    Goes,

    /// <summary>It was at another time, or repeated otherwise.</summary>
    Moves,

    /// <summary>It was at the same time and something else about it was different.</summary>
    Changes,
}

/// <summary>One event that would change.</summary>
/// <param name="Id">Which.</param>
/// <param name="Fate">What becomes of it.</param>
/// <param name="Then">As it was in the calendar; <c>null</c> where it was not.</param>
/// <param name="Now">As it is there; <c>null</c> where it is not.</param>
public sealed record MomentChange(EventId Id, MomentFate Fate, Event? Then, Event? Now);

/// <summary>Bringing a calendar back to how it was at a moment.</summary>
public static class MomentPlan
{
    /// <summary>What becomes of an event; <c>null</c> where it is as it was.</summary>
    /// <param name="id">Which.</param>
    /// <param name="then">As it was in the calendar at the moment; <c>null</c> where it was not there, or in the bin.</param>
    /// <param name="now">As it is there.</param>
    public static MomentChange? Of(EventId id, Event? then, Event? now) =>
        Fate(then, now) is { } fate ? new MomentChange(id, fate, then, now) : null;

    /// <summary>Why a calendar cannot be brought back to a moment; <c>null</c> where it can.</summary>
    /// <param name="moment">The moment.</param>
    /// <param name="madeAt">When the calendar was made; <c>null</c> where that is not remembered any more.</param>
    /// <param name="rememberedFrom">From when on all is remembered.</param>
    /// <param name="now">What o'clock it is.</param>
    public static Refusal? WhyNot(Instant moment, Instant? madeAt, Instant rememberedFrom, Instant now) =>
        moment >= now ? new Refusal.Unfit("at", "Choose a moment that is over.")
        : moment < madeAt ? new Refusal.Unfit("at", "The calendar was not made yet then. Choose a later moment.")
        : moment < rememberedFrom && madeAt is null
            ? new Refusal.Unfit("at", "What was done before then is not remembered any more. Choose a later moment.")
        : null;

    private static MomentFate? Fate(Event? then, Event? now) =>
        (then, now) switch
        {
            (null, null) => null,
            (_, null) => MomentFate.Comes,
            (null, _) => MomentFate.Goes,
            _ when then.Time != now.Time || !Equals(then.Series, now.Series) => MomentFate.Moves,
            _ when then.Content != now.Content
                    || then.AddedBy != now.AddedBy
                    || !then.GivenTo.Equals(now.GivenTo)
                    || !then.Editors.Equals(now.Editors) => MomentFate.Changes,
            _ => null,
        };
}
