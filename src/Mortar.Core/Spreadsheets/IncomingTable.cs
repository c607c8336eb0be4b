using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>A cell of a spreadsheet that somebody brings: its words, and the date or length behind them where it holds one.</summary>
/// <param name="Text">What stands in it.</param>
/// <param name="Moment">The date and time it is; a time of day alone is on a day of 1899 or 1900.</param>
public readonly record struct IncomingCell(string Text, LocalDateTime? Moment = null)
{
    /// <summary>Whether there is nothing in it.</summary>
    public bool IsEmpty => Text.Length == 0 && Moment is null;
}

/// <summary>A row of it.</summary>
/// <param name="Number">Its 1-based number, as a spreadsheet program shows it.</param>
public sealed record IncomingRow(int Number, IReadOnlyList<IncomingCell> Cells)
{
    /// <summary>The cell of a column; empty where the row is shorter.</summary>
    public IncomingCell this[int column] =>
        column >= 0 && column < Cells.Count ? Cells[column] : new IncomingCell(string.Empty);
}

/// <summary>What a column of it is taken for.</summary>
public enum ColumnRole
{
    /// <summary>Left alone.</summary>
    Nothing,

    /// <summary>The title.</summary>
    Title,

    /// <summary>The day on which it starts, with the time where that stands in the same cell.</summary>
    StartDay,

    /// <summary>The time at which it starts.</summary>
    StartTime,

    /// <summary>The day on which it ends.</summary>
    EndDay,

    /// <summary>The time at which it ends.</summary>
    EndTime,

    /// <summary>How long it lasts, in hours and minutes.</summary>
    Length,

    /// <summary>The zone its times are in, by its IANA name.</summary>
    Zone,

    /// <summary>The place.</summary>
    Place,

    /// <summary>The kind.</summary>
    Kind,

    /// <summary>The notes.</summary>
    Notes,
}

/// <summary>In which order a date of three numbers is written where its year comes last.</summary>
public enum DateOrder
{
    /// <summary>9/3/2026 is in March.</summary>
    DayFirst,

    /// <summary>9/3/2026 is in September.</summary>
    MonthFirst,
}

/// <summary>How a spreadsheet is read: guessed, and mended by whoever brings it.</summary>
/// <param name="Head">The row that names the columns, by its number; 0 where none does.</param>
/// <param name="Columns">What each column is taken for.</param>
/// <param name="Dates">In which order dates of three numbers are read.</param>
/// <param name="AreDatesSure">Whether some date of it can be read in that order only.</param>
public sealed record SheetPlan(int Head, IReadOnlyList<ColumnRole> Columns, DateOrder Dates, bool AreDatesSure)
{
    /// <summary>The first column with a role; below 0 for none.</summary>
    public int ColumnOf(ColumnRole role)
    {
        for (var index = 0; index < Columns.Count; index++)
        {
            if (Columns[index] == role)
            {
                return index;
            }
        }

        return -1;
    }
}

/// <summary>What somebody says of how their spreadsheet is to be read; what they do not say is guessed.</summary>
public sealed record SheetWish(int? Head = null, IReadOnlyList<ColumnRole>? Columns = null, DateOrder? Dates = null);
