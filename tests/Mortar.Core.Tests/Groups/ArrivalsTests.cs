using Mortar.Core.Access;
using Mortar.Core.Groups;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class ArrivalsTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 9, 0);

    [Theory]
    [InlineData(false, false, Arrival.Named)]
    [InlineData(true, false, Arrival.AlreadyIn)]
    [InlineData(true, true, Arrival.AlreadyIn)]
    [InlineData(false, true, Arrival.NotTheirs)]
    public void Somebody_new_is_a_name_of_the_group(bool isNamed, bool isTaken, Arrival arrival) =>
        Assert.Equal(arrival, Arrivals.Of(known: null, isNamed, isTaken, Now));

    [Theory]
    [InlineData(true, MemberPlace.Outside, Arrival.Asked)]
    [InlineData(true, MemberPlace.Asked, Arrival.AlreadyAsked)]
    [InlineData(true, MemberPlace.Member, Arrival.AlreadyIn)]
    [InlineData(false, MemberPlace.Outside, Arrival.NotTheirs)]
    [InlineData(false, MemberPlace.Member, Arrival.AlreadyIn)]
    public void Somebody_known_is_asked_and_a_name_of_another_group_stays_there(
        bool hasAccount,
        MemberPlace place,
        Arrival arrival
    )
    {
        var known = new Acquaintance(hasAccount, place, SaidNoAt: null);

        // Whoever they are, their id and their address are theirs: neither decides anything.
        Assert.Equal(arrival, Arrivals.Of(known, isNamed: false, isTaken: false, Now));
        Assert.Equal(arrival, Arrivals.Of(known, isNamed: true, isTaken: true, Now));
    }

    [Fact]
    public void Who_said_no_is_left_alone_for_thirty_days()
    {
        var no = new Acquaintance(HasAccount: true, MemberPlace.Outside, Now);

        Assert.Equal(Arrival.SaidNo, Arrivals.Of(no, isNamed: false, isTaken: false, Now));
        Assert.Equal(
            Arrival.SaidNo,
            Arrivals.Of(no, isNamed: false, isTaken: false, Now + Arrivals.LeftAlone - Duration.Epsilon)
        );
        Assert.Equal(Arrival.Asked, Arrivals.Of(no, isNamed: false, isTaken: false, Now + Arrivals.LeftAlone));
    }

    [Theory]
    [InlineData(Arrival.Named, ListedFate.New)]
    [InlineData(Arrival.Asked, ListedFate.Known)]
    [InlineData(Arrival.SaidNo, ListedFate.Known)]
    [InlineData(Arrival.AlreadyAsked, ListedFate.Asked)]
    [InlineData(Arrival.AlreadyIn, ListedFate.AlreadyIn)]
    public void What_is_said_before_is_what_adding_comes_to(Arrival arrival, ListedFate fate)
    {
        var entries = PeopleList.Read("Mei <mei@example.org>\nmei@example.org\n@@", []);

        Assert.Equal(
            [fate, ListedFate.Again, ListedFate.Unreadable],
            entries.Select(entry => PeopleList.FateOf(entry, arrival))
        );
    }
}
