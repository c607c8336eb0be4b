using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
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
        tellings.Tell(members, Topic.Inbox, change);
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

    /// <summary>What one's groups were given as a whole.</summary>
    public override Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    )
    {
        var groups = db.Members.Where(member => member.PersonId == reader).Select(member => member.GroupId);
        var grants = db.GroupGrants.Where(grant => groups.Contains(grant.GroupId)).Select(grant => grant.Id);
        return Task.FromResult<IQueryable<ChangeRow>?>(
            db.Changes.Where(change => change.Subject == Subject.GroupGrant && grants.Contains(change.SubjectId))
        );
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        var after = Read(change).After;
        needs.Groups.Add(after.GroupId);
        needs.Calendars.Add(after.CalendarId);
        needs.CalendarsThen.Add(change.Sequence);
    }

    protected override NoticeLine? Notice(Said<GroupGrantRow> said, string actor, NoticeFacts facts) =>
        NoticeRules.OfGroupStep(
            actor,
            facts.Groups[said.After.GroupId],
            facts.CalendarsThen[said.Change.Sequence],
            said.Before?.Role ?? Role.None,
            said.After.Role,
            facts.PlaceAt(said.After.CalendarId, said.After.GroupId, said.Change.Sequence)
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
