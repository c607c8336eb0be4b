using System.Globalization;
using Mortar.Core.Recurrence;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Recurrence;

/// <summary>The worked examples of <c>rules.txt</c>.</summary>
public class RuleExamplesTests
{
    public static TheoryData<string, string, string, string> Examples()
    {
        var data = new TheoryData<string, string, string, string>();
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Recurrence", "rules.txt"));
        foreach (
            var block in text.Split("\n\n").Select(block => block.Trim().Split('\n')).Where(block => block.Length == 5)
        )
        {
            data.Add(block[0], block[1], block[2], block[3]);
        }

        return data;
    }

    [Fact]
    public void All_examples_are_read() => Assert.True(Examples().Count >= 29, "rules.txt has lost examples.");

    [Theory]
    [MemberData(nameof(Examples))]
    public void A_rule_falls_on_the_days_of_its_example(string title, string rule, string start, string expected)
    {
        var goesOn = expected.EndsWith('…');
        var days = expected.TrimEnd('…', ' ').Split(' ').Select(Day).ToList();
        var parsed = Assert.IsType<RuleParse.Ok>(RecurrenceRule.Parse(rule)).Rule;

        var found = parsed.Days(Day(start), Day(start)).Take(days.Count + 1).ToList();

        Assert.True(days.SequenceEqual(found.Take(days.Count)), $"{title}: {string.Join(' ', found)}");
        Assert.Equal(goesOn, found.Count > days.Count);
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void A_late_window_shows_the_same_days_as_counting_from_the_start(
        string title,
        string rule,
        string start,
        string expected
    )
    {
        _ = expected;
        var parsed = Assert.IsType<RuleParse.Ok>(RecurrenceRule.Parse(rule)).Rule;
        var from = Day(start).PlusDays(1_000);

        var late = parsed.Days(Day(start), from).Take(20).ToList();

        var all = parsed.Days(Day(start), Day(start)).SkipWhile(day => day < from).Take(20).ToList();
        Assert.True(all.SequenceEqual(late), title);
    }

    private static LocalDate Day(string text) =>
        LocalDatePattern
            .CreateWithInvariantCulture("uuuu-MM-dd")
            .Parse(text.ToString(CultureInfo.InvariantCulture))
            .Value;
}
