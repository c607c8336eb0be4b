using System.IO.Compression;
using System.Text;
using Mortar.Core.Spreadsheets;
using Mortar.Formats.Spreadsheets;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests.Spreadsheets;

public class SheetFileTests
{
    private static List<string> Rows(byte[] bytes) =>
        [
            .. Assert
                .IsType<SheetReading.Understood>(SheetFile.Read(bytes))
                .Rows.Select(row => $"{row.Number} {string.Join('|', row.Cells.Select(cell => cell.Text))}"),
        ];

    private static string WhyNot(byte[] bytes) => Assert.IsType<SheetReading.NotASheet>(SheetFile.Read(bytes)).Sentence;

    private static async Task<byte[]> Written(params Table[] tables)
    {
        using var stream = new MemoryStream();
        await Workbook.Write(stream, tables, TestContext.Current.CancellationToken);
        return stream.ToArray();
    }

    [Theory]
    [InlineData("Date,What\r\n2026-10-05,\"Throwing, late\"\r\n")]
    [InlineData("Date;What\n2026-10-05;\"Throwing, late\"\n")]
    [InlineData("Date\tWhat\n2026-10-05\tThrowing, late")]
    [InlineData("\uFEFFDate,What\n\"2026-10-05\",\"Throwing, late\"")]
    public void Values_are_parted_by_what_parts_them(string text) =>
        Assert.Equal(["1 Date|What", "2 2026-10-05|Throwing, late"], Rows(Encoding.UTF8.GetBytes(text)));

    [Fact]
    public void A_heading_over_all_does_not_say_what_parts_the_values() =>
        Assert.Equal(
            ["1 Spring programme", "2 What|Day|Room, if any", "3 Talk|12.3.26|"],
            Rows("Spring programme\nWhat;Day;Room, if any\nTalk;12.3.26;\n"u8.ToArray())
        );

    [Fact]
    public void Old_and_wide_encodings_are_read()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        const string Text = "Date,What\n2026-10-05,Töpfern für Große";
        foreach (
            var bytes in (byte[][])
                [
                    Encoding.UTF8.GetBytes(Text),
                    Encoding.GetEncoding(1252).GetBytes(Text),
                    [.. Encoding.Unicode.GetPreamble(), .. Encoding.Unicode.GetBytes(Text)],
                    [.. Encoding.BigEndianUnicode.GetPreamble(), .. Encoding.BigEndianUnicode.GetBytes(Text)],
                ]
        )
        {
            Assert.Equal("2 2026-10-05|Töpfern für Große", Rows(bytes)[1]);
        }
    }

    [Fact]
    public async Task A_workbook_has_its_dates_and_times_as_such_and_empty_rows_keep_their_numbers()
    {
        var bytes = await Written(
            Table.Of(
                "Sheet",
                [new Column("Date", 10), new Column("Time", 10), new Column("Lasts", 10)],
                [
                    [],
                    [
                        Cell.Of(new LocalDate(2026, 10, 5)),
                        Cell.Of(new LocalTime(19, 40)),
                        Cell.Of(Duration.FromMinutes(1_570)),
                    ],
                ]
            )
        );

        var row = Assert.IsType<SheetReading.Understood>(SheetFile.Read(bytes)).Rows[1];
        Assert.Equal(3, row.Number);
        Assert.Equal(new LocalDate(2026, 10, 5), WrittenDates.Day(row[0], DateOrder.DayFirst));
        Assert.Equal(new LocalTime(19, 40), WrittenDates.Time(row[1]));
        Assert.Equal(Duration.FromMinutes(1_570), WrittenDates.Length(row[2]));
    }

    [Fact]
    public async Task The_first_sheet_with_anything_in_it_is_read()
    {
        var bytes = await Written(
            Table.Of("Empty", [], []),
            Table.Of(
                "Events",
                [new Column("Date", 10)],
                [
                    [Cell.Of("x")],
                ]
            )
        );

        Assert.Equal(["1 Date", "2 x"], Rows(bytes));
    }

    [Fact]
    public void What_is_none_is_said_to_be_none()
    {
        Assert.Contains("empty", WhyNot([]), StringComparison.Ordinal);
        Assert.Contains("empty", WhyNot(Encoding.UTF8.GetBytes("\n \n,,\n")), StringComparison.Ordinal);
        Assert.Contains("no text", WhyNot([1, 2, 0, 3]), StringComparison.Ordinal);
        Assert.Contains("as a workbook", WhyNot("PK\u0003\u0004 and no more"u8.ToArray()), StringComparison.Ordinal);
        Assert.Contains("as a workbook", WhyNot(Zip(("hello.txt", "hello"u8.ToArray()))), StringComparison.Ordinal);
        Assert.Contains(
            "as a workbook",
            WhyNot(Zip(("xl/workbook.xml", "<workbook"u8.ToArray()), ("[Content_Types].xml", "<x/>"u8.ToArray()))),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_workbook_broken_anywhere_is_read_or_refused()
    {
        var whole = await Written(
            Table.Of(
                "Events",
                [new Column("Date", 10)],
                [
                    [Cell.Of(new LocalDate(2026, 10, 5))],
                ]
            )
        );
        var random = new Random(20_261_005);
        for (var round = 0; round < 300; round++)
        {
            var broken = whole.ToArray();
            for (var hit = 0; hit < 1 + (round % 4); hit++)
            {
                broken[random.Next(4, broken.Length)] = (byte)random.Next(256);
            }

            Assert.NotNull(SheetFile.Read(round % 3 == 0 ? broken[..random.Next(4, broken.Length)] : broken));
        }
    }

    [Fact]
    public void More_rows_than_are_taken_and_more_than_a_file_seems_to_hold_are_refused()
    {
        var many = new StringBuilder("Date,What\n");
        for (var row = 0; row < 50_000; row++)
        {
            many.Append("2026-10-05,=cmd|' /C calc'!A0\n");
        }

        Assert.Contains(
            "more than 20100 rows",
            WhyNot(Encoding.UTF8.GetBytes(many.ToString())),
            StringComparison.Ordinal
        );
        var nothing = new byte[200 << 20];
        Assert.Contains(
            "far larger than it looks",
            WhyNot(Zip(("xl/worksheets/sheet1.xml", nothing))),
            StringComparison.Ordinal
        );
    }

    private static byte[] Zip(params (string Name, byte[] Bytes)[] parts)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, bytes) in parts)
            {
                using var part = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                part.Write(bytes);
            }
        }

        return stream.ToArray();
    }
}
