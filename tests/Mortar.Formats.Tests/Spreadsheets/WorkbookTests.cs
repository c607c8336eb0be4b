using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using ExcelDataReader;
using Mortar.Core.Spreadsheets;
using Mortar.Formats.Spreadsheets;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests.Spreadsheets;

/// <summary>Workbooks, read back by another library (ExcelDataReader).</summary>
public class WorkbookTests
{
    // The reader asks for the code page of old workbooks, whatever it is given.
    static WorkbookTests() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    private static async Task<MemoryStream> Written(params Table[] tables)
    {
        var stream = new MemoryStream();
        await Workbook.Write(stream, tables, TestContext.Current.CancellationToken);
        return new MemoryStream(stream.ToArray());
    }

    private static Table Of(params Cell[][] rows) =>
        Table.Of("Events", [new Column("What", 20), new Column("When", 12)], rows);

    private static async Task<object?[][]> Back(params Cell[][] rows)
    {
        using var reader = ExcelReaderFactory.CreateOpenXmlReader(await Written(Of(rows)));
        var back = new List<object?[]>();
        while (reader.Read())
        {
            back.Add([.. Enumerable.Range(0, reader.FieldCount).Select(reader.GetValue)]);
        }

        return [.. back];
    }

    [Fact]
    public async Task Dates_are_dates_times_are_times_and_hours_can_be_added_up()
    {
        using var reader = ExcelReaderFactory.CreateOpenXmlReader(
            await Written(
                Of(
                    [Cell.Of(new LocalDate(2026, 3, 9)), Cell.Of(new LocalTime(19, 30))],
                    [Cell.Of(Duration.FromMinutes(26 * 60 + 15)), Cell.Of(2.5m)]
                )
            )
        );
        reader.Read();
        Assert.Equal(["What", "When"], [reader.GetString(0), reader.GetString(1)]);
        reader.Read();
        Assert.Equal(new DateTime(2026, 3, 9), reader.GetDateTime(0));
        Assert.Equal("yyyy-mm-dd", reader.GetNumberFormatString(0));
        Assert.Equal("hh:mm", reader.GetNumberFormatString(1));
        Assert.Equal(new TimeSpan(19, 30, 0), reader.GetDateTime(1).TimeOfDay);
        reader.Read();
        Assert.Equal("[h]:mm", reader.GetNumberFormatString(0));
        Assert.Equal(new TimeSpan(26, 15, 0), Assert.IsType<TimeSpan>(reader.GetValue(0)));
        Assert.Equal(2.5, reader.GetDouble(1));
    }

    [Theory]
    [InlineData("=1+1")]
    [InlineData("=cmd|'/c calc'!A1")]
    [InlineData("+44 20 7946 0000")]
    [InlineData("-5")]
    [InlineData("@SUM(A1)")]
    [InlineData("\t=1")]
    [InlineData("2026-03-09")]
    [InlineData("007")]
    [InlineData("<b>&amp;</b> \"']]>")]
    [InlineData("ערב קדרות 🏺")]
    [InlineData(" space around ")]
    [InlineData("two\nlines")]
    public async Task Words_stay_the_words_they_are(string text)
    {
        Assert.Equal(text, (await Back([Cell.Of(text)]))[1][0]);

        using var book = new ZipArchive(await Written(Of([Cell.Of(text)])));
        XNamespace main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        await using var sheet = await book.GetEntry("xl/worksheets/sheet1.xml")!
            .OpenAsync(TestContext.Current.CancellationToken);
        Assert.Empty(
            (await XDocument.LoadAsync(sheet, LoadOptions.None, TestContext.Current.CancellationToken)).Descendants(
                main + "f"
            )
        );
    }

    [Fact]
    public async Task What_xml_cannot_hold_goes_and_what_is_longer_than_a_cell_is_cut()
    {
        var back = await Back(
            [Cell.Of("a\u0001b\uD800c\uFFFEd🏺"), Cell.Of(new string('x', 40_000))],
            [Cell.Of(new string('x', 32_766) + "🏺")]
        );

        Assert.Equal("abcd🏺", back[1][0]);
        Assert.Equal(new string('x', 32_767), back[1][1]);
        Assert.Equal(new string('x', 32_766), back[2][0]);
    }

    [Fact]
    public async Task A_date_before_spreadsheets_count_is_words() =>
        Assert.Equal("1899-12-31", (await Back([Cell.Of(new LocalDate(1899, 12, 31))]))[1][0]);

    [Fact]
    public async Task Several_tables_are_several_sheets()
    {
        using var reader = ExcelReaderFactory.CreateOpenXmlReader(
            await Written(Of([Cell.Of("one")]), Of([Cell.Of("two")]) with { Name = "2026-03", Heads = 1 })
        );

        Assert.Equal("Events", reader.Name);
        Assert.True(reader.NextResult());
        Assert.Equal("2026-03", reader.Name);
    }
}
