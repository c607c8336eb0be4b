using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Hosting;

/// <summary><c>./mortar expand FILE.ics --from DATE --to DATE [--zone ZONE] [--json]</c>: prints when the events of a file take place.</summary>
/// <remarks>
/// Exit codes: 0 where the file was understood as it stands, 1 where the question or the file cannot be read, 2 where
/// something in the file was left out or not taken as it stands; each such thing is a line with its place.
/// </remarks>
internal static class ExpandCommand
{
    private const string Usage = "./mortar expand FILE.ics --from DATE --to DATE [--zone ZONE] [--json]";

    private sealed record Question(string File, LocalDate From, LocalDate To, string Zone, bool AsJson);

    public static int Run(string[] arguments, ZoneClock clock, TextWriter output, TextWriter errors)
    {
        if (Read(arguments, clock, errors) is not { } question)
        {
            return 1;
        }

        byte[] bytes;
        try
        {
            bytes = File.ReadAllBytes(question.File);
        }
        catch (Exception unread) when (unread is IOException or UnauthorizedAccessException)
        {
            errors.WriteLine($"{question.File}: cannot be read: {unread.Message}");
            return 1;
        }

        switch (CalendarFile.Read(bytes, question.Zone, clock))
        {
            case CalendarFileReading.NotACalendar none:
                errors.WriteLine($"{question.File}:1: {none.Sentence}");
                return 1;
            case CalendarFileReading.Understood file:
                return Print(question, file, clock, output, errors);
            default:
                throw new System.Diagnostics.UnreachableException();
        }
    }

    private static int Print(
        Question question,
        CalendarFileReading.Understood file,
        ZoneClock clock,
        TextWriter output,
        TextWriter errors
    )
    {
        var window = new Window(question.From, question.To, clock.Zone(question.Zone));
        var expansion = FileExpansion.Of(file, window, clock);
        foreach (var one in expansion.Occurrences)
        {
            output.WriteLine(
                question.AsJson ? one.ToJson() : $"{one.Start}  {one.End}  {one.Zone ?? "-"}  {one.Summary}"
            );
        }

        foreach (var finding in file.Findings)
        {
            errors.WriteLine($"{question.File}:{finding.Line}: {finding.What}: {finding.Why}");
        }

        if (file.Events.Count == 0)
        {
            errors.WriteLine($"{question.File}: it is a calendar with no event in it that could be read.");
            return 2;
        }

        foreach (var uid in expansion.Cut)
        {
            errors.WriteLine($"{question.File}: {uid}: only its first {SeriesExpansion.MostShown} are printed");
        }

        return file.Findings.Count + expansion.Cut.Count > 0 ? 2 : 0;
    }

    private static Question? Read(string[] arguments, ZoneClock clock, TextWriter errors)
    {
        string? file = null;
        var values = new Dictionary<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < arguments.Length; i++)
        {
            switch (arguments[i])
            {
                case "--json":
                    values["--json"] = string.Empty;
                    break;
                case "--from" or "--to" or "--zone" when i + 1 < arguments.Length:
                    values[arguments[i]] = arguments[++i];
                    break;
                case var other when file is null && !other.StartsWith("--", StringComparison.Ordinal):
                    file = other;
                    break;
                case var other:
                    return Wrong($"“{other}” is one thing too much, or lacks its value.");
            }
        }

        var zone = values.GetValueOrDefault("--zone", "UTC");
        return file is null ? Wrong("Name the file.")
            : !TryDate("--from", out var from) || !TryDate("--to", out var to)
                ? Wrong("--from and --to take dates such as 2026-03-11, up to 9998-12-31.")
            : to < from ? Wrong("--to is before --from.")
            : !clock.Knows(zone) ? Wrong($"There is no time zone “{zone}”. Use a name such as Europe/London.")
            : new Question(file, from, to, zone, values.ContainsKey("--json"));

        bool TryDate(string option, out LocalDate date) =>
            LocalDatePattern.Iso.Parse(values.GetValueOrDefault(option, string.Empty)).TryGetValue(default, out date)
            && date.Year is >= 1 and <= 9998;

        Question? Wrong(string sentence)
        {
            errors.WriteLine($"{sentence} {Usage}");
            return null;
        }
    }
}
