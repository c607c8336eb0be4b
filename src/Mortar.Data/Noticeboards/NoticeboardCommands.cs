using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Data.Noticeboards;

/// <summary>What a noticeboard is to be.</summary>
/// <param name="GroupId">The group on whose pages it is kept; of one that is there already it stays.</param>
/// <param name="Board">What it shows, and how.</param>
/// <param name="Address">The name it is to be reached by; <c>null</c> for one that nobody guesses.</param>
public sealed record NoticeboardWish(GroupId GroupId, Noticeboard Board, string? Address);

/// <summary>Makes, changes, opens, pauses and ends noticeboards.</summary>
public sealed class NoticeboardCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Makes the noticeboard where there is none of that id, and changes it otherwise. Who does keeps it from then on.</summary>
    public Task<Outcome<NoticeboardRow>> Put(
        Act act,
        NoticeboardId id,
        int? version,
        NoticeboardWish wish,
        CancellationToken cancellationToken
    ) =>
        db.Write<NoticeboardRow>(
            act,
            async () =>
            {
                var known = await db.Noticeboards.FirstOrDefaultAsync(row => row.Id == id, cancellationToken);
                if (known is not null)
                {
                    if (await WhyNotTouch(act.Actor, known, cancellationToken) is { } hidden)
                    {
                        return hidden;
                    }

                    if (version is null)
                    {
                        // Sent twice, it is made once.
                        return known.Version == 1 ? known : new Refusal.VersionNeeded();
                    }

                    if (version != known.Version)
                    {
                        return new Outcome<NoticeboardRow>.Stale(known);
                    }
                }
                else if (await WhyNotMake(act.Actor, wish.GroupId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var reader = await db.ReaderOf(act.Actor, cancellationToken);
                if (
                    NoticeboardRules.WhyNotKeep(wish.Board.Layers.Select(layer => reader.RoleOn(layer.CalendarId))) is
                    { } beyond
                )
                {
                    return beyond;
                }

                var check = Noticeboard.Check(wish.Board, zones);
                var address = await Address(id, known, wish, cancellationToken);
                if (check.And(address.Problems).WhyNot is { } unfit)
                {
                    return unfit;
                }

                if (known is null)
                {
                    var row = new NoticeboardRow
                    {
                        Id = id,
                        GroupId = wish.GroupId,
                        Keeper = act.Actor,
                        Address = address.Value,
                    };
                    row.Apply(check.Value);
                    db.Noticeboards.Add(row);
                    return row;
                }

                // What its keeper may not show any more does not come back by somebody's change of a title.
                var isRead = await db.IsRead(known, cancellationToken);
                known.State =
                    known.State == BoardState.Open && (!isRead || check.Value.Layers.IsEmpty)
                        ? BoardState.Paused
                        : known.State;
                (known.Keeper, known.Address) = (act.Actor, address.Value);
                known.Apply(check.Value);
                return known;
            },
            cancellationToken
        );

    /// <summary>Has the world read it. Who opens it keeps it from then on.</summary>
    public Task<Outcome<NoticeboardRow>> Open(Act act, NoticeboardId id, CancellationToken cancellationToken) =>
        Kept(
            act,
            id,
            row =>
            {
                if (NoticeboardRules.WhyNotOpen(row.ToCore()) is { } refusal)
                {
                    return refusal;
                }

                (row.State, row.Keeper) = (BoardState.Open, act.Actor);
                return row;
            },
            cancellationToken
        );

    /// <summary>Has nobody read it until it is opened again.</summary>
    public Task<Outcome<NoticeboardRow>> Pause(Act act, NoticeboardId id, CancellationToken cancellationToken) =>
        Touched(
            act,
            id,
            row =>
            {
                row.State = row.State == BoardState.Open ? BoardState.Paused : row.State;
                return row;
            },
            cancellationToken
        );

    /// <summary>Ends it for good. Its address leads nowhere, and to nothing else for a while.</summary>
    public Task<Outcome<NoticeboardRow>> End(Act act, NoticeboardId id, CancellationToken cancellationToken) =>
        Touched(
            act,
            id,
            row =>
            {
                row.EndedAt = db.Now;
                return row;
            },
            cancellationToken
        );

    /// <summary>Takes a calendar off it: for whoever coordinates that one, whatever else is on it.</summary>
    public Task<Outcome<NoticeboardRow>> TakeOff(
        Act act,
        NoticeboardId id,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        db.Write<NoticeboardRow>(
            act,
            async () =>
            {
                if (
                    await db.WhyNotCoordinate(act.Actor, calendar, cancellationToken) is not null
                    || await There(id).FirstOrDefaultAsync(cancellationToken) is not { } row
                    || !row.Calendars.Contains(calendar.Value)
                )
                {
                    return new Refusal.NotThere("noticeboard");
                }

                var board = row.ToCore();
                var rest = board with { Layers = [.. board.Layers.Where(layer => layer.CalendarId != calendar)] };
                row.Apply(rest);
                row.State = row.State == BoardState.Open && rest.Layers.IsEmpty ? BoardState.Paused : row.State;
                return row;
            },
            cancellationToken
        );

    /// <summary>
    /// Pauses what is open and is not its keeper's to show any more, by whoever took a calendar of it from its keeper; an act by itself, so that
    /// theirs can be taken back whatever else is on the noticeboard.
    /// </summary>
    /// <returns>How many it were.</returns>
    public async Task<int> PauseLost(CancellationToken cancellationToken)
    {
        var open = await db
            .Noticeboards.AsNoTracking()
            .Where(row => row.EndedAt == null && row.State == BoardState.Open)
            .ToListAsync(cancellationToken);
        var count = 0;
        foreach (var row in open)
        {
            if ((await db.LostOn(row, cancellationToken)).Count == 0)
            {
                continue;
            }

            var by = await ByWhom(row, cancellationToken);
            await db.Write<NoticeboardRow>(
                by,
                async () =>
                {
                    var now = await There(row.Id).FirstOrDefaultAsync(cancellationToken);
                    if (now is not { State: BoardState.Open } || (await db.LostOn(now, cancellationToken)).Count == 0)
                    {
                        return new Refusal.NotThere("noticeboard");
                    }

                    now.State = BoardState.Paused;
                    count++;
                    return now;
                },
                cancellationToken
            );
        }

        return count;
    }

    /// <summary>Whether anything since an entry of the log can have taken a calendar from somebody, and which entry is the newest.</summary>
    public async Task<(bool CanHave, long Newest)> LossSince(long entry, CancellationToken cancellationToken)
    {
        Subject[] deciding = [.. Enum.GetValues<Subject>().Where(subject => subject.DecidesAccess())];
        var newest = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
        return (
            await db.Changes.AnyAsync(
                change => change.Sequence > entry && deciding.Contains(change.Subject),
                cancellationToken
            ),
            newest
        );
    }

    /// <summary>Adds to how often noticeboards were opened on which days.</summary>
    public Task<int> CountOpens(
        IReadOnlyDictionary<(NoticeboardId Id, LocalDate Day), int> counted,
        CancellationToken cancellationToken
    ) =>
        db.Tidy(
            async () =>
            {
                foreach (var ((id, day), count) in counted)
                {
                    var on = LocalDatePattern.Iso.Format(day);
                    await db.Database.ExecuteSqlAsync(
                        $"INSERT INTO NoticeboardOpens (NoticeboardId, Day, Opens) VALUES ({id.Value}, {on}, {count}) ON CONFLICT DO UPDATE SET Opens = Opens + excluded.Opens",
                        cancellationToken
                    );
                }

                return counted.Count;
            },
            cancellationToken
        );

    /// <summary>Who took a calendar of it from its keeper: by their step on it, also one that ended by its date, or with the calendar itself.</summary>
    private async Task<Act> ByWhom(NoticeboardRow row, CancellationToken cancellationToken)
    {
        var reader = await db.ReaderOf(row.Keeper, cancellationToken);
        var lost = row
            .Calendars.Select(id => new CalendarId(id))
            .Where(id => NoticeboardRules.WhyNotKeep([reader.RoleOn(id)]) is not null)
            .ToList();
        var inBin = await db
            .Calendars.Where(one => lost.Contains(one.Id) && one.DeletedAt != null)
            .Select(one => one.Id)
            .ToListAsync(cancellationToken);
        var change = await db
            .Changes.AsNoTracking()
            .Where(change =>
                change.CalendarId != null
                && (
                    (change.Subject == Subject.Calendar && inBin.Contains(change.CalendarId.Value))
                    || (
                        change.Subject == Subject.Grant
                        && change.Concerns == row.Keeper
                        && lost.Contains(change.CalendarId.Value)
                    )
                )
            )
            .OrderByDescending(change => change.Sequence)
            .FirstOrDefaultAsync(cancellationToken);
        return Act.By(change?.Actor ?? row.Keeper);
    }

    private IQueryable<NoticeboardRow> There(NoticeboardId id) =>
        db.Noticeboards.Where(row => row.Id == id && row.EndedAt == null);

    /// <summary>Something done to it by whoever may keep it: they coordinate all that is on it.</summary>
    private Task<Outcome<NoticeboardRow>> Kept(
        Act act,
        NoticeboardId id,
        Func<NoticeboardRow, Outcome<NoticeboardRow>> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<NoticeboardRow>(
            act,
            async () =>
            {
                if (
                    await There(id).FirstOrDefaultAsync(cancellationToken) is not { } row
                    || await WhyNotTouch(act.Actor, row, cancellationToken) is not null
                )
                {
                    return new Refusal.NotThere("noticeboard");
                }

                var reader = await db.ReaderOf(act.Actor, cancellationToken);
                return
                    NoticeboardRules.WhyNotKeep(row.Calendars.Select(one => reader.RoleOn(new CalendarId(one))))
                        is { } refusal
                    ? refusal
                    : change(row);
            },
            cancellationToken
        );

    /// <summary>Something that takes from the world and gives it nothing: also by who keeps it and lost a calendar of it.</summary>
    private Task<Outcome<NoticeboardRow>> Touched(
        Act act,
        NoticeboardId id,
        Func<NoticeboardRow, NoticeboardRow> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<NoticeboardRow>(
            act,
            async () =>
                await There(id).FirstOrDefaultAsync(cancellationToken) is { } row
                && await WhyNotTouch(act.Actor, row, cancellationToken) is null
                    ? change(row)
                    : new Refusal.NotThere("noticeboard"),
            cancellationToken
        );

    private async Task<Refusal?> WhyNotTouch(PersonId actor, NoticeboardRow row, CancellationToken cancellationToken) =>
        row.EndedAt is null
        && NoticeboardRules.MayTouch(
            row.Keeper == actor,
            row.Calendars.Select(id => new CalendarId(id)),
            await db.ReaderOf(actor, cancellationToken)
        )
            ? null
            : new Refusal.NotThere("noticeboard");

    private async Task<Refusal?> WhyNotMake(PersonId actor, GroupId group, CancellationToken cancellationToken)
    {
        if (!await db.Members.AnyAsync(row => row.GroupId == group && row.PersonId == actor, cancellationToken))
        {
            return new Refusal.NotThere("group");
        }

        // One that was ended counts as long as its address is held: nobody takes all names by making and ending.
        var held = db.Now - NoticeboardRules.OldAddressesLead;
        var kept = await db.Noticeboards.CountAsync(
            row => row.Keeper == actor && (row.EndedAt == null || row.EndedAt > held),
            cancellationToken
        );
        return kept < NoticeboardRules.Most
            ? null
            : new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant(
                    $"One person makes up to {NoticeboardRules.Most} noticeboards in half a year. Change one that nobody needs any more."
                )
            );
    }

    private async Task<Checked<string>> Address(
        NoticeboardId id,
        NoticeboardRow? known,
        NoticeboardWish wish,
        CancellationToken cancellationToken
    )
    {
        if (wish.Address is null)
        {
            return new(known is { Address: var drawn } && ShortAddress.IsDrawn(drawn) ? drawn : LinkSecret.New());
        }

        if (wish.Address == known?.Address)
        {
            return new(known.Address);
        }

        var check = ShortAddress.Check(wish.Address);
        return
            check.IsFit
            && (await db.TakenAmong(NoticeboardRow.AddressSpace, [check.Value], id.Value, cancellationToken)).Count > 0
            ? check.And(new FieldProblem("name", "This address is somebody's already. Choose another."))
            : check;
    }
}
