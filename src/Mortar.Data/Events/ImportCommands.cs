using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>One event to be imported.</summary>
public sealed record EventToImport(string Uid, EventTime Time, EventContent Content, Series? Series, string Source)
{
    /// <summary>Whether the file says who of ours is named; else those stay who are named here.</summary>
    public bool SaysWho { get; init; }

    /// <summary>Who organizes it, by what the file says; counts only where who brings it could hand it to them.</summary>
    public PersonId? Organizer { get; init; }

    /// <summary>The same with something made of its content and of that of each changed date, given by which start it replaces.</summary>
    internal EventToImport WithContents(Func<LocalDateTime?, EventContent, EventContent> made) =>
        this with
        {
            Content = made(null, Content),
            Series = Series is { } series
                ? series with
                {
                    Overrides =
                    [
                        .. series.Overrides.Select(one => one with { Content = made(one.Replaces, one.Content) }),
                    ],
                }
                : null,
        };
}

/// <summary>What happens to events of the file that are in the calendar already, by UID.</summary>
public enum KnownEvents
{
    /// <summary>They stay as they are in the calendar.</summary>
    Keep,

    /// <summary>They become what the file says.</summary>
    Update,
}

/// <summary>How many events of a file are in a calendar already.</summary>
/// <param name="Same">Those that are just as in the file.</param>
/// <param name="Different">Those that differ.</param>
public sealed record KnownCount(int Same, int Different);

/// <summary>Brings the events of a file into a calendar, all of them or none.</summary>
public sealed class ImportCommands(MortarDb db, ZoneClock zones)
{
    private const int Chunk = 500;

    /// <summary>Counts which of the events are there already.</summary>
    public async Task<KnownCount> Known(
        PersonId actor,
        CalendarId calendar,
        IReadOnlyList<EventToImport> events,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(actor, calendar, cancellationToken)).Role;
        var place = await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == calendar, cancellationToken);
        events = await WithKnownPeople(actor, role, place, events, cancellationToken);
        var known = (await Rows(db, calendar).AsNoTracking().ToListAsync(cancellationToken)).ToDictionary(
            row => row.Uid,
            StringComparer.Ordinal
        );
        var met = events.Where(one => known.ContainsKey(one.Uid)).ToList();
        var same = met.Count(one => IsSame(known[one.Uid], NamingAs(known[one.Uid], one)));
        return new KnownCount(same, met.Count - same);
    }

    /// <summary>
    /// Writes the events, all of them or none. Many are made aside, so that others go on writing. Returns how many were
    /// written.
    /// </summary>
    /// <param name="act">The set under which one <em>Undo</em> takes the import back.</param>
    /// <param name="calendar">Where they go; needs the step Add, and Edit where known events are updated.</param>
    /// <param name="events">The events, UIDs distinct.</param>
    /// <param name="known">What happens to those that are there already.</param>
    /// <param name="progress">Told how many have been dealt with.</param>
    /// <param name="cancellationToken">Stops the import; nothing is written then.</param>
    public Task<Outcome<int>> Apply(
        Act act,
        CalendarId calendar,
        IReadOnlyList<EventToImport> events,
        KnownEvents known,
        IProgress<int> progress,
        CancellationToken cancellationToken
    ) =>
        events.Count < Aside.Worth
            ? db.Write(
                act,
                () => Make(db, act, calendar, events, known, progress, cancellationToken),
                cancellationToken
            )
            : db.WriteAside(
                act,
                calendar,
                aside => Make(aside, act, calendar, events, known, progress, cancellationToken),
                cancellationToken
            );

    /// <param name="things">Where the events are made: the store, or one aside that holds the calendar's.</param>
    /// <param name="act">Whose act it is.</param>
    /// <param name="calendar">Where they go.</param>
    /// <param name="events">The events.</param>
    /// <param name="known">What happens to those that are there already.</param>
    /// <param name="progress">Told how many have been dealt with.</param>
    /// <param name="cancellationToken">Stops it.</param>
    private async Task<Outcome<int>> Make(
        MortarDb things,
        Act act,
        CalendarId calendar,
        IReadOnlyList<EventToImport> events,
        KnownEvents known,
        IProgress<int> progress,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(act.Actor, calendar, cancellationToken)).Role;
        var place = await db
            .Calendars.AsNoTracking()
            .SingleOrDefaultAsync(one => one.Id == calendar, cancellationToken);
        if (AccessRules.WhyNotAdd(role, place?.FromWeb == true) is { } refusal)
        {
            return refusal;
        }

        var rows = (await Rows(things, calendar).AsNoTracking().ToListAsync(cancellationToken)).ToDictionary(
            row => row.Uid,
            StringComparer.Ordinal
        );
        events = await WithKnownPeople(act.Actor, role, place!, events, cancellationToken);
        var taken = new List<EventRow>();
        var written = 0;
        for (var done = 0; done < events.Count; done += Chunk)
        {
            foreach (var one in events.Skip(done).Take(Chunk))
            {
                written += Apply(things, act, role, place!, rows.GetValueOrDefault(one.Uid), one, known) ? 1 : 0;
            }

            if (place!.OneAtATime)
            {
                taken.AddRange(things.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity));
            }

            await things.SaveChangesAsync(cancellationToken);
            // What is saved need not be looked at again by the next save.
            things.ChangeTracker.Clear();

            progress.Report(Math.Min(done + Chunk, events.Count));
        }

        return await db.WhyTaken(act.Actor, place!, taken, things, zones, cancellationToken) is { } why ? why : written;
    }

    private bool Apply(
        MortarDb things,
        Act act,
        Role role,
        CalendarRow calendar,
        EventRow? row,
        EventToImport one,
        KnownEvents known
    )
    {
        var settings = calendar.Settings();
        if (row is null)
        {
            row = new EventRow
            {
                Id = new EventId(Guid.CreateVersion7()),
                CalendarId = calendar.Id,
                Uid = one.Uid,
                AddedBy = one.Organizer ?? act.Actor,
                Source = one.Source,
            };
            row.Apply(one.Time, one.Content, one.Series, zones);
            row.Apply(Agreement.Written(settings, role, before: null, row.ToCore()), zones);
            things.Events.Add(row);
            return true;
        }

        one = NamingAs(row, one);
        if (
            known == KnownEvents.Keep
            || IsSame(row, one)
            || AccessRules.ToChange(role, act.Actor, row.AddedBy) != Verdict.Granted
        )
        {
            return false;
        }

        things.Events.Attach(row);
        var before = row.ToCore();
        row.Source = one.Source;
        row.Apply(one.Time, one.Content, one.Series, zones);
        row.Apply(Agreement.Written(settings, role, before, row.ToCore()), zones);
        return true;
    }

    /// <summary>Where a file does not say who of ours is named, nor who sees that, both stay as they were set here.</summary>
    private static EventToImport NamingAs(EventRow row, EventToImport one)
    {
        if (one.SaysWho)
        {
            return one;
        }

        var whole = row.ToCore();
        var single = (whole.Series?.Overrides ?? [])
            .Where(known => known.Range == OverrideRange.One)
            .ToDictionary(known => known.Replaces, known => known.Content);
        return one.WithContents(
            (start, content) =>
            {
                var now = start is { } key ? single.GetValueOrDefault(key, whole.Content) : whole.Content;
                return content with { Attendees = now.Attendees, HidesAttendees = now.HidesAttendees };
            }
        );
    }

    /// <summary>
    /// The events with those of the people they name whom the one who brings them could name here by hand, and with the
    /// organizer only where they could hand it to them: a file says what it likes.
    /// </summary>
    private async Task<IReadOnlyList<EventToImport>> WithKnownPeople(
        PersonId actor,
        Role role,
        CalendarRow calendar,
        IReadOnlyList<EventToImport> events,
        CancellationToken cancellationToken
    )
    {
        var named = events
            .Where(one => one.SaysWho)
            .SelectMany(one => (one.Series?.Overrides ?? []).Select(changed => changed.Content).Prepend(one.Content))
            .SelectMany(content => content.Attendees)
            .ToHashSet();
        var unknown = await db.StrangersAmong(named, calendar, cancellationToken);
        named.ExceptWith(unknown);
        if (!calendar.Purpose.MayName(role, [], named))
        {
            named.IntersectWith((await db.ReaderOf(actor, cancellationToken)).AnswersIn(calendar.GroupId));
        }

        var organizers =
            role >= Role.Edit ? events.Select(one => one.Organizer).OfType<PersonId>().Distinct().ToList() : [];
        var reach = await db.StandingsOf(organizers, cancellationToken);

        return
        [
            .. events.Select(one =>
                one.WithContents(
                    (_, content) => content with { Attendees = Attendees.Of(content.Attendees.Where(named.Contains)) }
                ) with
                {
                    Organizer =
                        one.Organizer is { } organizer
                        && reach.TryGetValue((calendar.Id, organizer), out var standing)
                        && AccessRules.CanOrganize(standing.Role)
                            ? organizer
                            : null,
                }
            ),
        ];
    }

    private static bool IsSame(EventRow row, EventToImport one)
    {
        var now = row.ToCore();
        return now.Time == one.Time && now.Content == one.Content && Equals(now.Series, one.Series);
    }

    private static IQueryable<EventRow> Rows(MortarDb db, CalendarId calendar) =>
        db.Events.Where(row => row.CalendarId == calendar && row.DeletedAt == null);
}
