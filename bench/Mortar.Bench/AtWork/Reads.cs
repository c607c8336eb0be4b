using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Mortar.Bench.AtWork;

/// <summary>How many walls and ribbons a second a club of two hundred gets, of any week of a year, by any of them.</summary>
internal static class Reads
{
    private const int AtOnce = 8;
    private static readonly TimeSpan Short = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(15);

    /// <summary>What each of both is to reach.</summary>
    private const int Goal = 60;

    /// <returns>0 where both reach the goal, at the same time.</returns>
    public static async Task<int> Run()
    {
        await using var mortar = await RunningMortar.Start();
        var club = await Club.Make(mortar, []);
        Console.WriteLine($"The club is there; {mortar.PeakMemory} MB");
        var holds = await Of(mortar, club);
        return holds ? 0 : 1;
    }

    public static async Task<bool> Of(RunningMortar mortar, Club club)
    {
        await Measure("to warm up", Short, Wall, Ribbon);
        await Measure("walls", Long, Wall);
        await Measure("ribbons", Long, Ribbon);
        var both = await Measure("one after the other, as who opens a wall does", Long, Wall, Ribbon);
        return both >= Goal;

        async Task<double> Measure(string what, TimeSpan time, params Func<Random, string>[] paths)
        {
            var until = Stopwatch.GetTimestamp() + (long)(time.TotalSeconds * Stopwatch.Frequency);
            var answers = new ConcurrentBag<Told>();
            await Task.WhenAll(Enumerable.Range(0, AtOnce).Select(line => Task.Run(() => Ask(line))));
            Console.WriteLine(what);
            foreach (var same in answers.GroupBy(one => one.What))
            {
                var took = same.Select(one => one.Took.TotalMilliseconds).Order().ToList();
                Console.WriteLine(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"  {same.Key, -12} {took.Count / time.TotalSeconds, 6:0.0} a second; half within {took[took.Count / 2]:0} ms, 95 of 100 within {took[took.Count * 95 / 100]:0} ms; {same.Average(one => one.Length) / 1000:0} kB each; {same.Count(one => one.Status != 200)} failed; {mortar.PeakMemory} MB"
                    )
                );
            }

            return answers.Count / time.TotalSeconds / paths.Length;

            async Task Ask(int line)
            {
                var random = new Random(line);
                while (Stopwatch.GetTimestamp() < until)
                {
                    var person = club.People[random.Next(club.People.Count)];
                    foreach (var path in paths)
                    {
                        answers.Add(await person.Get(path(random), read: false));
                    }
                }
            }
        }
    }

    private static string Wall(Random random)
    {
        var first = Club.FirstMonday.AddDays(random.Next(52) * 7);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"wall?from={first:yyyy-MM-dd}&to={first.AddDays(6):yyyy-MM-dd}"
        );
    }

    /// <summary>The weeks that a wide screen asks for.</summary>
    private static string Ribbon(Random random) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"ribbon?from={Club.FirstMonday.AddDays(random.Next(26) * 7):yyyy-MM-dd}&weeks=26"
        );
}
