using System.Globalization;

namespace Mortar.Server.Tests;

/// <summary>Whether what takes minutes is looked at as well (<c>./mortar test --deep</c>).</summary>
internal static class Deep
{
    public static bool Is => Environment.GetEnvironmentVariable("MORTAR_DEEP") is not null;

    /// <summary>How many rounds of what is done a thousand times; <c>MORTAR_DEEP_ROUNDS</c> makes it fewer, for looking at the test itself.</summary>
    public static int Rounds => Given("MORTAR_DEEP_ROUNDS") ?? 1_000;

    /// <summary>What the moments are drawn from; another <c>MORTAR_DEEP_SEED</c> makes rounds that go on from an earlier run.</summary>
    public static int Seed => Given("MORTAR_DEEP_SEED") ?? 7;

    private static int? Given(string name) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
}
