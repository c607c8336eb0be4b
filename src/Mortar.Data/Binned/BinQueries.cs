using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Binned;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Binned;

/// <summary>Reads what waits in the bin for somebody: what they may bring back, and nothing else.</summary>
public sealed class BinQueries(MortarDb db, ZoneClock zones)
{
    /// <summary>The most entries that are told at once, the latest first.</summary>
    public const int Most = 200;

    /// <summary>How many things of an entry are named at once.</summary>
    public const int Named = 5;

    /// <summary>How many changes of series are looked through for dates that were taken out.</summary>
    private const int MostLookedThrough = 1_000;

    private sealed record Home(CalendarRow Row, string GroupName);

    /// <summary>What waits for somebody, the latest first.</summary>
    public async Task<IReadOnlyList<BinEntry>> Read(PersonId person, CancellationToken cancellationToken)
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        var found = new List<BinEntry>();
        found.AddRange(await Groups(person, cancellationToken));
        found.AddRange(await Calendars(person, cancellationToken));
        found.AddRange(await Events(reader, cancellationToken));
        found.AddRange(await Dates(reader, only: null, cancellationToken));
        found.AddRange(await Proposals(reader, cancellationToken));
        return [.. found.OrderByDescending(one => one.DeletedAt).Take(Most)];
    }

    /// <summary>All that one act deleted of a calendar, as far as it is somebody's to bring back.</summary>
    public async Task<IReadOnlyList<BinnedThing>> Things(
        PersonId person,
        CalendarId calendar,
        ChangeSetId act,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        var rows = await Things(
                Deleted(db, reader).Where(row => row.CalendarId == calendar && row.DeletedIn == act),
                Most
            )
            .ToListAsync(cancellationToken);
        return rows.ConvertAll(Thing);
    }

    /// <summary>The events in the bin that are somebody's to bring back.</summary>
    /// <param name="things">The store that holds them, or one aside.</param>
    /// <param name="reader">Whose.</param>
    internal IQueryable<EventRow> Deleted(MortarDb things, Reader reader)
    {
        var (all, own) = Changed(reader);
        var since = db.Now - BinRules.Kept;
        return things.Events.Where(row =>
            row.DeletedAt > since
            && (all.Contains(row.CalendarId) || (own.Contains(row.CalendarId) && row.AddedBy == reader.Person))
        );
    }

    /// <summary>The dates that one act took out of a series; <c>null</c> where none of them is still out, or theirs to bring back.</summary>
    internal async Task<SeriesCut?> Cut(
        Reader reader,
        EventId id,
        ChangeSetId act,
        CancellationToken cancellationToken
    ) => (await Cuts(reader, id, cancellationToken)).FirstOrDefault(cut => cut.Act == act);

    /// <summary>The calendars of which somebody may bring back everything, and those of which they may bring back what they added.</summary>
    private static (List<CalendarId> All, List<CalendarId> Own) Changed(Reader reader)
    {
        var all = Calendars(reader, PersonId.Nobody);
        return (all, [.. Calendars(reader, reader.Person).Except(all)]);
    }

    private static List<CalendarId> Calendars(Reader reader, PersonId addedBy) =>
        [
            .. reader
                .Standings.Where(one => AccessRules.ToChange(one.Value.Role, reader.Person, addedBy) == Verdict.Granted)
                .Select(one => one.Key),
        ];

    private async Task<List<BinEntry>> Groups(PersonId person, CancellationToken cancellationToken)
    {
        var since = db.Now - BinRules.Kept;
        var rows = await (
            from row in db.Groups.AsNoTracking()
            where row.DeletedAt > since
            join member in db.Members on row.Id equals member.GroupId
            where member.PersonId == person && member.Coordinates
            select new { Group = row, Count = db.Calendars.Count(one => one.GroupId == row.Id && one.WithGroup) }
        ).ToListAsync(cancellationToken);
        var who = await LastActors(rows.ConvertAll(one => one.Group.Id.Value), cancellationToken);
        return rows.ConvertAll(one => new BinEntry(
            new BinPlace(BinKind.Group, default, Id: one.Group.Id.Value),
            Calendar: null,
            one.Group.Name,
            one.Count,
            [],
            Out: null,
            who.GetValueOrDefault(one.Group.Id.Value, string.Empty),
            one.Group.DeletedAt!.Value,
            one.Group.Name
        ));
    }

    private async Task<List<BinEntry>> Calendars(PersonId person, CancellationToken cancellationToken)
    {
        var standings = await db.StandingsInBin(person, cancellationToken);
        var since = db.Now - BinRules.Kept;
        var ids = standings
            .Where(one => AccessRules.ToCoordinate(one.Value.Role) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        var homes = await Homes(row => row.DeletedAt > since && ids.Contains(row.Id), cancellationToken);
        var who = await LastActors([.. homes.Keys.Select(id => id.Value)], cancellationToken);
        var events = await db
            .Events.Where(one => ids.Contains(one.CalendarId) && one.DeletedAt == null)
            .GroupBy(one => one.CalendarId)
            .Select(same => new { same.Key, Count = same.Count() })
            .ToDictionaryAsync(one => one.Key, one => one.Count, cancellationToken);
        return
        [
            .. homes.Values.Select(home => new BinEntry(
                new BinPlace(BinKind.Calendar, home.Row.Id),
                home.Row,
                home.GroupName,
                events.GetValueOrDefault(home.Row.Id),
                [],
                Out: null,
                who.GetValueOrDefault(home.Row.Id.Value, string.Empty),
                home.Row.DeletedAt!.Value,
                home.Row.Name
            )),
        ];
    }

    private async Task<List<BinEntry>> Events(Reader reader, CancellationToken cancellationToken)
    {
        var acts = await Deleted(db, reader)
            .GroupBy(row => new { row.CalendarId, row.DeletedIn })
            .Select(same => new
            {
                same.Key.CalendarId,
                same.Key.DeletedIn,
                Count = same.Count(),
                At = same.Max(row => row.DeletedAt),
            })
            .OrderByDescending(one => one.At)
            .Take(Most)
            .ToListAsync(cancellationToken);
        var few = acts.Where(one => one.Count <= Named).Select(one => one.DeletedIn).ToList();
        var rows = await Things(Deleted(db, reader).Where(row => few.Contains(row.DeletedIn)), Most * Named)
            .ToListAsync(cancellationToken);
        foreach (var many in acts.Where(one => one.Count > Named))
        {
            rows.AddRange(
                await Things(
                        Deleted(db, reader)
                            .Where(row => row.CalendarId == many.CalendarId && row.DeletedIn == many.DeletedIn),
                        Named
                    )
                    .ToListAsync(cancellationToken)
            );
        }

        var named = rows.ToLookup(row => (row.CalendarId, row.DeletedIn));
        var ids = acts.Select(one => one.CalendarId).ToHashSet();
        var homes = await Homes(row => ids.Contains(row.Id), cancellationToken);
        var who = await Actors([.. acts.Select(one => one.DeletedIn).OfType<ChangeSetId>()], cancellationToken);
        return
        [
            .. from one in acts
            let home = homes[one.CalendarId]
            let things = named[(one.CalendarId, one.DeletedIn)].Select(Thing).ToList()
            select new BinEntry(
                new BinPlace(BinKind.Events, one.CalendarId, one.DeletedIn),
                home.Row,
                home.GroupName,
                one.Count,
                things,
                Out: null,
                one.DeletedIn is { } act ? who.GetValueOrDefault(act, string.Empty) : string.Empty,
                one.At!.Value,
                ErasedBy(reader, home.Row, one.Count == 1 ? things[0].Title : string.Empty)
            ),
        ];
    }

    private async Task<List<BinEntry>> Dates(Reader reader, EventId? only, CancellationToken cancellationToken)
    {
        var cuts = await Cuts(reader, only, cancellationToken);
        var ids = cuts.Select(cut => cut.Now.CalendarId).ToHashSet();
        var homes = await Homes(row => ids.Contains(row.Id), cancellationToken);
        return
        [
            .. from cut in cuts
            let home = homes[cut.Now.CalendarId]
            let title = cut.Before.Content.Title
            select new BinEntry(
                new BinPlace(BinKind.Dates, home.Row.Id, cut.Act, cut.Now.Id.Value),
                home.Row,
                home.GroupName,
                cut.Still.Dates.Count + (cut.Still.From is null ? 0 : 1),
                [new BinnedThing(cut.Now.Id.Value, title, cut.Now.Time, Repeats: true)],
                cut.Still,
                cut.By,
                cut.At,
                ErasedBy(reader, home.Row, title)
            ),
        ];
    }

    private async Task<List<BinEntry>> Proposals(Reader reader, CancellationToken cancellationToken)
    {
        var (all, own) = Changed(reader);
        var since = db.Now - BinRules.Kept;
        var rows = await db
            .Proposals.AsNoTracking()
            .Where(row =>
                row.WithdrawnAt > since
                && row.State == ProposalState.Withdrawn
                && (all.Contains(row.CalendarId) || (own.Contains(row.CalendarId) && row.ProposedBy == reader.Person))
            )
            .OrderByDescending(row => row.WithdrawnAt)
            .Take(Most)
            .ToListAsync(cancellationToken);
        var ids = rows.Select(row => row.CalendarId).ToHashSet();
        var homes = await Homes(row => ids.Contains(row.Id), cancellationToken);
        var who = await LastActors(rows.ConvertAll(row => row.Id.Value), cancellationToken);
        return
        [
            .. from row in rows
            let home = homes[row.CalendarId]
            select new BinEntry(
                new BinPlace(BinKind.Proposal, row.CalendarId, Id: row.Id.Value),
                home.Row,
                home.GroupName,
                row.ToTimes().Count,
                [new BinnedThing(row.Id.Value, row.Title)],
                Out: null,
                who.GetValueOrDefault(row.Id.Value, string.Empty),
                row.WithdrawnAt!.Value,
                ErasedBy(reader, home.Row, row.Title)
            ),
        ];
    }

    /// <summary>What was taken out of series that are there and is still out, the latest first; of one series alone where one is named.</summary>
    private async Task<List<SeriesCut>> Cuts(Reader reader, EventId? only, CancellationToken cancellationToken)
    {
        var (all, own) = Changed(reader);
        var since = db.Now - BinRules.Kept;
        // Only those that have dates left out, or an end, can have lost some.
        var series = await db
            .Events.Where(row =>
                (only == null || row.Id == only)
                && row.DeletedAt == null
                && row.Series != null
                && (
                    row.Series.Contains("\"Excluded\":[\"")
                    || row.Series.Contains("UNTIL=")
                    || row.Series.Contains("COUNT=")
                )
                && (all.Contains(row.CalendarId) || (own.Contains(row.CalendarId) && row.AddedBy == reader.Person))
            )
            .Select(row => row.Id)
            .ToListAsync(cancellationToken);
        var ids = series.ConvertAll(id => id.Value);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where ids.Contains(change.SubjectId) && change.Before != null && change.At > since
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new { Change = change, actor.Name }
        )
            .Take(MostLookedThrough)
            .ToListAsync(cancellationToken);
        var changed = changes.Select(one => new EventId(one.Change.SubjectId)).ToHashSet();
        var byId = await db
            .Events.AsNoTracking()
            .Where(row => changed.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id.Value, cancellationToken);
        var cuts = new List<SeriesCut>();
        foreach (var ofOne in changes.GroupBy(one => (one.Change.Set, one.Change.SubjectId)))
        {
            var (last, first) = (ofOne.First(), ofOne.Last());
            if (first.Change.EventBefore() is not { } before || last.Change.EventAfter() is not { } after)
            {
                continue;
            }

            var now = byId[ofOne.Key.SubjectId].ToCore();
            var taken = TakenOut.Between(before, after, zones);
            if (taken?.From is not null && await IsParted(ofOne.Key.Set, now.Id, cancellationToken))
            {
                taken = taken with { From = null };
            }

            if (taken?.Still(after, now, zones) is { } still)
            {
                cuts.Add(new SeriesCut(ofOne.Key.Set, last.Change.At, last.Name, before, after, now, still));
            }
        }

        return cuts;
    }

    /// <summary>Whether an act made the later dates of a series one of its own: they did not go.</summary>
    private async Task<bool> IsParted(ChangeSetId act, EventId id, CancellationToken cancellationToken)
    {
        var made = await db
            .Changes.Where(change => change.Set == act && change.Before == null)
            .Select(change => change.After)
            .ToListAsync(cancellationToken);
        return made.Exists(after => Changes.ChangeRow.EventOf(after)?.Series?.ContinuedFrom == id);
    }

    private static IQueryable<EventRow> Things(IQueryable<EventRow> rows, int most) =>
        rows.AsNoTracking().OrderBy(row => row.IndexStart).ThenBy(row => row.Id).Take(most);

    private static BinnedThing Thing(EventRow row) =>
        new(
            row.Id.Value,
            row.Title,
            EventRow.ToTime(row.TimeForm, row.Start, row.End, row.Zone),
            row.Series is not null
        );

    private static string? ErasedBy(Reader reader, CalendarRow calendar, string title) =>
        BinRules.ToErase(reader.RoleOn(calendar.Id)) == Verdict.Granted
            ? BinRules.Spoken([title], calendar.Name)
            : null;

    private async Task<Dictionary<CalendarId, Home>> Homes(
        System.Linq.Expressions.Expression<Func<CalendarRow, bool>> which,
        CancellationToken cancellationToken
    ) =>
        await (
            from row in db.Calendars.AsNoTracking().Where(which)
            join home in db.Groups on row.GroupId equals home.Id
            select new { row, home.Name }
        ).ToDictionaryAsync(one => one.row.Id, one => new Home(one.row, one.Name), cancellationToken);

    /// <summary>The names of who did some acts: of the first who used the name, since it is the client's and others can use it after.</summary>
    private async Task<Dictionary<ChangeSetId, string>> Actors(
        List<ChangeSetId> acts,
        CancellationToken cancellationToken
    )
    {
        var first = db
            .Changes.Where(change => acts.Contains(change.Set))
            .GroupBy(change => change.Set)
            .Select(changes => changes.Min(change => change.Sequence));
        return await (
            from change in db.Changes
            where first.Contains(change.Sequence)
            join actor in db.People on change.Actor equals actor.Id
            select new { change.Set, actor.Name }
        ).ToDictionaryAsync(one => one.Set, one => one.Name, cancellationToken);
    }

    /// <summary>The names of who changed some things last.</summary>
    private async Task<Dictionary<Guid, string>> LastActors(List<Guid> subjects, CancellationToken cancellationToken)
    {
        var latest = db
            .Changes.Where(change => subjects.Contains(change.SubjectId))
            .GroupBy(change => change.SubjectId)
            .Select(changes => changes.Max(change => change.Sequence));
        return await (
            from change in db.Changes
            where latest.Contains(change.Sequence)
            join actor in db.People on change.Actor equals actor.Id
            select new { change.SubjectId, actor.Name }
        ).ToDictionaryAsync(one => one.SubjectId, one => one.Name, cancellationToken);
    }
}
