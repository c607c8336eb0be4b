using Mortar.Core.Calendars;

namespace Mortar.Server.Wire;

/// <summary>The marks of calendars as shapes in a box of 16 by 16; the same as the interface's, which a test holds.</summary>
internal static class MarkSigns
{
    public static string Of(Mark mark) =>
        mark switch
        {
            Mark.Cone => """<path d="M8 2 14 13H2Z"/>""",
            Mark.Dome => """<path d="M2 13V9a6 6 0 0 1 12 0v4Z"/>""",
            Mark.Tile => """<path d="M8 1.5 14.5 8 8 14.5 1.5 8Z"/>""",
            Mark.Shelf => """<path d="M2 3.5h12v3.2H2ZM2 9.3h12v3.2H2Z"/>""",
            Mark.Cross => """<path d="M6.2 2h3.6v4.2H14v3.6H9.8V14H6.2V9.8H2V6.2h4.2Z"/>""",
            Mark.Disc => """<circle cx="8" cy="8" r="5.8"/>""",
            Mark.Ring =>
                """<path fill-rule="evenodd" d="M8 2a6 6 0 1 1 0 12A6 6 0 0 1 8 2Zm0 3.4a2.6 2.6 0 1 0 0 5.2 2.6 2.6 0 0 0 0-5.2Z"/>""",
            Mark.Block => """<rect x="2.8" y="2.8" width="10.4" height="10.4"/>""",
            Mark.Wave => """<path d="M1.5 10.8C4 4 6.2 4 8 7.2s4 3.2 6.5-3.4v5.4C12 15 10 13.6 8 11s-4-3-6.5 3Z"/>""",
            Mark.Drop => """<path d="M8 1.5c3 4 4.8 6 4.8 8.4a4.8 4.8 0 0 1-9.6 0C3.2 7.5 5 5.5 8 1.5Z"/>""",
            Mark.Spark => """<path d="M8 1l1.9 5.1L15 8l-5.1 1.9L8 15l-1.9-5.1L1 8l5.1-1.9Z"/>""",
            Mark.Post => """<rect x="5.4" y="1.6" width="5.2" height="12.8"/>""",
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
