using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Whether a coordinator agreed to an absence.</summary>
internal sealed class AgreementKind : ChangeKind<AgreementRow>
{
    public override Subject Subject => Subject.Agreement;

    protected override async Task<AgreementRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Agreements.FindAsync([id], cancellationToken);

    /// <summary>Whose absence it is, and who answered; that it is on the plan now is told by the event.</summary>
    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        tellings.Tell(Concerned(change), Topic.Inbox, change);
        return Task.CompletedTask;
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        AgreementRow now,
        AgreementRow? then,
        CancellationToken cancellationToken
    ) => Nothing();

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs) =>
        needs.Events.Add(Read(change).After.EventId);

    /// <summary>Told to who entered it and still sees it.</summary>
    protected override NoticeLine? Notice(Said<AgreementRow> said, string actor, NoticeFacts facts)
    {
        var answer = said.After;
        return answer.Agrees is { } agrees && facts.Found(answer.EventId) is { } whole
            ? NoticeRules.OfAnswer(
                NoticeSentence.OfAgreement(actor, whole.Content.Title, facts.When(whole.Time), agrees, answer.Comment),
                agrees ? answer.EventId : null
            )
            : null;
    }

    public override void NeedForDeed(ChangeRow change, DeedNeeds needs) => needs.Events.Add(Read(change).After.EventId);

    /// <summary>For those who keep the calendar, who agree to absences.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (!facts.Keeps(change) || change.After is null)
        {
            return null;
        }

        var agreement = Read(change).After;
        return facts.TitleOf(agreement.EventId) is { } title
            ? new Deed(title, [DeedSentence.OfAgreement(agreement.Agrees)], agreement.EventId)
            : null;
    }
}
