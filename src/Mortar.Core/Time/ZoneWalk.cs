using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Turns local seconds into seconds since 1970 in UTC for one zone, by the rules of <see cref="ZoneClock"/>.</summary>
/// <remarks>
/// Remembers the stretch it was last in: between two clock changes, a subtraction is all it takes. Within two days of a
/// change it asks the zone itself. Not for several threads at once.
/// </remarks>
internal sealed class ZoneWalk(DateTimeZone zone)
{
    private const long Margin = 2 * CivilDays.SecondsPerDay;

    private long calmFrom = long.MaxValue;
    private long calmTo = long.MinValue;
    private long offset;

    public DateTimeZone Zone => zone;

    /// <summary>The second of a local one; one that occurs twice is the first, one that does not exist takes the offset before the gap.</summary>
    public long At(long local) => At(local, out _);

    /// <inheritdoc cref="At(long)"/>
    /// <param name="local">The local second.</param>
    /// <param name="inGap">Whether the clock never shows it.</param>
    public long At(long local, out bool inGap)
    {
        inGap = false;
        if (local >= calmFrom && local < calmTo)
        {
            return local - offset;
        }

        return Stretch(local) ? local - offset : Asked(local, out inGap);
    }

    /// <summary>Whether no clock change lies within two days of the two local seconds or between them.</summary>
    public bool IsCalm(long first, long last) => (Within(first) || Stretch(first)) && Within(last);

    private bool Within(long local) => local >= calmFrom && local < calmTo;

    private bool Stretch(long local)
    {
        var around = zone.GetZoneInterval(Instant.FromUnixTimeSeconds(local));
        offset = around.WallOffset.Seconds;
        calmFrom = around.HasStart ? around.Start.ToUnixTimeSeconds() + offset + Margin : long.MinValue;
        calmTo = around.HasEnd ? around.End.ToUnixTimeSeconds() + offset - Margin : long.MaxValue;
        return Within(local);
    }

    private long Asked(long local, out bool inGap)
    {
        var mapping = zone.MapLocal(CivilDays.ToTime(local));
        inGap = mapping.Count == 0;
        return local - mapping.EarlyInterval.WallOffset.Seconds;
    }
}
