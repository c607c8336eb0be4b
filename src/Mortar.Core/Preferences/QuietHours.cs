using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Preferences;

/// <summary>
/// The hours of each day in which nothing comes by mail at once and nothing is laid over an open screen. What happened in
/// them is told when they end, as far as it still may be known.
/// </summary>
/// <param name="From">When they begin, on the clock of whose they are.</param>
/// <param name="To">When they end; before <paramref name="From"/> where they go past midnight, never the same.</param>
public readonly record struct QuietHours(LocalTime From, LocalTime To)
{
    /// <summary>Until when it is quiet; <c>null</c> where it is not.</summary>
    /// <param name="now">Now.</param>
    /// <param name="zone">The zone of whose hours they are.</param>
    public Instant? Until(Instant now, DateTimeZone zone)
    {
        var today = now.InZone(zone).Date;
        // Yesterday's may go on past midnight. A clock that is put back in them does not begin them anew.
        foreach (var day in (LocalDate[])[today.PlusDays(-1), today])
        {
            var begins = ZoneClock.At(day + From, zone);
            var ends = ZoneClock.At((From < To ? day : day.PlusDays(1)) + To, zone);
            if (begins <= now && now < ends)
            {
                return ends;
            }
        }

        return null;
    }
}
