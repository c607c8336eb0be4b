using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Mortar.Core.Spreadsheets;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.Spreadsheets;

/// <summary>Writes a table as comma-separated values (RFC 4180), row by row.</summary>
/// <remarks>
/// In UTF-8 with a mark at its beginning, without which spreadsheet programs take it for something older (common practice, no
/// source). Words that one of them would take for a formula begin with an apostrophe (OWASP, "CSV Injection").
/// </remarks>
public static class CommaText
{
    /// <summary>Its media type (RFC 7111).</summary>
    public const string MediaType = "text/csv";

    private static readonly LocalTimePattern Minutes = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly LocalTimePattern Seconds = LocalTimePattern.CreateWithInvariantCulture("HH:mm:ss");

    private static readonly CsvConfiguration Rules = new(CultureInfo.InvariantCulture)
    {
        InjectionOptions = InjectionOptions.Escape,
        InjectionEscapeCharacter = '\'',
        NewLine = "\r\n",

        // A line feed alone, too, ends a record for some who read it.
        ShouldQuote = field =>
            ConfigurationFunctions.ShouldQuote(field) || field.Field?.AsSpan().ContainsAny('\r', '\n') == true,
    };

    /// <summary>Writes it.</summary>
    /// <param name="stream">Where to; stays open.</param>
    /// <param name="table">The table.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task Write(Stream stream, Table table, CancellationToken cancellationToken)
    {
        await using var text = new StreamWriter(
            stream,
            new UTF8Encoding(encoderShouldEmitUTF8Identifier: true),
            leaveOpen: true
        );
        await using var writer = new CsvWriter(text, Rules, leaveOpen: true);
        foreach (var column in table.Columns)
        {
            writer.WriteField(column.Name);
        }

        await writer.NextRecordAsync();
        await foreach (var row in table.Rows.WithCancellation(cancellationToken))
        {
            for (var index = 0; index < table.Columns.Count; index++)
            {
                writer.WriteField(index < row.Count ? TextOf(row[index]) : string.Empty);
            }

            await writer.NextRecordAsync();
        }
    }

    private static string TextOf(Cell cell) =>
        cell.Kind switch
        {
            CellKind.Text => cell.Text!,
            CellKind.Number => cell.Number.ToString(CultureInfo.InvariantCulture),
            CellKind.Date => LocalDatePattern.Iso.Format(cell.Date),
            CellKind.Time => (cell.Time.Second == 0 ? Minutes : Seconds).Format(cell.Time),
            CellKind.Length => Hours(cell.Length),
            _ => string.Empty,
        };

    private static string Hours(Duration length) =>
        string.Create(CultureInfo.InvariantCulture, $"{(long)length.TotalHours}:{length.Minutes:00}");
}
