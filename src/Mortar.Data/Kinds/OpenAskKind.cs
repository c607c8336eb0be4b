using Microsoft.EntityFrameworkCore;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Somebody's request for a calendar of a person or a group.</summary>
internal sealed class OpenAskKind : ChangeKind<OpenAskRow>
{
    public override Subject Subject => Subject.OpenAsk;

    protected override async Task<OpenAskRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.OpenAsks.FindAsync([new AskId(id)], cancellationToken);

    /// <summary>Those who can answer, and who asked.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var answerers = await tellings.Db.AnswerersOf(new AskId(change.SubjectId)).ToListAsync(cancellationToken);
        tellings.Tell(answerers.Union([Read(change).After.PersonId]), Topic.Inbox, change);
    }

    /// <summary>It cannot be undone by who made it: whether it reached anybody would be told by that.</summary>
    public override bool IsKnownTo(PersonId actor, ChangeRow change) =>
        base.IsKnownTo(actor, change) && change.Concerns != actor;

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        OpenAskRow now,
        OpenAskRow? then,
        CancellationToken cancellationToken
    ) => Nothing();

    protected override NoticeLine? Notice(Said<OpenAskRow> said, string actor, NoticeFacts facts) =>
        NoticeRules.OfAsk(actor, said.After.State);

    /// <summary>Whether it reached anybody would be told by it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts) => null;
}
