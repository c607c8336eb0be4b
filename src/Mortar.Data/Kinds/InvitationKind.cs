using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>An invitation to a calendar.</summary>
internal sealed class InvitationKind : ChangeKind<InvitationRow>
{
    public override Subject Subject => Subject.Invitation;

    public override bool IsAccess => true;

    protected override async Task<InvitationRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Invitations.FindAsync([new InvitationId(id)], cancellationToken);

    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken) =>
        GrantKind.TellOfAccess(tellings, change, cancellationToken);

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        InvitationRow now,
        InvitationRow? then,
        CancellationToken cancellationToken
    ) => Nothing();

    public override Mailed Mailed(IRecorded row) =>
        row is InvitationRow one
            ? new Mailed(one.LinkHash, one.SentAt, one.Address)
            : throw new ArgumentException("It is no invitation.", nameof(row));

    public override void KeepMailed(IRecorded row, Mailed mailed)
    {
        var one = (InvitationRow)row;
        (one.LinkHash, one.SentAt) = (mailed.Hash!, mailed.At!.Value);
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs) => needs.CalendarsThen.Add(change.Sequence);

    protected override NoticeLine? Notice(Said<InvitationRow> said, string actor, NoticeFacts facts) =>
        NoticeRules.OfInvitation(
            actor,
            facts.CalendarsThen[said.Change.Sequence],
            said.After.State,
            said.Before is null
        );

    public override HistoryOf InHistory => HistoryOf.Calendar;

    /// <summary>Whose an address is, is told by their answer and not by the log.</summary>
    public override bool NamesWhom => false;

    public override IEnumerable<PersonId> About(ChangeRow change) =>
        Read(change).After is { State: InvitationState.Accepted, PersonId: { } person } ? [person] : [];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        return before is not null && before.State == after.State && before.SentAt == after.SentAt
            ? null
            : HistorySentence.OfInvitation(after.Address, after.Role, before?.State, after.State);
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
