using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Binned;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Keeping;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Binned;

/// <summary>Brings back what waits in the bin, and has it go for good.</summary>
public sealed class BinCommands(
    MortarDb db,
    BinQueries bin,
    CalendarCommands calendars,
    GroupEndCommands groups,
    Sweep sweep,
    ZoneClock zones
)
{
    private const int Chunk = 500;

    /// <summary>How far around a booking its place is looked at for other times.</summary>
    private const int DaysAround = 14;

    /// <summary>Brings something back whole. Returns how many things are back.</summary>
    /// <param name="act">Who brings it back; can be undone as any act.</param>
    /// <param name="place">What.</param>
    /// <param name="start">Another start for one booking whose time is taken; <c>null</c> for its own.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public async Task<Outcome<int>> BringBack(
        Act act,
        BinPlace place,
        Instant? start,
        CancellationToken cancellationToken
    ) =>
        place.Kind switch
        {
            BinKind.Calendar => await calendars.BringBack(act, place.CalendarId, cancellationToken) switch
            {
                Outcome<CalendarRow>.Done => 1,
                var refused => refused.WhyNot,
            },
            BinKind.Group => await groups.BringBack(act, new GroupId(place.Id ?? default), cancellationToken) switch
            {
                Outcome<GroupRow>.Done => 1,
                var refused => refused.WhyNot,
            },
            BinKind.Events => await Events(act, place, start, cancellationToken),
            BinKind.Dates => await db.Write(act, () => Dates(act, place, cancellationToken), cancellationToken),
            BinKind.Proposal => await db.Write(act, () => Proposal(act, place, cancellationToken), cancellationToken),
            _ => throw new UnreachableException($"No way back for {place.Kind}."),
        };

    /// <summary>The nearest times at which a booking whose own time is taken can come back, before and after it.</summary>
    public async Task<Outcome<(OfferedTime? Earlier, OfferedTime? Later)>> Nearest(
        PersonId person,
        BinPlace place,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        var rows = await Waiting(db, reader, place)
            .AsNoTracking()
            .OrderBy(row => row.Id)
            .Take(2)
            .ToListAsync(cancellationToken);
        if (rows is not [var row])
        {
            return BinRules.NoMore;
        }

        var booking = row.ToCore();
        var home = await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == row.CalendarId, cancellationToken);
        var day = booking.Time.LocalStart.Date;
        var window = new Window(day.PlusDays(-DaysAround), day.PlusDays(DaysAround), zones.Zone(home.Zone));
        return Bookings.Nearest(
            booking,
            await db.EventsTouching([home.Id], window, cancellationToken),
            window,
            db.Now,
            zones
        );
    }

    /// <summary>
    /// Has something go for good before its time, with all that hangs on it and what was done to it. It is the same as if it
    /// had been there for thirty days already, so that a stop in the middle leaves nothing that could come back in part.
    /// </summary>
    /// <param name="act">Who.</param>
    /// <param name="place">What.</param>
    /// <param name="typed">What they typed to show that they mean it.</param>
    /// <param name="cancellationToken">Stops it; what has begun to go is gone all the same.</param>
    public async Task<Outcome<int>> Erase(Act act, BinPlace place, string? typed, CancellationToken cancellationToken)
    {
        if (await WhyNotErase(act, place, typed, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var count = await db.Tidy(() => SetOut(act, place, cancellationToken), cancellationToken);
        await sweep.Bin(cancellationToken);
        return count > 0 ? count : BinRules.NoMore;
    }

    /// <summary>Asked before the write lock: what is in the bin is looked through for it.</summary>
    private async Task<Refusal?> WhyNotErase(
        Act act,
        BinPlace place,
        string? typed,
        CancellationToken cancellationToken
    )
    {
        var entries = (await bin.Read(act.Actor, cancellationToken)).Where(one =>
            one.Place.Kind == place.Kind && one.Place.CalendarId == place.CalendarId && one.Place.Act == place.Act
        );
        if (entries.FirstOrDefault(one => place.Kind == BinKind.Events || one.Place.Id == place.Id) is not { } entry)
        {
            return BinRules.NoMore;
        }

        if (entry.Erased is not { } name)
        {
            return BinRules.NotToErase;
        }

        if (place is { Kind: BinKind.Events, Id: { } one })
        {
            var reader = await db.ReaderOf(act.Actor, cancellationToken);
            if (
                await Waiting(db, reader, place).Select(row => row.Title).SingleOrDefaultAsync(cancellationToken)
                is not { } title
            )
            {
                return BinRules.NoMore;
            }

            name = BinRules.Spoken([title], entry.Calendar!.Name);
        }

        return BinRules.Check(name, typed, "this to have it go for good").WhyNot;
    }

    /// <summary>Lets something have been in the bin for its time.</summary>
    private async Task<int> SetOut(Act act, BinPlace place, CancellationToken cancellationToken)
    {
        Instant? over = db.Now - BinRules.Kept - Duration.FromSeconds(1);
        switch (place.Kind)
        {
            case BinKind.Calendar:
                return await db
                    .Calendars.Where(row => row.Id == place.CalendarId && row.DeletedAt != null)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.DeletedAt, over), cancellationToken);
            case BinKind.Group:
                var group = new GroupId(place.Id ?? default);
                return await db
                    .Groups.Where(row => row.Id == group && row.DeletedAt != null)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.DeletedAt, over), cancellationToken);
            case BinKind.Events:
                return await Waiting(db, await db.ReaderOf(act.Actor, cancellationToken), place)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.DeletedAt, over), cancellationToken);
            case BinKind.Proposal:
                var proposal = new ProposalId(place.Id ?? default);
                return await db
                    .Proposals.Where(row => row.Id == proposal && row.WithdrawnAt != null)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.WithdrawnAt, over), cancellationToken);
            case BinKind.Dates:
                // What the dates were stands in the history of the series, which goes up to there.
                var id = place.Id ?? default;
                var last = await db
                    .Changes.Where(change => change.SubjectId == id && change.Set == place.Act)
                    .MaxAsync(change => (long?)change.Sequence, cancellationToken);
                return await db
                    .Changes.Where(change => change.SubjectId == id && change.Sequence <= last)
                    .ExecuteDeleteAsync(cancellationToken);
            default:
                throw new UnreachableException($"{place.Kind} cannot go.");
        }
    }

    /// <summary>The events of a place in the bin, as far as they are somebody's to bring back.</summary>
    private IQueryable<EventRow> Waiting(MortarDb things, Reader reader, BinPlace place)
    {
        var only = place.Id is { } id ? new EventId(id) : (EventId?)null;
        return bin.Deleted(things, reader)
            .Where(row =>
                row.CalendarId == place.CalendarId && row.DeletedIn == place.Act && (only == null || row.Id == only)
            );
    }

    private async Task<Outcome<int>> Events(
        Act act,
        BinPlace place,
        Instant? start,
        CancellationToken cancellationToken
    )
    {
        var count = await Waiting(db, await db.ReaderOf(act.Actor, cancellationToken), place)
            .CountAsync(cancellationToken);
        return count < Aside.Worth
            ? await db.Write(act, () => Events(db, act, place, start, cancellationToken), cancellationToken)
            : await db.WriteAside(
                act,
                place.CalendarId,
                aside => Events(aside, act, place, start, cancellationToken),
                cancellationToken
            );
    }

    /// <param name="things">The store, or one aside that holds the calendar's events.</param>
    /// <param name="act">Who.</param>
    /// <param name="place">Which.</param>
    /// <param name="start">Another start, for one alone.</param>
    /// <param name="cancellationToken">Stops it.</param>
    private async Task<Outcome<int>> Events(
        MortarDb things,
        Act act,
        BinPlace place,
        Instant? start,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(act.Actor, cancellationToken);
        var ids = await Waiting(things, reader, place).Select(row => row.Id).ToListAsync(cancellationToken);
        if (ids.Count == 0)
        {
            return BinRules.NoMore;
        }

        if (start is not null && ids.Count > 1)
        {
            return BinRules.OnlyOne;
        }

        if (await HaveCopies(things, place.CalendarId, ids, cancellationToken))
        {
            return BinRules.HasCopy;
        }

        var home = await db.Calendars.AsNoTracking().SingleAsync(row => row.Id == place.CalendarId, cancellationToken);
        var back = new List<EventRow>();
        foreach (var chunk in ids.Chunk(Chunk))
        {
            var rows = await things.Events.Where(row => chunk.Contains(row.Id)).ToListAsync(cancellationToken);
            foreach (var row in rows)
            {
                row.DeletedAt = null;
                if (start is { } at)
                {
                    if (row.ToCore() is not { Time: EventTime.Timed timed, Series: null } whole)
                    {
                        return BinRules.OnlyOne;
                    }

                    var local = at.InZone(zones.Zone(timed.Zone)).LocalDateTime;
                    row.Apply(whole with { Time = timed.StartingAt(local) }, zones);
                }
            }

            back.AddRange(rows);
            await things.SaveChangesAsync(cancellationToken);
            things.ChangeTracker.Clear();
        }

        return await db.WhyTaken(act.Actor, home, back, things, zones, cancellationToken) is { } taken
            ? taken
            : ids.Count;
    }

    private static Task<bool> HaveCopies(
        MortarDb things,
        CalendarId calendar,
        List<EventId> ids,
        CancellationToken cancellationToken
    ) =>
        things
            .Events.Where(row => row.CalendarId == calendar && row.DeletedAt == null)
            .AnyAsync(
                row => things.Events.Any(gone => ids.Contains(gone.Id) && gone.Uid == row.Uid),
                cancellationToken
            );

    private async Task<Outcome<int>> Dates(Act act, BinPlace place, CancellationToken cancellationToken)
    {
        var reader = await db.ReaderOf(act.Actor, cancellationToken);
        if (
            place is not { Act: { } set, Id: { } id }
            || await bin.Cut(reader, new EventId(id), set, cancellationToken) is not { } cut
            || TakenOut.Between(cut.Before, cut.After, zones) is not { } taken
        )
        {
            return BinRules.NoMore;
        }

        taken = taken with { From = cut.Still.From };
        if (taken.BringBack(cut.Before, cut.After, cut.Now, zones) is not { } whole)
        {
            return BinRules.NoMore;
        }

        var row = await db.Events.SingleAsync(one => one.Id == whole.Id, cancellationToken);
        row.Apply(whole, zones);
        var home = await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == row.CalendarId, cancellationToken);
        return await db.WhyTaken(act.Actor, home, [row], zones, cancellationToken) is { } refusal
            ? refusal
            : cut.Still.Dates.Count + (cut.Still.From is null ? 0 : 1);
    }

    private async Task<Outcome<int>> Proposal(Act act, BinPlace place, CancellationToken cancellationToken)
    {
        var id = new ProposalId(place.Id ?? default);
        var row = await db.Proposals.FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
        var role = (await db.StandingOf(act.Actor, row?.CalendarId ?? default, cancellationToken)).Role;
        if (
            row is not { State: ProposalState.Withdrawn, WithdrawnAt: { } at }
            || ProposalRules.ToSettle(role, act.Actor, row.ProposedBy) != Verdict.Granted
            || !BinRules.IsKept(at, db.Now)
        )
        {
            return BinRules.NoMore;
        }

        if (row.ToTimes().All(time => time.Start <= db.Now))
        {
            return BinRules.Over;
        }

        row.Reopen();
        return 1;
    }
}
