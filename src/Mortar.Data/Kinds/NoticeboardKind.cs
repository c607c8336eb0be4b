using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>A noticeboard.</summary>
internal sealed class NoticeboardKind : ChangeKind<NoticeboardRow>
{
    public override Subject Subject => Subject.Noticeboard;

    /// <summary>It says what the world may read.</summary>
    public override bool IsAccess => true;

    protected override async Task<NoticeboardRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Noticeboards.FindAsync([new NoticeboardId(id)], cancellationToken);

    /// <summary>Who keeps it, and who coordinates a calendar that is or was on it.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        var calendars = after
            .Calendars.Concat(before?.Calendars ?? [])
            .Select(id => new CalendarId(id))
            .Distinct()
            .ToList();
        var there = await tellings
            .Db.Calendars.Where(row => calendars.Contains(row.Id) && row.DeletedAt == null)
            .Select(row => row.Id)
            .ToListAsync(cancellationToken);
        var told = new HashSet<PersonId> { after.Keeper, change.Actor };
        foreach (var calendar in there)
        {
            told.UnionWith(await tellings.CoordinatorsOf(calendar, cancellationToken));
        }

        tellings.Tell(told, Topic.Noticeboards, change);
        if (change.Actor != after.Keeper)
        {
            tellings.Tell([after.Keeper], Topic.Inbox, change);
        }
    }

    /// <summary>What the world would be told more by it has to be theirs to give; to be told less, whoever keeps it may have it.</summary>
    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        NoticeboardRow now,
        NoticeboardRow? then,
        CancellationToken cancellationToken
    )
    {
        var given =
            then is { EndedAt: null, State: BoardState.Open }
                ? NoticeboardRules.Given(now.ToCore(), now is { EndedAt: null, State: BoardState.Open }, then.ToCore())
            : now.Keeper == undoing.Actor ? []
            : now.Calendars.Concat(then?.Calendars ?? []).Select(id => new CalendarId(id));
        return Task.FromResult(NoticeboardRules.WhyNotKeep(given.Select(undoing.RoleOn)));
    }

    protected override NoticeLine? Notice(Said<NoticeboardRow> said, string actor, NoticeFacts facts)
    {
        var (_, before, after) = said;
        return before is null || before.Keeper != facts.Reader.Person
            ? null
            : NoticeRules.OfNoticeboard(
                actor,
                after.ToCore().Title,
                (before.State, before.EndedAt is null),
                (after.State, after.EndedAt is null)
            );
    }

    /// <summary>For those who could keep it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (change.After is null)
        {
            return null;
        }

        var (before, after) = (Read(change).Before, Read(change).After);
        return
            NoticeboardRules.WhyNotKeep(after.Calendars.Select(id => facts.Reader.RoleOn(new CalendarId(id)))) is null
            && (facts.Keeps(change) || facts.IsOwn(change))
            ? new Deed(
                after.ToCore().Title,
                [
                    HistorySentence.OfNoticeboard(
                        before is null ? null : (before.State == BoardState.Open, before.EndedAt is null),
                        (after.State == BoardState.Open, after.EndedAt is null)
                    ),
                ]
            )
            : null;
    }
}
