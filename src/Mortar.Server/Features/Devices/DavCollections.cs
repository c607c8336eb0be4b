using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Calendars;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Devices;
using Mortar.Data.Shelf;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>PROPPATCH (RFC 4918, 9.2) of one's own look, and MKCALENDAR (RFC 4791, 5.3.1).</summary>
internal sealed class DavCollections(
    MortarDb db,
    DavThings things,
    DavShelf shelf,
    ShelfCommands looks,
    OwnPropertyCommands properties,
    CalendarCommands calendars
)
{
    /// <summary>The longest property that is kept for a program, in UTF-16 units.</summary>
    private const int LongestProperty = 4_000;

    public async Task Patch(DavRequest request)
    {
        var asked = await Read(request.Http);
        if (asked?.Name != D + "propertyupdate")
        {
            throw new DavException(StatusCodes.Status400BadRequest, null, "PROPPATCH takes a propertyupdate.");
        }

        var thing = await things.Find(request);
        request.MustWrite();

        var wishes = asked
            .Elements()
            .Where(element => element.Name == D + "set" || element.Name == D + "remove")
            .SelectMany(element =>
                element
                    .Elements(D + "prop")
                    .Elements()
                    .Select(property => (Property: property, Sets: element.Name == D + "set"))
            )
            .ToList();
        var refused = wishes.ToDictionary(
            wish => wish,
            wish =>
                thing is not DavThing.Collection || DavProperties.IsProtected(wish.Property.Name)
                    ? "cannot-modify-protected-property"
                : IsTooLong(wish.Property) ? "too-long"
                : null
        );
        if (refused.Values.All(why => why is null) && thing is DavThing.Collection collection)
        {
            await Set(request, collection, wishes);
            await Answer(wish => DavAnswers.Stat([new XElement(wish.Property.Name)], "200 OK"));
            return;
        }

        // All of it or nothing (RFC 4918, 9.2).
        await Answer(wish =>
            refused[wish] is { } why
                ? DavAnswers.Stat(
                    [new XElement(wish.Property.Name)],
                    "403 Forbidden",
                    new XElement(D + "error", why == "too-long" ? new XElement(M + why) : new XElement(D + why))
                )
                : DavAnswers.Stat([new XElement(wish.Property.Name)], "424 Failed Dependency")
        );

        Task Answer(Func<(XElement Property, bool Sets), XElement> said) =>
            DavAnswers.Many(
                request.Http,
                [new XElement(D + "response", new XElement(D + "href", thing.Href), wishes.Select(said))]
            );
    }

    public async Task Make(DavRequest request)
    {
        var asked = await Read(request.Http);
        if (asked is not null && asked.Name != C + "mkcalendar")
        {
            throw new DavException(StatusCodes.Status400BadRequest, null, "MKCALENDAR takes a mkcalendar.");
        }

        if (request.Path is not DavPath.Collection path || path.Person != request.Reader.Owner)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "calendar-collection-location-ok",
                "Calendars are made among one’s own."
            );
        }

        request.MustWrite();

        if (await shelf.Reaches(request.Reader, path.Calendar, request.Stop))
        {
            throw MustBeNull();
        }

        var owner = request.Reader.Owner;
        var groups = await (
            from member in db.Members
            join g in db.Groups on member.GroupId equals g.Id
            where member.PersonId == owner && g.DeletedAt == null && g.RestsSince == null
            select g
        ).ToListAsync(request.Stop);
        var home = DeviceRules.GroupOfNew(groups.ConvertAll(row => row.Id));
        if (home is not Outcome<GroupId>.Done { Value: var group })
        {
            throw DavRefusals.NotAllowed(DavPath.OfHome(owner), ((Refusal.NotAllowed)home.WhyNot).Sentence, "bind");
        }

        var set = asked?.Element(D + "set")?.Element(D + "prop")?.Elements().ToList() ?? [];
        if (
            set.Find(element => element.Name == C + "supported-calendar-component-set") is { } kinds
            && kinds.Elements().All(kind => kind.Attribute("name")?.Value.ToUpperInvariant() != "VEVENT")
        )
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "supported-calendar-component",
                "Calendars here are of events."
            );
        }

        var color = set.Find(element => DavProperties.IsColor(element.Name)) is { } wished
            ? HueColors.Nearest(wished.Value)
            : null;
        // The name may be that of a calendar that is there, on nobody's shelf or somebody else's: then it is as if it were asked to be changed.
        var made = await calendars.Put(
            Act.By(owner),
            path.Calendar,
            group,
            version: null,
            new CalendarSettings(
                set.Find(element => element.Name == D + "displayname")?.Value is { Length: > 0 } name
                    ? name
                    : "New calendar",
                set.Find(element => element.Name == C + "calendar-description")?.Value ?? string.Empty,
                color ?? Hue.Teal,
                Mark.Cone,
                groups.Find(row => row.Id == group)!.Zone,
                Purpose.Events,
                Core.Access.Role.None
            ),
            request.Stop
        );
        if (made is Outcome<CalendarRow>.Not { Why: Refusal.VersionNeeded })
        {
            throw MustBeNull();
        }

        made.OrThrow(request.Http, request.Href);
        request.Http.Response.StatusCode = StatusCodes.Status201Created;
        request.Http.Response.Headers.Location = DavPath.Of(owner, path.Calendar);

        static DavException MustBeNull() =>
            new(
                StatusCodes.Status403Forbidden,
                D + "resource-must-be-null",
                "There is a calendar of that name already."
            );
    }

    private async Task Set(
        DavRequest request,
        DavThing.Collection collection,
        List<(XElement Property, bool Sets)> wishes
    )
    {
        var owner = request.Reader.Owner;
        var calendar = collection.Calendar;
        var layer = calendar.Layer;
        var look = new LayerLook(layer?.Name ?? string.Empty, layer?.Hue, layer?.Mark);
        foreach (var (property, sets) in wishes)
        {
            if (property.Name == D + "displayname")
            {
                look = look with { Name = sets && property.Value != calendar.Row.Name ? property.Value : string.Empty };
            }
            else if (DavProperties.IsColor(property.Name))
            {
                look = look with { Hue = sets ? HueColors.Nearest(property.Value) ?? look.Hue : null };
            }
        }

        // All of it or nothing: what can be refused is known before any of it is kept.
        if (look.Check().WhyNot is { } unfit)
        {
            throw DavRefusals.Of(unfit, request.Http, request.Href);
        }

        (
            await properties.Set(
                owner,
                calendar.Id,
                [
                    .. wishes
                        .Where(wish => wish.Property.Name != D + "displayname")
                        .Select(wish =>
                            (
                                wish.Property.Name.ToString(),
                                wish.Sets ? wish.Property.ToString(SaveOptions.DisableFormatting) : null
                            )
                        ),
                ],
                request.Stop
            )
        ).OrThrow(request.Http, request.Href);
        (
            await looks.Lay(
                owner,
                new LaidLayer(calendar.Id, layer?.Shown ?? true, layer?.Beside ?? false, layer?.OffShelf ?? false),
                look,
                request.Stop
            )
        ).OrThrow(request.Http, request.Href);
    }

    private static bool IsTooLong(XElement property) =>
        property.ToString(SaveOptions.DisableFormatting).Length > LongestProperty
        || property.Name.ToString().Length > 400;
}
