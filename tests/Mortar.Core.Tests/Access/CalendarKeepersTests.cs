using Mortar.Core.Access;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>Who of a group keeps its calendars, and what that means when somebody goes.</summary>
public class CalendarKeepersTests
{
    private static readonly PersonId Ines = new(Guid.NewGuid());
    private static readonly PersonId Priya = new(Guid.NewGuid());

    private static CalendarKeepers Kept(string name, bool isSomebodysOwn, params PersonId[] by) =>
        new(new CalendarId(Guid.NewGuid()), name, isSomebodysOwn, by.ToHashSet());

    [Fact]
    public void Only_who_keeps_it_alone_leaves_it_to_nobody()
    {
        Assert.True(Kept("Rota", false, Ines).IsLeftBy(Ines));
        Assert.False(Kept("Rota", false, Ines).IsLeftBy(Priya));
        Assert.False(Kept("Rota", false, Ines, Priya).IsLeftBy(Ines));
        Assert.False(Kept("Rota", false).IsLeftBy(Ines));
        Assert.False(Kept("Ines away", true, Ines).IsLeftBy(Ines));
    }

    public static TheoryData<bool, bool, bool, bool, bool, string?> Wishes =>
        new()
        {
            // own, kept, member, coordinates, known
            { false, false, true, true, true, null },
            { false, false, true, true, false, null },
            { false, false, true, false, true, "That is for those who coordinate the group." },
            { false, false, false, false, true, "There is no such calendar" },
            { false, true, true, true, true, "Somebody of the group coordinates this calendar. Ask them." },
            { false, true, true, true, false, "There is no such calendar" },
            { false, true, true, false, false, "There is no such calendar" },
            { true, false, true, true, true, "It is of one person’s own time, and stays theirs." },
            { true, false, true, true, false, "There is no such calendar" },
        };

    [Theory]
    [MemberData(nameof(Wishes))]
    public void What_nobody_of_the_group_keeps_is_taken_over_by_who_coordinates_it(
        bool isOwn,
        bool isKept,
        bool isMember,
        bool coordinates,
        bool isKnown,
        string? sentence
    )
    {
        var refusal = Kept("Rota", isOwn, isKept ? [Priya] : []).WhyNotTakeOver(isMember, coordinates, isKnown);

        var said = refusal switch
        {
            null => null,
            Refusal.NotThere { What: "calendar" } => "There is no such calendar",
            Refusal.NotAllowed denied => denied.Sentence,
            Refusal.AgainstRule rule => rule.Sentence,
            _ => refusal.ToString(),
        };
        Assert.Equal(sentence, said);
    }

    [Fact]
    public void Nobody_goes_before_what_they_alone_keep_is_handed_on_to_one_who_can()
    {
        CalendarKeepers[] left =
        [
            Kept("A", false, Ines),
            Kept("B", false, Ines),
            Kept("C", false, Ines),
            Kept("D", false, Ines),
        ];

        Assert.Null(CalendarKeepers.WhyNotGo([], isOwn: true, to: null, canKeep: false));
        Assert.Null(CalendarKeepers.WhyNotGo(left, isOwn: true, Priya, canKeep: true));
        Assert.IsType<Refusal.Unfit>(CalendarKeepers.WhyNotGo(left, isOwn: true, Priya, canKeep: false));
        Assert.Equal(
            "“A”, “B”, “C” and 1 more are coordinated by nobody else of the group. Say who does that from now on before you go.",
            Assert
                .IsType<Refusal.AgainstRule>(CalendarKeepers.WhyNotGo(left, isOwn: true, null, canKeep: false))
                .Sentence
        );
        Assert.Equal(
            "“A” is coordinated by nobody else of the group. Say who does that from now on before they go.",
            Assert
                .IsType<Refusal.AgainstRule>(CalendarKeepers.WhyNotGo(left[..1], isOwn: false, null, canKeep: false))
                .Sentence
        );
    }
}
