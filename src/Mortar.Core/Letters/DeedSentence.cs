using System.Diagnostics;
using Mortar.Core.Answers;
using Mortar.Core.Proposals;

namespace Mortar.Core.Letters;

/// <summary>What somebody did, as a history says it after their name and beside what it was done to.</summary>
public static class DeedSentence
{
    /// <summary>What somebody answered to an event.</summary>
    public static string OfAnswer(Answer answer) =>
        answer switch
        {
            Answer.NeedsAction => "took the answer back",
            Answer.Accepted => "said yes to it",
            Answer.Tentative => "said perhaps to it",
            Answer.Declined => "said no to it",
            _ => throw new UnreachableException($"Nothing is said of {answer}."),
        };

    /// <summary>Whether an absence was agreed to.</summary>
    public static string OfAgreement(bool? agrees) =>
        agrees switch
        {
            true => "agreed to it",
            false => "did not agree to it",
            null => "left open whether to agree to it",
        };

    /// <summary>What became of proposed times.</summary>
    /// <param name="before">How it stood; <c>null</c> where it was just put.</param>
    /// <param name="after">How it stands.</param>
    public static string OfProposal(ProposalState? before, ProposalState after) =>
        (before, after) switch
        {
            (null, _) => "proposed times for it",
            (_, ProposalState.Settled) => "settled one of its times",
            (_, ProposalState.Withdrawn) => "took its times back",
            (ProposalState.Open, ProposalState.Open) => "changed its times",
            _ => "proposed its times again",
        };
}
