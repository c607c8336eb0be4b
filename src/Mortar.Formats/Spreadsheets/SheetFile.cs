using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using CsvHelper;
using CsvHelper.Configuration;
using ExcelDataReader;
using ExcelDataReader.Exceptions;
using Mortar.Core.Spreadsheets;
using NodaTime;

namespace Mortar.Formats.Spreadsheets;

/// <summary>What reading a spreadsheet came to.</summary>
public abstract record SheetReading
{
    private SheetReading() { }

    /// <summary>Its rows; those that are empty are among them.</summary>
    public sealed record Understood(IReadOnlyList<IncomingRow> Rows) : SheetReading;

    /// <summary>None at all, or too much of one.</summary>
    /// <param name="Sentence">What it is instead, and what to do.</param>
    public sealed record NotASheet(string Sentence) : SheetReading;
}

/// <summary>Reads spreadsheets that somebody brings: workbooks (ECMA-376, <c>.xlsx</c>), and values parted by commas, semicolons or tabs (RFC 4180).</summary>
public static class SheetFile
{
    /// <summary>The most rows that are taken at once, the ones above the events among them.</summary>
    public const int MostRows = 20_100;

    /// <summary>The most that a workbook may unpack to: a small file can hold very much of nothing.</summary>
    private const long MostUnpacked = 150L << 20;

    private const int MostParts = 2_000;

    private const int LongestCell = 40_000;

    private const int LinesLookedAt = 50;

    // What old programs write without saying so; the reader of workbooks asks for it, too.
    static SheetFile() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Whether a file is a workbook, by how it begins: it is an archive (APPNOTE.TXT, 4.3.7).</summary>
    public static bool IsWorkbook(ReadOnlySpan<byte> bytes) => bytes.StartsWith("PK\u0003\u0004"u8);

    /// <summary>Reads one, whichever of the two it is.</summary>
    public static SheetReading Read(byte[] bytes) => IsWorkbook(bytes) ? ReadWorkbook(bytes) : ReadText(bytes);

    private static SheetReading ReadWorkbook(byte[] bytes)
    {
        try
        {
            if (!IsBounded(bytes))
            {
                return new SheetReading.NotASheet(
                    "This workbook is far larger than it looks. Save the sheet with the events by itself, and bring that."
                );
            }

            using var reader = ExcelReaderFactory.CreateOpenXmlReader(new MemoryStream(bytes, writable: false));
            do
            {
                var rows = RowsOf(reader);
                if (rows is null)
                {
                    return TooMany();
                }

                if (rows.Count > 0)
                {
                    return new SheetReading.Understood(rows);
                }
            } while (reader.NextResult());

            return new SheetReading.NotASheet("There is nothing in this workbook.");
        }
        catch (Exception bad)
            when (bad
                    is InvalidDataException
                        or ExcelReaderException
                        or XmlException
                        or FormatException
                        or ArgumentException
                        or InvalidOperationException
                        or NullReferenceException
                        or IndexOutOfRangeException
                        or OverflowException
                        or NotSupportedException
                        or KeyNotFoundException
            )
        {
            // The reader fails in many ways at what is no workbook, and says in none of them what to do.
            return new SheetReading.NotASheet(
                "This file cannot be read as a workbook. Open it in a spreadsheet program, save it as .xlsx, and bring that."
            );
        }
    }

    private static List<IncomingRow>? RowsOf(IExcelDataReader reader)
    {
        var rows = new List<IncomingRow>();
        for (var number = 1; reader.Read(); number++)
        {
            if (rows.Count >= MostRows)
            {
                return null;
            }

            var cells = Enumerable
                .Range(0, Math.Min(reader.FieldCount, SheetGuess.MostColumns))
                .Select(index => CellOf(reader.GetValue(index)))
                .ToList();
            if (cells.Exists(cell => !cell.IsEmpty))
            {
                rows.Add(new IncomingRow(number, cells));
            }
        }

        return rows;
    }

    private static IncomingCell CellOf(object? value) =>
        value switch
        {
            null => new IncomingCell(string.Empty),
            DateTime moment => Moment(LocalDateTime.FromDateTime(moment)),
            TimeSpan length => Moment(new LocalDateTime(1899, 12, 30, 0, 0).PlusTicks(length.Ticks)),
            bool yes => new IncomingCell(yes ? "yes" : "no"),
            string text => new IncomingCell(Cut(text)),
            IFormattable number => new IncomingCell(number.ToString(null, CultureInfo.InvariantCulture)),
            _ => new IncomingCell(Cut(value.ToString() ?? string.Empty)),
        };

    /// <summary>To the minute: spreadsheet programs keep parts of a day, which fall a moment short of it.</summary>
    private static IncomingCell Moment(LocalDateTime at)
    {
        var rounded = at.PlusSeconds(30);
        var minute = rounded.Date.At(new LocalTime(rounded.Hour, rounded.Minute));
        return new IncomingCell(minute.ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture), minute);
    }

    private static SheetReading ReadText(byte[] bytes)
    {
        var text = TextOf(bytes);
        if (string.IsNullOrWhiteSpace(text))
        {
            return new SheetReading.NotASheet("The file is empty.");
        }

        if (text.Contains('\0', StringComparison.Ordinal))
        {
            return new SheetReading.NotASheet(
                "This file is no text. Open it in a spreadsheet program, save it as .xlsx or .csv, and bring that."
            );
        }

        var rules = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            HasHeaderRecord = false,
            Delimiter = DelimiterOf(text).ToString(),
            BadDataFound = null,
            MissingFieldFound = null,
            IgnoreBlankLines = false,
            MaxFieldSize = LongestCell,
        };
        var rows = new List<IncomingRow>();
        try
        {
            using var parser = new CsvParser(new StringReader(text), rules);
            while (parser.Read())
            {
                if (rows.Count >= MostRows)
                {
                    return TooMany();
                }

                var cells = (parser.Record ?? [])
                    .Take(SheetGuess.MostColumns)
                    .Select(field => new IncomingCell(field.Trim()))
                    .ToList();
                if (cells.Exists(cell => !cell.IsEmpty))
                {
                    rows.Add(new IncomingRow(parser.RawRow, cells));
                }
            }
        }
        catch (CsvHelperException)
        {
            return new SheetReading.NotASheet(
                "This file cannot be read as rows of values. Open it in a spreadsheet program, save it as .xlsx or .csv, and bring that."
            );
        }

        return rows.Count > 0 ? new SheetReading.Understood(rows) : new SheetReading.NotASheet("The file is empty.");
    }

    /// <summary>What parts the values: what stands most often in the first lines, outside of quotes. A heading over all has none of it.</summary>
    private static char DelimiterOf(string text)
    {
        var (quoted, lines) = (false, 0);
        var counts = new Dictionary<char, int>
        {
            [','] = 0,
            [';'] = 0,
            ['\t'] = 0,
        };
        foreach (var c in text)
        {
            if (c == '"')
            {
                quoted = !quoted;
            }
            else if (!quoted && counts.TryGetValue(c, out var before))
            {
                counts[c] = before + 1;
            }
            else if (c == '\n' && ++lines == LinesLookedAt)
            {
                break;
            }
        }

        return counts.MaxBy(one => one.Value).Key;
    }

    /// <summary>Its words: by the mark at its beginning, as UTF-8 where it can be that, else as old programs write (Windows-1252).</summary>
    private static string TextOf(byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..])
        {
            return Encoding.Unicode.GetString(bytes, 2, bytes.Length - 2);
        }

        if (bytes is [0xFE, 0xFF, ..])
        {
            return Encoding.BigEndianUnicode.GetString(bytes, 2, bytes.Length - 2);
        }

        try
        {
            return new UTF8Encoding(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true)
                .GetString(bytes)
                .TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException)
        {
            return Encoding.GetEncoding(1252).GetString(bytes);
        }
    }

    private static string Cut(string text) => text.Length > LongestCell ? text[..LongestCell] : text;

    private static SheetReading.NotASheet TooMany() =>
        new(
            FormattableString.Invariant(
                $"This spreadsheet has more than {MostRows} rows, and no more can be taken at once. Split it, and import the parts one after the other."
            )
        );

    /// <summary>Whether it unpacks to no more than it may; unpacked once for that, since what an archive says of its parts can be untrue.</summary>
    private static bool IsBounded(byte[] bytes)
    {
        using var archive = new ZipArchive(new MemoryStream(bytes, writable: false));
        if (archive.Entries.Count > MostParts)
        {
            return false;
        }

        var left = MostUnpacked;
        var buffer = new byte[81_920];
        foreach (var entry in archive.Entries)
        {
            using var part = entry.Open();
            while (part.Read(buffer, 0, buffer.Length) is var read and > 0)
            {
                left -= read;
                if (left < 0)
                {
                    return false;
                }
            }
        }

        return true;
    }
}
