using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class GiverTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 12, 0);
    private static readonly LocalDate Today = new(2026, 3, 11);
    private static readonly PersonId Mei = new(Guid.NewGuid());

    /// <summary>Ines keeps the calendar for good, Priya until the end of March.</summary>
    private static readonly Dictionary<PersonId, Grant> Own = new()
    {
        [Studio.Ines] = new Grant(Role.Coordinate, Way.Own),
        [Studio.Priya] = new Grant(Role.Coordinate, Way.Own, End(new LocalDate(2026, 3, 31))),
    };

    private static Giver Ines => At(Studio.Ines, new Grant(Role.Coordinate, Way.Own));

    private static Giver Priya => At(Studio.Priya, Own[Studio.Priya]);

    [Fact]
    public void Who_is_there_is_given_a_step_up_to_a_day_and_who_is_not_is_none_of_it()
    {
        var given = Assert.IsType<Outcome<Grant>.Done>(Ines.Set(Mei, Role.Edit, Today, Own, isThere: true));

        Assert.Equal(new Grant(Role.Edit, Way.Own, End(Today)), given.Value);
        Assert.IsType<Refusal.NotThere>(Ines.Set(Mei, Role.Edit, null, Own, isThere: false).WhyNot);
        Assert.Equal("role", Field(Ines.Set(Mei, Role.None, null, Own, isThere: true)));
        Assert.Equal("lastDay", Field(Ines.Set(Mei, Role.Edit, Today.PlusDays(-1), Own, isThere: true)));
    }

    [Fact]
    public void What_is_given_ends_with_the_right_to_give_it()
    {
        Assert.Equal("outlasts-you", Rule(Priya.Set(Mei, Role.View, null, Own, isThere: true)));
        Assert.Equal("outlasts-you", Rule(Priya.Set(Mei, Role.View, new LocalDate(2026, 4, 1), Own, isThere: true)));
        Assert.IsType<Outcome<Grant>.Done>(Priya.Set(Mei, Role.View, new LocalDate(2026, 3, 31), Own, isThere: true));

        Assert.Equal("outlasts-you", Rule(Priya.SetGroup(isInGroup: true, Role.View, null)));
        Assert.Equal("outlasts-you", Rule(Priya.Promise(Words(Role.View), null)));
        Assert.IsType<Refusal.AgainstRule>(Priya.Gift(Role.View));
    }

    [Fact]
    public void Somebody_who_coordinates_for_good_stays()
    {
        Assert.Equal("last-coordinator", Rule(Ines.Set(Studio.Ines, Role.View, null, Own, isThere: true)));
        Assert.Equal("last-coordinator", Rule(Ines.Set(Studio.Ines, Role.Coordinate, Today, Own, isThere: true)));
        Assert.Equal("last-coordinator", Rule(Ines.End(Studio.Ines, Own, holdsLink: true)));

        var two = new Dictionary<PersonId, Grant>(Own) { [Mei] = new Grant(Role.Coordinate, Way.Own) };
        Assert.IsType<Outcome<Grant>.Done>(Ines.End(Studio.Ines, two, holdsLink: false));
    }

    [Fact]
    public void Ones_own_is_ended_at_any_step_and_anothers_by_those_who_coordinate()
    {
        var own = new Dictionary<PersonId, Grant>(Own) { [Mei] = new Grant(Role.Edit, Way.Own) };
        var mei = At(Mei, own[Mei]);

        Assert.Equal(Role.None, Assert.IsType<Outcome<Grant>.Done>(mei.End(Mei, own, holdsLink: false)).Value.Role);
        Assert.IsType<Refusal.NotAllowed>(mei.End(Studio.Ines, own, holdsLink: false).WhyNot);
        Assert.IsType<Outcome<Grant>.Done>(Ines.End(Mei, own, holdsLink: false));
        Assert.IsType<Outcome<Grant>.Done>(Ines.End(Mei, Own, holdsLink: true));
        Assert.IsType<Refusal.NotThere>(Ines.End(Mei, Own, holdsLink: false).WhyNot);
    }

    [Fact]
    public void A_whole_group_is_given_up_to_Edit_by_somebody_in_it()
    {
        Assert.IsType<Outcome<Grant>.Done>(Ines.SetGroup(isInGroup: true, Role.Edit, null));
        Assert.Equal("role", Field(Ines.SetGroup(isInGroup: true, Role.Coordinate, null)));
        Assert.Equal("role", Field(Ines.SetGroup(isInGroup: true, Role.None, null)));
        Assert.IsType<Refusal.NotThere>(Ines.SetGroup(isInGroup: false, Role.View, null).WhyNot);
    }

    [Theory]
    [InlineData(Role.Times, true)]
    [InlineData(Role.View, true)]
    [InlineData(Role.Add, false)]
    [InlineData(Role.Edit, false)]
    [InlineData(Role.Coordinate, true)]
    public void Nobody_is_given_to_change_what_comes_from_the_web(Role role, bool isGiven)
    {
        var ines = Ines with { FromWeb = true };
        var refusals = new[]
        {
            ines.Set(Mei, role, null, Own, isThere: true) is Outcome<Grant>.Not { Why: var why } ? why : null,
            ines.Promise(Words(role), null) is Outcome<Grant>.Not { Why: var broken } ? broken : null,
            ines.Gift(role),
        };

        Assert.All(refusals, refusal => Assert.Equal(isGiven, refusal is null));
    }

    [Theory]
    [InlineData(Role.None)]
    [InlineData(Role.Times)]
    [InlineData(Role.Edit)]
    public void Whoever_does_not_coordinate_is_told_nothing_else_than_that(Role role)
    {
        var one = At(Mei, new Grant(role, Way.Own));
        var refusals = new[]
        {
            one.WhyNotCoordinate,
            one.Set(Mei, Role.None, Today.PlusDays(-1), Own, isThere: false).WhyNot,
            one.SetGroup(isInGroup: false, Role.None, Today.PlusDays(-1)).WhyNot,
            one.Promise(InvitationRules.Check("no address", Role.None, null), Today.PlusDays(-1)).WhyNot,
            one.Gift(Role.None),
        };

        Assert.All(refusals, refusal => Assert.Equal(one.WhyNotCoordinate, refusal));
        Assert.Equal(role == Role.None, one.WhyNotCoordinate is Refusal.NotThere);
    }

    [Fact]
    public void An_invitation_is_refused_with_all_that_is_wrong_with_it_at_once()
    {
        var refusal = Assert.IsType<Refusal.Unfit>(
            Ines.Promise(InvitationRules.Check("no address", Role.None, null), Today.PlusDays(-1)).WhyNot
        );

        Assert.Equal(["address", "role", "lastDay"], refusal.Problems.Select(problem => problem.Path));
    }

    [Fact]
    public void An_invitation_is_answered_while_it_waits_and_whoever_sent_it_may_still_give_it()
    {
        Assert.Null(InvitationState.Waiting.WhyNotAnswer(stands: true));
        Assert.Null(InvitationState.Waiting.WhyNotChange());
        Assert.IsType<Refusal.AgainstRule>(InvitationState.Waiting.WhyNotAnswer(stands: false));
        foreach (var state in Enum.GetValues<InvitationState>().Except([InvitationState.Waiting]))
        {
            Assert.IsType<Refusal.AgainstRule>(state.WhyNotAnswer(stands: true));
            Assert.IsType<Refusal.AgainstRule>(state.WhyNotChange());
        }
    }

    private static Giver At(PersonId person, Grant grant) =>
        new(person, Standing.Of([grant], Now), Studio.Zone(Studio.London), Now);

    private static Instant End(LocalDate lastDay) => AccessEnd.After(lastDay, Studio.Zone(Studio.London));

    private static Checked<InvitationWords> Words(Role role) => InvitationRules.Check("mei@example.org", role, null);

    private static string Field(Outcome<Grant> outcome) =>
        Assert.Single(Assert.IsType<Refusal.Unfit>(outcome.WhyNot).Problems).Path;

    private static string Rule(Outcome<Grant> outcome) => Assert.IsType<Refusal.AgainstRule>(outcome.WhyNot).Type;
}
