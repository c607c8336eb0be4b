using Mortar.Core.Spreadsheets;
using NodaTime;
using SpreadCheetah;
using SpreadCheetah.Styling;
using SpreadCheetah.Worksheets;
using Cell = SpreadCheetah.Cell;
using Value = Mortar.Core.Spreadsheets.Cell;

namespace Mortar.Formats.Spreadsheets;

/// <summary>Writes tables as a workbook (Office Open XML, ECMA-376, <c>.xlsx</c>), row by row, so that many rows take no more memory than few.</summary>
/// <remarks>Dates, times and lengths are numbers with a format, as spreadsheet programs count with; words are words, also where they begin with "=".</remarks>
public static class Workbook
{
    /// <summary>Its media type.</summary>
    public const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    /// <summary>The longest text of a cell, in UTF-16 units: what is longer, spreadsheet programs call damaged (common practice, no source).</summary>
    private const int LongestText = 32_767;

    /// <summary>The first day that spreadsheet programs count right: they take 1900 for a leap year (ECMA-376, part 1, 18.17.4.1).</summary>
    private static readonly LocalDate FirstDay = new(1900, 3, 1);

    /// <summary>Writes them.</summary>
    /// <param name="stream">Where to.</param>
    /// <param name="tables">The tables, at least one, with names of their own.</param>
    /// <param name="cancellationToken">Stops it; what is written by then is no workbook.</param>
    public static async Task Write(Stream stream, IReadOnlyList<Table> tables, CancellationToken cancellationToken)
    {
        await using var book = await Spreadsheet.CreateNewAsync(stream, cancellationToken: cancellationToken);
        var styles = Styles.Of(book);
        foreach (var table in tables)
        {
            await book.StartWorksheetAsync(table.Name, OptionsOf(table), cancellationToken);
            await book.AddHeaderRowAsync(
                [.. table.Columns.Select(column => Safe(column.Name))],
                styles.Head,
                cancellationToken
            );
            var cells = new List<Cell>();
            await foreach (var row in table.Rows.WithCancellation(cancellationToken))
            {
                cells.Clear();
                cells.AddRange(row.Select((value, index) => styles.CellOf(value, table.Columns[index])));
                await book.AddRowAsync(cells, cancellationToken);
            }
        }

        await book.FinishAsync(cancellationToken);
    }

    private static WorksheetOptions OptionsOf(Table table)
    {
        var options = new WorksheetOptions { FrozenRows = 1 };
        if (table.Heads > 0)
        {
            options.FrozenColumns = table.Heads;
        }

        foreach (var (column, index) in table.Columns.Select((column, index) => (column, index)))
        {
            options.Column(index + 1).Width = column.Width;
        }

        return options;
    }

    /// <summary>Words without what XML cannot hold (XML 1.0, 2.2), and no longer than a cell is.</summary>
    private static string Safe(string text)
    {
        if (text.Length <= LongestText && text.All(IsPlain))
        {
            return text;
        }

        var kept = new System.Text.StringBuilder(text.Length);
        for (var at = 0; at < text.Length && kept.Length < LongestText; at++)
        {
            if (IsPlain(text[at]))
            {
                kept.Append(text[at]);
            }
            else if (
                at + 1 < text.Length
                && char.IsSurrogatePair(text[at], text[at + 1])
                && kept.Length + 2 <= LongestText
            )
            {
                kept.Append(text, at++, 2);
            }
        }

        return kept.ToString();

        static bool IsPlain(char c) =>
            c is '\t' or '\n' or '\r' or (>= ' ' and < '\uD800') or (> '\uDFFF' and < '\uFFFE');
    }

    private sealed record Styles(
        StyleId Head,
        StyleId Text,
        StyleId Wrapped,
        StyleId Date,
        StyleId Time,
        StyleId Length
    )
    {
        public static Styles Of(Spreadsheet book)
        {
            var top = new Alignment { Vertical = VerticalAlignment.Top };
            return new Styles(
                book.AddStyle(
                    new Style
                    {
                        Font = new Font { Bold = true },
                        Alignment = top with { WrapText = true },
                    }
                ),
                book.AddStyle(new Style { Alignment = top }),
                book.AddStyle(new Style { Alignment = top with { WrapText = true } }),
                Formatted("yyyy-mm-dd"),
                Formatted("hh:mm"),
                Formatted("[h]:mm")
            );

            StyleId Formatted(string format) =>
                book.AddStyle(new Style { Alignment = top, Format = NumberFormat.Custom(format) });
        }

        public Cell CellOf(Value value, Column column) =>
            value.Kind switch
            {
                CellKind.Text => new Cell(Safe(value.Text!), column.Wraps ? Wrapped : Text),
                CellKind.Number => new Cell(value.Number, Text),
                CellKind.Date when value.Date < FirstDay => new Cell(
                    NodaTime.Text.LocalDatePattern.Iso.Format(value.Date),
                    Text
                ),
                CellKind.Date => new Cell(value.Date.ToDateTimeUnspecified(), Date),
                CellKind.Time => new Cell(value.Time.NanosecondOfDay / (double)NodaConstants.NanosecondsPerDay, Time),
                CellKind.Length => new Cell(value.Length.TotalDays, Length),
                _ => new Cell((string?)null, Text),
            };
    }
}
