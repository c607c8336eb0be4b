using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>A person or place whose time was asked for.</summary>
/// <param name="Zone">The zone of their clock.</param>
/// <param name="Hours">Their usual hours; <c>null</c> for a place, which is there at any time.</param>
/// <param name="Time">Their time, as far as the reader may know it.</param>
public sealed record KnownParticipant(
    Participant Who,
    string Name,
    DateTimeZone Zone,
    UsualHours? Hours,
    KnownTime Time
)
{
    /// <summary>What takes it on calendars as the reader sees them.</summary>
    public required IReadOnlyList<TakenTime> Seen { get; init; }

    /// <summary>When they are taken by what the reader does not see; worked out where it is asked for.</summary>
    public Untold Untold => Hidden.Value;

    internal Lazy<Untold> Hidden { private get; init; } = new(Untold.Nothing);

    /// <summary>The titles of what takes them in a stretch, as far as the reader sees them; empty where it is only known that something does.</summary>
    public IEnumerable<string> By(Interval when) =>
        Seen.Where(takenTime =>
                takenTime.Occurrence.Span.Start < when.End && when.Start < takenTime.Occurrence.Span.End
            )
            .OrderBy(takenTime => takenTime.Occurrence.Span.Start)
            .Select(takenTime => takenTime.Occurrence.Content.Title)
            .Distinct();

    /// <summary>Them as they are looked for in a search.</summary>
    public Invitee Invited(Need need) => new(Who, need, Time.Busy, Hours);
}

/// <summary>What a question about people's time is about.</summary>
/// <param name="Group">The group whose week is meant; <c>null</c> for all they share.</param>
/// <param name="Except">An event that does not count, since it is the one that is asked for.</param>
public sealed record TimesScope(GroupId? Group = null, EventId? Except = null);

/// <summary>Reads when people and places are taken, as far as somebody may know; what that is, Core decides.</summary>
public sealed class TimesReader(MortarDb db, WindowReader windows, ZoneClock clock)
{
    private readonly Dictionary<(PersonId Reader, GroupId? Group, string People), AskedPeople> known = [];

    /// <summary>Those of the asked whom the reader knows, in the order of the question; the others are not there for them.</summary>
    /// <param name="reader">Who asks.</param>
    /// <param name="asked">People and places.</param>
    /// <param name="window">The days, on the reader's clock.</param>
    /// <param name="scope">What does not count, and whose week does.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<IReadOnlyList<KnownParticipant>> Read(
        PersonId reader,
        IReadOnlyCollection<Participant> asked,
        Window window,
        TimesScope scope,
        CancellationToken cancellationToken
    )
    {
        var asking = await About(reader, asked, scope.Group, cancellationToken);
        var people = asking.People;
        var zones = people.Values.ToDictionary(one => one.Id, one => one.Zone);
        var reading = await windows.Read(
            await windows.See(reader, cancellationToken),
            window,
            _ => true,
            cancellationToken
        );
        var willing = scope.Group is null
            ? reading.Sight.Willing
            : await db.WillingIn(
                [.. reading.Calendars.Select(calendar => calendar.Row)],
                scope.Group,
                cancellationToken
            );
        var seen = TakenTimes
            .In(
                reading.Calendars.Select(calendar =>
                    (reading.Counted(calendar) with { Willing = willing[calendar.Row.Id] }).SeenBy(
                        calendar.Role,
                        reader
                    )
                ),
                window,
                zones,
                clock
            )
            .Where(takenTime => takenTime.Occurrence.Event.Id != scope.Except)
            .ToLookup(takenTime => takenTime.Who);
        // What the reader does not reach stays in the way, whatever they call it: leaving it out would tell what it is.
        var isReached = reading.Calendars.Any(calendar =>
            calendar.Role > Role.None && calendar.Events.Any(one => one.Event.Id == scope.Except)
        );
        var all = await OfOpen(asking, isReached ? scope.Except : null, window, zones, cancellationToken);
        var places = reading
            .Calendars.Where(calendar => calendar is { Role: > Role.None, Row.Purpose: Purpose.Place })
            .ToDictionary(calendar => calendar.Row.Id.Value, calendar => calendar.Row);
        return
        [
            .. asked
                .Distinct()
                .Select(who =>
                    who.IsPlace && places.TryGetValue(who.Id, out var place)
                        ? new KnownParticipant(
                            who,
                            place.Name,
                            clock.Zone(place.Zone),
                            Hours: null,
                            // Whoever sees when a place is busy knows all that is to be known of it.
                            KnownTimes.Of(seen[who], seen[who], window)
                        )
                        {
                            Seen = [.. seen[who]],
                        }
                    : !who.IsPlace && people.TryGetValue(new PersonId(who.Id), out var person)
                        ? new KnownParticipant(
                            who,
                            person.Name,
                            person.Zone,
                            person.Hours,
                            KnownTimes.Of(seen[who], person.IsOpen ? all[who] : null, window)
                        )
                        {
                            Seen = [.. seen[who]],
                            Hidden = new(() => person.IsOpen ? Untold.Of(seen[who], all[who], window) : Untold.Nothing),
                        }
                    : null
                )
                .OfType<KnownParticipant>(),
        ];
    }

    /// <summary>The usual hours of a reader themselves.</summary>
    public async Task<UsualHours> HoursOf(PersonId reader, GroupId? group, CancellationToken cancellationToken)
    {
        var asked =
            known.FirstOrDefault(one => one.Key.Reader == reader && one.Key.Group == group).Value
            ?? await About(reader, [], group, cancellationToken);
        return asked.People[reader].Hours;
    }

    private async Task<AskedPeople> About(
        PersonId reader,
        IReadOnlyCollection<Participant> asked,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var people = asked.Where(who => !who.IsPlace).Select(who => new PersonId(who.Id)).Distinct().ToList();
        var key = (reader, group, string.Join(' ', people.Select(one => one.Value)));
        return known.TryGetValue(key, out var there)
            ? there
            : known[key] = await AskedPeople.Of(db, clock, reader, people, group, cancellationToken);
    }

    /// <summary>All that takes the time of those who let it be known: what is on the calendars that they brought before themselves.</summary>
    private async Task<ILookup<Participant, TakenTime>> OfOpen(
        AskedPeople asked,
        EventId? except,
        Window window,
        Dictionary<PersonId, DateTimeZone> zones,
        CancellationToken cancellationToken
    )
    {
        var taking = asked.Taking.ToDictionary(one => one.Row.Id);
        var calendars = await windows.ReadWhole([.. asked.Taking.Select(one => one.Row)], window, cancellationToken);
        return TakenTimes
            .In(
                calendars.Select(calendar =>
                    calendar.Counted(taking[calendar.Row.Id].Members, taking[calendar.Row.Id].Willing)
                ),
                window,
                zones,
                clock
            )
            .Where(takenTime =>
                takenTime.Occurrence.Event.Id != except
                && asked.Reach.ContainsKey((takenTime.Occurrence.Event.CalendarId, new PersonId(takenTime.Who.Id)))
            )
            .ToLookup(takenTime => takenTime.Who);
    }
}
