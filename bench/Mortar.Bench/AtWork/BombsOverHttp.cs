using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Text;

namespace Mortar.Bench.AtWork;

/// <summary>
/// What somebody writes to cost the others, over HTTP: what they wait for meanwhile when they write and when they look at
/// their walls, and the memory it takes. Ines throws; Priya, who is in her group, goes on with her work.
/// </summary>
internal static class BombsOverHttp
{
    private static readonly DateTime Monday = new(2026, 3, 9, 9, 0, 0, DateTimeKind.Unspecified);

    /// <summary>The longest that anybody else may wait, in milliseconds, on a machine of two shared processors.</summary>
    private const int LongestWait = 1_500;

    /// <returns>0 where nobody waited for too long, nothing failed and no answer was larger than what it shows.</returns>
    public static async Task<int> Run()
    {
        var notes = new ConcurrentBag<Told>();
        await using var mortar = await RunningMortar.Start();
        await using var ines = new Client(mortar.Url, notes);
        await TwoHundred.SignIn(ines, "Ines");
        await using var priya = new Client(mortar.Url, notes);
        await TwoHundred.SignIn(priya, "Priya");
        var group = (await ines.Get("groups"))
            .Body.EnumerateArray()
            .First(one => one.GetProperty("name").GetString() == "Studio team")
            .GetProperty("id")
            .GetGuid();
        var own = await TwoHundred.MakeCalendar(ines, group, "Priya's plan");
        var worst = 0.0;
        Console.WriteLine("what | answer | others wrote within | others saw their wall within | memory so far");

        await Throw("nothing", () => Task.Delay(1_500));

        var place = await TwoHundred.MakeCalendar(ines, group, "Kiln of seconds", purpose: "place");
        await Throw("a booking every second", () => Put(place, "FREQ=SECONDLY", minutes: 0));
        await Throw("a second booking of it", () => Put(place, "FREQ=SECONDLY", minutes: 1));

        var fine = await TwoHundred.MakeCalendar(ines, group, "Seconds");
        await Throw("an event every second", () => Put(fine, "FREQ=SECONDLY", minutes: 1));
        await Throw("its wall of six weeks", () => priya.Get("wall?from=2026-03-02&to=2026-04-12"));
        await Throw(
            "each of them ten years long",
            () =>
                Import(
                    fine,
                    "BEGIN:VEVENT\r\nUID:long\r\nDTSTART:20000101T000000Z\r\nDURATION:P3660D\r\nRRULE:FREQ=SECONDLY\r\nEND:VEVENT\r\n"
                )
        );
        await Throw("its wall of six weeks", () => priya.Get("wall?from=2026-03-02&to=2026-04-12"));
        await Throw(
            "20,000 rules",
            () =>
                Import(
                    fine,
                    $"BEGIN:VEVENT\r\nUID:rules\r\nDTSTART:20260311T100000Z\r\n{string.Concat(Enumerable.Repeat("RRULE:FREQ=DAILY\r\n", 20_000))}END:VEVENT\r\n"
                )
        );
        await Throw(
            "20 MB of bad lines",
            () =>
                Import(
                    fine,
                    $"BEGIN:VEVENT\r\nUID:lines\r\nDTSTART:20260311T100000Z\r\n{string.Concat(Enumerable.Repeat("?\r\n", 6_600_000))}END:VEVENT\r\n"
                )
        );

        foreach (
            var rule in new[]
            {
                "FREQ=MINUTELY;COUNT=366;BYDAY=MO;BYSETPOS=-283,32",
                "FREQ=HOURLY;COUNT=10;BYMINUTE=58;BYSETPOS=206",
                "FREQ=SECONDLY;BYMONTHDAY=18;BYSETPOS=13,-230,119;COUNT=1940;INTERVAL=287",
            }
        )
        {
            await Throw($"{rule} before it is saved", () => Preview(rule));
            await Throw("the same saved", () => Put(fine, rule, minutes: 1));
            await Throw(
                "the same imported",
                () =>
                    Import(
                        fine,
                        $"BEGIN:VEVENT\r\nUID:{rule.GetHashCode(StringComparison.Ordinal)}\r\nDTSTART:20260311T100000Z\r\nRRULE:{rule}\r\nEND:VEVENT\r\n"
                    )
            );
        }

        var many = await TwoHundred.MakeCalendar(ines, group, "Many");
        var set = Guid.NewGuid();
        await Throw("20,000 events imported", () => Import(many, Events(20_000), set));
        await Throw("and undone", () => ines.Post($"changes/{set}/undo"));

        var crowd = await TwoHundred.MakeGroup(ines, "Crowd");
        var names = Enumerable.Range(0, 450).Select(_ => Guid.CreateVersion7()).ToArray();
        await ines.Put(
            $"groups/{crowd}/members",
            new
            {
                people = names.Select(
                    (name, n) =>
                        new
                        {
                            id = name,
                            name = $"Potter {n}",
                            address = (string?)null,
                        }
                ),
            }
        );
        var hour = await TwoHundred.MakeCalendar(ines, crowd, "One hour");
        await Throw(
            "300 events at one hour that name 450",
            async () =>
            {
                for (var n = 0; n < 300; n++)
                {
                    await ines.Put(
                        $"events/{Guid.CreateVersion7()}",
                        TwoHundred.Event(hour, "Crowd", Monday, attendees: names)
                    );
                }
            }
        );
        await Throw("the wall of who sees them", () => ines.Get("wall?from=2026-03-09&to=2026-03-15"));
        await Throw("their clashes", () => ines.Get("clashes?from=2026-03-09&to=2026-03-15"));
        await Throw(
            "any six of twelve in 400 days",
            () =>
                ines.Post(
                    "gaps",
                    new
                    {
                        required = Array.Empty<Guid>(),
                        optional = Array.Empty<Guid>(),
                        places = Array.Empty<Guid>(),
                        from = "2026-03-11",
                        to = "2027-04-14",
                        minutes = 60,
                        hours = "preferred",
                        any = new { count = 6, among = names.Take(12) },
                        group = crowd,
                    }
                )
        );

        var failed = notes.Where(note => note.Status >= 500).ToList();
        foreach (var note in failed)
        {
            Console.WriteLine($"{note.Status} for {note.What}: {note.Text}");
        }

        var holds = failed.Count == 0 && worst <= LongestWait && mortar.IsUp;
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"The longest wait of others was {worst:0} ms; {(holds ? "it holds" : "it does not hold")}."
            )
        );
        return holds ? 0 : 1;

        async Task Throw(string what, Func<Task> bomb)
        {
            using var over = new CancellationTokenSource();
            var (wrote, saw) = (new List<double>(), new List<double>());
            var others = Task.WhenAll(
                Others(
                    async () =>
                        (
                            await priya.Put(
                                $"events/{Guid.CreateVersion7()}",
                                TwoHundred.Event(own, "Work", Monday.AddDays(60))
                            )
                        ).Took,
                    wrote,
                    over.Token
                ),
                Others(async () => (await priya.Get("wall?from=2026-03-09&to=2026-03-15")).Took, saw, over.Token)
            );
            var began = Stopwatch.GetTimestamp();
            var answer = bomb();
            await answer;
            var took = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
            await over.CancelAsync();
            await others;
            worst = new[] { worst, wrote.Max(), saw.Max() }.Max();
            var told = (answer as Task<Told>)?.Result;
            var size = told is null ? "" : $", {told.Status}, {told.Text.Length / 1024} kB";
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{what} | {took:0} ms{size} | {wrote.Max():0} ms ({wrote.Count}) | {saw.Max():0} ms ({saw.Count}) | {mortar.PeakMemory} MB"
                )
            );
        }

        Task<Told> Put(Guid calendar, string rule, int minutes) =>
            ines.Put($"events/{Guid.CreateVersion7()}", TwoHundred.Event(calendar, "Fine", Monday, minutes, rule));

        Task<Told> Preview(string rule) =>
            ines.Post(
                "rules/preview",
                new
                {
                    time = new
                    {
                        form = "clock",
                        start = "2026-03-11T10:00:00",
                        end = "2026-03-11T11:00:00",
                        zone = "Europe/London",
                    },
                    rule,
                }
            );

        async Task<Told> Import(Guid calendar, string inside, Guid? act = null)
        {
            var path = $"calendars/{calendar}/imports/{Guid.NewGuid()}";
            var brought = await ines.Put(
                path,
                $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bench\r\n{inside}END:VCALENDAR\r\n"
            );
            await ines.Post($"{path}/write", new { known = "keep" }, act);
            while ((await ines.Get(path)).Body.GetProperty("state").GetString() == "writing")
            {
                await Task.Delay(50);
            }

            return brought;
        }
    }

    /// <summary>Does something again and again until it is over, at least once; every 100 ms, as two hundred people at work do.</summary>
    private static async Task Others(Func<Task<TimeSpan>> act, List<double> waits, CancellationToken over)
    {
        do
        {
            waits.Add((await act()).TotalMilliseconds);
            await Task.Delay(100, CancellationToken.None);
        } while (!over.IsCancellationRequested);
    }

    private static string Events(int count)
    {
        var text = new StringBuilder();
        for (var n = 0; n < count; n++)
        {
            text.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:many-{n}\r\nDTSTAMP:20260311T100000Z\r\nDTSTART:{Monday.AddYears(-2).AddMinutes(66 * n):yyyyMMdd'T'HHmmss}Z\r\nDURATION:PT45M\r\nSUMMARY:Firing {n}\r\nDESCRIPTION:Cone six\\, slow cool. Look at the witness cones in the morning.\r\nEND:VEVENT\r\n"
            );
        }

        return text.ToString();
    }
}
