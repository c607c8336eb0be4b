using Mortar.Core.Groups;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class NewMemberTests
{
    private static readonly PersonId Somebody = new(Guid.NewGuid());

    [Fact]
    public void A_name_alone_does_and_an_address_is_read()
    {
        Assert.Equal(
            new NamedMember(Somebody, "Mei", Address: null),
            NewMember.Check(new NewMember(Somebody, " Mei ", "  ")).Value
        );
        Assert.Equal(
            "mei@example.org",
            NewMember.Check(new NewMember(Somebody, "Mei", "MEI@example.org")).Value.Address?.Value
        );
    }

    [Fact]
    public void What_is_wrong_is_named_with_its_place_in_the_list()
    {
        var check = NewMember.Check([new NewMember(Somebody, "Mei", null), new NewMember(Somebody, "", "no address")]);

        Assert.Equal(["people[1].name", "people[1].address"], check.Problems.Select(problem => problem.Path));
        Assert.Equal(
            ["name", "address"],
            NewMember.Check(new NewMember(Somebody, "", "no address")).Problems.Select(problem => problem.Path)
        );
    }

    [Fact]
    public void Nobody_and_too_many_at_once_are_refused()
    {
        Assert.Equal("people", Assert.Single(NewMember.Check([]).Problems).Path);
        Assert.True(Many(PeopleList.Most).IsFit);
        Assert.Equal("people", Assert.Single(Many(PeopleList.Most + 1).Problems).Path);

        static Checked<IReadOnlyList<NamedMember>> Many(int count) =>
            NewMember.Check([.. Enumerable.Range(0, count).Select(_ => new NewMember(Somebody, "Mei", null))]);
    }
}
