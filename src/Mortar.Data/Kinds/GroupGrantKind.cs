using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>A whole group's step on a calendar.</summary>
internal sealed class GroupGrantKind : ChangeKind<GroupGrantRow>
{
    public override Subject Subject => Subject.GroupGrant;

    public override bool IsAccess => true;

    protected override async Task<GroupGrantRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.GroupGrants.FindAsync([id], cancellationToken);

    /// <summary>The group, also where it has the calendar no longer, and those who keep the list of who has it.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var calendar = CalendarOf(change);
        var members = await tellings.MembersOf(Read(change).After.GroupId, onlyKeepers: false, cancellationToken);
        tellings.Tell(members, Topic.Shelf, change);
        tellings.Tell(await tellings.CoordinatorsOf(calendar, cancellationToken), Topic.Access, change, calendar);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GroupGrantRow now,
        GroupGrantRow? then,
        CancellationToken cancellationToken
    ) =>
        undoing.WhyNotGive(
            now.CalendarId,
            then is null ? null : new Grant(then.Role, Way.Group, then.EndsAt),
            cancellationToken
        );

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var said = Read(change);
        return HistorySentence.OfStep(
            $"the group “{facts.Groups.GetValueOrDefault(said.After.GroupId, "?")}”",
            facts.Step(change, said.Before?.Role, said.Before?.EndsAt),
            facts.Step(change, said.After.Role, said.After.EndsAt)
        );
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
