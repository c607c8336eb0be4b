namespace Mortar.Server.Tests;

/// <summary>Whether what takes minutes is looked at as well (<c>./mortar test --deep</c>).</summary>
internal static class Deep
{
    public static bool Is => Environment.GetEnvironmentVariable("MORTAR_DEEP") is not null;

    /// <summary>How many rounds of something: a few in every run, many in the deep one.</summary>
    public static int Rounds(int usual, int deep) => Is ? deep : usual;
}
