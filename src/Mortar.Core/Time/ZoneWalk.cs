using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Turns local seconds into seconds since 1970 in UTC for one zone, by the rules of <see cref="ZoneClock"/>.</summary>
/// <remarks>
/// Remembers the stretches it was last in: between two clock changes, a subtraction is all it takes. Within two days of
/// a change it asks the zone itself. What is remembered are objects that are never changed, so several may ask at once.
/// </remarks>
internal sealed class ZoneWalk(DateTimeZone zone)
{
    /// <summary>No two clocks, and no two readings of one, are further apart than this.</summary>
    public const long Margin = 2 * CivilDays.SecondsPerDay;

    /// <summary>A place holds about 97 days, so that eight years have places of their own.</summary>
    private const int Places = 32;

    private readonly Calm?[] known = new Calm?[Places];

    public DateTimeZone Zone => zone;

    /// <summary>The second of a local one; one that occurs twice is the first, one that does not exist takes the offset before the gap.</summary>
    public long At(long local) =>
        Around(local) is { } there
            ? local - there.Offset
            : local - zone.MapLocal(CivilDays.ToTime(local)).EarlyInterval.WallOffset.Seconds;

    /// <summary>Whether no clock change lies between two moments or within a day of them, and the offset there.</summary>
    /// <remarks>The moments may be told in UTC or on any clock: the margin is larger than what lies between these.</remarks>
    public bool IsCalm(long first, long last, out long offsetThere)
    {
        var there = Around(first);
        offsetThere = there?.Offset ?? 0;
        return there is not null && there.Has(last);
    }

    /// <summary>The stretch without a clock change that has this moment well inside; <c>null</c> near a change.</summary>
    private Calm? Around(long local)
    {
        ref var place = ref known[(int)(local >> 23) & (Places - 1)];
        return place is { } there && there.Has(local) ? there : Found(local, ref place);
    }

    private Calm? Found(long local, ref Calm? place)
    {
        var around = zone.GetZoneInterval(Instant.FromUnixTimeSeconds(local));
        var offset = around.WallOffset.Seconds;
        var from = around.HasStart ? around.Start.ToUnixTimeSeconds() + offset + Margin : long.MinValue;
        var to = around.HasEnd ? around.End.ToUnixTimeSeconds() + offset - Margin : long.MaxValue;
        return local >= from && local < to ? place = new Calm(from, to, offset) : null;
    }

    private sealed record Calm(long From, long To, long Offset)
    {
        public bool Has(long local) => local >= From && local < To;
    }
}
