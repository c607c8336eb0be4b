using System.Collections.Concurrent;
using System.Globalization;

namespace Mortar.Bench.AtWork;

/// <summary>
/// Whether what is hidden is answered in the same time as what was never there, on every method, and a wrong password in the
/// same time with and without an account. Both are asked in turn, so that what else the machine does falls on both.
/// </summary>
internal static class HiddenOrNever
{
    private const int Rounds = 120;

    /// <summary>Between which the ratio of the medians has to lie.</summary>
    private const double Least = 0.8;
    private const double Most = 1.25;

    /// <returns>0 where no time tells one from the other.</returns>
    public static async Task<int> Run()
    {
        var notes = new ConcurrentBag<Told>();
        await using var mortar = await RunningMortar.Start();
        await using var ines = new Client(mortar.Url, notes);
        await TwoHundred.SignIn(ines, "Ines");
        await using var astrid = new Client(mortar.Url, notes);
        await TwoHundred.SignIn(astrid, "Astrid");
        var group = await TwoHundred.MakeGroup(ines, "Glaze circle");
        var calendar = await TwoHundred.MakeCalendar(ines, group, "Hidden", groupDefault: "none");
        var id = Guid.CreateVersion7();
        var monday = new DateTime(2026, 3, 9, 9, 0, 0, DateTimeKind.Unspecified);
        await ines.Put($"events/{id}", TwoHundred.Event(calendar, "Hidden", monday, rule: "FREQ=DAILY"));

        var holds = true;
        Console.WriteLine("what | hidden | never there | ratio");
        foreach (
            var (what, ask) in new (string, Func<bool, Task<Told>>)[]
            {
                ("GET a calendar", hidden => astrid.Get($"calendars/{Of(calendar, hidden)}")),
                ("GET its access", hidden => astrid.Get($"calendars/{Of(calendar, hidden)}/access")),
                ("GET its file", hidden => astrid.Get($"calendars/{Of(calendar, hidden)}/export")),
                ("DELETE a calendar", hidden => astrid.Delete($"calendars/{Of(calendar, hidden)}?name=Hidden")),
                ("GET an event", hidden => astrid.Get($"events/{Of(id, hidden)}")),
                ("GET its history", hidden => astrid.Get($"events/{Of(id, hidden)}/history")),
                ("GET its answers", hidden => astrid.Get($"events/{Of(id, hidden)}/answers")),
                ("PUT an answer", hidden => astrid.Put($"events/{Of(id, hidden)}/answer", new { answer = "accepted" })),
                ("DELETE an event", hidden => astrid.Delete($"events/{Of(id, hidden)}")),
                (
                    "PUT an event",
                    hidden =>
                        astrid.Put($"events/{Of(id, hidden)}", TwoHundred.Event(calendar, "Mine", monday), version: 1)
                ),
                (
                    "PUT an event into it",
                    hidden =>
                        astrid.Put(
                            $"events/{Guid.CreateVersion7()}",
                            TwoHundred.Event(Of(calendar, hidden), "Mine", monday)
                        )
                ),
                ("GET a group's members", hidden => astrid.Get($"groups/{Of(group, hidden)}/members")),
                (
                    "GET a group's cover",
                    hidden => astrid.Get($"groups/{Of(group, hidden)}/cover?from=2026-03-09&to=2026-03-15")
                ),
            }
        )
        {
            var (hidden, never) = (new List<double>(), new List<double>());
            for (var round = 0; round < Rounds; round++)
            {
                foreach (var isHidden in round % 2 == 0 ? new[] { true, false } : [false, true])
                {
                    var told = await ask(isHidden);
                    holds &= told.Status == 404;
                    (isHidden ? hidden : never).Add(told.Took.TotalMilliseconds);
                }
            }

            var (one, other) = (Median(hidden), Median(never));
            holds &= one / other is >= Least and <= Most;
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{what} | {one:0.00} ms | {other:0.00} ms | {one / other:0.00}"
                )
            );
        }

        Console.WriteLine(
            holds ? "No time tells what is hidden." : "A time tells what is hidden, or something is told."
        );
        return holds ? 0 : 1;

        static Guid Of(Guid there, bool hidden) => hidden ? there : Guid.NewGuid();
    }

    private static double Median(List<double> all)
    {
        all.Sort();
        return all[all.Count / 2];
    }
}
