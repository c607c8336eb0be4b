using Mortar.Core.Access;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>The ladder of the product page, step by step.</summary>
public class AccessRulesTests
{
    // none, times, outline, view, add, edit, coordinate; h hidden, d denied, g granted
    [Theory]
    [InlineData("see", "hgggggg")]
    [InlineData("export", "hddgggg")]
    [InlineData("add", "hdddggg")]
    [InlineData("change mine", "hhddggg")]
    [InlineData("change others'", "hhdddgg")]
    [InlineData("coordinate", "hdddddg")]
    [InlineData("end mine", "hgggggg")]
    [InlineData("end others'", "hdddddg")]
    public void Each_step_may_what_the_ladder_says(string what, string expected)
    {
        var verdicts = Enum.GetValues<Role>().Order().Select(role => Ask(what, role));

        Assert.Equal(expected, string.Concat(verdicts.Select(verdict => char.ToLowerInvariant(verdict.ToString()[0]))));
    }

    [Fact]
    public void Each_step_includes_those_before_it()
    {
        string[] questions = ["see", "export", "add", "change mine", "change others'", "coordinate"];

        foreach (var question in questions)
        {
            var granted = Enum.GetValues<Role>()
                .Order()
                .Select(role => Ask(question, role) == Verdict.Granted)
                .ToList();

            Assert.True(granted.SkipWhile(yes => !yes).All(yes => yes), question);
        }
    }

    private static Verdict Ask(string what, Role role) =>
        what switch
        {
            "see" => AccessRules.ToSee(role),
            "export" => AccessRules.ToExport(role),
            "add" => AccessRules.ToAdd(role),
            "change mine" => AccessRules.ToChange(role, Studio.Priya, Studio.Priya),
            "change others'" => AccessRules.ToChange(role, Studio.Priya, Studio.Ines),
            "coordinate" => AccessRules.ToCoordinate(role),
            "end mine" => AccessRules.ToEnd(role, Studio.Priya, Studio.Priya),
            "end others'" => AccessRules.ToEnd(role, Studio.Priya, Studio.Ines),
            _ => throw new ArgumentOutOfRangeException(nameof(what)),
        };

    [Fact]
    public void Of_several_ways_the_highest_counts_and_is_named()
    {
        var standing = Standing.Of([
            new Grant(Role.View, Way.Default),
            new Grant(Role.Edit, Way.Group),
            new Grant(Role.Edit, Way.Own),
            new Grant(Role.Times, Way.Link),
        ]);

        Assert.Equal(Role.Edit, standing.Role);
        Assert.Equal([Way.Own, Way.Group], standing.Ways);
    }

    [Fact]
    public void Ended_grants_count_for_nothing()
    {
        Assert.Equal(Standing.Outside, Standing.Of([]));
        Assert.Equal(Standing.Outside, Standing.Of([new Grant(Role.None, Way.Own)]));
    }

    [Theory]
    [InlineData(Role.Edit, true)] // the only coordinator steps down
    [InlineData(Role.None, true)]
    [InlineData(Role.Coordinate, false)]
    public void A_calendar_keeps_a_coordinator(Role next, bool without)
    {
        Assert.Equal(
            without,
            Coordinators.WouldBeLeftWithout(
                [(Studio.Ines, Role.Coordinate), (Studio.Priya, Role.Edit)],
                Studio.Ines,
                next
            )
        );
        Assert.False(
            Coordinators.WouldBeLeftWithout(
                [(Studio.Ines, Role.Coordinate), (Studio.Priya, Role.Coordinate)],
                Studio.Ines,
                next
            )
        );
    }

    [Theory]
    [InlineData(Role.Times, "Priya will see when “Rota” is busy, and nothing else.")]
    [InlineData(Role.Outline, "Priya will see titles and places in “Rota”, not notes.")]
    [InlineData(Role.View, "Priya will see everything in “Rota” and change nothing.")]
    [InlineData(Role.Add, "Priya will see everything in “Rota”, can add events, and can change only those they added.")]
    [InlineData(Role.Edit, "Priya will see everything in “Rota” and can add, change and delete any event.")]
    [InlineData(
        Role.Coordinate,
        "Priya can do everything in “Rota” that you can: change any event, give and take access, and delete the calendar."
    )]
    public void Each_step_says_what_it_means(Role role, string sentence) =>
        Assert.Equal(sentence, RoleSentence.For(["Priya"], role, "Rota"));

    [Fact]
    public void A_sentence_names_a_few_and_counts_the_rest()
    {
        Assert.StartsWith(
            "Priya and Tomasz will",
            RoleSentence.For(["Priya", "Tomasz"], Role.View, "Rota"),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "Priya and 3 others will",
            RoleSentence.For(["Priya", "Tomasz", "Dele", "Mei"], Role.View, "Rota"),
            StringComparison.Ordinal
        );
        Assert.Throws<ArgumentOutOfRangeException>(() => RoleSentence.For([], Role.View, "Rota"));
        Assert.Throws<ArgumentOutOfRangeException>(() => RoleSentence.For(["Priya"], Role.None, "Rota"));
    }
}
