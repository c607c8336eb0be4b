using BenchmarkDotNet.Attributes;
using Mortar.Core.Events;
using Mortar.Core.Time;

namespace Mortar.Bench;

/// <summary>A week and a year of 1,000 mixed series that began six years before, beside Ical.Net's evaluator on the same file.</summary>
[MemoryDiagnoser]
public class Expansion
{
    private Ical.Net.Calendar theirs = null!;
    private Event[] ours = [];
    private Window window = null!;

    /// <summary>How many days are asked for.</summary>
    [Params(7, 365)]
    public int Days { get; set; }

    [GlobalSetup]
    public void Read()
    {
        var text = Mix.File(1_000);
        theirs = Ical.Net.Calendar.Load(text)!;
        ours = Mix.Read(text);
        window = Mix.Window(Days);
        var (here, there) = (Ours(), IcalNet());
        if (here != there)
        {
            throw new InvalidOperationException($"The two sides do not do the same: {here} and {there} occurrences.");
        }
    }

    /// <summary>The count of all, each with its instants.</summary>
    [Benchmark]
    public int Ours()
    {
        var count = 0;
        foreach (var whole in ours)
        {
            foreach (var one in whole.Occurrences(window, Mix.Clock))
            {
                count += one.Span.Start < window.Span.End ? 1 : 0;
            }
        }

        return count;
    }

    [Benchmark(Baseline = true)]
    public int IcalNet()
    {
        var end = window.Span.End.ToDateTimeUtc();
        var start = window.Span.Start.ToDateTimeUtc();
        return theirs
            .GetOccurrences(new Ical.Net.DataTypes.CalDateTime(start, "UTC"))
            .TakeWhile(one => one.Period.StartTime.AsUtc < end)
            .Count();
    }
}
