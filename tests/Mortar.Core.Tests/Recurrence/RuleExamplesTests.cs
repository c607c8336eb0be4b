using Mortar.Core.Events;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Recurrence;

/// <summary>The worked examples of <c>rules.txt</c>.</summary>
public class RuleExamplesTests
{
    private const string NewYork = "America/New_York";

    public static TheoryData<string, string, string, string> Examples()
    {
        var data = new TheoryData<string, string, string, string>();
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Recurrence", "rules.txt"));
        foreach (
            var block in text.Split("\n\n")
                .Select(block => block.Trim().Split('\n'))
                .Where(block => block is [[not '#', ..], _, _, _, _])
        )
        {
            data.Add(block[0], block[1], block[2], block[3]);
        }

        return data;
    }

    [Fact]
    public void All_examples_are_read() => Assert.True(Examples().Count >= 58, "rules.txt has lost examples.");

    [Theory]
    [MemberData(nameof(Examples))]
    public void A_series_falls_on_the_starts_of_its_example(string title, string rule, string start, string expected)
    {
        var goesOn = expected.EndsWith('…');
        var starts = expected.TrimEnd('…', ' ').Split(' ').SelectMany(Starts).ToList();
        var series = Series(rule, start);

        var found = series.StartsFrom(Start(start), Studio.Clock).Take(starts.Count + 1).ToList();

        Assert.True(starts.SequenceEqual(found.Take(starts.Count)), $"{title}: {string.Join(' ', found)}");
        Assert.Equal(goesOn, found.Count > starts.Count);
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void A_late_window_shows_the_same_starts_as_counting_from_the_first(
        string title,
        string rule,
        string start,
        string expected
    )
    {
        _ = expected;
        var series = Series(rule, start);
        foreach (var days in new[] { 1, 30, 365, 1_000 })
        {
            var from = Start(start).PlusDays(days);

            var late = series.StartsFrom(from, Studio.Clock).Take(20).ToList();

            var all = series.StartsFrom(Start(start), Studio.Clock).SkipWhile(one => one < from).Take(20).ToList();
            Assert.True(all.SequenceEqual(late), $"{title}, {days} days on");
        }
    }

    /// <summary>The one example of the standard with a date left out: the start, on which the rule does not fall.</summary>
    private static Event Series(string rule, string start)
    {
        var series = Studio.Every(rule);
        return Studio.Event(
            Studio.Hours(Start(start), 60, NewYork),
            rule.Contains("BYDAY=FR;BYMONTHDAY=13", StringComparison.Ordinal) ? series.Without(Start(start)) : series
        );
    }

    private static IEnumerable<LocalDateTime> Starts(string text)
    {
        if (text.Split("..") is not [var from, var to])
        {
            return [Start(text)];
        }

        return Enumerable
            .Range(0, Period.DaysBetween(Start(from).Date, Start(to).Date) + 1)
            .Select(Start(from).PlusDays);
    }

    private static LocalDateTime Start(string text) =>
        LocalDateTimePattern
            .CreateWithInvariantCulture(text.Length > 16 ? "uuuu-MM-dd'T'HH:mm:ss" : "uuuu-MM-dd'T'HH:mm")
            .Parse(text.Contains('T', StringComparison.Ordinal) ? text : text + "T09:00")
            .Value;
}
