using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Proposals;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>What somebody said to the times of a question.</summary>
internal sealed class SuitingsKind : ChangeKind<SuitingsRow>
{
    public override Subject Subject => Subject.Suitings;

    protected override async Task<SuitingsRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Suitings.FindAsync([id], cancellationToken);

    /// <summary>Who put the question, and who said it.</summary>
    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        tellings.Tell(Concerned(change), Topic.Proposals, change);
        tellings.Tell(Concerned(change), Topic.Inbox, change);
        return Task.CompletedTask;
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        SuitingsRow now,
        SuitingsRow? then,
        CancellationToken cancellationToken
    ) => await undoing.Db.WhyNotSaySuits(undoing.Actor, now.ProposalId, now.PersonId, cancellationToken);

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        var said = Read(change).After;
        needs.Proposals.Add(said.ProposalId);
        needs.People.Add(said.PersonId);
    }

    /// <summary>Told to who put the question, while they can still settle it.</summary>
    protected override NoticeLine? Notice(Said<SuitingsRow> said, string actor, NoticeFacts facts)
    {
        var suitings = said.After;
        return
            facts.Proposals.TryGetValue(suitings.ProposalId, out var row)
            && ProposalRules.ToSettle(facts.Reader.RoleOn(row.CalendarId), facts.Reader.Person, row.ProposedBy)
                == Verdict.Granted
            ? NoticeRules.OfAnswer(
                NoticeSentence.OfSuitings(
                    facts.People[suitings.PersonId],
                    row.Title,
                    suitings.ToCore().Said.Count(one => one.Value != Suiting.DoesNotSuit)
                )
            )
            : null;
    }

    public override void NeedForDeed(ChangeRow change, DeedNeeds needs) =>
        needs.Proposals.Add(Read(change).After.ProposalId);

    /// <summary>For who said it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts) =>
        change.Actor == facts.Reader.Person
        && change.After is not null
        && facts.Proposals.TryGetValue(Read(change).After.ProposalId, out var row)
            ? new Deed(row.Title, ["said which times suit"])
            : null;
}
