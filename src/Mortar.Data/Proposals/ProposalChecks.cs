using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Store;

namespace Mortar.Data.Proposals;

/// <summary>Why somebody may not say which times suit; <c>null</c> where they may.</summary>
internal static class ProposalChecks
{
    /// <summary>To say which times suit, for oneself or for somebody whose guardian one is in its calendar's group.</summary>
    public static async Task<Refusal?> WhyNotSaySuits(
        this MortarDb db,
        PersonId actor,
        ProposalId id,
        PersonId whose,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.OpenProposal(id, cancellationToken) is not { } row
            || !(await db.AnswersFor(actor, row.CalendarId, cancellationToken)).Contains(whose)
            || !await db.ProposalAsked.AnyAsync(one => one.ProposalId == id && one.PersonId == whose, cancellationToken)
        )
        {
            return new Refusal.NotThere("proposal");
        }

        return row.ToCore().WhyNotAnswer;
    }
}
