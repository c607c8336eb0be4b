using System.Globalization;

namespace Mortar.Server.Tests;

/// <summary>Whether what takes minutes is looked at as well (<c>./mortar test --deep</c>).</summary>
internal static class Deep
{
    public static bool Is => Environment.GetEnvironmentVariable("MORTAR_DEEP") is not null;

    /// <summary>How many rounds of what is done a thousand times; <c>MORTAR_DEEP_ROUNDS</c> makes it fewer, for looking at the test itself.</summary>
    public static int Rounds =>
        int.TryParse(
            Environment.GetEnvironmentVariable("MORTAR_DEEP_ROUNDS"),
            CultureInfo.InvariantCulture,
            out var few
        )
            ? few
            : 1_000;
}
