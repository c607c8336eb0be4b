using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Letters;
using Xunit;

namespace Mortar.Core.Tests.Letters;

public class NoticeSentenceTests
{
    [Theory]
    [InlineData(MemberPlace.Outside, false, MemberPlace.Member, false, "Ines added you to “Studio”.")]
    [InlineData(MemberPlace.Outside, false, MemberPlace.Member, true, "Ines added you to “Studio”.")]
    [InlineData(MemberPlace.Member, false, MemberPlace.Outside, false, "Ines took you out of “Studio”.")]
    [InlineData(MemberPlace.Member, true, MemberPlace.Outside, true, "Ines took you out of “Studio”.")]
    [InlineData(MemberPlace.Member, false, MemberPlace.Member, true, "Ines made you a coordinator of “Studio”.")]
    [InlineData(
        MemberPlace.Member,
        true,
        MemberPlace.Member,
        false,
        "You no longer coordinate “Studio”: Ines changed that."
    )]
    [InlineData(MemberPlace.Outside, false, MemberPlace.Asked, true, null)]
    [InlineData(MemberPlace.Asked, false, MemberPlace.Outside, false, null)]
    [InlineData(MemberPlace.Member, false, MemberPlace.Member, false, null)]
    public void A_change_of_ones_own_place_is_said_where_it_is_news(
        MemberPlace before,
        bool coordinated,
        MemberPlace after,
        bool coordinates,
        string? expected
    ) => Assert.Equal(expected, NoticeSentence.OfPlace("Ines", "Studio", (before, coordinated), (after, coordinates)));

    [Theory]
    [InlineData(MemberPlace.Asked, MemberPlace.Member, "Mei said yes and is in “Studio” now.")]
    [InlineData(MemberPlace.Asked, MemberPlace.Outside, "Mei does not want to be in “Studio”.")]
    [InlineData(MemberPlace.Member, MemberPlace.Outside, "Mei left “Studio”.")]
    [InlineData(MemberPlace.Outside, MemberPlace.Asked, null)]
    public void What_somebody_does_about_their_own_place_is_said_to_those_who_keep_the_group(
        MemberPlace before,
        MemberPlace after,
        string? expected
    ) => Assert.Equal(expected, NoticeSentence.OfTheirPlace("Mei", "Studio", before, after));

    [Theory]
    [InlineData(Role.None, Role.View, "Ines gave you the step View on “Rota”.")]
    [InlineData(Role.View, Role.None, "Ines ended your access to “Rota”.")]
    [InlineData(Role.View, Role.Edit, "Ines changed your step on “Rota” from View to Edit.")]
    [InlineData(Role.View, Role.View, null)]
    [InlineData(Role.None, Role.None, null)]
    public void A_step_is_said_where_it_is_another(Role before, Role after, string? expected) =>
        Assert.Equal(expected, NoticeSentence.OfStep("Ines", "Rota", before, after));

    [Theory]
    [InlineData(InvitationState.Withdrawn, true, null)]
    [InlineData(InvitationState.Withdrawn, false, "Ines took back the invitation to “Rota”.")]
    [InlineData(InvitationState.Declined, false, "Ines declined your invitation to “Rota”.")]
    [InlineData(InvitationState.Waiting, true, null)]
    public void An_invitation_is_said_by_what_became_of_it(InvitationState after, bool isNew, string? expected) =>
        Assert.Equal(expected, NoticeSentence.OfInvitation("Ines", "Rota", after, isNew));

    [Fact]
    public void An_answer_says_who_comes_who_said_so_and_what_else_they_suggest()
    {
        Assert.Equal("Mei comes to “Firing”.", NoticeSentence.OfAnswer("Mei", "Mei", "Firing", Answer.Accepted, null));
        Assert.Equal(
            "Mei does not come to an untitled event (Dele answered). They suggest Mon 9:00; it can be taken where the event is.",
            NoticeSentence.OfAnswer("Mei", "Dele", "", Answer.Declined, "Mon 9:00")
        );
        Assert.Null(NoticeSentence.OfAnswer("Mei", "Mei", "Firing", Answer.NeedsAction, null));
    }

    [Fact]
    public void A_coordinators_answer_to_an_absence_has_their_words_with_it()
    {
        Assert.Equal(
            "Ines agreed to “At the sea”, 3 to 5 March.",
            NoticeSentence.OfAgreement("Ines", "At the sea", "3 to 5 March", agrees: true, comment: "")
        );
        Assert.Equal(
            "Ines did not agree to your absence, 3 to 5 March; it is off the plan. They write: “The fair”",
            NoticeSentence.OfAgreement("Ines", "", "3 to 5 March", agrees: false, comment: "The fair")
        );
    }

    [Theory]
    [InlineData(1, "“Firing”: 1 of the times suits Mei.")]
    [InlineData(2, "“Firing”: 2 of the times suit Mei.")]
    public void How_many_times_suit_somebody_is_counted(int suit, string expected) =>
        Assert.Equal(expected, NoticeSentence.OfSuitings("Mei", "Firing", suit));
}
