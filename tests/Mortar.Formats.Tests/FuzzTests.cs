using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>
/// Files and rules as no program writes them, drawn from seeds: whatever is in one, reading ends soon, never throws, says
/// what it leaves out, and what it takes can be placed, shown, said and written. A few thousand in every run, a million of
/// each with <c>./mortar test --deep</c>.
/// </summary>
public class FuzzTests(ITestOutputHelper output)
{
    private static readonly bool IsDeep = Environment.GetEnvironmentVariable("MORTAR_DEEP") is not null;

    /// <summary>Longer than anything takes on a busy machine; what hangs is found by it.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    private static readonly string[] Blocks =
    [
        .. BlocksOf("studio.ics"),
        .. BlocksOf("troubled.ics"),
        """
            BEGIN:VEVENT
            UID:odd@kilnstreet.example.org
            DTSTART;TZID=Europe/London:20260329T013000
            DTEND;TZID=Europe/London:20261025T013000
            RRULE:FREQ=MONTHLY;BYDAY=1MO,-1FR;BYSETPOS=1,-1;UNTIL=99991231T000000Z
            RDATE;VALUE=DATE:20260401,99991231
            EXDATE;TZID=Europe/London:20260329T013000
            EXRULE:FREQ=YEARLY;BYMONTH=2
            SUMMARY;LANGUAGE=de:Öfen\, Töpfe\; Glasur\nzweite Zeile
            BEGIN:VALARM
            ACTION:DISPLAY
            TRIGGER:-P3650000D
            END:VALARM
            END:VEVENT
            """,
        """
            BEGIN:VEVENT
            UID:days@kilnstreet.example.org
            DTSTART;VALUE=DATE:20260311
            DURATION:PT8H
            RRULE:FREQ=YEARLY;BYWEEKNO=53,-53;BYDAY=SU;WKST=SU;RSCALE=GREGORIAN;SKIP=FORWARD
            RECURRENCE-ID;RANGE=THISANDFUTURE:20260311
            ATTENDEE;CN="A, B";PARTSTAT=ACCEPTED:mailto:a@example.org
            STATUS:CANCELLED
            TRANSP:TRANSPARENT
            END:VEVENT
            """,
    ];

    private static readonly string[] Values =
    [
        "",
        "0",
        "-1",
        "2147483647",
        "99999999999999999999",
        "00000101",
        "15991231T235959",
        "16000101T000000Z",
        "20260229",
        "20260311T100000",
        "20260329T013000",
        "20261025T013000Z",
        "24001231T235959",
        "99991231",
        "99991231T000000Z",
        "99991231T235960Z",
        "P9999999999D",
        "PT8H",
        "-PT999999999M",
        "P1W",
        "PT0S",
        "FREQ=SECONDLY",
        "FREQ=MINUTELY;COUNT=366;BYDAY=MO;BYSETPOS=-283,32",
        "FREQ=HOURLY;COUNT=10;BYMINUTE=58;BYSETPOS=206",
        "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30",
        "FREQ=DAILY;UNTIL=99991231T000000Z",
        "FREQ=DAILY;INTERVAL=2147483647",
        "TZID=Europe/London",
        "VALUE=DATE",
        "\"",
        ";",
        ":",
        ",",
        "\\",
        "\\n",
        "=",
        "\0",
        "\u202e",
        "\ud83c\udffa",
        "é",
        " ",
        "\t",
        "\r\n ",
        "BEGIN:VEVENT",
        "END:VEVENT",
        "BEGIN:VTIMEZONE",
        "END:VCALENDAR",
        "BEGIN:VALARM",
        "TZOFFSETTO:+9999",
        "TZOFFSETFROM:-235959",
        "DTSTART:99991231T000000Z",
        "RDATE;VALUE=PERIOD:20260311T100000Z/PT2147483647H",
        "RECURRENCE-ID:20260311T100000Z",
    ];

    private static readonly string[] Parts =
    [
        "INTERVAL",
        "COUNT",
        "UNTIL",
        "BYMONTH",
        "BYWEEKNO",
        "BYYEARDAY",
        "BYMONTHDAY",
        "BYDAY",
        "BYHOUR",
        "BYMINUTE",
        "BYSECOND",
        "BYSETPOS",
        "WKST",
        "SKIP",
        "RSCALE",
        "X-ODD",
    ];

    [Fact]
    public void Whatever_is_in_a_file_reading_it_ends_and_what_is_taken_can_be_used()
    {
        var taken = Each(
            IsDeep ? 1_000_000 : 3_000,
            random =>
            {
                var file = CalendarFile.Read(Drawn(random), "Europe/London", Samples.Clock);
                if (file is not CalendarFileReading.Understood understood)
                {
                    return 0;
                }

                Assert.True(understood.FindingsInAll >= understood.Findings.Count);
                Assert.All(understood.Findings, finding => Assert.True(finding.Line >= 1));
                _ = FileSummary.Of(understood, Samples.Clock);
                foreach (var one in understood.Events)
                {
                    Use(one);
                }

                return understood.Events.Count;
            }
        );
        Assert.True(taken > 1_000, "Hardly anything of what was drawn is an event: the drawing is wrong.");
    }

    [Fact]
    public void Whatever_a_rule_says_its_first_and_last_and_its_sentence_are_found_or_said_not_to_be()
    {
        var used = Each(
            IsDeep ? 1_000_000 : 2_000,
            random =>
            {
                var start = random.Next(3) switch
                {
                    0 => "DTSTART;VALUE=DATE:20260311",
                    1 => "DTSTART;TZID=Europe/London:20260329T013000",
                    _ => "DTSTART:16000101T000000Z",
                };
                var file = Samples.Read(Samples.Event_(start, $"RRULE:{DrawnRule(random)}"));
                foreach (var one in file.Events)
                {
                    Use(one);
                }

                return file.Events.Count(one => one.Series is not null);
            }
        );
        Assert.True(used > 100);
    }

    /// <summary>What is done with every event that is taken: stored, shown, said and given out.</summary>
    private static void Use(FileEvent one)
    {
        var whole = new Event(
            new EventId(Guid.Empty),
            new CalendarId(Guid.Empty),
            one.Uid,
            new PersonId(Guid.Empty),
            one.Time,
            one.Content,
            one.Series,
            Version: 1
        );
        Assert.True(whole.FirstStart(Samples.Clock) <= (whole.LastEnd(Samples.Clock) ?? Instant.MaxValue), one.Source);
        foreach (var first in new LocalDate[] { new(1600, 1, 1), new(2026, 3, 25), new(2400, 12, 25) })
        {
            _ = whole
                .Shown(new(first, first.PlusDays(6), DateTimeZoneProviders.Tzdb["Europe/London"]), Samples.Clock)
                .Take(2_000)
                .Count();
        }

        if (one.Series is { } series)
        {
            Assert.NotEmpty(SeriesSentence.For(one.Time, series, 2026, DateTimeZoneProviders.Tzdb["Europe/London"]));
        }

        _ = CalendarFileWriter.Write(
            new FileHead("Drawn", "", "Europe/London"),
            [new EventToWrite(whole, Source: null), new EventToWrite(whole, one.Source)],
            Samples.Nobody,
            Samples.Now,
            Samples.Clock
        );
    }

    /// <summary>Does something with so many drawn things, each from a seed of its own, and names the seed of what fails.</summary>
    private long Each(int count, Func<Random, int> act)
    {
        var (sum, slowest, failures) = (0L, 0L, new ConcurrentQueue<string>());
        Parallel.For(
            0,
            count,
            // More at once than there are cores would make each look slow.
            new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount },
            (seed, state) =>
            {
                var begun = Stopwatch.GetTimestamp();
                try
                {
                    Interlocked.Add(ref sum, act(new Random(seed)));
                }
                catch (Exception bad)
                {
                    failures.Enqueue(
                        $"seed {seed}: {bad.GetType().Name} {bad.Message} {string.Join(" < ", bad.StackTrace!.Split('\n').Skip(1).Take(5).Select(line => line.Trim()[..Math.Min(90, line.Trim().Length)]))}"
                    );
                }

                var took = Stopwatch.GetElapsedTime(begun);
                if (took > Longest)
                {
                    failures.Enqueue(
                        string.Create(CultureInfo.InvariantCulture, $"seed {seed} took {took.TotalSeconds:0} s")
                    );
                }

                if (took.Ticks > Interlocked.Read(ref slowest))
                {
                    Interlocked.Exchange(ref slowest, took.Ticks);
                }

                if (failures.Count > 20)
                {
                    state.Stop();
                }
            }
        );
        output.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{count} drawn, {sum} of use, the slowest {TimeSpan.FromTicks(slowest).TotalMilliseconds:0} ms, {failures.Count} failures"
            )
        );
        Assert.True(failures.IsEmpty, string.Join('\n', failures));
        return sum;
    }

    private static byte[] Drawn(Random random)
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n");
        for (var blocks = random.Next(1, 4); blocks > 0; blocks--)
        {
            text.Append(Blocks[random.Next(Blocks.Length)]).Append("\r\n");
        }

        var drawn = text.Append("END:VCALENDAR\r\n").ToString();
        for (var times = random.Next(0, 7); times > 0; times--)
        {
            drawn = Changed(drawn, random);
        }

        var bytes = Encoding.UTF8.GetBytes(drawn);
        for (var times = random.Next(6) == 0 ? random.Next(1, 8) : 0; times > 0; times--)
        {
            bytes[random.Next(bytes.Length)] = (byte)random.Next(256);
        }

        return bytes;
    }

    private static string Changed(string text, Random random)
    {
        var lines = text.Split('\n').ToList();
        var at = random.Next(lines.Count);
        var line = lines[at];
        switch (random.Next(7))
        {
            case 0:
                lines.RemoveAt(at);
                break;
            case 1:
                lines.Insert(at, line);
                break;
            case 2:
                lines.Insert(at, lines[random.Next(lines.Count)]);
                break;
            case 3: // another value
                lines[at] = $"{line.Split(':')[0]}:{Any(random)}\r";
                break;
            case 4: // something in the middle
                lines[at] = line.Insert(random.Next(line.Length + 1), Any(random));
                break;
            case 5: // a piece less
                var from = random.Next(line.Length + 1);
                lines[at] = line.Remove(from, random.Next(line.Length - from + 1));
                break;
            default:
                lines.Insert(at, $"{Any(random)}\r");
                break;
        }

        return string.Join('\n', lines);
    }

    private static string DrawnRule(Random random)
    {
        string[] frequencies = ["SECONDLY", "MINUTELY", "HOURLY", "DAILY", "WEEKLY", "MONTHLY", "YEARLY"];
        var rule = new StringBuilder($"FREQ={frequencies[random.Next(frequencies.Length)]}");
        foreach (var part in Parts.OrderBy(_ => random.Next()).Take(random.Next(0, 5)).Order(StringComparer.Ordinal))
        {
            rule.Append(';').Append(part).Append('=').Append(ValueOf(part, random));
        }

        return random.Next(30) == 0 ? rule.ToString().Insert(random.Next(rule.Length), Any(random)) : rule.ToString();
    }

    private static string ValueOf(string part, Random random)
    {
        return part switch
        {
            "INTERVAL" => Number(1, 500),
            "COUNT" => Number(1, 2_000),
            "UNTIL" => random.Next(2) == 0 ? "20271231T000000Z" : Any(random),
            "BYMONTH" => List(1, 12, minus: false),
            "BYWEEKNO" => List(1, 53, minus: true),
            "BYYEARDAY" => List(1, 366, minus: true),
            "BYMONTHDAY" => List(1, 31, minus: true),
            "BYDAY" => string.Join(
                ',',
                Enumerable
                    .Range(0, random.Next(1, 4))
                    .Select(_ => $"{(random.Next(3) == 0 ? Number(1, 5) : "")}{Day()}")
            ),
            "BYHOUR" => List(0, 23, minus: false),
            "BYMINUTE" or "BYSECOND" => List(0, 59, minus: false),
            "BYSETPOS" => List(1, 366, minus: true),
            "WKST" => Day(),
            "SKIP" => random.Next(2) == 0 ? "BACKWARD" : "FORWARD",
            "RSCALE" => random.Next(2) == 0 ? "GREGORIAN" : "HEBREW",
            _ => Any(random),
        };

        string Number(int from, int to) => random.Next(from, to + 1).ToString(CultureInfo.InvariantCulture);
        string Day() => new[] { "MO", "TU", "WE", "TH", "FR", "SA", "SU" }[random.Next(7)];
        string List(int from, int to, bool minus) =>
            string.Join(
                ',',
                Enumerable
                    .Range(0, random.Next(1, 4))
                    .Select(_ => $"{(minus && random.Next(2) == 0 ? "-" : "")}{Number(from, to)}")
            );
    }

    private static string Any(Random random) => Values[random.Next(Values.Length)];

    /// <summary>The events and zones of a sample, each by itself.</summary>
    private static IEnumerable<string> BlocksOf(string sample)
    {
        var block = new StringBuilder();
        foreach (var line in Encoding.UTF8.GetString(Samples.Bytes(sample)).ReplaceLineEndings("\n").Split('\n'))
        {
            if (line is "BEGIN:VEVENT" or "BEGIN:VTIMEZONE")
            {
                block.Clear();
            }

            block.Append(line).Append("\r\n");
            if (line is "END:VEVENT" or "END:VTIMEZONE")
            {
                yield return block.ToString().TrimEnd();
            }
        }
    }
}
