using System.Text;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Spreadsheets that come in: guessed, mended, and written by the way of all files.</summary>
public class SheetImportTests
{
    private const string Programme = """
        Autumn programme;;;;
        What;Day;From;Until;Room
        Throwing;5.3.26;19:00;21:00;Hall
        Firing;13.3.26;20:00;02:00;Kiln yard
        Open day;14.3.26;;;Studio
        Something;soon;;;
        =cmd|' /C calc'!A0;15.3.26;9:00;10:00;
        """;

    private static FileOf Csv(string text) => new("text/csv", Encoding.UTF8.GetBytes(text));

    private static string Path(CalendarId calendar, Guid import, string more = "") =>
        $"/api/calendars/{calendar.Value}/imports/{import}{more}";

    private static IEnumerable<string> Sentences(Answer answer) =>
        answer.Body.GetProperty("sheet").GetProperty("rows").EnumerateArray().Select(row => row.Text("sentence"));

    [Fact]
    public async Task One_sees_how_each_row_is_read_mends_the_columns_writes_takes_back_and_brings_it_again()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var import = Guid.NewGuid();

        // "From" and "Until" are days by their names; here they are times.
        var guessed = (await ines.Put(Path(calendar, import), Csv(Programme))).Is(200);
        Assert.Equal(2, guessed.Body.GetProperty("sheet").GetProperty("head").GetInt32());
        var mended = (
            await ines.Put(
                Path(calendar, import, "?head=2&columns=title,startDay,startTime,endTime,place&dates=dayFirst"),
                Csv(Programme)
            )
        ).Is(200);
        Assert.Equal(
            [
                "Thu 5 March 2026, 19:00 to 21:00: Throwing",
                "Fri 13 March 2026, 20:00 to Sat 14 March 2026, 02:00: Firing",
                "Sat 14 March 2026: Open day",
                "left out: “soon” is not read as a day with its year",
                "Sun 15 March 2026, 09:00 to 10:00: =cmd|' /C calc'!A0",
            ],
            Sentences(mended)
        );
        Assert.Equal(4, mended.Body.GetProperty("events").GetInt32());
        Assert.Equal(1, mended.Body.GetProperty("leftOut").GetInt32());
        Assert.Equal(6, mended.Body.GetProperty("findings")[0].GetProperty("line").GetInt32());
        Assert.Empty(await ines.Bricks(calendar));

        var set = Guid.NewGuid();
        (await ines.Post($"{Path(calendar, import)}/write", new { known = "keep" }, set)).Is(202);
        Assert.Equal(4, (await ines.Imported(calendar, import)).GetProperty("written").GetInt32());
        Assert.Equal(
            ["=cmd|' /C calc'!A0", "Firing", "Open day"],
            (await ines.Bricks(calendar)).Select(brick => brick.Text("title")).Order(StringComparer.Ordinal)
        );

        // Again, as a workbook would have the dates: nothing is there twice.
        var again = (
            await ines.Put(
                Path(calendar, Guid.NewGuid(), "?columns=title,startDay,startTime,endTime,place"),
                Csv(Programme.Replace("13.3.26", "2026-03-13", StringComparison.Ordinal))
            )
        ).Is(200);
        Assert.Equal((4, 4), (again.Body.GetProperty("events").GetInt32(), again.Body.GetProperty("same").GetInt32()));

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Empty(await ines.Bricks(calendar, "2026-03-01", "2026-03-31"));
    }

    [Fact]
    public async Task What_was_taken_along_comes_back_as_it_was()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await ines.MakeEvent(from, "Firing", World.Hours("2026-03-12T20:00:00", "2026-03-13T02:00:00"));
        await ines.MakeEvent(
            from,
            "+1 helper",
            World.Hours("2026-03-28T22:00:00", "2026-03-29T06:00:00", "Europe/Berlin")
        );
        await ines.MakeEvent(
            from,
            "Fair",
            new
            {
                form = "days",
                first = "2026-03-14",
                last = "2026-03-15",
                toBeSet = false,
            }
        );

        foreach (
            var (form, type) in ((string, string)[])
                [("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"), ("csv", "text/csv")]
        )
        {
            var file = await ines.GetBytes(
                $"/api/spreadsheets/events.{form}?from=2026-03-01&to=2026-04-30&calendars={from.Value}"
            );
            var import = Guid.NewGuid();
            var seen = (await ines.Put(Path(to, import), new FileOf(type, file))).Is(200);
            Assert.Equal(0, seen.Body.GetProperty("leftOut").GetInt32());
            Assert.Equal(form == "csv" ? 3 : 0, seen.Body.GetProperty("same").GetInt32());
            (await ines.Post($"{Path(to, import)}/write", new { known = "keep" })).Is(202);
            await ines.Imported(to, import);
        }

        Assert.Equal(await Of(from), await Of(to));

        async Task<List<string>> Of(CalendarId calendar) =>
            [
                .. (await ines.Bricks(calendar, "2026-03-01", "2026-04-30"))
                    .Select(brick =>
                        $"{brick.Text("title")} {brick.Text("place")} {brick.Text("notes")} {(brick.GetProperty("time").Text("form") == "days" ? brick.GetProperty("time").Text("last") : brick.GetProperty("time").Text("start") + brick.GetProperty("time").Text("end"))}"
                    )
                    .Order(StringComparer.Ordinal),
            ];
    }

    [Theory]
    [InlineData("?columns=title,when", "columns")]
    [InlineData("?columns=title,title", "columns")]
    [InlineData("?dates=yearFirst", "dates")]
    public async Task What_cannot_be_meant_is_said_at_its_field(string wish, string field)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put(Path(calendar, Guid.NewGuid(), wish), Csv(Programme));

        Assert.NotEmpty(answer.IsProblem(422, "unfit").Body.GetProperty("fields").Text(field));
    }

    [Fact]
    public async Task What_is_no_spreadsheet_is_refused_with_what_to_do()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        foreach (
            var file in (FileOf[])
                [Csv(string.Empty), new("text/csv", [0, 1, 2]), new("text/calendar", "PK\u0003\u0004"u8.ToArray())]
        )
        {
            (await ines.Put(Path(calendar, Guid.NewGuid()), file)).IsProblem(422, "not-a-spreadsheet");
        }

        // No row of it is an event: that is shown, and there is nothing to write.
        var none = (await ines.Put(Path(calendar, Guid.NewGuid()), Csv("a,b\nc,d\n"))).Is(200);
        Assert.Equal(0, none.Body.GetProperty("events").GetInt32());
        Assert.All(Sentences(none), sentence => Assert.StartsWith("left out", sentence, StringComparison.Ordinal));
    }
}
