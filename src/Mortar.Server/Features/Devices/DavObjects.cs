using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Devices;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Devices;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Devices;

/// <summary>An event in a calendar as a device has it, or a stretch that is only taken.</summary>
/// <param name="Name">Its name in the calendar's address.</param>
/// <param name="Object">What it is.</param>
/// <param name="Row">The event; <c>null</c> for a stretch.</param>
/// <param name="IsWhole">Whether all of the event is told.</param>
internal sealed record DavObject(string Name, CalendarObject Object, EventRow? Row, bool IsWhole);

/// <summary>Reads what is in the calendars of a device, by the rules of everything that is read.</summary>
internal sealed class DavObjects(MortarDb db, DavKept calendars, DavKeptObjects kept, ZoneClock zones, IClock clock)
{
    private const string Prefix = "m-";
    private const string Suffix = ".ics";
    private const string BusyPrefix = "busy-";
    private const string Perhaps = "-perhaps";

    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <summary>Everything in a calendar.</summary>
    public async Task<IReadOnlyList<DavObject>> All(DavCalendar calendar, CancellationToken cancellationToken)
    {
        if (calendar.Role == Role.Times && calendar.Reader == PersonId.Nobody)
        {
            return await Busy(calendar, cancellationToken);
        }

        return [.. await Events(calendar, cancellationToken), .. await Busy(calendar, cancellationToken)];
    }

    private async Task<IReadOnlyList<DavObject>> Events(DavCalendar calendar, CancellationToken cancellationToken)
    {
        var rows = await db
            .Events.AsNoTracking()
            .Where(row => row.CalendarId == calendar.Id && row.DeletedAt == null)
            .OrderBy(row => row.Id)
            .ToListAsync(cancellationToken);
        return await Told(calendar, rows, cancellationToken);
    }

    /// <summary>What can take place in some days, and possibly more.</summary>
    public async Task<IReadOnlyList<DavObject>> Touching(
        DavCalendar calendar,
        Window window,
        CancellationToken cancellationToken
    )
    {
        var (from, to) = (window.Span.Start - Slack, window.Span.End + Slack);
        var rows = await db
            .Events.AsNoTracking()
            .Where(row =>
                row.CalendarId == calendar.Id && row.DeletedAt == null && row.IndexEnd >= from && row.IndexStart <= to
            )
            .OrderBy(row => row.Id)
            .ToListAsync(cancellationToken);
        return [.. await Told(calendar, rows, cancellationToken), .. await Busy(calendar, cancellationToken)];
    }

    /// <summary>Whole days and floating times are indexed as UTC.</summary>
    private static readonly Duration Slack = Duration.FromHours(16);

    /// <summary>Whoever asks for so many is told sooner out of all.</summary>
    private const int Many = 300;

    /// <summary>Some events of a calendar.</summary>
    public async Task<IReadOnlyList<DavObject>> Of(
        DavCalendar calendar,
        IReadOnlySet<EventId> ids,
        CancellationToken cancellationToken
    )
    {
        if (ids.Count > Many)
        {
            // A program that begins with a calendar asks twice: which events there are, and then for all of them.
            var all = await calendars.Events(calendar, () => Events(calendar, cancellationToken));
            return [.. all.Where(one => ids.Contains(one.Row!.Id))];
        }

        var rows = await db
            .Events.AsNoTracking()
            .Where(row => row.CalendarId == calendar.Id && row.DeletedAt == null && ids.Contains(row.Id))
            .ToListAsync(cancellationToken);
        return await Told(calendar, rows, cancellationToken);
    }

    /// <summary>What has a name in a calendar; <c>null</c> for nothing.</summary>
    public async Task<DavObject?> Named(DavCalendar calendar, string name, CancellationToken cancellationToken) =>
        (await Named(calendar, [name], cancellationToken)).GetValueOrDefault(name);

    /// <summary>What has some names in a calendar.</summary>
    public async Task<IReadOnlyDictionary<string, DavObject>> Named(
        DavCalendar calendar,
        IReadOnlyCollection<string> names,
        CancellationToken cancellationToken
    )
    {
        var found = new Dictionary<string, DavObject>(StringComparer.Ordinal);
        if (names.Any(name => name.StartsWith(BusyPrefix, StringComparison.Ordinal)))
        {
            foreach (var one in await Busy(calendar, cancellationToken))
            {
                if (names.Contains(one.Name))
                {
                    found[one.Name] = one;
                }
            }
        }

        var wanted = names.ToHashSet(StringComparer.Ordinal);
        var here = db.ObjectNames.AsNoTracking().Where(row => row.CalendarId == calendar.Id);
        var given =
            wanted.Count > Many
                ? (await here.ToListAsync(cancellationToken)).FindAll(row => wanted.Contains(row.Name))
                : await here.Where(row => wanted.Contains(row.Name)).ToListAsync(cancellationToken);
        var ids = given.Select(row => row.EventId).Concat(names.Select(IdIn).OfType<EventId>()).ToHashSet();
        var read = (await Of(calendar, ids, cancellationToken)).ToDictionary(one => one.Row!.Id);
        foreach (var one in read.Values.Where(one => wanted.Contains(one.Name)))
        {
            found[one.Name] = one;
        }

        // By the name of its own an event is found also where a program gave it another one.
        foreach (var name in wanted.Where(name => !found.ContainsKey(name)))
        {
            if (IdIn(name) is { } id && read.GetValueOrDefault(id) is { } one)
            {
                found[name] = one;
            }
        }

        return found;
    }

    /// <summary>
    /// The names of some events in a calendar. Of two of one name, which is where one was put in by somebody who is told nothing
    /// of the other, whoever is told both has the first under it, and the other under the name of its own.
    /// </summary>
    public async Task<IReadOnlyDictionary<EventId, string>> NamesOf(
        DavCalendar calendar,
        IReadOnlyCollection<EventId> ids,
        CancellationToken cancellationToken
    )
    {
        var here = db.ObjectNames.AsNoTracking().Where(row => row.CalendarId == calendar.Id);
        var given =
            ids.Count > Many
                ? await here.ToListAsync(cancellationToken)
                : await here.Where(row =>
                        ids.Contains(row.EventId)
                        || here.Any(other => other.Name == row.Name && ids.Contains(other.EventId))
                    )
                    .ToListAsync(cancellationToken);
        var named = given.GroupBy(row => row.EventId).ToDictionary(same => same.Key, same => same.First().Name);
        foreach (var loser in await Second(calendar, given, cancellationToken))
        {
            named.Remove(loser);
        }

        return ids.ToDictionary(id => id, id => named.GetValueOrDefault(id) ?? NameOf(id));
    }

    /// <summary>Those whose name another event has that is told as well.</summary>
    private async Task<IEnumerable<EventId>> Second(
        DavCalendar calendar,
        IEnumerable<ObjectNameRow> given,
        CancellationToken cancellationToken
    )
    {
        var contested = given.GroupBy(row => row.Name, StringComparer.Ordinal).Where(same => same.Count() > 1).ToList();
        if (contested.Count == 0)
        {
            return [];
        }

        var ids = contested.SelectMany(same => same.Select(row => row.EventId)).ToList();
        var told = (
            await db
                .Events.AsNoTracking()
                .Where(row => row.CalendarId == calendar.Id && row.DeletedAt == null && ids.Contains(row.Id))
                .ToListAsync(cancellationToken)
        )
            .Where(row => DeviceTelling.Told(calendar.Role, calendar.Reader, row.ToCore()).Event is not null)
            .Select(row => row.Id)
            .ToHashSet();
        return contested.SelectMany(same =>
            same.Select(row => row.EventId).Where(told.Contains).OrderBy(id => id.Value).Skip(1)
        );
    }

    /// <summary>A program may not give an event a name as those of here have.</summary>
    /// <exception cref="DavException">It is such a name.</exception>
    public static void MustBeFree(string name)
    {
        if (name.StartsWith(Prefix, StringComparison.Ordinal) || name.StartsWith(BusyPrefix, StringComparison.Ordinal))
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                DavXml.M + "name-taken",
                "Names that begin like this are those of events that were made in Mortar. Choose another one."
            );
        }
    }

    /// <summary>The stretches of which only that they are taken is told.</summary>
    public async Task<IReadOnlyList<DavObject>> Busy(DavCalendar calendar, CancellationToken cancellationToken)
    {
        if (calendar.Role is Role.None or >= Role.Edit)
        {
            return [];
        }

        var window = Reach(calendar);
        var events = (await db.EventsTouching([calendar.Id], window, cancellationToken)).Where(one =>
            calendar.Role == Role.Times || one.Contents.Any(content => content.Private)
        );
        return
        [
            .. from stretch in DeviceTelling.Busy(calendar.Role, calendar.Reader, events, window, zones)
            orderby stretch.Span.Start
            let name = $"{BusyPrefix}{Utc.Format(stretch.Span.Start)}-{Utc.Format(stretch.Span.End)}{(stretch.Tentative ? Perhaps : "")}"
            select new DavObject(
                name + Suffix,
                CalendarObject.Busy($"{name}-{calendar.Id.Value:N}", stretch.Span, stretch.Tentative, zones),
                Row: null,
                IsWhole: false
            ),
        ];
    }

    /// <summary>The days around today in which such stretches are told.</summary>
    public Window Reach(DavCalendar calendar)
    {
        var today = Today(calendar);
        return new Window(
            today.PlusDays(-DeviceTelling.DaysBack),
            today.PlusDays(DeviceTelling.DaysAhead),
            calendar.Zone
        );
    }

    /// <summary>The day it is for its reader.</summary>
    public LocalDate Today(DavCalendar calendar) => clock.GetCurrentInstant().InZone(calendar.Zone).Date;

    /// <summary>What those are called who are named on some events, and what they answered.</summary>
    public async Task<(IReadOnlyDictionary<PersonId, string> Names, ILookup<EventId, GivenAnswer> Answers)> PeopleOn(
        CalendarId calendar,
        IReadOnlyCollection<Event> events,
        CancellationToken cancellationToken
    )
    {
        var people = events.SelectMany(one => one.Named.Append(one.AddedBy)).Distinct().ToList();
        var names = await db
            .People.Where(person => people.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Name, cancellationToken);
        var answers = db.Answers.AsNoTracking().Where(row => row.CalendarId == calendar);
        if (events.Count <= 100)
        {
            var ids = events.Select(one => one.Id).ToList();
            answers = answers.Where(row => ids.Contains(row.EventId));
        }

        return (
            names,
            (await answers.ToListAsync(cancellationToken)).ToLookup(row => row.EventId, row => row.ToCore())
        );
    }

    private async Task<IReadOnlyList<DavObject>> Told(
        DavCalendar calendar,
        List<EventRow> rows,
        CancellationToken cancellationToken
    )
    {
        var told = (
            from row in rows
            let seen = DeviceTelling.Told(calendar.Role, calendar.Reader, row.ToCore())
            where seen.Event is not null
            select (Row: row, Event: seen.Event!, seen.IsWhole)
        ).ToList();
        if (told.Count == 0)
        {
            return [];
        }

        var ids = told.ConvertAll(one => one.Row.Id);
        var given = await NamesOf(calendar, ids, cancellationToken);
        var (names, answers) = await PeopleOn(calendar.Id, told.ConvertAll(one => one.Event), cancellationToken);
        var alarms =
            calendar.Reader == PersonId.Nobody
                ? []
                : await (
                    from alarm in db.OwnAlarms.AsNoTracking()
                    join whole in db.Events on alarm.EventId equals whole.Id
                    where alarm.PersonId == calendar.Reader && whole.CalendarId == calendar.Id && alarm.Text != null
                    select alarm
                ).ToDictionaryAsync(alarm => alarm.EventId, alarm => new OwnAlarms(alarm.Text!), cancellationToken);
        return
        [
            .. told.Select(one => new DavObject(
                given[one.Row.Id],
                Object(one.Row, one.Event, one.IsWhole),
                one.Row,
                one.IsWhole
            )),
        ];

        CalendarObject Object(EventRow row, Event whole, bool isWhole)
        {
            var own = alarms.GetValueOrDefault(row.Id);
            // What everybody who sees all of it is told alike is written once; most events name nobody.
            return isWhole && own is null && !whole.Named.Any()
                ? kept.Get((row.Id, row.Version, calendar.Row.Zone, names.GetValueOrDefault(whole.AddedBy)), Write)
                : Write();

            CalendarObject Write() =>
                CalendarObject.Of(
                    new EventToWrite(whole, isWhole ? row.Source : null),
                    names,
                    answers,
                    own,
                    calendar.Row.Zone,
                    zones
                );
        }
    }

    private static string NameOf(EventId id) =>
        string.Create(CultureInfo.InvariantCulture, $"{Prefix}{id.Value:N}{Suffix}");

    private static EventId? IdIn(string name) =>
        name.StartsWith(Prefix, StringComparison.Ordinal)
        && name.EndsWith(Suffix, StringComparison.Ordinal)
        && Guid.TryParseExact(name[Prefix.Length..^Suffix.Length], "N", out var id)
            ? new EventId(id)
            : null;
}

/// <summary>Events as they were written for whoever asked last: programs ask for the tags of all and then for the events, device after device.</summary>
internal sealed class DavKeptObjects
{
    /// <summary>How many letters are kept; then all are written anew.</summary>
    private const long Most = 32 * 1024 * 1024;

    private readonly ConcurrentDictionary<
        (EventId Id, int Version, string Zone, string? Organizer),
        CalendarObject
    > kept = new();

    private long letters;

    /// <summary>An event by all that its text depends on.</summary>
    public CalendarObject Get((EventId, int, string, string?) of, Func<CalendarObject> write)
    {
        if (kept.TryGetValue(of, out var known))
        {
            return known;
        }

        var made = write();
        if (Interlocked.Add(ref letters, made.Text.Length) > Most)
        {
            kept.Clear();
            Interlocked.Exchange(ref letters, made.Text.Length);
        }

        return kept[of] = made;
    }
}
