using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Kinds;
using Mortar.Data.Store;

namespace Mortar.Data.Undo;

/// <summary>Takes an act back by reading the log: every thing it touched returns to its state before.</summary>
public sealed class UndoCommands(MortarDb db, ZoneClock zones)
{
    private const int Chunk = 500;

    /// <summary>
    /// Undoes what somebody did: oneself, or another one where what they did can be undone by others and one sees it. The
    /// undoing is itself a set and can be undone.
    /// </summary>
    public async Task<Outcome<Undone>> Undo(
        Act act,
        ChangeSetId set,
        UndoWish wish,
        CancellationToken cancellationToken
    )
    {
        act = act with { Undoes = set };
        try
        {
            return await ManyIn(act.Actor, set, wish, cancellationToken) is { } calendar
                ? await db.WriteAside(
                    act,
                    calendar,
                    aside => Undo(aside, act, set, wish, cancellationToken),
                    cancellationToken
                )
                : await db.Write(act, () => Undo(db, act, set, wish, cancellationToken), cancellationToken);
        }
        catch (AddressTakenException)
        {
            return new Refusal.AgainstRule(
                "already-there",
                "Its address is somebody else's by now. Give yours another one instead of undoing."
            );
        }
        catch (Exception taken)
            when ((taken as SqliteException ?? taken.InnerException) is SqliteException { SqliteErrorCode: 19 })
        {
            // A rule of the store (a UID once, one waiting invitation): something made since then has the place.
            return new Refusal.AgainstRule(
                "already-there",
                "Something made since then stands in its place. Delete that first, then undo again."
            );
        }
    }

    /// <summary>Brings things back to states that are decided under the write lock, in one act that can itself be undone.</summary>
    /// <param name="act">Whose.</param>
    /// <param name="aside">The calendar whose events all of them are, where they are so many that they are written aside.</param>
    /// <param name="decide">What goes back to which state, as it is found there.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    internal Task<Outcome<Undone>> BringTo(
        Act act,
        CalendarId? aside,
        Func<Task<Outcome<UndoPlan.Possible>>> decide,
        CancellationToken cancellationToken
    )
    {
        return aside is { } calendar
            ? db.WriteAside(act, calendar, Make, cancellationToken)
            : db.Write(act, () => Make(db), cancellationToken);

        async Task<Outcome<Undone>> Make(MortarDb things) =>
            await decide() switch
            {
                Outcome<UndoPlan.Possible>.Done plan when plan.Value.Returns.Count == 0 => new Refusal.AgainstRule(
                    "as-it-was",
                    "Nothing has changed since then: everything is as it was."
                ),
                Outcome<UndoPlan.Possible>.Done plan => await Return(
                    things,
                    act.Actor,
                    plan.Value,
                    await Standings(act.Actor, cancellationToken),
                    cancellationToken
                ),
                var refused => refused.WhyNot,
            };
    }

    /// <summary>The calendar whose events were changed in a set, where they are so many that they are written aside; <c>null</c> where they are few, or not events of one calendar alone.</summary>
    private async Task<CalendarId?> ManyIn(
        PersonId actor,
        ChangeSetId set,
        UndoWish wish,
        CancellationToken cancellationToken
    )
    {
        var isOwn = await db.Changes.AnyAsync(change => change.Set == set && change.Actor == actor, cancellationToken);
        var touched = await db
            .Changes.Where(change =>
                change.Set == set
                && (!isOwn || change.Actor == actor)
                && (wish.In == null || change.CalendarId == wish.In)
            )
            .GroupBy(change => new { change.Subject, change.CalendarId })
            .Select(all => new { all.Key, Count = all.Count() })
            .ToListAsync(cancellationToken);
        return
            touched is [{ Key.Subject: Subject.Event, Count: >= Aside.Worth } one]
            && !await HaveCrossed(set, one.Key.CalendarId, cancellationToken)
            ? one.Key.CalendarId
            : null;
    }

    /// <summary>Whether a set moved events from one calendar to another.</summary>
    private Task<bool> HaveCrossed(ChangeSetId set, CalendarId? calendar, CancellationToken cancellationToken) =>
        db
            .Changes.Where(change => change.Set == set && change.Before != null)
            .AnyAsync(
                change =>
                    db.Changes.Any(before => before.SubjectId == change.SubjectId && before.CalendarId != calendar),
                cancellationToken
            );

    /// <param name="things">Where the things are found and brought back: the store, or one aside that holds the events.</param>
    /// <param name="act">Who undoes.</param>
    /// <param name="set">What they undo.</param>
    /// <param name="wish">How much of it.</param>
    /// <param name="cancellationToken">Stops it.</param>
    private async Task<Outcome<Undone>> Undo(
        MortarDb things,
        Act act,
        ChangeSetId set,
        UndoWish wish,
        CancellationToken cancellationToken
    )
    {
        var changes = await Known(act.Actor, set, wish, cancellationToken);
        var standings = await Standings(act.Actor, cancellationToken);

        // Access first: whoever no longer sees a calendar is not told either that something in it has changed.
        return await WhyNot(act.Actor, changes, standings, cancellationToken)
            ?? await Plan(changes, wish, cancellationToken) switch
            {
                UndoPlan.Possible plan => await Return(things, act.Actor, plan, standings, cancellationToken),
                UndoPlan.Refused refused => new Refusal.AgainstRule(refused.Type, refused.Sentence),
                _ => throw new UnreachableException(),
            };
    }

    /// <summary>
    /// The changes of an act as far as it is the actor's to undo, in order. A set is named by the client: what somebody else
    /// did under the same name is theirs.
    /// </summary>
    private async Task<List<ChangeRow>> Known(
        PersonId actor,
        ChangeSetId set,
        UndoWish wish,
        CancellationToken cancellationToken
    )
    {
        var all = await db
            .Changes.AsNoTracking()
            .Where(change => change.Set == set && (wish.In == null || change.CalendarId == wish.In))
            .OrderBy(change => change.Sequence)
            .ToListAsync(cancellationToken);
        // Where a group comes back, its calendars come with it (EndedGroups).
        all.RemoveAll(CalendarKind.FollowsItsGroup);
        var own = all.FindAll(change => change.Actor == actor);
        if (own.Count > 0)
        {
            return own.Exists(change => !change.Kind().IsKnownTo(actor, change)) ? [] : own;
        }

        var facts = await DeedFacts.Of(db, zones, await db.ReaderOf(actor, cancellationToken), all, cancellationToken);
        return all.FindAll(change =>
            ChangeKind.CanBeUndoneByOthers(change) && change.Kind().Deed(change, facts) is not null
        );
    }

    private async Task<UndoPlan> Plan(List<ChangeRow> changes, UndoWish wish, CancellationToken cancellationToken)
    {
        var touched = changes.Select(change => change.SubjectId).ToHashSet();
        var latest = await db
            .Changes.Where(change => touched.Contains(change.SubjectId))
            .GroupBy(change => change.SubjectId)
            .Select(all => new { all.Key, Last = all.Max(change => change.Sequence) })
            .ToDictionaryAsync(all => all.Key, all => all.Last, cancellationToken);
        return UndoPlan.Plan([.. changes.Select(change => change.ToCore())], latest, wish.Reach);
    }

    /// <summary>Access first, so that whoever no longer sees a calendar is not told either that something in it has changed. Each thing is looked at by itself in <see cref="ReturnOne"/>.</summary>
    private async Task<Refusal?> WhyNot(
        PersonId actor,
        List<ChangeRow> changes,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        CancellationToken cancellationToken
    )
    {
        if (changes.Count == 0)
        {
            return new Refusal.NotThere("change");
        }

        var touched = changes
            .Where(change => change.Subject == Subject.Event)
            .Select(change => new EventId(change.SubjectId))
            .ToList();
        var given = (
            await db.EventsGivenTo(actor).Where(id => touched.Contains(id)).ToListAsync(cancellationToken)
        ).ConvertAll(id => id.Value);
        return changes
            .Where(change => change.CalendarId is not null && !given.Contains(change.SubjectId))
            .Select(change =>
                UndoRules.InCalendar(
                    change.Subject,
                    standings.GetValueOrDefault(change.CalendarId!.Value, Standing.Outside).Role
                )
            )
            .Select(one => one.Verdict.WhyNot("change", RoleSentence.Name(one.Needs)))
            .FirstOrDefault(refusal => refusal is not null);
    }

    /// <summary>Where somebody stands now; also with calendars in the bin, whose deletion may be what is to be undone.</summary>
    private async Task<IReadOnlyDictionary<CalendarId, Standing>> Standings(
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var all = new Dictionary<CalendarId, Standing>(await db.StandingsInBin(person, cancellationToken));
        foreach (var (calendar, standing) in await db.StandingsOf(person, cancellationToken))
        {
            all[calendar] = standing;
        }

        return all;
    }

    private async Task<Outcome<Undone>> Return(
        MortarDb things,
        PersonId actor,
        UndoPlan.Possible plan,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        CancellationToken cancellationToken
    )
    {
        var (returns, left) = (plan.Returns, plan.Left);
        var booked = new List<EventRow>();
        var vanishing = returns
            .Where(one => one is { Subject: Subject.Event, To: null })
            .Select(one => new EventId(one.SubjectId))
            .ToHashSet();
        var undoing = new Undoing(db, zones, actor, standings, vanishing);
        // Events last: whom one may be given again depends on who belongs to its group once the rest is back.
        foreach (
            var chunk in returns
                .ToLookup(one => one.Subject == Subject.Event)
                .OrderBy(are => are.Key)
                .SelectMany(are => are.Chunk(Chunk))
        )
        {
            var events = chunk
                .Where(one => one.Subject == Subject.Event)
                .Select(one => new EventId(one.SubjectId))
                .ToList();
            await things.Events.Where(row => events.Contains(row.Id)).LoadAsync(cancellationToken);
            foreach (var one in chunk)
            {
                switch (await ReturnOne(things, undoing, one, cancellationToken))
                {
                    case Outcome<bool>.Not refused:
                        return refused.Why;
                    case Outcome<bool>.Done { Value: false }:
                        left++;
                        break;
                }
            }

            booked.AddRange(things.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity));
            await things.SaveChangesAsync(cancellationToken);
            things.ChangeTracker.Clear();
        }

        foreach (var alike in returns.GroupBy(one => one.Subject, one => one.SubjectId))
        {
            if (await ChangeKinds.Of(alike.Key).WhyNotLeft(db, [.. alike], cancellationToken) is { } alone)
            {
                return alone;
            }
        }

        foreach (var inOne in booked.GroupBy(row => row.CalendarId))
        {
            var place = await db.Calendars.AsNoTracking().SingleAsync(row => row.Id == inOne.Key, cancellationToken);
            if (await db.WhyTaken(actor, place, [.. inOne], things, zones, cancellationToken) is { } taken)
            {
                return taken;
            }
        }

        var undone = new Undone(returns.Count + plan.Left - left, left);
        return undone.Returned == 0 ? new Refusal.AgainstRule("nothing-fits", UndoPlan.NothingFits) : undone;
    }

    /// <summary>Brings one thing back; <c>false</c> where nothing of it still fits.</summary>
    private async Task<Outcome<bool>> ReturnOne(
        MortarDb things,
        Undoing undoing,
        UndoPlan.Return one,
        CancellationToken cancellationToken
    )
    {
        var kind = ChangeKinds.Of(one.Subject);
        if (await kind.Find(things, one.SubjectId, cancellationToken) is not { } row)
        {
            return new Refusal.NotThere("change");
        }

        var back = one is { From: { } from, To: { } to } ? WhatFits.Of(kind, StoredText.Of(row), to, from) : one.To;
        if (one.From is not null && back is null)
        {
            return false;
        }

        var then = back is { } state ? (IRecorded)StoredText.Read(state, kind.Row) : null;
        if (await kind.WhyNotReturn(undoing, row, then, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (then is null)
        {
            row.Vanish(db.Now);
            return true;
        }

        var (mailed, before) = (kind.Mailed(row), StoredText.Of(row));
        BringBack(things, row, then);
        await kind.KeepEnded(undoing, row, before, cancellationToken);
        if (one.From is not null)
        {
            kind.KeepTrue(row, zones);
        }

        if (mailed is null)
        {
            return true;
        }

        kind.KeepMailed(row, mailed);
        return StoredText.Of(row) == before
            ? new Refusal.AgainstRule(
                "sent",
                "What went out cannot be taken back, and a link that ended stays ended. Withdraw or end it instead."
            )
            : true;
    }

    private static void BringBack(MortarDb things, IRecorded row, IRecorded then)
    {
        var version = row.Version;
        things.Entry(row).CurrentValues.SetValues(then);
        row.Version = version;
    }
}
