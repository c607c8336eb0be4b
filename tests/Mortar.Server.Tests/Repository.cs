namespace Mortar.Server.Tests;

/// <summary>Where this repository lies.</summary>
internal static class Repository
{
    public static string Root { get; } = Find(new DirectoryInfo(AppContext.BaseDirectory));

    /// <summary>The setting that serves the built web.</summary>
    public static string Web => $"Web={Path.Combine(Root, "web/dist")}";

    private static string Find(DirectoryInfo? folder) =>
        folder is null ? throw new DirectoryNotFoundException("No Mortar.slnx above the tests.")
        : File.Exists(Path.Combine(folder.FullName, "Mortar.slnx")) ? folder.FullName
        : Find(folder.Parent);
}
