using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>The style of noticeboards: in each page, so that one answer is all a visitor waits for.</summary>
internal static class BoardStyle
{
    /// <summary>The style sheet.</summary>
    public static string Text { get; } = ShippedFiles.Read("noticeboard.css");

    /// <summary>Its name in a content security policy.</summary>
    public static string Source { get; } = ShippedFiles.SourceOf(Text);
}
