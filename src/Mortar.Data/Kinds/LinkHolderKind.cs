using Mortar.Core.Changes;
using Mortar.Core.Links;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Links;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>That somebody put a calendar on their wall by a link.</summary>
internal sealed class LinkHolderKind : ChangeKind<LinkHolderRow>
{
    public override Subject Subject => Subject.LinkHolder;

    public override bool IsAccess => true;

    protected override async Task<LinkHolderRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.LinkHolders.FindAsync([id], cancellationToken);

    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken) =>
        GrantKind.TellOfAccess(tellings, change, cancellationToken);

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        LinkHolderRow now,
        LinkHolderRow? then,
        CancellationToken cancellationToken
    ) => Nothing();

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override IEnumerable<PersonId> About(ChangeRow change) => [Read(change).After.PersonId];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var holder = Read(change).After;
        var name = facts.Links.TryGetValue(holder.LinkId, out var terms) ? terms.Spoken() : "a link";
        return holder.LeftAt is null ? $"came by {name}" : $"left, having come by {name}";
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
