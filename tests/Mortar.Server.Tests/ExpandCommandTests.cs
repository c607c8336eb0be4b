using System.Text;
using System.Text.Json;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Server.Hosting;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What <c>./mortar expand</c> prints, and with which code it ends.</summary>
public sealed class ExpandCommandTests : IDisposable
{
    private static readonly ZoneClock Clock = new(new KnownZones(DateTimeZoneProviders.Tzdb));

    private readonly string file = Path.GetTempFileName();

    public void Dispose() => File.Delete(file);

    [Fact]
    public void Prints_an_object_a_line_of_a_file_that_is_understood()
    {
        Write(
            "BEGIN:VEVENT",
            "UID:glaze",
            "SUMMARY:Glaze kitchen",
            "DTSTART;TZID=Europe/London:20260326T180000",
            "DTEND;TZID=Europe/London:20260326T193000",
            "RRULE:FREQ=WEEKLY;COUNT=3",
            "END:VEVENT"
        );

        var (code, output, errors) = Run(file, "--from", "2026-03-23", "--to", "2026-04-05", "--json");

        Assert.Equal((0, string.Empty), (code, errors));
        var lines = output.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(2, lines.Length);
        using var second = JsonDocument.Parse(lines[1]);
        Assert.Equal(
            ["uid", "start", "end", "zone", "startUtc", "endUtc", "allDay", "summary"],
            second.RootElement.EnumerateObject().Select(one => one.Name)
        );
        Assert.Equal(
            ("2026-04-02T18:00:00", "2026-04-02T17:00:00Z"),
            (
                second.RootElement.GetProperty("start").GetString(),
                second.RootElement.GetProperty("startUtc").GetString()
            )
        );
    }

    [Fact]
    public void Prints_plainly_without_json()
    {
        Write("BEGIN:VEVENT", "UID:closed", "SUMMARY:Closed", "DTSTART;VALUE=DATE:20260326", "END:VEVENT");

        var (code, output, _) = Run(file, "--from", "2026-03-26", "--to", "2026-03-26");

        Assert.Equal((0, "2026-03-26  2026-03-27  -  Closed"), (code, output.TrimEnd()));
    }

    [Fact]
    public void Says_with_its_line_what_was_not_taken_and_prints_the_rest()
    {
        Write(
            "BEGIN:VEVENT",
            "UID:good",
            "DTSTART:20260326T180000Z",
            "END:VEVENT",
            "BEGIN:VEVENT",
            "UID:bad",
            "SUMMARY:Bad rule",
            "DTSTART:20260326T180000Z",
            "RRULE:FREQ=WEEKLY;BYDAY=XX",
            "END:VEVENT"
        );

        var (code, output, errors) = Run(file, "--from", "2026-03-26", "--to", "2026-03-26", "--json");

        Assert.Equal(2, code);
        Assert.Contains("\"good\"", output, StringComparison.Ordinal);
        var line = Assert.Single(errors.Split('\n', StringSplitOptions.RemoveEmptyEntries));
        Assert.StartsWith($"{file}:", line, StringComparison.Ordinal);
        Assert.Contains("XX", line, StringComparison.Ordinal);
    }

    [Fact]
    public void Says_that_a_calendar_has_no_event()
    {
        Write("BEGIN:VTODO", "UID:shelf", "SUMMARY:Mend the shelf", "END:VTODO");

        var (code, output, errors) = Run(file, "--from", "2026-03-26", "--to", "2026-03-26");

        Assert.Equal((2, string.Empty), (code, output));
        Assert.Contains($"{file}: it is a calendar with no event in it", errors, StringComparison.Ordinal);
    }

    [Fact]
    public void Says_that_a_file_is_no_calendar()
    {
        File.WriteAllText(file, "Dear all,\nthe studio is closed.");

        var (code, output, errors) = Run(file, "--from", "2026-03-26", "--to", "2026-03-26");

        Assert.Equal((1, string.Empty), (code, output));
        Assert.StartsWith($"{file}:1: ", errors, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("Name the file.", "--from", "2026-03-26", "--to", "2026-03-26")]
    [InlineData("--from and --to take dates", "plan.ics", "--from", "yesterday", "--to", "2026-03-26")]
    [InlineData("--from and --to take dates", "plan.ics", "--from", "2026-03-26")]
    [InlineData("--from and --to take dates", "plan.ics", "--from", "2026-03-26", "--to", "9999-12-31")]
    [InlineData("--to is before --from", "plan.ics", "--from", "2026-03-26", "--to", "2026-03-25")]
    [InlineData("no time zone “Kiln”", "plan.ics", "--from", "2026-03-26", "--to", "2026-03-26", "--zone", "Kiln")]
    [InlineData("“--to” is one thing too much, or lacks", "plan.ics", "--from", "2026-03-26", "--to")]
    [InlineData("“other.ics” is one thing too much", "plan.ics", "other.ics")]
    [InlineData("“--loud” is one thing too much", "plan.ics", "--loud")]
    [InlineData("nowhere.ics: cannot be read", "nowhere.ics", "--from", "2026-03-26", "--to", "2026-03-26")]
    public void Says_what_is_wrong_with_the_question(string sentence, params string[] arguments)
    {
        var (code, output, errors) = Run(arguments);

        Assert.Equal((1, string.Empty), (code, output));
        Assert.Contains(sentence, errors, StringComparison.Ordinal);
    }

    private void Write(params string[] lines) =>
        File.WriteAllText(
            file,
            string.Join(
                "\r\n",
                ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:test", .. lines, "END:VCALENDAR", string.Empty]
            ),
            new UTF8Encoding(encoderShouldEmitUTF8Identifier: false)
        );

    private static (int Code, string Output, string Errors) Run(params string[] arguments)
    {
        using var output = new StringWriter();
        using var errors = new StringWriter();
        var code = ExpandCommand.Run(arguments, Clock, output, errors);
        return (code, output.ToString(), errors.ToString());
    }
}
