using BenchmarkDotNet.Attributes;
using Mortar.Core.Events;
using Mortar.Core.Time;

namespace Mortar.Bench;

/// <summary>How a week grows with the number of series.</summary>
[MemoryDiagnoser]
public class Growth
{
    private readonly Window week = Mix.Window(7);
    private Event[] all = [];

    /// <summary>How many series there are.</summary>
    [Params(10, 100, 1_000, 10_000)]
    public int Series { get; set; }

    [GlobalSetup]
    public void Read() => all = Mix.Read(Mix.File(Series));

    [Benchmark]
    public int Week()
    {
        var count = 0;
        foreach (var whole in all)
        {
            foreach (var one in whole.Occurrences(week, Mix.Clock))
            {
                count += one.Span.Start < week.Span.End ? 1 : 0;
            }
        }

        return count;
    }
}
