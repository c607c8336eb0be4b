using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Mortar.Bench.AtWork;

/// <summary>How many walls and ribbons a second a club of two hundred gets, of any week of a year, by any of them.</summary>
internal static class Reads
{
    private const int AtOnce = 8;
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
        await Measure("walls", (Wall, AtOnce));
        await Measure("ribbons", (Ribbon, AtOnce));
        var both = await Measure("both at once", (Wall, AtOnce / 2), (Ribbon, AtOnce / 2));
        return both.All(perSecond => perSecond >= Goal);

        async Task<List<double>> Measure(string what, params (Func<Random, string> Path, int Lines)[] sorts)
        {
            var until = Stopwatch.GetTimestamp() + (long)(Long.TotalSeconds * Stopwatch.Frequency);
            var told = await Task.WhenAll(
                sorts.Select(async sort =>
                {
                    var answers = new ConcurrentBag<Told>();
                    await Task.WhenAll(
                        Enumerable.Range(0, sort.Lines).Select(line => Task.Run(() => Ask(line, sort.Path, answers)))
                    );
                    return answers.ToList();
                })
            );
            foreach (var answers in told)
            {
                var took = answers.Select(one => one.Took.TotalMilliseconds).Order().ToList();
                Console.WriteLine(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{what, -13} {answers[0].What, -12} {answers.Count / Long.TotalSeconds, 6:0.0} a second; half within {took[took.Count / 2]:0} ms, 95 of 100 within {took[took.Count * 95 / 100]:0} ms; {answers.Average(one => one.Length) / 1000:0} kB each; {answers.Count(one => one.Status != 200)} failed; {mortar.PeakMemory} MB"
                    )
                );
            }

            return [.. told.Select(answers => answers.Count / Long.TotalSeconds)];

            async Task Ask(int line, Func<Random, string> path, ConcurrentBag<Told> answers)
            {
                var random = new Random(line);
                while (Stopwatch.GetTimestamp() < until)
                {
                    answers.Add(await club.People[random.Next(club.People.Count)].Get(path(random), read: false));
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
