using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Devices;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Server.Features.Devices;

/// <summary>What a program has to be told to know a calendar as it is (RFC 6578, 3.4).</summary>
/// <param name="There">What is new or another.</param>
/// <param name="Gone">The names of what is not there any more.</param>
/// <param name="Token">Up to when it knows the calendar then.</param>
/// <param name="IsCut">Whether there is more, which is told to who asks with that.</param>
internal sealed record DavDifference(
    IReadOnlyList<DavObject> There,
    IReadOnlyList<string> Gone,
    SyncToken Token,
    bool IsCut
);

/// <summary>Tells what became of a calendar since a program read it, which costs what became of it and not what is there.</summary>
internal sealed class DavSync(MortarDb db, DavObjects objects, DavKept kept, DavKnownBusy known)
{
    /// <summary>The most that is told at once.</summary>
    public const int Most = 10_000;

    /// <summary>What stands for a calendar as it is now.</summary>
    public async Task<SyncToken> Token(DavCalendar calendar, CancellationToken cancellationToken)
    {
        var (log, mark, own, names) = await kept.Newest(db, calendar.Reader, calendar.Id, cancellationToken);
        return new SyncToken(
            log,
            mark,
            own,
            names,
            calendar.Role,
            objects.Today(calendar),
            await Busy(calendar, log, cancellationToken),
            Through: null
        );
    }

    /// <summary>What is to be told.</summary>
    /// <param name="calendar">Of which.</param>
    /// <param name="since">Up to when the program knows it; <c>null</c> for not at all.</param>
    /// <param name="most">The most that it takes at once.</param>
    /// <param name="cancellationToken">Stops it.</param>
    /// <returns><c>null</c> where that does not hold any more, and it has to begin anew.</returns>
    public async Task<DavDifference?> Since(
        DavCalendar calendar,
        SyncToken? since,
        int most,
        CancellationToken cancellationToken
    )
    {
        var now = await Token(calendar, cancellationToken);
        if (since is null)
        {
            return await Begin(calendar, now, Guid.Empty, most, [], [], cancellationToken);
        }

        if (
            !since.HoldsAt(calendar.Role, now.Day)
            || since.Log > now.Log
            || since.Own > now.Own
            || since.Names > now.Names
            || since.Busy != now.Busy
            || since.Mark != (since.Log == now.Log ? now.Mark : await db.MarkOf(since.Log, cancellationToken))
        )
        {
            return null;
        }

        var (there, gone, token, isCut) = await Changes(calendar, since, now, most, cancellationToken);
        return since.Through is { } through && !isCut
            ? await Begin(calendar, token with { Through = through }, through, most, there, gone, cancellationToken)
            : new DavDifference(there, gone, token, isCut);
    }

    /// <summary>Tells the events after one, in the order of their ids, so that a first reading that was cut short goes on there.</summary>
    private async Task<DavDifference> Begin(
        DavCalendar calendar,
        SyncToken now,
        Guid after,
        int most,
        IReadOnlyList<DavObject> there,
        IReadOnlyList<string> gone,
        CancellationToken cancellationToken
    )
    {
        var left = (
            await db
                .Events.Where(row => row.CalendarId == calendar.Id && row.DeletedAt == null)
                .Select(row => row.Id)
                .ToListAsync(cancellationToken)
        )
            .Select(id => id.Value)
            .Where(id => id.CompareTo(after) > 0)
            .Order()
            .ToList();
        var page = left.Take(Math.Max(1, most - there.Count - gone.Count)).ToList();
        var read = await objects.Of(calendar, page.Select(id => new EventId(id)).ToHashSet(), cancellationToken);
        var isCut = page.Count < left.Count;
        return new DavDifference(
            [
                .. there,
                .. read.Where(one => there.All(told => told.Name != one.Name)),
                .. isCut ? [] : await objects.Busy(calendar, cancellationToken),
            ],
            gone,
            now with
            {
                Through = isCut ? page[^1] : null,
            },
            isCut
        );
    }

    private async Task<(
        IReadOnlyList<DavObject> There,
        IReadOnlyList<string> Gone,
        SyncToken Token,
        bool IsCut
    )> Changes(DavCalendar calendar, SyncToken since, SyncToken now, int most, CancellationToken cancellationToken)
    {
        var changes = since.Log == now.Log ? [] : await db.ChangesSince(calendar.Id, since.Log, cancellationToken);
        HashSet<EventId> others =
            since.Own == now.Own
                ? []
                : (await db.AlarmsSince(calendar.Reader, calendar.Id, since.Own, cancellationToken)).ToHashSet();
        if (since.Names != now.Names)
        {
            others.UnionWith(await Naming(calendar, since.Names, cancellationToken));
        }

        if (since.Through is { } through)
        {
            // What comes after that is read with the rest.
            changes = [.. changes.Where(change => change.Id.Value.CompareTo(through) <= 0)];
            others = [.. others.Where(id => id.Value.CompareTo(through) <= 0)];
        }

        var (there, gone) = (new List<DavObject>(), new List<string>());
        var ids = changes.Select(change => change.Id).Concat(others).ToHashSet();
        var read = (await objects.Of(calendar, ids, cancellationToken)).ToDictionary(one => one.Row!.Id);
        var names = await objects.NamesOf(calendar, ids, cancellationToken);
        foreach (var change in changes)
        {
            var before = ChangeRow.EventOf(change.Before) is { } was && was.CalendarId == calendar.Id ? was : null;
            if (read.GetValueOrDefault(change.Id) is { } one)
            {
                if (
                    change.IsAnswered
                    || others.Contains(change.Id)
                    || DeviceTelling.IsOther(calendar.Role, calendar.Reader, before, one.Row!.ToCore())
                    || before is null
                    || one.IsWhole
                )
                {
                    there.Add(one);
                }
            }
            else if (before is not null && DeviceTelling.Told(calendar.Role, calendar.Reader, before).Event is not null)
            {
                gone.Add(names[change.Id]);
            }

            if (there.Count + gone.Count >= most && change != changes[^1])
            {
                return (
                    there,
                    gone,
                    since with
                    {
                        Log = change.Sequence,
                        Mark = await db.MarkOf(change.Sequence, cancellationToken) ?? string.Empty,
                    },
                    true
                );
            }
        }

        there.AddRange(
            others
                .Where(id => read.ContainsKey(id) && there.TrueForAll(one => one.Row!.Id != id))
                .Select(id => read[id])
        );
        return (there, gone, now with { Through = since.Through }, false);
    }

    /// <summary>The events on which somebody is told who was called otherwise since then.</summary>
    private async Task<IEnumerable<EventId>> Naming(
        DavCalendar calendar,
        long names,
        CancellationToken cancellationToken
    )
    {
        var people = await db.RenamedSince(names, cancellationToken);
        var ids = await db.PossiblyNaming(people, calendar.Id, cancellationToken);
        return (await objects.Of(calendar, ids.ToHashSet(), cancellationToken))
            .Where(one => one.Object.Event.Named.Append(one.Object.Event.AddedBy).Any(people.Contains))
            .Select(one => one.Row!.Id);
    }

    private async Task<string> Busy(DavCalendar calendar, long log, CancellationToken cancellationToken) =>
        calendar.Role is Role.None or >= Role.Edit
            ? string.Empty
            : await known.Get(
                (calendar.Id, calendar.Reader, calendar.Role, objects.Today(calendar), calendar.Zone.Id, log),
                async () =>
                {
                    var names = (await objects.Busy(calendar, cancellationToken)).Select(one => one.Name).ToList();
                    return names.Count == 0 ? string.Empty : CalendarObject.TagOf(string.Concat(names)).Trim('"')[..16];
                }
            );
}

/// <summary>What stands for the stretches that are only told as taken: working it out takes a year of a calendar, and programs ask each minute.</summary>
internal sealed class DavKnownBusy
{
    private const int Most = 5_000;

    private readonly ConcurrentDictionary<
        (CalendarId, PersonId, Role, LocalDate, string Zone, long Log),
        string
    > known = new();

    public async Task<string> Get((CalendarId, PersonId, Role, LocalDate, string, long) of, Func<Task<string>> made)
    {
        if (known.TryGetValue(of, out var there))
        {
            return there;
        }

        if (known.Count >= Most)
        {
            known.Clear();
        }

        return known[of] = await made();
    }
}
