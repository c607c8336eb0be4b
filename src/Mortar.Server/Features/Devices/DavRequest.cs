using System.Globalization;
using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime.Text;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>A request to the calendar server.</summary>
/// <param name="Http">The request.</param>
/// <param name="Reader">Who asks.</param>
/// <param name="Path">About what.</param>
internal sealed record DavRequest(HttpContext Http, DavReader Reader, DavPath Path)
{
    public CancellationToken Stop => Http.RequestAborted;

    /// <summary>The address as it was asked for, for answers that are about itself.</summary>
    public string Href => Http.Request.Path.ToUriComponent();

    /// <summary>How far it reaches (RFC 4918, 10.2); <c>null</c> for as far as there is anything.</summary>
    public int? Depth(int otherwise) =>
        Http.Request.Headers["Depth"].ToString().Trim() switch
        {
            "" => otherwise,
            "0" => 0,
            "1" => 1,
            _ => null,
        };

    /// <summary>Nothing is written by a device that only reads.</summary>
    /// <exception cref="DavException">It only reads.</exception>
    public void MustWrite()
    {
        if (!Reader.Device.Writes)
        {
            throw DavRefusals.ReadsOnly(Href);
        }
    }

    /// <summary>Whether an entity tag passes what the request asks of it (RFC 9110, 13.1).</summary>
    /// <param name="tag">That of what is there; <c>null</c> where nothing is.</param>
    public void MustMatch(string? tag)
    {
        var (match, none) = (Tags("If-Match"), Tags("If-None-Match"));
        if (
            (match.Count > 0 && (tag is null || !(match.Contains("*") || match.Contains(tag))))
            || (none.Count > 0 && tag is not null && (none.Contains("*") || none.Contains(tag)))
        )
        {
            throw new DavException(
                StatusCodes.Status412PreconditionFailed,
                null,
                tag is null ? "There is no such event any more."
                    : match.Count > 0 ? "Somebody changed this in the meantime. Nothing was overwritten."
                    : "There is one already."
            );
        }
    }

    /// <summary>The properties that are asked for; <c>null</c> for all there are, and nothing where it is not about properties.</summary>
    public IReadOnlyCollection<XName>? Wanted { get; init; } = [];

    /// <summary>Whether the request names a version that it is about.</summary>
    public bool NamesVersion => Tags("If-Match").Exists(tag => tag != "*");

    private List<string> Tags(string header) =>
        [
            .. Http
                .Request.Headers[header]
                .SelectMany(line => (line ?? string.Empty).Split(','))
                .Select(tag => tag.Trim())
                .Where(tag => tag.Length > 0)
                .Select(tag => tag.StartsWith("W/", StringComparison.Ordinal) ? $"weak {tag}" : tag),
        ];
}

/// <summary>Finds what a request is about.</summary>
internal sealed class DavThings(MortarDb db, DavShelf shelf, DavObjects objects, DavSync sync, ZoneClock zones)
{
    /// <summary>The thing itself; of what is somebody else's or hidden there is none.</summary>
    /// <exception cref="DavException">There is no such thing.</exception>
    public async Task<DavThing> Find(DavRequest request)
    {
        var owner = request.Reader.Owner;
        switch (request.Path)
        {
            case DavPath.Root:
                return new DavThing.Root();
            case DavPath.Principal { Person: var person } when person == owner:
                return await Me(request);
            case DavPath.Home { Person: var person } when person == owner:
                return new DavThing.Home(DavPath.OfHome(owner));
            case DavPath.Collection path:
                return await Of(await Calendar(request.Reader, path.Person, path.Calendar, request.Stop), request);
            case DavPath.Object path:
                var calendar = await Calendar(request.Reader, path.Person, path.Calendar, request.Stop);
                return await objects.Named(calendar, path.Name, request.Stop) is { } one
                    ? new DavThing.Event(request.Href, one, calendar)
                    : throw DavRefusals.NotThere("event");
            default:
                throw DavRefusals.NotThere("calendar");
        }
    }

    /// <summary>What is inside a thing, one step down.</summary>
    public async Task<IReadOnlyList<DavThing>> Inside(DavThing thing, DavRequest request)
    {
        var owner = request.Reader.Owner;
        switch (thing)
        {
            case DavThing.Home:
                var collections = new List<DavThing>();
                foreach (var calendar in await shelf.All(request.Reader, request.Stop))
                {
                    collections.Add(await Of(calendar, request));
                }

                return collections;
            case DavThing.Collection { Calendar: var calendar }:
                return
                [
                    .. (await objects.All(calendar, request.Stop)).Select(one => new DavThing.Event(
                        DavPath.Of(owner, calendar.Id, one.Name),
                        one,
                        calendar
                    )),
                ];
            case DavThing.Root:
                return [await Me(request), new DavThing.Home(DavPath.OfHome(owner))];
            default:
                return [];
        }
    }

    /// <summary>A calendar of who asks.</summary>
    /// <exception cref="DavException">There is none for them.</exception>
    public async Task<DavCalendar> Calendar(
        DavReader reader,
        PersonId person,
        CalendarId id,
        CancellationToken cancellationToken
    ) =>
        person == reader.Owner && await shelf.One(reader, id, cancellationToken) is { } calendar
            ? calendar
            : throw DavRefusals.NotThere("calendar");

    private async Task<DavThing> Of(DavCalendar calendar, DavRequest request)
    {
        var wanted = request.Wanted;
        var own =
            wanted?.All(name => name.Namespace == D || name.Namespace == C) == true
                ? []
                : await db
                    .OwnProperties.AsNoTracking()
                    .Where(row => row.PersonId == request.Reader.Owner && row.CalendarId == calendar.Id)
                    .ToListAsync(request.Stop);
        return new DavThing.Collection(
            DavPath.Of(request.Reader.Owner, calendar.Id),
            calendar,
            wanted?.Any(DavProperties.IsToken) == false
                ? string.Empty
                : (await sync.Token(calendar, request.Stop)).ToString(),
            () => CalendarFileWriter.ZoneFile(calendar.Row.Zone, zones),
            own.Select(row => XElement.Parse(row.Xml)).ToDictionary(one => one.Name)
        );
    }

    private async Task<DavThing> Me(DavRequest request)
    {
        var owner = request.Reader.Owner;
        var name = await db.People.Where(row => row.Id == owner).Select(row => row.Name).SingleAsync(request.Stop);
        return new DavThing.Principal(DavPath.OfPrincipal(owner), owner, name, await AddressesOf(owner, request.Stop));
    }

    /// <summary>The mail addresses that are somebody's, the first one first: those they confirmed.</summary>
    public async Task<IReadOnlyList<string>> AddressesOf(PersonId person, CancellationToken cancellationToken) =>
        [
            .. await db
                .People.Where(row => row.Id == person && row.Address != null)
                .Select(row => row.Address!)
                .ToListAsync(cancellationToken),
            .. await db
                .Addresses.Where(row => row.PersonId == person && row.ConfirmedAt != null)
                .OrderBy(row => row.Address)
                .Select(row => row.Address)
                .ToListAsync(cancellationToken),
        ];
}

/// <summary>Reads what is asked of calendars (RFC 4791, 9).</summary>
internal static class DavQueries
{
    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <summary>A stretch of time.</summary>
    /// <exception cref="DavException">It is none.</exception>
    public static TimeRange? Range(XElement? element)
    {
        if (element is null)
        {
            return null;
        }

        var range = new TimeRange(At("start"), At("end"));
        return range is { Start: null, End: null } || range.End <= range.Start
            ? throw Bad("A time-range has a start before its end, or one of the two.")
            : range;

        NodaTime.Instant? At(string name) =>
            element.Attribute(name) is not { } attribute ? null
            : Utc.Parse(attribute.Value).TryGetValue(default, out var at) ? at
            : throw Bad("The ends of a time-range are in UTC, as 20260311T080000Z.");
    }

    /// <summary>A filter, from the one of VCALENDAR on.</summary>
    /// <exception cref="DavException">It is none, or one that is not worked out here.</exception>
    public static ComponentFilter Filter(XElement? filter) =>
        filter?.Elements(C + "comp-filter").ToList() is [{ } only] && Name(only) == "VCALENDAR"
            ? Component(only)
            : throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "valid-filter",
                "A filter begins with the one comp-filter of VCALENDAR."
            );

    /// <summary>Which part of events is asked for.</summary>
    public static ObjectData Data(XElement element)
    {
        var (expand, limit) = (
            Range(element.Element(C + "expand")),
            Range(element.Element(C + "limit-recurrence-set"))
        );
        return expand is { Start: null } or { End: null } || limit is { Start: null } or { End: null }
            ? throw Bad("To expand or limit a series takes a start and an end.")
            : new ObjectData(element.Element(C + "comp") is { } part ? Part(part) : null, expand, limit);
    }

    private static ComponentPart Part(XElement element) =>
        new(
            Name(element),
            element.Element(C + "allprop") is not null
                ? null
                : element
                    .Elements(C + "prop")
                    .GroupBy(Name)
                    .ToDictionary(
                        same => same.Key,
                        same =>
                            !string.Equals(same.First().Attribute("novalue")?.Value, "yes", StringComparison.Ordinal)
                    ),
            element.Element(C + "allcomp") is not null ? null : [.. element.Elements(C + "comp").Select(Part)]
        );

    private static ComponentFilter Component(XElement element)
    {
        var name = Name(element);
        var range = Range(element.Element(C + "time-range"));
        if (range is not null && name != "VEVENT" && name is "VALARM" or "VTIMEZONE" or "VCALENDAR")
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "supported-filter",
                $"A time-range is worked out for events, and not for {name}.",
                new XElement(element)
            );
        }

        return new ComponentFilter(
            name,
            element.Element(C + "is-not-defined") is not null,
            range,
            [.. element.Elements(C + "prop-filter").Select(Property)],
            [.. element.Elements(C + "comp-filter").Select(Component)]
        );
    }

    private static PropertyFilter Property(XElement element) =>
        new(
            Name(element),
            element.Element(C + "is-not-defined") is not null,
            Range(element.Element(C + "time-range")),
            Text(element.Element(C + "text-match")),
            [
                .. element
                    .Elements(C + "param-filter")
                    .Select(one => new ParameterFilter(
                        Name(one),
                        one.Element(C + "is-not-defined") is not null,
                        Text(one.Element(C + "text-match"))
                    )),
            ]
        );

    private static TextMatch? Text(XElement? element) =>
        element is null
            ? null
            : new TextMatch(
                element.Value,
                element.Attribute("collation")?.Value switch
                {
                    null or "default" or "i;ascii-casemap" => false,
                    "i;octet" => true,
                    var other => throw new DavException(
                        StatusCodes.Status403Forbidden,
                        C + "supported-collation",
                        $"Texts are compared by i;ascii-casemap or i;octet, and not by {PlainText.Shorten(PlainText.OneLine(other), 40)}."
                    ),
                },
                string.Equals(element.Attribute("negate-condition")?.Value, "yes", StringComparison.Ordinal)
            );

    private static string Name(XElement element) =>
        element.Attribute("name")?.Value.ToUpper(CultureInfo.InvariantCulture) is { Length: > 0 } name
            ? name
            : throw Bad("Something in the request has no name.");

    private static DavException Bad(string sentence) => new(StatusCodes.Status400BadRequest, null, sentence);
}
