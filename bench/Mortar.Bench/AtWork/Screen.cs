using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Mortar.Bench.AtWork;

/// <summary>An open wall as the web keeps it: it hears that something changed, waits its turn and asks for what did (web/src/app/freshen.ts).</summary>
internal sealed class Screen(Client person, string days, Random random)
{
    /// <summary>At least so long between two askings, and by chance up to so much more.</summary>
    private const int Pace = 500;
    private const int Chance = 200;

    private readonly Lock turn = new();
    private string version = string.Empty;
    private bool isStale;
    private long asked;
    private bool isAsking;

    /// <summary>When each event was first in what it was told.</summary>
    public ConcurrentDictionary<Guid, long> Seen { get; } = new();

    /// <summary>When it was last heard that something changed.</summary>
    public long Heard { get; private set; }

    public int Whole { get; private set; }

    public int Asked { get; private set; }

    /// <summary>Opens the wall, and then asks for changes; without <paramref name="asks"/> it only listens.</summary>
    public async Task Open(bool asks)
    {
        await Read();
        await person.Listen(() =>
        {
            Heard = Stopwatch.GetTimestamp();
            if (asks)
            {
                _ = Ask();
            }

            return Task.CompletedTask;
        });
    }

    private async Task Ask()
    {
        lock (turn)
        {
            isStale = true;
            if (isAsking)
            {
                return;
            }

            isAsking = true;
        }

        while (true)
        {
            var wait = Math.Max(0, Pace - Stopwatch.GetElapsedTime(asked).TotalMilliseconds) + random.Next(Chance);
            await Task.Delay((int)wait);
            asked = Stopwatch.GetTimestamp();
            lock (turn)
            {
                isStale = false;
            }

            await Catch();
            lock (turn)
            {
                if (!isStale)
                {
                    isAsking = false;
                    return;
                }
            }
        }
    }

    private async Task Catch()
    {
        Asked++;
        var told = await person.Get(
            string.Create(CultureInfo.InvariantCulture, $"wall/changes?{days}&since={Uri.EscapeDataString(version)}")
        );
        if (told.Status != 200)
        {
            return;
        }

        if (told.Body.GetProperty("whole").GetBoolean())
        {
            await Read();
            return;
        }

        foreach (var brick in told.Body.GetProperty("bricks").EnumerateArray())
        {
            Seen.TryAdd(brick.GetProperty("eventId").GetGuid(), Stopwatch.GetTimestamp());
        }

        version = told.Body.GetProperty("version").GetString()!;
    }

    private async Task Read()
    {
        Whole++;
        var told = await person.Get($"wall?{days}");
        if (told.Status != 200)
        {
            return;
        }

        foreach (var brick in told.Body.GetProperty("bricks").EnumerateArray())
        {
            Seen.TryAdd(brick.GetProperty("eventId").GetGuid(), Stopwatch.GetTimestamp());
        }

        version = told.Body.GetProperty("version").GetString()!;
    }
}
