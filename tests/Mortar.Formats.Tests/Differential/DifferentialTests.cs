using System.Diagnostics;
using System.Globalization;
using Mortar.Core.Recurrence;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Formats.Tests.Differential;

/// <summary>
/// Thousands of rules drawn at random, and what two other evaluators find: python-dateutil 2.8.2 (kept in
/// <c>rules.dateutil.txt</c>, made by <c>draw-with-dateutil.py</c>) and Ical.Net 5.2.4, which runs here on the same rules.
/// Where one of them differs, it has to be one of the cases of <see cref="KnownDifferences"/>, each with what the
/// standard says; nothing is left unexplained. With <c>MORTAR_DEEP</c> set, many more are drawn anew.
/// </summary>
public class DifferentialTests
{
    private static readonly LocalDateTimePattern Pattern = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    private static bool IsDeep => Environment.GetEnvironmentVariable("MORTAR_DEEP") is not null;

    internal sealed record Drawn(string Rule, LocalDateTime Start, IReadOnlyList<LocalDateTime> Theirs);

    [Fact]
    public void Python_dateutil_finds_the_same_starts()
    {
        var drawn = Kept();
        Assert.Equal(2_000, drawn.Count);
        Assert.True(drawn.Count(one => one.Theirs.Count > 0) > 1_600, "Most rules fall somewhere.");

        Compare(drawn, one => one.Theirs, KnownDifferences.OfDateutil);
    }

    [Fact]
    public void Ical_Net_finds_the_same_starts() =>
        Compare(
            [.. Kept().Take(IsDeep ? 2_000 : 700)],
            one => IcalNet.Starts(one.Rule, one.Start, 6),
            KnownDifferences.OfIcalNet
        );

    [Fact]
    public void Rules_drawn_anew_fall_where_python_dateutil_finds_them()
    {
        Assert.SkipUnless(IsDeep, "Only with ./mortar test --deep.");
        var seed = Environment.TickCount.ToString(CultureInfo.InvariantCulture);
        using var python = Process.Start(
            new ProcessStartInfo("/usr/bin/python3", [Path("draw-with-dateutil.py"), seed, "5000"])
            {
                RedirectStandardOutput = true,
                UseShellExecute = false,
            }
        )!;

        var drawn = Read(python.StandardOutput.ReadToEnd());

        Assert.True(drawn.Count == 5_000, $"The seed was {seed}.");
        Compare(drawn, one => one.Theirs, KnownDifferences.OfDateutil);
    }

    private static void Compare(
        IReadOnlyList<Drawn> drawn,
        Func<Drawn, IReadOnlyList<LocalDateTime>> theirs,
        IReadOnlyList<KnownDifference> known
    )
    {
        var unexplained = new List<string>();
        var used = new HashSet<string>();
        foreach (var one in drawn)
        {
            var rule = RecurrenceRule.Of(one.Rule);
            var ours = rule.Starts(one.Start, one.Start).Take(6).ToList();
            var found = theirs(one);
            if (ours.SequenceEqual(found))
            {
                continue;
            }

            if (known.FirstOrDefault(case_ => case_.Covers(rule, one.Start)) is { } difference)
            {
                used.Add(difference.Name);
                continue;
            }

            unexplained.Add(
                $"{one.Rule} from {Pattern.Format(one.Start)}\n  ours   {Text(ours)}\n  theirs {Text(found)}"
            );
        }

        Assert.True(
            unexplained.Count == 0,
            $"{unexplained.Count} of {drawn.Count}:\n{string.Join('\n', unexplained.Take(40))}"
        );
        // A case that nobody meets any more is to go.
        Assert.Empty(known.Where(one => !one.IsRare).Select(one => one.Name).Except(used));
    }

    private static List<Drawn> Kept() => Read(File.ReadAllText(Path("rules.dateutil.txt")));

    private static List<Drawn> Read(string text) =>
        [
            .. text.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => line.Split('\t'))
                .Select(parts => new Drawn(
                    parts[0],
                    Pattern.Parse(parts[1]).Value,
                    [
                        .. parts[2]
                            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                            .Select(one => Pattern.Parse(one).Value),
                    ]
                )),
        ];

    private static string Path(string name) => System.IO.Path.Combine(AppContext.BaseDirectory, "Differential", name);

    private static string Text(IEnumerable<LocalDateTime> starts) => string.Join(' ', starts.Select(Pattern.Format));
}
