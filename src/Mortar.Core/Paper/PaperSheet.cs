using System.Collections.Immutable;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Paper;

/// <summary>What there are sheets of.</summary>
public enum PaperWhat
{
    /// <summary>One day after the other, an event a line.</summary>
    Agenda,

    /// <summary>One day, an event a line, with everything about it.</summary>
    Day,

    /// <summary>Days side by side.</summary>
    Week,

    /// <summary>Whole weeks one under the other.</summary>
    Month,

    /// <summary>People and places down, days across.</summary>
    Roster,

    /// <summary>The grid of each month, and the list.</summary>
    Absences,

    /// <summary>Who has what.</summary>
    Access,
}

/// <summary>The sizes of paper (ISO 216; ANSI/ASME Y14.1).</summary>
public enum PaperSize
{
    /// <summary>210 by 297 millimetres.</summary>
    A4,

    /// <summary>216 by 279 millimetres.</summary>
    Letter,
}

/// <summary>What goes on a sheet beside times and titles, and how it is turned.</summary>
/// <param name="Size">The paper.</param>
/// <param name="Across">Whether the long side is below.</param>
public sealed record PaperWish(PaperSize Size, bool Across)
{
    /// <summary>What stands over it instead of the name of the group; empty for that.</summary>
    public string Title { get; init; } = string.Empty;

    /// <summary>Whether places are told.</summary>
    public bool Places { get; init; } = true;

    /// <summary>Whether the people named are told, where no row says it.</summary>
    public bool People { get; init; } = true;

    /// <summary>Whether notes are told.</summary>
    public bool Notes { get; init; }

    /// <summary>The longest title, in UTF-16 units.</summary>
    public const int LongestTitle = 80;

    /// <summary>How a sheet of something begins: what has days side by side lies across, a month has room for titles only.</summary>
    public static PaperWish Begin(PaperWhat what, PaperSize size) =>
        new(size, what is PaperWhat.Week or PaperWhat.Month or PaperWhat.Roster or PaperWhat.Absences)
        {
            Places = what != PaperWhat.Month,
            People = what != PaperWhat.Month,
            Notes = what == PaperWhat.Day,
        };

    /// <summary>How many days one asks for at most: a wall of paper is nobody's help.</summary>
    public static int LongestDays(PaperWhat what) =>
        what switch
        {
            PaperWhat.Day => 1,
            PaperWhat.Agenda or PaperWhat.Absences => Window.LongestDays,
            PaperWhat.Month => 366,
            _ => 62,
        };
}

/// <summary>What is printed: sheets under one heading.</summary>
/// <param name="Title">Whose it is.</param>
/// <param name="Sheets">The sheets; what does not fit on one goes on on the next.</param>
/// <param name="Legend">The calendars on them, by name.</param>
/// <param name="Note">What one has to know of it: on whose clock, as who sees it, when.</param>
public sealed record PaperOut(
    string Title,
    ImmutableArray<PaperSheet> Sheets,
    ImmutableArray<LegendEntry> Legend,
    string Note
)
{
    /// <summary>How much is printed at once: hundreds of sheets are nobody's plan, and no browser lays them in good time.</summary>
    public const int Most = 6_000;

    /// <summary>Why sheets are not printed; <c>null</c> where they are.</summary>
    public static Refusal? WhyNot(IEnumerable<PaperSheet> sheets) =>
        sheets.SelectMany(sheet => sheet.Rows).Sum(row => 1 + row.Cells.Sum(cell => cell.Entries.Length)) > Most
            ? new Refusal.Unfit(
                "to",
                FormattableString.Invariant(
                    $"That is more than {Most} lines. Print fewer days, or fewer calendars at once."
                )
            )
            : null;
}

/// <summary>A calendar with its mark, as it stands beside its events.</summary>
/// <param name="Number">Tells it from others with the same mark; 0 for the first.</param>
public sealed record LegendEntry(CalendarId Id, string Name, Mark Mark, int Number);

/// <summary>How the cells of a sheet are laid.</summary>
public enum PaperLook
{
    /// <summary>A list: a line a row.</summary>
    List,

    /// <summary>A grid: what lies in a cell stands one under the other.</summary>
    Grid,

    /// <summary>A grid of short signs.</summary>
    Signs,
}

/// <summary>A table on a sheet.</summary>
/// <param name="Period">What days it is of, in words.</param>
/// <param name="Look">How it is laid.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Rows">Its rows; a sheet without any says so.</param>
/// <param name="Key">What its signs mean; empty where there are none.</param>
public sealed record PaperSheet(
    string Period,
    PaperLook Look,
    ImmutableArray<PaperColumn> Columns,
    ImmutableArray<PaperRow> Rows,
    string Key = ""
)
{
    /// <summary>Whether its rows are drawn as high as the paper has room: days that are written on by hand.</summary>
    public bool Fills { get; init; }

    /// <summary>Whether it goes on the sheet before it where there is room.</summary>
    public bool Joins { get; init; }
}

/// <summary>A column.</summary>
/// <param name="Name">What stands over it.</param>
/// <param name="Weight">How wide it is beside the others.</param>
public sealed record PaperColumn(string Name, int Weight);

/// <summary>A row.</summary>
/// <param name="Cells">A cell a column.</param>
/// <param name="Begins">Whether something new begins with it: the first event of a day.</param>
public sealed record PaperRow(ImmutableArray<PaperCell> Cells, bool Begins = true);

/// <summary>A cell: words, or what lies on a day.</summary>
/// <param name="Text">The words; may be empty.</param>
/// <param name="Entries">What lies on it, in order.</param>
/// <param name="IsHead">Whether it says what the row is of.</param>
public sealed record PaperCell(string Text, ImmutableArray<PaperEntry> Entries, bool IsHead = false)
{
    /// <summary>A cell of words.</summary>
    public static PaperCell Of(string text) => new(text, []);

    /// <summary>The cell that says what its row is of.</summary>
    public static PaperCell Head(string text) => new(text, [], IsHead: true);
}

/// <summary>An event in a cell.</summary>
/// <param name="Calendar">Of which calendar, for its mark.</param>
/// <param name="Time">Its time on that day; empty for the whole day.</param>
/// <param name="Title">Its title.</param>
/// <param name="State">"called off", "perhaps"; empty for neither.</param>
/// <param name="Lines">What else is told: place, people, notes.</param>
public sealed record PaperEntry(
    CalendarId Calendar,
    string Time,
    string Title,
    string State,
    ImmutableArray<string> Lines
);
