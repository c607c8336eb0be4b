using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Turns local seconds into seconds since 1970 in UTC for one zone, by the rules of <see cref="ZoneClock"/>.</summary>
/// <remarks>
/// Remembers the stretch it was last in: between two clock changes, a subtraction is all it takes. Within two days of a
/// change it asks the zone itself. Not for several threads at once.
/// </remarks>
internal sealed class ZoneWalk(DateTimeZone zone)
{
    /// <summary>No two clocks, and no two readings of one, are further apart than this.</summary>
    public const long Margin = 2 * CivilDays.SecondsPerDay;

    private long calmFrom = long.MaxValue;
    private long calmTo = long.MinValue;
    private long offset;

    public DateTimeZone Zone => zone;

    /// <summary>The second of a local one; one that occurs twice is the first, one that does not exist takes the offset before the gap.</summary>
    public long At(long local) =>
        Within(local) || Stretch(local)
            ? local - offset
            : local - zone.MapLocal(CivilDays.ToTime(local)).EarlyInterval.WallOffset.Seconds;

    /// <summary>Whether no clock change lies between two moments or within a day of them, and the offset there.</summary>
    /// <remarks>The moments may be told in UTC or on any clock: the margin is larger than what lies between these.</remarks>
    public bool IsCalm(long first, long last, out long offsetThere)
    {
        var calm = (Within(first) || Stretch(first)) && Within(last);
        offsetThere = offset;
        return calm;
    }

    private bool Within(long local) => local >= calmFrom && local < calmTo;

    private bool Stretch(long local)
    {
        var around = zone.GetZoneInterval(Instant.FromUnixTimeSeconds(local));
        offset = around.WallOffset.Seconds;
        calmFrom = around.HasStart ? around.Start.ToUnixTimeSeconds() + offset + Margin : long.MinValue;
        calmTo = around.HasEnd ? around.End.ToUnixTimeSeconds() + offset - Margin : long.MaxValue;
        return Within(local);
    }
}
