using BenchmarkDotNet.Attributes;
using Mortar.Core.Availability;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Bench;

/// <summary>When all of many people can meet in four weeks, beside sorting their busy times and sweeping over them once.</summary>
[MemoryDiagnoser]
public class CommonGaps
{
    private static readonly Interval Weeks = Mix.Window(28).Span;

    private GapQuestion question = null!;
    private Interval[] all = [];

    /// <summary>How many people are asked for.</summary>
    [Params(10, 50, 200, 1000)]
    public int People { get; set; }

    /// <summary>About 100 busy times each, by day, so that the nights are free; drawn with a fixed seed.</summary>
    [GlobalSetup]
    public void Draw()
    {
        var draw = new Random(2026);
        var invitees = Enumerable
            .Range(0, People)
            .Select(number => new Invitee(
                Participant.Of(new PersonId(new Guid(number, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0))),
                Need.Required,
                BusyTime.Of(Weeks, Enumerable.Range(0, 100).Select(_ => (Drawn(draw), Taken.Busy))),
                Hours: null
            ))
            .ToList();
        question = new GapQuestion(invitees, Weeks, Duration.FromMinutes(30));
        all = [.. invitees.SelectMany(one => one.Busy.All)];
        if (Ours() != SortAndSweep())
        {
            throw new InvalidOperationException("The two sides do not find the same gaps.");
        }
    }

    [Benchmark]
    public int Ours() => Gaps.Find(question).Length;

    /// <summary>The least that has to be done: order all stretches, walk over them, note what lies between.</summary>
    [Benchmark(Baseline = true)]
    public int SortAndSweep()
    {
        var sorted = (Interval[])all.Clone();
        Array.Sort(sorted, static (left, right) => left.Start.CompareTo(right.Start));
        var gaps = new List<Interval>();
        var left = Weeks.Start;
        foreach (var one in sorted)
        {
            if (one.Start - left >= question.Length)
            {
                gaps.Add(new Interval(left, one.Start));
            }

            left = Instant.Max(left, one.End);
        }

        if (Weeks.End - left >= question.Length)
        {
            gaps.Add(new Interval(left, Weeks.End));
        }

        return gaps.Count;
    }

    private static Interval Drawn(Random draw)
    {
        var start =
            Weeks.Start + Duration.FromDays(draw.Next(28)) + Duration.FromMinutes((8 * 60) + (5 * draw.Next(130)));
        return new Interval(start, start + Duration.FromMinutes(15 + (5 * draw.Next(20))));
    }
}
