using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Paper;

/// <summary>The style of sheets: ink on paper, nothing that needs a background to be seen.</summary>
internal static class PaperStyle
{
    public static string Text { get; } = ShippedFiles.Read("paper.css");

    public static string Source { get; } = ShippedFiles.SourceOf(Text);
}
