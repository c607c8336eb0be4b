using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>A calendar and its settings.</summary>
internal sealed class CalendarKind : ChangeKind<CalendarRow>
{
    public override Subject Subject => Subject.Calendar;

    /// <summary>Whether a calendar went or came with its group, which says so itself and takes it back with itself.</summary>
    internal static bool FollowsItsGroup(ChangeRow change) =>
        change is { Subject: Subject.Calendar, Before: { } before, After: { } after }
        && StoredText.Read<CalendarRow>(before).WithGroup != StoredText.Read<CalendarRow>(after).WithGroup;

    private static bool FollowsItsGroup(Said<CalendarRow> said) =>
        said.Before is { } before && before.WithGroup != said.After.WithGroup;

    protected override async Task<CalendarRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Calendars.FindAsync([new CalendarId(id)], cancellationToken);

    /// <summary>All who reach it, and those who read one of its events: how it looks is theirs to see.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var calendar = CalendarOf(change);
        var readers = (await tellings.RolesOn(calendar, cancellationToken)).Keys;
        var given = await tellings.Db.GivenIn(calendar).ToListAsync(cancellationToken);
        // A lowered default takes the calendar from members who read it no longer; they are told as well.
        var members = await tellings.MembersOf(Read(change).After.GroupId, onlyKeepers: false, cancellationToken);
        tellings.Tell(readers.Union(given), Topic.Wall, change, calendar);
        tellings.Tell(readers.Union(members), Topic.Shelf, change);
        if (IsNoticed(Read(change)))
        {
            // One in the bin is reached by nobody any more, and those who had it are told that.
            var had = await tellings.Db.ReadersOf(calendar, cancellationToken);
            tellings.Tell(had.Union(members), Topic.Inbox, change);
        }
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        CalendarRow now,
        CalendarRow? then,
        CancellationToken cancellationToken
    )
    {
        if (then is null && now.DeletedAt is null)
        {
            var events = await undoing.Db.Events.AnyAsync(
                row => row.CalendarId == now.Id && row.DeletedAt == null && !undoing.Vanishing.Contains(row.Id),
                cancellationToken
            );
            if (UndoRules.WhyNotUnmake(events) is { } keeps)
            {
                return keeps;
            }
        }

        return await undoing.WhyNotGive(
            now.Id,
            then is not null && then.GroupDefault > now.GroupDefault ? new Grant(then.GroupDefault, Way.Default) : null,
            cancellationToken
        );
    }

    /// <summary>What became of the calendars of one's groups, and of those one had.</summary>
    public override Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    )
    {
        var groups = db.Members.Where(member => member.PersonId == reader).Select(member => member.GroupId);
        var given = db.GroupGrants.Where(grant => groups.Contains(grant.GroupId)).Select(grant => grant.CalendarId);
        var own = db.Grants.Where(grant => grant.PersonId == reader).Select(grant => grant.CalendarId);
        var calendars = db
            .Calendars.Where(row => groups.Contains(row.GroupId) || own.Contains(row.Id) || given.Contains(row.Id))
            .Select(row => row.Id);
        return Task.FromResult<IQueryable<ChangeRow>?>(
            db.Changes.Where(change =>
                change.Subject == Subject.Calendar
                && change.CalendarId != null
                && calendars.Contains(change.CalendarId.Value)
            )
        );
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        var said = Read(change);
        if (IsNoticed(said))
        {
            needs.Groups.Add(said.After.GroupId);
            needs.Calendars.Add(said.After.Id);
        }
    }

    protected override NoticeLine? Notice(Said<CalendarRow> said, string actor, NoticeFacts facts) =>
        IsNoticed(said)
            ? NoticeRules.OfCalendar(
                actor,
                facts.Groups[said.After.GroupId],
                said.Before is { } before ? Then(before) : null,
                Then(said.After),
                facts.PlaceAt(said.After.Id, said.After.GroupId, said.Change.Sequence)
            )
            : null;

    /// <summary>Whether it may be told: that it came, went, or is open to members in another way. The time of one person is nobody's news.</summary>
    private static bool IsNoticed(Said<CalendarRow> said) =>
        said.After.Person is null
        && !FollowsItsGroup(said)
        && (
            said.Before is { } before
                ? (before.GroupDefault, before.DeletedAt is null)
                    != (said.After.GroupDefault, said.After.DeletedAt is null)
                : said.After.GroupDefault > Role.None
        );

    private static CalendarThen Then(CalendarRow row) => new(row.Name, row.GroupDefault, row.DeletedAt is null);

    public override HistoryOf InHistory => HistoryOf.Calendar;

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var said = Read(change);
        return (said.Before, said.After) switch
        {
            (null, _) => "made the calendar",
            _ when FollowsItsGroup(said) => null,
            ({ DeletedAt: null }, { DeletedAt: not null }) => "put the calendar in the bin",
            ({ DeletedAt: not null }, { DeletedAt: null }) => "brought the calendar back",
            var (before, after) => HistorySentence.OfStep(
                "every member",
                (before.GroupDefault, null),
                (after.GroupDefault, null)
            ),
        };
    }

    /// <summary>For those who keep it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (!facts.Keeps(change) || change.After is null)
        {
            return null;
        }

        var said = Read(change);
        if (FollowsItsGroup(said))
        {
            return null;
        }

        return new Deed(
            said.After.Name,
            (said.Before, said.After) switch
            {
                (null, _) => ["made the calendar"],
                ({ DeletedAt: null }, { DeletedAt: not null }) => ["put the calendar in the bin"],
                ({ DeletedAt: not null }, { DeletedAt: null }) => ["brought the calendar back"],
                var (before, after) => CalendarDifference.Between(before.Settings(), after.Settings()),
            }
        );
    }
}
