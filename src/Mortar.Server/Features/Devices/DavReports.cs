using System.Globalization;
using System.Xml.Linq;
using Mortar.Core.Devices;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>PROPFIND (RFC 4918, 9.1) and REPORT (RFC 4791, 7; RFC 6578, 3).</summary>
internal sealed class DavReports(DavThings things, DavObjects objects, DavSync sync, ZoneClock zones, IClock clock)
{
    /// <summary>The most addresses of one multiget.</summary>
    private const int MostAddresses = 10_000;

    /// <summary>The longest stretch of which dates are told one by one, in days: ten years.</summary>
    private const int LongestStretch = 3_660;

    /// <summary>The most letters of events that are told at once; a calendar of 20,000 events has half of them.</summary>
    private const int MostLetters = 32 * 1024 * 1024;

    /// <summary>The most dates that are looked at to say when it is busy.</summary>
    private const int MostDates = 100_000;

    private long letters;

    /// <summary>Tells properties of a thing, and of what is inside it.</summary>
    public async Task Find(DavRequest request)
    {
        var asked = await Read(request.Http);
        if (request.Depth(otherwise: 0) is not { } depth)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "propfind-finite-depth",
                "Ask for one step at a time, with Depth 0 or 1."
            );
        }

        if (asked is not null && asked.Name != D + "propfind")
        {
            throw new DavException(StatusCodes.Status400BadRequest, null, "PROPFIND takes a propfind.");
        }

        request = request with
        {
            Wanted =
                asked?.Element(D + "propname") is not null || asked?.Element(D + "prop") is not { } named
                    ? null
                    : [.. named.Elements().Select(each => each.Name)],
        };
        var thing = await things.Find(request);
        var all = depth == 0 ? [thing] : (await things.Inside(thing, request)).Prepend(thing);
        await DavAnswers.Many(request.Http, all.Select(one => Told(one)));

        XElement Told(DavThing one) =>
            asked?.Element(D + "propname") is not null
                ? new XElement(
                    D + "response",
                    new XElement(D + "href", one.Href),
                    DavAnswers.Stat(
                        DavProperties.Names(one, request.Reader).Select(name => new XElement(name)),
                        "200 OK"
                    )
                )
            : asked?.Element(D + "prop") is { } some
                ? DavAnswers.Of(one.Href, Values(one, some.Elements().Select(each => each.Name)))
            : DavAnswers.Of(
                one.Href,
                Values(
                        one,
                        DavProperties
                            .AllOf(one)
                            .Concat(asked?.Element(D + "include")?.Elements().Select(each => each.Name) ?? [])
                    )
                    .Where(found => found.Value is not null)
            );

        IEnumerable<(XName Name, XElement? Value)> Values(DavThing one, IEnumerable<XName> names) =>
            names.Distinct().Select(name => (Name: name, Value: DavProperties.Value(name, one, request.Reader)));
    }

    /// <summary>Answers a report.</summary>
    public async Task Report(DavRequest request)
    {
        var asked =
            await Read(request.Http)
            ?? throw new DavException(StatusCodes.Status400BadRequest, null, "A report says what it wants.");
        var thing = await things.Find(request);
        if (asked.Name == C + "calendar-query")
        {
            await Query(request, thing, asked);
        }
        else if (asked.Name == C + "calendar-multiget")
        {
            await Multiget(request, thing, asked);
        }
        else if (asked.Name == C + "free-busy-query" && thing is DavThing.Collection ofBusy)
        {
            await FreeBusy(request, ofBusy.Calendar, asked);
        }
        else if (asked.Name == D + "sync-collection" && thing is DavThing.Collection collection)
        {
            await Sync(request, collection.Calendar, asked);
        }
        else
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "supported-report",
                "There is no such report here."
            );
        }
    }

    private async Task Query(DavRequest request, DavThing thing, XElement asked)
    {
        var filter = DavQueries.Filter(asked.Element(C + "filter"));
        var found = thing switch
        {
            DavThing.Event one => [(one.Object, one.Calendar)],
            DavThing.Collection collection when request.Depth(otherwise: 0) is not 0 => await In(collection.Calendar),
            _ => [],
        };
        var told = found
            .Where(one => filter.Matches(one.Object.Object, range => TakesPlace(one.Object, range, one.Calendar)))
            .ToList();
        var wanted = Wanted(asked);
        await DavAnswers.Many(request.Http, told.Select(one => Told(request, one.Object, one.Calendar, wanted)));

        async Task<IReadOnlyList<(DavObject Object, DavCalendar Calendar)>> In(DavCalendar calendar)
        {
            var range = filter.Inside is [{ Name: "VEVENT", IsNotDefined: false, Range: { } only }] ? only : null;
            return
            [
                .. (
                    range is { Start: { } from, End: { } to } && to - from < Duration.FromDays(390)
                        ? await objects.Touching(
                            calendar,
                            new Window(
                                from.InZone(calendar.Zone).Date.PlusDays(-1),
                                to.InZone(calendar.Zone).Date.PlusDays(1),
                                calendar.Zone
                            ),
                            request.Stop
                        )
                        : await objects.All(calendar, request.Stop)
                ).Select(one => (one, calendar)),
            ];
        }
    }

    private async Task Multiget(DavRequest request, DavThing thing, XElement asked)
    {
        var hrefs = asked.Elements(D + "href").Select(href => href.Value.Trim()).Distinct().ToList();
        if (hrefs.Count > MostAddresses)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "number-of-matches-within-limits",
                FormattableString.Invariant($"Up to {MostAddresses} events can be asked for at once.")
            );
        }

        var calendar = thing switch
        {
            DavThing.Collection collection => collection.Calendar,
            DavThing.Event one => one.Calendar,
            _ => throw DavRefusals.NotThere("calendar"),
        };
        var names = hrefs.ToDictionary(href => href, href => NameIn(href, request.Reader.Owner, calendar.Id));
        var read = await objects.Named(calendar, [.. names.Values.OfType<string>()], request.Stop);
        var wanted = Wanted(asked);
        await DavAnswers.Many(
            request.Http,
            hrefs.Select(href =>
                names[href] is { } name && read.GetValueOrDefault(name) is { } one
                    ? Told(request, one, calendar, wanted, href)
                    : DavAnswers.Said(href, "404 Not Found")
            )
        );
    }

    private async Task FreeBusy(DavRequest request, DavCalendar calendar, XElement asked)
    {
        var range = DavQueries.Range(asked.Element(C + "time-range"));
        if (range is not { Start: { } from, End: { } to } || to - from > Duration.FromDays(LongestStretch))
        {
            throw new DavException(
                StatusCodes.Status400BadRequest,
                null,
                "When it is busy is told of a stretch with a start and an end, up to ten years apart."
            );
        }

        var reach = new Interval(from, to);
        var dates = (await objects.All(calendar, request.Stop))
            .SelectMany(one => Taking(one, range, calendar))
            .Take(MostDates + 1)
            .ToList();
        if (dates.Count > MostDates)
        {
            throw TooMuch();
        }

        var busy = DeviceTelling.Taken(dates, reach).Select(one => new PublishedBusy(one.Span, one.Tentative));
        request.Http.Response.ContentType = "text/calendar; charset=utf-8";
        await request.Http.Response.WriteAsync(
            PublishedCalendar.FreeBusy([.. busy], reach, clock.GetCurrentInstant()),
            request.Stop
        );
    }

    private async Task Sync(DavRequest request, DavCalendar calendar, XElement asked)
    {
        var text = asked.Element(D + "sync-token")?.Value.Trim() ?? string.Empty;
        var level = asked.Element(D + "sync-level")?.Value.Trim() ?? request.Http.Request.Headers["Depth"].ToString();
        if (level is not ("1" or "" or "0"))
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "sync-traversal-supported",
                "A calendar has one level: sync-level 1."
            );
        }

        var limit = asked.Element(D + "limit")?.Element(D + "nresults")?.Value.Trim();
        var most = DavSync.Most;
        if (limit is not null)
        {
            most =
                int.TryParse(limit, NumberStyles.None, CultureInfo.InvariantCulture, out var wished) && wished > 0
                    ? Math.Min(wished, DavSync.Most)
                    : throw new DavException(
                        StatusCodes.Status403Forbidden,
                        D + "number-of-matches-within-limits",
                        "A limit is a number from 1 on."
                    );
        }

        var since = text.Length == 0 ? null : SyncToken.Read(text);
        if (
            (text.Length > 0 && since is null)
            || await sync.Since(calendar, since, most, request.Stop) is not { } difference
        )
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "valid-sync-token",
                "What this program knows of the calendar does not hold any more. Read it anew."
            );
        }

        var wanted = Wanted(asked);
        var owner = request.Reader.Owner;
        await DavAnswers.Many(
            request.Http,
            difference
                .There.Select(one => Told(request, one, calendar, wanted))
                .Concat(
                    difference.Gone.Select(name =>
                        DavAnswers.Said(DavPath.Of(owner, calendar.Id, name), "404 Not Found")
                    )
                )
                .Concat(
                    difference.IsCut
                        ?
                        [
                            DavAnswers.Said(
                                DavPath.Of(owner, calendar.Id),
                                "507 Insufficient Storage",
                                new XElement(D + "error", new XElement(D + "number-of-matches-within-limits"))
                            ),
                        ]
                        : []
                ),
            new XElement(D + "sync-token", difference.Token.ToString())
        );
    }

    private static IReadOnlyList<(XName Name, ObjectData? Data)> Wanted(XElement asked) =>
        asked.Element(D + "allprop") is not null
            ?
            [
                (D + "getetag", null),
                (D + "getcontenttype", null),
                (D + "getcontentlength", null),
                (D + "resourcetype", null),
            ]
            :
            [
                .. (asked.Element(D + "prop")?.Elements() ?? []).Select(element =>
                    (element.Name, element.Name == C + "calendar-data" ? DavQueries.Data(element) : null)
                ),
            ];

    private XElement Told(
        DavRequest request,
        DavObject one,
        DavCalendar calendar,
        IReadOnlyList<(XName Name, ObjectData? Data)> wanted,
        string? href = null
    )
    {
        var thing = new DavThing.Event(href ?? DavPath.Of(request.Reader.Owner, calendar.Id, one.Name), one, calendar);
        return DavAnswers.Of(
            thing.Href,
            wanted.Select(each =>
                (
                    each.Name,
                    each.Data is { } data
                        ? new XElement(
                            each.Name,
                            Counted(data.Of(one.Object, range => Taking(one, range, calendar), zones))
                        )
                        : DavProperties.Value(each.Name, thing, request.Reader)
                )
            )
        );
    }

    /// <summary>Counts what is told by one answer: the same event can be asked for under many addresses, and all its dates each time.</summary>
    private string Counted(string text) => (letters += text.Length) <= MostLetters ? text : throw TooMuch();

    private static DavException TooMuch() =>
        new(
            StatusCodes.Status403Forbidden,
            D + "number-of-matches-within-limits",
            "That is more than is told at once. Ask for fewer events, or for less time."
        );

    private bool TakesPlace(DavObject one, TimeRange range, DavCalendar calendar) => Dates(one, range, calendar).Any();

    private List<Occurrence> Taking(DavObject one, TimeRange range, DavCalendar calendar)
    {
        if (range.End - range.Start > Duration.FromDays(LongestStretch))
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "number-of-matches-within-limits",
                "Dates are told one by one up to ten years at a time."
            );
        }

        var dates = Dates(one, range, calendar).Take(DavProperties.MostInstances + 1).ToList();
        return dates.Count > DavProperties.MostInstances
            ? throw new DavException(
                StatusCodes.Status403Forbidden,
                D + "number-of-matches-within-limits",
                FormattableString.Invariant(
                    $"An event has more than {DavProperties.MostInstances} dates in that time. Ask for less of it."
                )
            )
            : dates;
    }

    /// <summary>Its dates that overlap a stretch (RFC 4791, 9.9), worked out year by year; where it is open, up to where the event ends.</summary>
    private IEnumerable<Occurrence> Dates(DavObject one, TimeRange range, DavCalendar calendar)
    {
        var whole = one.Object.Event;
        var zone = calendar.Zone;
        var from = Instant.Max(range.Start ?? Instant.MinValue, whole.FirstStart(zones) - Duration.FromDays(2));
        var last = (whole.LastEnd(zones) ?? from + Duration.FromDays(LongestStretch)) + Duration.FromDays(2);
        var to = range.End is { } end && end < last ? end : last;
        var day = from.InZone(zone).Date.PlusDays(-1);
        var lastDay = to.InZone(zone).Date.PlusDays(1);
        for (var isFirst = true; day <= lastDay; isFirst = false)
        {
            var until = LocalDate.Min(day.PlusDays(Window.LongestDays - 1), lastDay);
            var window = new Window(day, until, zone);
            foreach (
                var date in (
                    isFirst ? whole.Occurrences(window, zones) : whole.OccurrencesStarting(window, zones)
                ).Where(date => Overlaps(date.Span, range))
            )
            {
                yield return date;
            }

            day = until.PlusDays(1);
        }
    }

    private static bool Overlaps(Interval span, TimeRange range) =>
        (range.End is not { } end || span.Start < end)
        && (
            range.Start is not { } start || span.End > start || (span.Duration == Duration.Zero && span.Start >= start)
        );

    private static string? NameIn(string href, PersonId owner, CalendarId calendar)
    {
        var path =
            Uri.TryCreate(href, UriKind.Absolute, out var whole) && whole.Scheme is "http" or "https"
                ? whole!.AbsolutePath
                : href;
        return
            DavPath.Read(Uri.UnescapeDataString(path)) is DavPath.Object one
            && one.Person == owner
            && one.Calendar == calendar
            ? one.Name
            : null;
    }
}
