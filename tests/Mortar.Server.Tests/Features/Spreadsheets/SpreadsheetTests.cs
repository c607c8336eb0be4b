using System.Globalization;
using System.IO.Compression;
using System.Text;
using ExcelDataReader;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Spreadsheets;

/// <summary>Spreadsheets: what one sees, as a file. Workbooks are read back by ExcelDataReader 3.6.</summary>
public class SpreadsheetTests
{
    private static readonly string[] OfGroups = ["roster", "hours", "absences", "absence-days"];

    static SpreadsheetTests() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    private static string Path(string what, string from = "2026-03-09", string to = "2026-03-15", Guid? group = null) =>
        $"/api/spreadsheets/{what}?from={from}&to={to}&group={group ?? World.StudioTeam}";

    private static async Task<List<List<object?>>> Workbook(Browser browser, string path, string? sheet = null)
    {
        using var reader = ExcelReaderFactory.CreateOpenXmlReader(new MemoryStream(await browser.GetBytes(path)));
        while (sheet is not null && reader.Name != sheet)
        {
            Assert.True(reader.NextResult(), $"no sheet {sheet}");
        }

        var rows = new List<List<object?>>();
        while (reader.Read())
        {
            rows.Add([.. Enumerable.Range(0, reader.FieldCount).Select(reader.GetValue)]);
        }

        return rows;
    }

    [Fact]
    public async Task Events_are_those_of_the_wall_a_row_an_occurrence()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var wall = (await ines.Get("/api/wall?from=2026-03-01&to=2026-04-30"))
            .Is(200)
            .Body.BricksWithTexts()
            .Where(brick => brick.Text("form") == "event")
            .Select(brick => $"{brick.Text("title")} {StartOf(brick.GetProperty("time"))}")
            .Order(StringComparer.Ordinal)
            .ToList();

        var rows = await Workbook(ines, "/api/spreadsheets/events.xlsx?from=2026-03-01&to=2026-04-30");
        var head = rows[0].ConvertAll(cell => (string)cell!);
        object? Cell(List<object?> row, string column) => row[head.IndexOf(column)];
        var told = rows.Skip(1)
            .Where(row => (string?)Cell(row, "Title") != "Busy")
            .Select(row =>
                $"{Cell(row, "Title")} {(DateTime)Cell(row, "Starts on")!:yyyy-MM-dd}"
                + (
                    Cell(row, "Starts at") is DateTime at
                        ? $"T{at.ToString("HH:mm:ss", CultureInfo.InvariantCulture)}"
                        : string.Empty
                )
            )
            .Order(StringComparer.Ordinal);

        Assert.True(wall.Count > 60, $"{wall.Count} on the wall");
        Assert.Equal(wall, told);

        static string StartOf(System.Text.Json.JsonElement time) =>
            time.Text("form") == "days" ? time.Text("first") : time.Text("start");
    }

    [Fact]
    public async Task The_months_absences_are_dates_and_numbers_and_what_they_cost_is_what_the_page_says()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var path = Path("absences.xlsx", "2026-03-01", "2026-03-31");
        var totals = (await ines.Get($"/api/groups/{World.StudioTeam}/absences?year=2026"))
            .Is(200)
            .Body.EnumerateArray()
            .ToDictionary(
                one => one.GetProperty("personId").GetGuid(),
                one => one.GetProperty("halfDays")[2].GetInt32() / 2.0
            );

        var list = await Workbook(ines, path);
        var grid = await Workbook(ines, path, "2026-03");

        var dele = list.Single(row => row[0] as string == DemoPeople.Dele.Name);
        Assert.Equal(new DateTime(2026, 3, 9), dele[1]);
        Assert.Equal(new DateTime(2026, 3, 11), dele[3]);
        Assert.Equal(3.0, dele[5]);
        foreach (
            var person in (DemoPerson[])
                [
                    DemoPeople.Ines,
                    DemoPeople.Priya,
                    DemoPeople.Tomasz,
                    DemoPeople.Mei,
                    DemoPeople.Dele,
                    DemoPeople.Hanne,
                ]
        )
        {
            var row = grid.Single(row => row[0] as string == person.Name);
            Assert.Equal(totals[person.Id.Value], row[32]);
            Assert.Equal(totals[person.Id.Value], row.Skip(1).Take(31).OfType<double>().Sum());
        }

        Assert.True(totals.Values.Sum() > 0);
    }

    [Fact]
    public async Task Hours_and_the_roster_hold_no_more_than_the_step_shows()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Glaze tests",
                    description = "",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "none",
                    kinds = new[] { new { name = "Secret-kind", tint = "deep" } },
                }
            )
        ).Is(200);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = id,
                    title = "Secret-title",
                    place = "Secret-place",
                    notes = "Secret-notes",
                    kind = "Secret-kind",
                    attendees = new[] { DemoPeople.Mei.Id.Value },
                    showAs = "busy",
                    time = World.Hours(),
                }
            )
        ).Is(200);

        foreach (var role in Enum.GetValues<Role>())
        {
            await mortar.Give(new CalendarId(id), DemoPeople.Priya, role);
            foreach (var form in (string[])["csv", "xlsx"])
            {
                var roster = await Text(priya, Path($"roster.{form}"));
                var hours = await Text(priya, Path($"hours.{form}"));
                var events = await Text(priya, Path($"events.{form}"));
                var all = roster + hours + events;
                Assert.Equal(role >= Role.Outline, roster.Contains("Secret-title", StringComparison.Ordinal));
                Assert.Equal(role >= Role.Outline, events.Contains("Secret-place", StringComparison.Ordinal));
                Assert.Equal(role >= Role.View, hours.Contains("Secret-kind", StringComparison.Ordinal));
                Assert.Equal(role >= Role.View, events.Contains("Secret-notes", StringComparison.Ordinal));
                Assert.Equal(role >= Role.Times, events.Contains("Glaze tests", StringComparison.Ordinal));
                Assert.Equal(role >= Role.View, all.Contains("Secret-kind", StringComparison.Ordinal));
            }
        }

        // All that is in a file, also what a workbook has packed.
        static async Task<string> Text(Browser browser, string path)
        {
            var bytes = await browser.GetBytes(path);
            if (!path.Contains(".xlsx", StringComparison.Ordinal))
            {
                return Encoding.UTF8.GetString(bytes);
            }

            using var book = new ZipArchive(new MemoryStream(bytes));
            var text = new StringBuilder();
            foreach (var entry in book.Entries)
            {
                using var reader = new StreamReader(await entry.OpenAsync());
                text.Append(await reader.ReadToEndAsync());
            }

            return text.ToString();
        }
    }

    [Fact]
    public async Task Of_a_group_one_is_not_in_there_is_none_and_who_has_what_is_for_coordinators()
    {
        await using var mortar = await TestMortar.Start();
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        using var ines = await mortar.As(DemoPeople.Ines);

        foreach (var what in OfGroups.Append("access").Append("events"))
        {
            (await astrid.Get(Path($"{what}.csv"))).IsProblem(404, "not-there");
            (await astrid.Get(Path($"{what}.csv", group: Guid.NewGuid()))).IsProblem(404, "not-there");
        }

        foreach (var what in OfGroups)
        {
            (await astrid.Get($"/api/spreadsheets/{what}.csv?from=2026-03-09&to=2026-03-15")).IsProblem(422, "unfit");
        }

        (await tomasz.Get(Path("access.csv"))).IsProblem(403, "not-allowed");
        var access = (await ines.Get(Path("access.csv"))).Is(200).Text;
        Assert.Contains(
            $"{DemoPeople.Tomasz.Name},member,{DemoPeople.Tomasz.Address}",
            access,
            StringComparison.Ordinal
        );
        using var nobody = mortar.Anonymous();
        (await nobody.Get(Path("events.csv"))).IsProblem(401, "signed-out");
    }

    [Theory]
    [InlineData("events.csv", "2026-03-15", "2026-03-09")]
    [InlineData("events.csv", "2020-01-01", "2026-01-01")]
    [InlineData("roster.csv", "2026-01-01", "2026-04-30")]
    [InlineData("hours.csv", "2025-01-01", "2026-03-31")]
    [InlineData("absences.xlsx", "0001-01-01", "9999-12-31")]
    public async Task A_period_that_cannot_be_is_said_at_its_field(string what, string from, string to)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var answer = (await ines.Get(Path(what, from, to))).IsProblem(422, "unfit");

        Assert.Contains("days", answer.Body.GetProperty("fields").Text("to"), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("nothing.csv")]
    [InlineData("events.xls")]
    [InlineData("events.")]
    public async Task What_there_is_no_spreadsheet_of_is_not_there(string what)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        (await ines.Get(Path(what))).Is(404);
    }

    [Fact]
    public async Task Nothing_stays_on_the_disk()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        await ines.GetBytes(Path("events.xlsx"));

        Assert.Empty(Directory.GetFiles(System.IO.Path.Combine(mortar.Data, "giving")));
    }

    [Fact]
    public async Task What_goes_on_over_the_end_of_a_month_is_told_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Long firing", World.Hours("2026-03-31T20:00:00", "2026-04-02T08:00:00"));
        await ines.MakeEvent(
            calendar,
            "Fair",
            new
            {
                form = "days",
                first = "2026-02-20",
                last = "2026-06-10",
                toBeSet = false,
            }
        );
        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        var path = $"/api/spreadsheets/events.csv?from=2026-03-01&to=2026-05-31&calendars={calendar.Value}";

        var seen = (await ines.Get(path)).Is(200).Text;
        var times = (await priya.Get(path)).Is(200).Text.TrimEnd().Split("\r\n");

        Assert.Equal(2, seen.Split("Long firing").Length);
        Assert.Equal(2, seen.Split("Fair").Length);
        // All of it is one busy time.
        var busy = Assert.Single(times.Skip(1));
        Assert.Contains("Busy,2026-03-01,00:00,2026-06-01,00:00,2207:00,", busy, StringComparison.Ordinal);
    }
}
