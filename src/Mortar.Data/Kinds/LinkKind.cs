using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Links;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Links;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>A link that gives a step to whoever holds it.</summary>
internal sealed class LinkKind : ChangeKind<LinkRow>
{
    public override Subject Subject => Subject.Link;

    public override bool IsAccess => true;

    protected override async Task<LinkRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Links.FindAsync([new LinkId(id)], cancellationToken);

    /// <summary>
    /// Those who keep the list of who has the calendar; and where it gives something else, or nothing any more, who came by
    /// it. How many others do is not theirs to know.
    /// </summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var calendar = CalendarOf(change);
        tellings.Tell(await tellings.CoordinatorsOf(calendar, cancellationToken), Topic.Access, change, calendar);
        var (before, after) = (Read(change).Before, Read(change).After);
        if (Gives(before) == Gives(after))
        {
            return;
        }

        var holders = await tellings
            .Db.LinkHolders.Where(holder => holder.LinkId == after.Id && holder.LeftAt == null)
            .Select(holder => holder.PersonId)
            .ToListAsync(cancellationToken);
        tellings.Tell(holders, Topic.Shelf, change);

        static (Role, Instant?, bool)? Gives(LinkRow? link) =>
            link is null ? null : (link.Role, link.EndsAt, link.EndedAt is null);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        LinkRow now,
        LinkRow? then,
        CancellationToken cancellationToken
    ) =>
        undoing.WhyNotGive(
            now.CalendarId,
            then is { EndedAt: null } ? new Grant(then.Role, Way.Link, then.EndsAt) : null,
            cancellationToken
        );

    public override Mailed Mailed(IRecorded row) =>
        row is LinkRow one
            ? new Mailed(one.Hash, null, null)
            : throw new ArgumentException("It is no link.", nameof(row));

    public override void KeepMailed(IRecorded row, Mailed mailed) => ((LinkRow)row).Hash = mailed.Hash!;

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        var name = after.Terms().Spoken();
        return before is null ? $"made {name} at {RoleSentence.Name(after.Role)}"
            : before.EndedAt is null && after.EndedAt is not null ? $"ended {name}"
            : before.EndedAt is not null && after.EndedAt is null ? $"brought back {name}"
            : before.Hash != after.Hash ? $"renewed {name}"
            : HistorySentence.OfStep(
                name,
                facts.Step(change, before.Role, before.EndsAt),
                facts.Step(change, after.Role, after.EndsAt)
            );
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
