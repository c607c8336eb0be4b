using NodaTime;
using NodaTime.TimeZones;

namespace Mortar.Core.Time;

/// <summary>A zone that is given by its changes, for example by a file that nobody else's database has.</summary>
public sealed class DefinedZone : DateTimeZone
{
    private readonly ZoneInterval[] intervals;

    private DefinedZone(string id, ZoneInterval[] intervals, Offset least, Offset most)
        : base(id, intervals.Length == 1, least, most) => this.intervals = intervals;

    /// <summary>A zone from the offset before its first change and the changes, in any order; the last offset stays.</summary>
    /// <param name="id">Its name.</param>
    /// <param name="before">The offset before the first change.</param>
    /// <param name="changes">When which offset begins; of two at one instant the later in the list.</param>
    public static DefinedZone Of(string id, Offset before, IEnumerable<(Instant From, Offset Offset)> changes)
    {
        var found = new List<ZoneInterval>();
        var (start, offset) = ((Instant?)null, before);
        foreach (var change in changes.GroupBy(one => one.From).OrderBy(same => same.Key).Select(same => same.Last()))
        {
            if (change.Offset != offset)
            {
                found.Add(new ZoneInterval(id, start, change.From, offset, Offset.Zero));
                (start, offset) = (change.From, change.Offset);
            }
        }

        found.Add(new ZoneInterval(id, start, null, offset, Offset.Zero));
        return new DefinedZone(id, [.. found], found.Min(one => one.WallOffset), found.Max(one => one.WallOffset));
    }

    /// <inheritdoc />
    public override ZoneInterval GetZoneInterval(Instant instant)
    {
        var (low, high) = (0, intervals.Length - 1);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (intervals[middle].HasEnd && intervals[middle].End <= instant)
            {
                low = middle + 1;
            }
            else
            {
                high = middle;
            }
        }

        return intervals[low];
    }
}
