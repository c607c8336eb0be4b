using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Feeds;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Feeds;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Feeds;

/// <summary>What a feed is of, where there is something.</summary>
/// <param name="Head">What it says of itself.</param>
/// <param name="Calendars">The calendars it tells of, with their owner's step on each now.</param>
internal sealed record FeedSource(PublishedHead Head, IReadOnlyList<SeenCalendar> Calendars);

/// <summary>Reads what a feed tells, stretch by stretch, so that no more than one of them is in memory however much it is.</summary>
internal sealed class FeedReading(MortarDb db, WindowReader reader, ZoneClock zones, IClock clock, PublicLinks links)
{
    /// <summary>How many days are read at a time.</summary>
    private const int DaysAtOnce = 31;

    private static readonly Duration Refresh = Duration.FromMinutes(30);
    private static readonly LocalDateTimePattern Start = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>Of what it tells now; <c>null</c> where there is nothing any more that its owner sees.</summary>
    public async Task<FeedSource?> Source(FeedRow feed, string secret, CancellationToken cancellationToken)
    {
        var sight = (await reader.See(feed.Owner, cancellationToken)).Sight;
        var (name, hue, wanted) = feed.Of switch
        {
            FeedOf.Calendar => sight.Calendars.FirstOrDefault(one => one.Row.Id == feed.CalendarId)
                is { Role: > Role.None } one
                ? (one.Row.Name, one.Row.Hue, (IReadOnlyList<SeenCalendar>)[one])
                : default,
            FeedOf.Set => await db.SetsFor(feed.Owner)
                .AsNoTracking()
                .FirstOrDefaultAsync(row => row.Id == feed.SetId, cancellationToken)
                is { } set
                ? (set.Name, Hue.Teal, InSet(set, sight))
                : default,
            _ => ("What I am named on", Hue.Teal, sight.Calendars),
        };
        return name is null
            ? null
            : new FeedSource(
                new PublishedHead(name, string.Empty, hue, links.Week, links.Feed(secret), Refresh)
                {
                    NamesPeople = feed.ToCore().TellsAll,
                },
                wanted
            );
    }

    /// <summary>The file piece by piece.</summary>
    /// <param name="feed">Which.</param>
    /// <param name="source">Of what it tells.</param>
    /// <param name="stamp">Since when it tells that.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async IAsyncEnumerable<string> Pieces(
        FeedRow feed,
        FeedSource source,
        Instant stamp,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancellationToken
    )
    {
        var zone = zones.Zone(
            await db.People.Where(row => row.Id == feed.Owner).Select(row => row.Zone).SingleAsync(cancellationToken)
        );
        var today = clock.GetCurrentInstant().InZone(zone).Date;
        var (first, last) = (today.PlusDays(-Feed.DaysBack), today.PlusDays(Feed.DaysAhead));
        var terms = feed.ToCore();
        var busy = new List<VisibleEvent.Busy>();
        var names = new Dictionary<PersonId, string>();
        yield return PublishedCalendar.Begin(source.Head, stamp);
        for (var from = first; from <= last; from = from.PlusDays(DaysAtOnce))
        {
            var window = new Window(from, LocalDate.Min(last, from.PlusDays(DaysAtOnce - 1)), zone);
            var read = await reader.ReadWhole([.. source.Calendars.Select(one => one.Row)], window, cancellationToken);
            // What reaches over the end of these days is told with those in which it begins, or with the first.
            foreach (var (calendar, whole) in source.Calendars.Zip(read))
            {
                var answered = whole.Events.Where(one => one.Answers.Length > 0).ToDictionary(one => one.Event.Id);
                var seen = terms.Through(
                    feed.Owner,
                    calendar.Role,
                    whole.Events.SelectMany(one => one.Event.Shown(window, zones)),
                    window
                );
                foreach (var one in seen)
                {
                    if (one is VisibleEvent.Busy taken)
                    {
                        busy.Add(taken);
                    }
                    else if (one is VisibleEvent.Shown shown)
                    {
                        var told = terms.TellsAll
                            ? await WithPeople(Published(shown, terms, zone), shown, answered)
                            : Published(shown, terms, zone);
                        if (told.Span.Start >= window.Span.Start || window.First == first)
                        {
                            yield return PublishedCalendar.Of(told, stamp);
                        }
                    }
                }
            }
        }

        var reach = new Window(first, last, zone);
        async Task<PublishedEvent> WithPeople(
            PublishedEvent told,
            VisibleEvent.Shown shown,
            IReadOnlyDictionary<EventId, KeptEvent> answered
        )
        {
            var unknown = shown.Attendees.Where(person => !names.ContainsKey(person)).ToList();
            if (shown.Organizer is { } organizer && !names.ContainsKey(organizer))
            {
                unknown.Add(organizer);
            }

            if (unknown.Count > 0)
            {
                foreach (
                    var row in await db
                        .People.Where(person => unknown.Contains(person.Id))
                        .Select(person => new { person.Id, person.Name })
                        .ToListAsync(cancellationToken)
                )
                {
                    names[row.Id] = row.Name;
                }
            }

            return told with
            {
                Organizer =
                    shown.Organizer is { } id && names.TryGetValue(id, out var name)
                        ? new PublishedPerson(id, name)
                        : null,
                People =
                [
                    .. shown
                        .Attendees.Where(names.ContainsKey)
                        .Select(person => new PublishedPerson(
                            person,
                            names[person],
                            AnswerOf(person, shown, answered)
                        )),
                ],
            };
        }

        yield return PublishedCalendar.Of(
            source.Head,
            [.. VisibleEvent.Busy.Joined(busy, reach).Select(one => new PublishedBusy(one.Span, one.Tentative))],
            reach.Span,
            stamp
        );
        yield return PublishedCalendar.End;
    }

    private Answer AnswerOf(PersonId person, VisibleEvent.Shown shown, IReadOnlyDictionary<EventId, KeptEvent> answered)
    {
        return !answered.TryGetValue(shown.Id, out var kept) ? Answer.NeedsAction
            : shown.Start is not { } start ? AnswerRules.ToWhole(person, kept.Answers, kept.Event, zones).Answer
            : kept.Event.OccurrenceAt(start, zones, DateTimeZone.Utc) is { } date
                ? AnswerRules.Of(person, kept.Answers, date, zones).Answer
            : Answer.NeedsAction;
    }

    private static IReadOnlyList<SeenCalendar> InSet(SetRow set, Sight sight)
    {
        var ids = set.ToLayers().Select(layer => new CalendarId(layer.CalendarId)).ToHashSet();
        return [.. sight.Calendars.Where(one => one.Role > Role.None && ids.Contains(one.Row.Id))];
    }

    private PublishedEvent Published(VisibleEvent.Shown shown, Feed terms, DateTimeZone zone) =>
        new(
            shown.Start is { } start ? $"{shown.Id.Value:N}-{Start.Format(start)}" : $"{shown.Id.Value:N}",
            terms.TellsAll ? shown.Version - 1 : null,
            shown.Seen,
            zones.Span(shown.Agreed, zone),
            shown.Title.Length > 0 ? shown.Title : "Untitled"
        )
        {
            Place = shown.Place,
            Notes = terms.TellsAll ? shown.Notes ?? string.Empty : string.Empty,
            Kind = terms.TellsAll ? shown.Kind ?? string.Empty : string.Empty,
            Cancelled = shown.Cancelled,
            Tentative = shown.ShowAs == ShowAs.Tentative,
            Free = shown.ShowAs == ShowAs.Free,
        };
}
