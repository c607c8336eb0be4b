using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Kinds;
using Mortar.Data.Store;

namespace Mortar.Data.History;

/// <summary>Reads out of the change log what was done, by acts, as far as somebody may know of it.</summary>
public sealed class ActHistory(MortarDb db, ZoneClock zones)
{
    /// <summary>How many acts are told at once.</summary>
    public const int PageSize = 40;

    /// <summary>How many deeds of one act are told.</summary>
    public const int MostDeeds = 5;

    /// <summary>How many rows are read at once.</summary>
    private const int ChunkSize = 200;

    /// <summary>How many chunks are looked through for a page, so that one question has an end.</summary>
    private const int MostChunks = 25;

    private sealed record Told(ChangeRow Change, Deed Deed);

    /// <summary>A page of a history; <see cref="Refusal"/> where it is not the reader's.</summary>
    public async Task<Outcome<HistoryPage>> Read(PersonId person, HistoryWish wish, CancellationToken cancellationToken)
    {
        if (await WhyNot(person, wish.Of, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var reader = await ReaderOf(person, wish.Of, cancellationToken);
        var sources = await Sources(reader, wish.Of, cancellationToken);
        var before = await Before(wish, sources, cancellationToken);
        var told = new List<Told>();
        var isOver = false;
        for (var chunks = 0; !isOver && chunks < MostChunks && Acts(told) <= PageSize; chunks++)
        {
            var rows = await Chunk(sources, wish, before, cancellationToken);
            var facts = await DeedFacts.Of(db, zones, reader, rows, cancellationToken);
            told.AddRange(
                from row in rows
                let deed = row.Kind().Deed(row, facts)
                where deed is not null
                select new Told(row, deed)
            );
            isOver = rows.Count < ChunkSize;
            before = isOver ? 0 : await Next(rows, sources, wish, cancellationToken);
        }

        var acts = told.GroupBy(one => (one.Change.Set, one.Change.Actor)).ToList();
        var page = acts.Take(PageSize).ToList();
        var hasMore = acts.Count > page.Count || !isOver;
        return new HistoryPage(
            await Past(reader, page, sources, cancellationToken),
            hasMore && page.Count > 0 ? page[^1].Key.Set : null
        );
    }

    private static int Acts(List<Told> told) =>
        told.Select(one => (one.Change.Set, one.Change.Actor)).Distinct().Count();

    private async Task<Refusal?> WhyNot(PersonId person, HistoryOfWhat of, CancellationToken cancellationToken)
    {
        switch (of)
        {
            case HistoryOfWhat.Calendar calendar:
                var role = (await db.StandingOf(person, calendar.Id, cancellationToken)).Role;
                return AccessRules.ToReadHistory(role).WhyNot("calendar", "View");
            case HistoryOfWhat.Group group:
                return await db.PlaceIn(group.Id, person).AnyAsync(cancellationToken)
                    ? null
                    : new Refusal.NotThere("group");
            default:
                return null;
        }
    }

    /// <summary>Who reads it: of a group at rest as they stood with its calendars, which are off the walls and in its past.</summary>
    private async Task<Reader> ReaderOf(PersonId person, HistoryOfWhat of, CancellationToken cancellationToken)
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        return
            of is HistoryOfWhat.Group group
            && await db.StandingsBeforeRest(person, group.Id, cancellationToken) is { Count: > 0 } resting
            ? reader with
            {
                Standings = reader.Standings.Concat(resting).ToDictionary(),
            }
            : reader;
    }

    /// <summary>The parts of the log a history is read from, each by an index of its own.</summary>
    private async Task<List<IQueryable<ChangeRow>>> Sources(
        Reader reader,
        HistoryOfWhat of,
        CancellationToken cancellationToken
    )
    {
        var all = db.Changes.AsNoTracking();
        switch (of)
        {
            case HistoryOfWhat.Calendar calendar:
                return [all.Where(change => change.CalendarId == calendar.Id)];
            case HistoryOfWhat.Group group:
                var calendars = await db
                    .Calendars.Where(row => row.GroupId == group.Id)
                    .Select(row => row.Id)
                    .ToListAsync(cancellationToken);
                return
                [
                    .. calendars
                        .Where(id => AccessRules.ToReadHistory(reader.RoleOn(id)) == Verdict.Granted)
                        .Select(id => all.Where(change => change.CalendarId == id)),
                    all.Where(change => change.GroupId == group.Id),
                ];
            default:
                return [all.Where(change => change.Actor == reader.Person)];
        }
    }

    /// <summary>The number of the log up to which is read.</summary>
    private static async Task<long> Before(
        HistoryWish wish,
        List<IQueryable<ChangeRow>> sources,
        CancellationToken cancellationToken
    )
    {
        if (wish.Before is not { } act)
        {
            return long.MaxValue;
        }

        var first = long.MaxValue;
        foreach (var source in sources)
        {
            first = Math.Min(
                first,
                await source
                    .Where(change => change.Set == act)
                    .MinAsync(change => (long?)change.Sequence, cancellationToken)
                    ?? long.MaxValue
            );
        }

        // An act that is gone, or was never the reader's to know: nothing comes before it.
        return first == long.MaxValue ? 0 : first;
    }

    private static async Task<List<ChangeRow>> Chunk(
        List<IQueryable<ChangeRow>> sources,
        HistoryWish wish,
        long before,
        CancellationToken cancellationToken
    )
    {
        var rows = new List<ChangeRow>();
        foreach (var source in sources)
        {
            rows.AddRange(
                await Wished(source, wish)
                    .Where(change => change.Sequence < before)
                    .OrderByDescending(change => change.Sequence)
                    .Take(ChunkSize)
                    .ToListAsync(cancellationToken)
            );
        }

        return [.. rows.OrderByDescending(change => change.Sequence).Take(ChunkSize)];
    }

    private static IQueryable<ChangeRow> Wished(IQueryable<ChangeRow> changes, HistoryWish wish)
    {
        if (wish.Actor is { } actor)
        {
            changes = changes.Where(change => change.Actor == actor);
        }

        if (wish.Topic is { } topic)
        {
            var subjects = HistoryTopics.Subjects(topic);
            changes = changes.Where(change => subjects.Contains(change.Subject));
        }

        if (wish.Event is { Value: var id })
        {
            changes = changes.Where(change => change.SubjectId == id);
        }

        if (wish.From is { } from)
        {
            changes = changes.Where(change => change.At >= from);
        }

        if (wish.Until is { } until)
        {
            changes = changes.Where(change => change.At < until);
        }

        return changes;
    }

    /// <summary>Where the next chunk begins: after one that a single act fills, where that act does.</summary>
    private static async Task<long> Next(
        List<ChangeRow> rows,
        List<IQueryable<ChangeRow>> sources,
        HistoryWish wish,
        CancellationToken cancellationToken
    )
    {
        var last = rows[^1];
        if (rows.Exists(row => row.Set != last.Set))
        {
            return last.Sequence;
        }

        var next = 0L;
        foreach (var source in sources)
        {
            next = Math.Max(
                next,
                await Wished(source, wish)
                    .Where(change => change.Sequence < last.Sequence && change.Set != last.Set)
                    .MaxAsync(change => (long?)change.Sequence, cancellationToken)
                    ?? 0
            );
        }

        return next + 1;
    }

    private async Task<List<PastAct>> Past(
        Reader reader,
        List<IGrouping<(ChangeSetId Set, PersonId Actor), Told>> page,
        List<IQueryable<ChangeRow>> sources,
        CancellationToken cancellationToken
    )
    {
        var sets = page.ConvertAll(one => one.Key.Set);
        var counts = new Dictionary<(ChangeSetId, PersonId), int>();
        foreach (var source in sources)
        {
            foreach (
                var one in await source
                    .Where(change => sets.Contains(change.Set))
                    .GroupBy(change => new { change.Set, change.Actor })
                    .Select(same => new
                    {
                        same.Key.Set,
                        same.Key.Actor,
                        Count = same.Select(change => change.SubjectId).Distinct().Count(),
                    })
                    .ToListAsync(cancellationToken)
            )
            {
                counts[(one.Set, one.Actor)] = counts.GetValueOrDefault((one.Set, one.Actor)) + one.Count;
            }
        }

        var undone = await db.UndoneAmong(sets, cancellationToken);
        var actors = page.Select(one => one.Key.Actor).ToHashSet();
        var names = await db
            .People.Where(row => actors.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        // What is undone has to be there: nothing of a group that is at rest is.
        var now = await db.ReaderOf(reader.Person, cancellationToken);
        return page.ConvertAll(act =>
        {
            // What is told of one thing several times is told as it was first and as it is left.
            var things = act.GroupBy(one => one.Change.SubjectId).ToList();
            var first = act.First().Change;
            var calendars = act.Select(one => one.Change.CalendarId).Distinct().ToList();
            return new PastAct(
                act.Key.Set,
                first.At,
                act.Key.Actor,
                names.GetValueOrDefault(act.Key.Actor, "somebody"),
                // Of an act that is read in part, the rest counts as well where all that was read is told.
                Math.Max(things.Count, IsAllTold(act) ? counts.GetValueOrDefault(act.Key) : 0),
                [.. act.Select(one => one.Deed).Reverse().Take(MostDeeds)],
                HistoryTopics.Of(first.Subject),
                calendars is [var only] ? only : null,
                first.Undoes is not null,
                undone.Contains(act.Key.Set) ? ActState.Undone : ActState.Done,
                act.All(one => MayUndo(now, one.Change))
            );
        });

        bool IsAllTold(IGrouping<(ChangeSetId, PersonId), Told> act) =>
            act.All(one =>
                one.Change.Subject == Subject.Event && reader.RoleOn(one.Change.CalendarId!.Value) >= Role.Edit
            );
    }

    private static bool MayUndo(Reader reader, ChangeRow change) =>
        (change.Actor == reader.Person || ChangeKind.CanBeUndoneByOthers(change))
        && change.Kind().IsKnownTo(change.Actor, change)
        && (
            change.CalendarId is not { } calendar
            || UndoRules.InCalendar(change.Subject, reader.RoleOn(calendar)).Verdict == Verdict.Granted
        );
}

/// <summary>What became of acts.</summary>
public static class UndoneQueries
{
    /// <summary>An undo of an undo of an undo …: each is asked for, and nobody goes there and back more often.</summary>
    private const int MostDepth = 100;

    /// <summary>Those of some acts that were undone, by an act that was not undone itself.</summary>
    public static async Task<IReadOnlySet<ChangeSetId>> UndoneAmong(
        this MortarDb db,
        IReadOnlyCollection<ChangeSetId> acts,
        CancellationToken cancellationToken
    )
    {
        var by = new Dictionary<ChangeSetId, List<ChangeSetId>>();
        var asked = acts.Select(act => (ChangeSetId?)act).ToList();
        for (var depth = 0; depth < MostDepth && asked.Count > 0; depth++)
        {
            var found = await db
                .Changes.Where(change => asked.Contains(change.Undoes))
                .Select(change => new { Of = change.Undoes!.Value, By = change.Set })
                .Distinct()
                .ToListAsync(cancellationToken);
            foreach (var one in found.GroupBy(one => one.Of))
            {
                by[one.Key] = [.. one.Select(each => each.By)];
            }

            asked =
            [
                .. found.Select(one => one.By).Where(act => !by.ContainsKey(act)).Select(act => (ChangeSetId?)act),
            ];
        }

        var known = new Dictionary<ChangeSetId, bool>();
        return acts.Where(IsUndone).ToHashSet();

        bool IsUndone(ChangeSetId act)
        {
            if (!known.TryGetValue(act, out var isUndone))
            {
                // Names are the client's: acts that claim to undo each other in a ring leave each other as they are.
                known[act] = false;
                isUndone = by.TryGetValue(act, out var undoing) && undoing.Exists(one => !IsUndone(one));
                known[act] = isUndone;
            }

            return isUndone;
        }
    }
}
