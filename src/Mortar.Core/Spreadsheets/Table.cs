namespace Mortar.Core.Spreadsheets;

/// <summary>A column of a spreadsheet.</summary>
/// <param name="Name">What stands over it.</param>
/// <param name="Width">How wide it is, in characters.</param>
public sealed record Column(string Name, int Width)
{
    /// <summary>Whether what is longer goes on in the next line of the cell.</summary>
    public bool Wraps { get; init; }
}

/// <summary>One table of a spreadsheet: a row of names, and the rows.</summary>
/// <param name="Name">What it is called among the others; at most 31 characters, as spreadsheet programs want it.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Rows">Its rows, read while they are written; each has a cell a column, or fewer.</param>
public sealed record Table(string Name, IReadOnlyList<Column> Columns, IAsyncEnumerable<IReadOnlyList<Cell>> Rows)
{
    /// <summary>The longest name of a table (ECMA-376, 18.2.19 leaves it open; spreadsheet programs refuse longer ones; common practice, no source).</summary>
    public const int LongestName = 31;

    /// <summary>How many of the first columns stay where they are while one looks further right.</summary>
    public int Heads { get; init; }

    /// <summary>A table whose rows are all there.</summary>
    public static Table Of(string name, IReadOnlyList<Column> columns, IEnumerable<IReadOnlyList<Cell>> rows) =>
        new(name, columns, rows.ToAsyncEnumerable());
}
