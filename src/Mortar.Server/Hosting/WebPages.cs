namespace Mortar.Server.Hosting;

/// <summary>
/// Which paths the web application has a page for. The page itself is the same file for all of them and finds its way; whoever
/// asks by a machine is told by the status that there is no such page (RFC 9110, 15.5.5).
/// </summary>
internal static class WebPages
{
    /// <summary>The first parts of the paths in the web's <c>App.tsx</c> and <c>SignedInApp.tsx</c>; a test compares them.</summary>
    public static IReadOnlySet<string> First { get; } =
        new HashSet<string>(StringComparer.Ordinal)
        {
            string.Empty,
            "address",
            "agenda",
            "answer",
            "bin",
            "calendars",
            "day",
            "first-account",
            "forgotten",
            "g",
            "groups",
            "history",
            "inbox",
            "invitation",
            "join",
            "link",
            "month",
            "post-room",
            "preferences",
            "print",
            "reset",
            "roster",
            "spreadsheet",
            "stop",
            "suits",
            "week",
        };

    public static bool Has(PathString path) =>
        First.Contains((path.Value ?? string.Empty).Split('/').ElementAtOrDefault(1) ?? string.Empty);
}
