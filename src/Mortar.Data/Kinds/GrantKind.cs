using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>One person's own step on a calendar.</summary>
internal sealed class GrantKind : ChangeKind<GrantRow>
{
    public override Subject Subject => Subject.Grant;

    public override bool IsAccess => true;

    protected override async Task<GrantRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Grants.FindAsync([id], cancellationToken);

    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken) =>
        TellOfAccess(tellings, change, cancellationToken);

    /// <summary>Tells of somebody's way to a calendar: themselves and who did it, and those who keep the list of who has it.</summary>
    internal static async Task TellOfAccess(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var calendar = CalendarOf(change);
        tellings.Tell(Concerned(change), Topic.Shelf, change);
        tellings.Tell(Concerned(change), Topic.Inbox, change);
        tellings.Tell(await tellings.CoordinatorsOf(calendar, cancellationToken), Topic.Access, change, calendar);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GrantRow now,
        GrantRow? then,
        CancellationToken cancellationToken
    ) => undoing.WhyNotGive(now.CalendarId, then?.ToCore(), cancellationToken);

    public override async Task<Refusal?> WhyNotLeft(
        MortarDb db,
        IReadOnlyList<Guid> returned,
        CancellationToken cancellationToken
    )
    {
        // A calendar that is not there any more needs nobody.
        var calendars =
            from grant in db.Grants
            where returned.Contains(grant.Id)
            join row in db.Calendars on grant.CalendarId equals row.Id
            where row.DeletedAt == null
            select row.Id;
        var own = await db
            .Grants.AsNoTracking()
            .Where(grant => grant.Role != Role.None && calendars.Contains(grant.CalendarId))
            .ToListAsync(cancellationToken);
        return own.GroupBy(grant => grant.CalendarId)
            .All(ofOne => Coordinators.Stay(ofOne.Select(grant => grant.ToCore())))
            ? null
            : Coordinators.WhyOneStays;
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs) => needs.CalendarsThen.Add(change.Sequence);

    protected override NoticeLine? Notice(Said<GrantRow> said, string actor, NoticeFacts facts) =>
        NoticeRules.OfStep(
            actor,
            facts.CalendarsThen[said.Change.Sequence],
            said.Before?.Role ?? Role.None,
            said.After.Role
        );

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override IEnumerable<PersonId> About(ChangeRow change) => [Read(change).After.PersonId];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var said = Read(change);
        return HistorySentence.OfStep(
            facts.Whom(said.After.PersonId, change),
            facts.Step(change, said.Before?.Role, said.Before?.EndsAt),
            facts.Step(change, said.After.Role, said.After.EndsAt)
        );
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
