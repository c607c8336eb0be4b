using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Mortar.Bench.AtWork;

/// <summary>
/// Two hundred screens open on one week while twenty changes a second are written to it: how long a write takes, and how
/// long until every screen has it. Beside it the same writes with screens that only hear of them.
/// </summary>
internal static class OpenScreens
{
    private const int WritesPerSecond = 20;
    private const string Days = "from=2026-03-09&to=2026-03-15";

    /// <summary>What is to hold, in milliseconds: writes and freshness at 95 of 100, and a single write on the last screen.</summary>
    private const int LongestWrite = 200;
    private const int LongestUntilFresh = 1_000;
    private const int LongestOfOne = 500;

    private static readonly DateTime Monday = new(2026, 3, 9, 0, 0, 0, DateTimeKind.Unspecified);
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(30);

    private sealed record Written(Guid Event, long At, double Took, int Status);

    /// <returns>0 where all of it holds.</returns>
    public static async Task<int> Run()
    {
        var notes = new ConcurrentBag<Told>();
        await using var mortar = await RunningMortar.Start();
        var club = await Club.Make(mortar, notes);
        Console.WriteLine($"The club is there; {mortar.PeakMemory} MB");

        var alone = await Open(club, asks: false);
        await Task.Delay(2_000);
        var unheard = await Write(club, Long);
        await Task.Delay(2_000);
        Tell("notices only", unheard);
        Console.WriteLine(
            Line(
                "  the last of them heard of within",
                alone.Select(screen => Milliseconds(unheard[^1].At, screen.Heard))
            )
        );

        var screens = await Open(club, asks: true);
        await Task.Delay(2_000);
        var single = new List<double>();
        for (var n = 0; n < 10; n++)
        {
            var one = await WriteOne(club, new Random(n));
            await Until(() => screens.All(screen => screen.Seen.ContainsKey(one.Event)));
            single.Add(screens.Max(screen => Milliseconds(one.At, screen.Seen[one.Event])));
            await Task.Delay(1_000);
        }

        Console.WriteLine(Line("one write on all 200 screens", single));
        var before = mortar.Memory;
        var written = await Write(club, Long);
        var during = mortar.Memory;
        await Until(() => written.TrueForAll(one => screens.All(screen => screen.Seen.ContainsKey(one.Event))));
        Tell("with screens", written);
        var fresh = written
            .SelectMany(one => screens.Select(screen => Milliseconds(one.At, screen.Seen[one.Event])))
            .ToList();
        Console.WriteLine(Line("  on each screen within", fresh));
        Console.WriteLine(
            $"  {screens.Sum(screen => screen.Asked)} askings, {screens.Sum(screen => screen.Whole) - screens.Count} of them for the whole wall; memory {before} MB before, {during} MB after, {mortar.PeakMemory} MB at most"
        );
        var bad = notes.Where(note => note.Status >= 400).GroupBy(note => (note.What, note.Status)).ToList();
        foreach (var same in bad)
        {
            Console.WriteLine($"{same.Count()} × {same.Key.Status} for {same.Key.What}: {same.First().Text}");
        }

        var holds =
            At95(written.ConvertAll(one => one.Took)) <= LongestWrite
            && At95(fresh) <= LongestUntilFresh
            && single.Max() <= LongestOfOne
            && bad.Count == 0;
        Console.WriteLine(holds ? "It holds." : "It does not hold.");
        return holds ? 0 : 1;
    }

    private static async Task<List<Screen>> Open(Club club, bool asks)
    {
        var screens = club.People.Select((person, n) => new Screen(person, Days, new Random(n))).ToList();
        foreach (var several in screens.Chunk(10))
        {
            await Task.WhenAll(several.Select(screen => screen.Open(asks)));
        }

        return screens;
    }

    /// <summary>So many a second, whether the last one is answered or not.</summary>
    private static async Task<List<Written>> Write(Club club, TimeSpan time)
    {
        var (random, writes) = (new Random(7), new List<Task<Written>>());
        using var beat = new PeriodicTimer(TimeSpan.FromMilliseconds(1_000.0 / WritesPerSecond));
        var began = Stopwatch.GetTimestamp();
        while (Stopwatch.GetElapsedTime(began) < time && await beat.WaitForNextTickAsync())
        {
            writes.Add(WriteOne(club, random));
        }

        return [.. await Task.WhenAll(writes)];
    }

    private static async Task<Written> WriteOne(Club club, Random random)
    {
        var (id, at) = (Guid.CreateVersion7(), Stopwatch.GetTimestamp());
        var person = club.People[random.Next(club.People.Count)];
        var told = await person.Put(
            $"events/{id}",
            TwoHundred.Event(
                club.Calendars[random.Next(club.Calendars.Count)],
                "Glazing",
                Monday.AddDays(random.Next(7)).AddMinutes((8 * 60) + (random.Next(40) * 15)),
                attendees: [club.People[random.Next(club.People.Count)].Me]
            )
        );
        return new Written(id, at, told.Took.TotalMilliseconds, told.Status);
    }

    private static void Tell(string what, List<Written> written) =>
        Console.WriteLine(
            $"{Line($"{what}: {written.Count} writes, answered within", written.ConvertAll(one => one.Took))}, {written.Count(one => one.Status >= 300)} failed"
        );

    private static string Line(string what, IEnumerable<double> values)
    {
        var all = values.Order().ToList();
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{what} {all[all.Count / 2]:0} ms (half), {At95(all):0} ms (95 of 100), {all[^1]:0} ms (all)"
        );
    }

    private static double At95(IEnumerable<double> values)
    {
        var all = values.Order().ToList();
        return all[all.Count * 95 / 100];
    }

    private static double Milliseconds(long from, long to) => (to - from) * 1_000.0 / Stopwatch.Frequency;

    private static async Task Until(Func<bool> holds)
    {
        var began = Stopwatch.GetTimestamp();
        while (!holds() && Stopwatch.GetElapsedTime(began) < TimeSpan.FromMinutes(5))
        {
            await Task.Delay(50);
        }

        if (!holds())
        {
            throw new TimeoutException("Some screens never got what was written.");
        }
    }
}
