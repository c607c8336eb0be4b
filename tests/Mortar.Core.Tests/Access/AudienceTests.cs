using Mortar.Core.Access;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class AudienceTests
{
    private static readonly PersonId[] Team = [.. Enumerable.Range(0, 3).Select(_ => new PersonId(Guid.NewGuid()))];

    [Fact]
    public void It_says_whether_the_whole_group_others_or_nobody_else_see_it()
    {
        Assert.Equal("Studio team, 3 people", Of(Team, []));
        Assert.Equal("Studio team and 2 more, 5 people", Of(Team, [Role.View, Role.Outline]));
        Assert.Equal("2 people", Of(Team[..2], []));
        Assert.Equal("you alone", Of(Team[..1], []));
    }

    [Fact]
    public void It_says_who_sees_only_the_times_and_that_a_link_leads_there()
    {
        Assert.Equal("Studio team and 1 more, 4 people, 1 of them only the times", Of(Team, [Role.Times]));
        Assert.Equal("you alone, and whoever has a link to it", Of(Team[..1], [], byLink: true));
    }

    private static string Of(IEnumerable<PersonId> within, IEnumerable<Role> others, bool byLink = false) =>
        Audience
            .Of(
                within
                    .Select(one => (one, Role.View))
                    .Concat(others.Select(role => (new PersonId(Guid.NewGuid()), role)))
                    .ToDictionary(),
                Team,
                byLink
            )
            .Sentence("Studio team");
}
