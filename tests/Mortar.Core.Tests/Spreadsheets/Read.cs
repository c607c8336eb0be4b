using Mortar.Core.Spreadsheets;

namespace Mortar.Core.Tests.Spreadsheets;

/// <summary>Tables as tests look at them.</summary>
internal static class Read
{
    /// <summary>All rows as words, a bar between the cells.</summary>
    public static List<string> Lines(this Table table) =>
        [
            .. table
                .Rows.ToBlockingEnumerable()
                .Select(row => string.Join('|', row.Select(Words)))
                .Prepend(string.Join('|', table.Columns.Select(column => column.Name))),
        ];

    private static string Words(Cell cell) =>
        FormattableString.Invariant(
            $"{cell.Kind switch
            {
                CellKind.Text => cell.Text,
                CellKind.Number => cell.Number,
                CellKind.Date => NodaTime.Text.LocalDatePattern.Iso.Format(cell.Date),
                CellKind.Time => NodaTime.Text.LocalTimePattern.ExtendedIso.Format(cell.Time),
                CellKind.Length => cell.Length.TotalHours,
                _ => string.Empty,
            }}"
        );
}
