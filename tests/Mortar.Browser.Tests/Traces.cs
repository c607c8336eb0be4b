using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using Xunit;

namespace Mortar.Browser.Tests;

/// <summary>Measures the interface (run with <c>-explicit only -class "*Traces"</c>); not part of the tests, since machines are noisy.</summary>
public class Traces
{
    private const int Bricks = 2_000;

    /// <summary>Says how many tasks of the page took longer than 50 ms while a brick was carried about among 2,000.</summary>
    [Theory(Explicit = true)]
    [InlineData("Week")]
    [InlineData("Roster")]
    public async Task Dragging_among_2000_bricks(string view)
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Fill(calendar, Bricks);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Show(view);
        ines.Find(Screen.Brick("Celadon 1999"));
        ines.Script(
            """
            window.trace = { tasks: [], down: Infinity, up: Infinity }
            addEventListener('pointerdown', () => { trace.down = performance.now() }, true)
            addEventListener('pointerup', () => { trace.up = performance.now() }, true)
            new PerformanceObserver((list) => trace.tasks.push(...list.getEntries())).observe({ type: 'longtask' })
            """
        );
        var start = ines.Middle(Screen.Brick("School visit"));

        ines.Carry(start, Enumerable.Range(1, 60).Select(step => (start.X + (step * 6), start.Y + (step % 20 * 8))));

        Console.WriteLine(
            $"{view}: {ines.Script<long>("return document.querySelectorAll('[data-brick]').length")} bricks, tasks over 50 ms: {Tasks("carrying", "<")}, {Tasks("putting down", ">=")}"
        );

        string Tasks(string when, string compared) =>
            when
            + " ["
            + ines.Script<string>(
                $"return trace.tasks.filter((one) => one.startTime >= trace.down && one.startTime {compared} trace.up).map((one) => `${{Math.round(one.duration)}} ms`).join(', ')"
            )
            + "]";
    }
}
