using BenchmarkDotNet.Attributes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Bench;

/// <summary>One week of a series that began 30 years ago beside one that began last month.</summary>
[MemoryDiagnoser]
public class Age
{
    private readonly Window week = Mix.Window(7);
    private Event old = null!;
    private Event young = null!;

    /// <summary>The last of these has unequal steps, so that its COUNT is counted out once.</summary>
    [Params(
        "FREQ=WEEKLY;BYDAY=MO,WE,FR",
        "FREQ=WEEKLY;BYDAY=MO,WE,FR;COUNT=100000",
        "FREQ=MONTHLY;BYDAY=2MO;COUNT=100000",
        "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR;COUNT=100000"
    )]
    public string Rule { get; set; } = string.Empty;

    [GlobalSetup]
    public void Make()
    {
        old = Mix.Series(Rule, new LocalDateTime(1996, 2, 12, 9, 0));
        young = Mix.Series(Rule, new LocalDateTime(2026, 2, 9, 9, 0));
    }

    [Benchmark]
    public int Began30YearsAgo() => old.Occurrences(week, Mix.Clock).Count();

    [Benchmark(Baseline = true)]
    public int BeganLastMonth() => young.Occurrences(week, Mix.Clock).Count();
}
