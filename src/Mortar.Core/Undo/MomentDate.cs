using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Undo;

/// <summary>One date of an event that would change where its calendar is brought back to a moment, as it lies on the wall.</summary>
/// <param name="Fate">What becomes of it. What moves goes at one place and comes at another.</param>
/// <param name="IsThen">Whether it is the date as it was then, and not as it is.</param>
/// <param name="Date">The date.</param>
public sealed record MomentDate(MomentFate Fate, bool IsThen, Occurrence Date)
{
    /// <summary>Where a date lies: one that a series counts by its start has to be at the same time as well to be the same on the wall.</summary>
    private readonly record struct Place(LocalDateTime? Start, Interval Span, int Dates);

    /// <summary>The dates of an event within a window that would not stay as they are; of a date that is there in both, what it is now.</summary>
    /// <param name="change">What becomes of the event.</param>
    /// <param name="window">The days that are looked at.</param>
    /// <param name="clock">Tells when that is.</param>
    public static IEnumerable<MomentDate> Of(MomentChange change, Window window, ZoneClock clock)
    {
        var (then, now) = (Dates(change.Then), Dates(change.Now));
        var both = then.Keys.Where(now.ContainsKey).ToHashSet();
        return
        [
            .. both.Where(key => change.Fate == MomentFate.Changes || then[key].Content != now[key].Content)
                .Select(key => new MomentDate(MomentFate.Changes, IsThen: false, now[key])),
            .. Only(now, MomentFate.Goes, isThen: false),
            .. Only(then, MomentFate.Comes, isThen: true),
        ];

        IEnumerable<MomentDate> Only(Dictionary<Place, Occurrence> dates, MomentFate fate, bool isThen) =>
            dates
                .Where(one => !both.Contains(one.Key))
                .Select(one => new MomentDate(
                    change.Fate is MomentFate.Moves ? MomentFate.Moves : fate,
                    isThen,
                    one.Value
                ));

        Dictionary<Place, Occurrence> Dates(Event? state) =>
            (state?.Shown(window, clock) ?? []).ToDictionary(one => new Place(one.Start, one.Span, one.Dates));
    }
}
