using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;

namespace Mortar.Server.Features.Wall;

/// <summary>Of when a wall is, and by what it was seen: what was seen by other rules or on another clock is not put together with it.</summary>
/// <param name="Log">The newest entry of the log that is in it.</param>
/// <param name="Sight">Names the reading of what its person may see.</param>
/// <param name="Zone">The clock.</param>
internal readonly record struct WallVersion(long Log, Guid Sight, string Zone);

/// <summary>
/// Seals the version of a wall. The number of the newest change of the whole store would tell everybody that something was
/// written which is not for them, and how much; sealed it is another text each time, whether anything changed or not.
/// </summary>
internal sealed class WallSeal(IDataProtectionProvider keys)
{
    private readonly IDataProtector protector = keys.CreateProtector("Mortar.Wall.Version");

    public string Close(WallVersion version) =>
        protector.Protect(
            string.Create(CultureInfo.InvariantCulture, $"{version.Log} {version.Sight:N} {version.Zone}")
        );

    /// <summary>What was sealed; <c>null</c> for anything else.</summary>
    public WallVersion? Open(string text)
    {
        try
        {
            return
                protector.Unprotect(text).Split(' ', 3) is [var log, var sight, var zone]
                && long.TryParse(log, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                && Guid.TryParseExact(sight, "N", out var stamp)
                ? new WallVersion(number, stamp, zone)
                : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
