using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Mortar.Data.Reading;

namespace Mortar.Server.Features.Wall;

/// <summary>
/// Seals the version of a wall. The number of the newest change of the whole store would tell everybody that something was
/// written which is not for them, and how much; sealed it is another text each time, whether anything changed or not.
/// </summary>
internal sealed class WallSeal(IDataProtectionProvider keys)
{
    private readonly IDataProtector protector = keys.CreateProtector("Mortar.Wall.Version");

    public string Close(WindowVersion version) =>
        protector.Protect(
            string.Create(CultureInfo.InvariantCulture, $"{version.Log} {version.Sight:N} {version.Zone}")
        );

    /// <summary>What was sealed; <c>null</c> for anything else.</summary>
    public WindowVersion? Open(string text)
    {
        try
        {
            return
                protector.Unprotect(text).Split(' ', 3) is [var log, var sight, var zone]
                && long.TryParse(log, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                && Guid.TryParseExact(sight, "N", out var stamp)
                ? new WindowVersion(number, stamp, zone)
                : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
