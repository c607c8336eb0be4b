using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Somebody's request for a step on a calendar.</summary>
internal sealed class AskKind : ChangeKind<AskRow>
{
    public override Subject Subject => Subject.Ask;

    protected override async Task<AskRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Asks.FindAsync([new AskId(id)], cancellationToken);

    /// <summary>Those who can answer, and who asked.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var keepers = await tellings.CoordinatorsOf(CalendarOf(change), cancellationToken);
        tellings.Tell(keepers.Union(Concerned(change)), Topic.Inbox, change);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        AskRow now,
        AskRow? then,
        CancellationToken cancellationToken
    ) => Nothing();

    protected override NoticeLine? Notice(Said<AskRow> said, string actor, NoticeFacts facts) =>
        NoticeRules.OfAsk(actor, said.After.State);

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override IEnumerable<PersonId> About(ChangeRow change) => [Read(change).After.PersonId];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        return HistorySentence.OfAsk(facts.NameOf(after.PersonId), after.Role, before?.State, after.State);
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
