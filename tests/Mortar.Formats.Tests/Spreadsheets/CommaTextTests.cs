using System.Text;
using Mortar.Core.Spreadsheets;
using Mortar.Formats.Spreadsheets;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests.Spreadsheets;

public class CommaTextTests
{
    private static async Task<string> Written(params Cell[][] rows)
    {
        using var stream = new MemoryStream();
        await CommaText.Write(
            stream,
            Table.Of("Events", [new Column("What", 20), new Column("When, where", 12)], rows),
            TestContext.Current.CancellationToken
        );
        return Encoding.UTF8.GetString(stream.ToArray());
    }

    [Fact]
    public async Task It_is_as_rfc_4180_says_with_dates_and_times_of_iso_8601() =>
        Assert.Equal(
            "\uFEFFWhat,\"When, where\"\r\n"
                + "\"Say \"\"hello\"\"\",2026-03-09\r\n"
                + "\"two\nlines\",19:30\r\n"
                + "26:15,2.5\r\n"
                + ",\r\n",
            await Written(
                [Cell.Of("Say \"hello\""), Cell.Of(new LocalDate(2026, 3, 9))],
                [Cell.Of("two\nlines"), Cell.Of(new LocalTime(19, 30))],
                [Cell.Of(Duration.FromMinutes((26 * 60) + 15)), Cell.Of(2.5m)],
                []
            )
        );

    /// <summary>The beginnings that OWASP names under "CSV Injection".</summary>
    [Theory]
    [InlineData("=1+1")]
    [InlineData("+1")]
    [InlineData("-1")]
    [InlineData("@SUM(A1)")]
    [InlineData("\t=1")]
    [InlineData("\r=1")]
    public async Task Nothing_is_taken_for_a_formula(string text)
    {
        var field = (await Written([Cell.Of(text)])).Split("\r\n", 2)[1].Trim('"');

        Assert.StartsWith("'" + text[..1], field, StringComparison.Ordinal);
    }
}
