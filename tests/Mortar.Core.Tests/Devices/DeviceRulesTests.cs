using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Devices;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Devices;

public class DeviceRulesTests
{
    private static readonly PersonId Mei = new(Guid.NewGuid());

    [Fact]
    public void A_calendar_is_made_in_the_only_group_and_in_none_where_it_cannot_be_said_in_which()
    {
        var (one, other) = (new GroupId(Guid.NewGuid()), new GroupId(Guid.NewGuid()));

        Assert.Equal(one, Assert.IsType<Outcome<GroupId>.Done>(DeviceRules.GroupOfNew([one])).Value);
        Assert.IsType<Refusal.NotAllowed>(DeviceRules.GroupOfNew([]).WhyNot);
        Assert.IsType<Refusal.NotAllowed>(DeviceRules.GroupOfNew([one, other]).WhyNot);
    }

    [Fact]
    public void The_newly_named_are_asked_but_for_whom_the_program_asks_and_oneself()
    {
        Assert.Equal([Studio.Priya, Mei], Asked(before: null, Named(Studio.Ines, Studio.Priya, Mei)));
        Assert.Equal([Mei], Asked(Named(Studio.Priya), Named(Studio.Priya, Mei)));
        Assert.Equal([Studio.Priya], Asked(before: null, Named(Studio.Priya, Mei), notAsked: Mei));
        Assert.Empty(Asked(Named(Studio.Priya), Named()));
    }

    [Theory]
    [InlineData(Role.View, Purpose.Events, false)]
    [InlineData(Role.Add, Purpose.Events, false)] // Ines put it in
    [InlineData(Role.Edit, Purpose.Events, true)]
    [InlineData(Role.Edit, Purpose.Away, false)]
    [InlineData(Role.Edit, Purpose.Place, false)]
    public void Nobody_is_asked_where_one_may_not_or_where_nothing_is_asked(Role role, Purpose purpose, bool isAsked) =>
        Assert.Equal(
            isAsked,
            DeviceRules.ToAsk(Studio.Priya, role, purpose, before: null, Named(Mei), new HashSet<PersonId>()).Count > 0
        );

    private static IReadOnlyList<PersonId> Asked(Event? before, Event after, params PersonId[] notAsked) =>
        DeviceRules.ToAsk(Studio.Ines, Role.Add, Purpose.Events, before, after, notAsked.ToHashSet());

    private static Event Named(params PersonId[] people)
    {
        var whole = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 11, 9, 0), 60));
        return whole with { Content = whole.Content with { Attendees = Attendees.Of(people) } };
    }
}
