using NodaTime;

namespace Mortar.Core.Time;

/// <summary>How much time has gone by, on a clock that may have been put back meanwhile.</summary>
public static class Elapsed
{
    /// <summary>
    /// Whether so much time has gone by since something was noted. What was noted ahead of now was noted before the clock was
    /// put back: how long ago that is nobody knows, and nobody is kept waiting until the clock has caught up.
    /// </summary>
    public static bool Has(Duration time, Instant since, Instant now) => since > now || now - since >= time;
}
