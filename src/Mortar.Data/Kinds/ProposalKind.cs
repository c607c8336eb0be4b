using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Proposals;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Several times put to people as one question.</summary>
internal sealed class ProposalKind : ChangeKind<ProposalRow>
{
    public override Subject Subject => Subject.Proposal;

    protected override async Task<ProposalRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Proposals.FindAsync([new ProposalId(id)], cancellationToken);

    /// <summary>All for whom it waits, those who answer for them, and who put it.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var asked = await tellings.Db.AskedWhichSuits([new ProposalId(change.SubjectId)], cancellationToken);
        var concerned = asked.Union(Concerned(change)).ToList();
        tellings.Tell(concerned, Topic.Proposals, change);
        tellings.Tell(concerned, Topic.Inbox, change);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        ProposalRow now,
        ProposalRow? then,
        CancellationToken cancellationToken
    ) =>
        Task.FromResult(
            ProposalRules
                .ToSettle(undoing.RoleOn(now.CalendarId), undoing.Actor, now.ProposedBy)
                .WhyNot("change", "Edit")
        );

    /// <summary>For those who can settle it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (change.After is null)
        {
            return null;
        }

        var (before, after) = (Read(change).Before, Read(change).After);
        return
            ProposalRules.ToSettle(facts.Reader.RoleOn(after.CalendarId), facts.Reader.Person, after.ProposedBy)
            == Verdict.Granted
            ? new Deed(after.Title, [DeedSentence.OfProposal(before?.State, after.State)])
            : null;
    }
}
