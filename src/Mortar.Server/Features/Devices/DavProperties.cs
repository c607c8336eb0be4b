using System.Globalization;
using System.Xml.Linq;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>Something that has properties.</summary>
/// <param name="Href">Where it is.</param>
internal abstract record DavThing(string Href)
{
    /// <summary>The beginning.</summary>
    public sealed record Root() : DavThing(DavPath.Top);

    /// <summary>The one who asks.</summary>
    /// <param name="Addresses">Their mail addresses, which only they are told.</param>
    public sealed record Principal(string Href, PersonId Person, string Name, IReadOnlyList<string> Addresses)
        : DavThing(Href);

    /// <summary>Where their calendars are.</summary>
    public sealed record Home(string Href) : DavThing(Href);

    /// <summary>A calendar.</summary>
    /// <param name="Token">Up to when it is known (DAV:sync-token); empty where nobody asked.</param>
    /// <param name="ZoneFile">The rules of its zone.</param>
    /// <param name="Own">What programs set on it for their owner alone; nothing where nobody asked.</param>
    public sealed record Collection(
        string Href,
        DavCalendar Calendar,
        string Token,
        Func<string> ZoneFile,
        IReadOnlyDictionary<XName, XElement> Own
    ) : DavThing(Href);

    /// <summary>An event.</summary>
    public sealed record Event(string Href, DavObject Object, DavCalendar Calendar) : DavThing(Href);
}

/// <summary>The properties that are told (RFC 4918, 15; RFC 3744, 4 and 5; RFC 4791, 5.2 and 6.2; RFC 5397, 3; RFC 6578, 4).</summary>
internal static class DavProperties
{
    /// <summary>The largest event that is taken, in bytes.</summary>
    public const int LargestObject = 1024 * 1024;

    /// <summary>How many dates of one series are worked out at most.</summary>
    public const int MostInstances = 20_000;

    /// <summary>
    /// Programs ask for the colour and the order of a calendar, and for what stands for its contents, by these names in
    /// namespaces of their makers (common practice, no source): they are told whatever the namespace.
    /// </summary>
    private const string Color = "calendar-color";
    private const string Order = "calendar-order";
    private const string Tag = "getctag";

    private static readonly XName[] OfAll =
    [
        D + "resourcetype",
        D + "current-user-principal",
        D + "displayname",
        D + "owner",
        D + "current-user-privilege-set",
        D + "supported-privilege-set",
        D + "supported-report-set",
        D + "principal-collection-set",
        D + "principal-URL",
        D + "alternate-URI-set",
        D + "group-membership",
        C + "calendar-home-set",
        C + "calendar-user-address-set",
        C + "calendar-description",
        C + "calendar-timezone",
        C + "supported-calendar-component-set",
        C + "supported-calendar-data",
        C + "supported-collation-set",
        C + "max-resource-size",
        C + "min-date-time",
        C + "max-date-time",
        C + "max-instances",
        C + "max-attendees-per-instance",
        D + "sync-token",
        D + "getetag",
        D + "getcontenttype",
        D + "getcontentlength",
    ];

    /// <summary>What allprop tells (RFC 4918, 9.1): what is defined there; all else is asked for by name (RFC 4791, 5.2 and 9.6).</summary>
    private static readonly HashSet<XName> InAllprop =
    [
        D + "resourcetype",
        D + "displayname",
        D + "getetag",
        D + "getcontenttype",
        D + "getcontentlength",
    ];

    /// <summary>The names of all that a thing has.</summary>
    public static IEnumerable<XName> Names(DavThing thing, DavReader reader) =>
        OfAll
            .Where(name => Value(name, thing, reader) is not null)
            .Concat((thing as DavThing.Collection)?.Own.Keys ?? []);

    /// <summary>What allprop tells of a thing.</summary>
    public static IEnumerable<XName> AllOf(DavThing thing) =>
        InAllprop.Concat((thing as DavThing.Collection)?.Own.Keys ?? []);

    /// <summary>Whether a property says up to when a calendar is known.</summary>
    public static bool IsToken(XName name) => name == D + "sync-token" || name.LocalName == Tag;

    /// <summary>Whether a property is nobody's to set by a program.</summary>
    public static bool IsProtected(XName name) =>
        OfAll.Contains(name) && name != D + "displayname" || name.LocalName == Tag;

    /// <summary>Whether a property is the colour of a calendar.</summary>
    public static bool IsColor(XName name) => name.LocalName == Color && name.Namespace != D && name.Namespace != C;

    /// <summary>A property; <c>null</c> where the thing has none of that name.</summary>
    public static XElement? Value(XName name, DavThing thing, DavReader reader)
    {
        if (Content(name, thing, reader) is { } content)
        {
            return new XElement(name, content);
        }

        return thing is DavThing.Collection collection ? OfCollection(name, collection) : null;
    }

    /// <summary>What stands in a property of a name that the standards give.</summary>
    private static object? Content(XName name, DavThing thing, DavReader reader) =>
        name.Namespace == D ? OfDav(name.LocalName, thing, reader)
        : name.Namespace == C ? OfCalendars(name.LocalName, thing, reader)
        : null;

    private static object? OfDav(string name, DavThing thing, DavReader reader) =>
        (name, thing) switch
        {
            ("resourcetype", DavThing.Principal) => new[]
            {
                new XElement(D + "collection"),
                new XElement(D + "principal"),
            },
            ("resourcetype", DavThing.Collection) => new[]
            {
                new XElement(D + "collection"),
                new XElement(C + "calendar"),
            },
            ("resourcetype", DavThing.Event) => string.Empty,
            ("resourcetype", _) => new XElement(D + "collection"),
            ("current-user-principal", _) => Href(DavPath.OfPrincipal(reader.Owner)),
            ("principal-collection-set", _) => Href($"{DavPath.Top}principals/"),
            ("displayname", DavThing.Principal one) => one.Name,
            ("displayname", DavThing.Home) => "Calendars",
            ("displayname", DavThing.Collection one) => one.Calendar.Name,
            ("owner", DavThing.Home or DavThing.Principal or DavThing.Collection or DavThing.Event) => Href(
                DavPath.OfPrincipal(reader.Owner)
            ),
            ("principal-URL", DavThing.Principal one) => Href(one.Href),
            ("alternate-URI-set" or "group-membership", DavThing.Principal) => string.Empty,
            ("current-user-privilege-set", _) => Privileges(thing, reader)
                .Select(privilege => new XElement(D + "privilege", new XElement(privilege)))
                .ToArray(),
            ("supported-privilege-set", _) => SupportedPrivileges(),
            ("supported-report-set", DavThing.Collection) => Reports(
                C + "calendar-query",
                C + "calendar-multiget",
                C + "free-busy-query",
                D + "sync-collection"
            ),
            ("sync-token", DavThing.Collection one) => one.Token,
            ("getetag", DavThing.Event one) => one.Object.Object.ETag,
            ("getcontenttype", DavThing.Event) => "text/calendar; charset=utf-8; component=vevent",
            ("getcontentlength", DavThing.Event one) => System
                .Text.Encoding.UTF8.GetByteCount(one.Object.Object.Text)
                .ToString(CultureInfo.InvariantCulture),
            _ => null,
        };

    private static object? OfCalendars(string name, DavThing thing, DavReader reader) =>
        (name, thing) switch
        {
            ("calendar-home-set", DavThing.Principal) => Href(DavPath.OfHome(reader.Owner)),
            ("calendar-user-address-set", DavThing.Principal one) => one
                .Addresses.Select(address => $"mailto:{address}")
                .Prepend($"urn:uuid:{one.Person.Value:D}")
                .Select(Href)
                .ToArray(),
            ("calendar-description", DavThing.Collection { Calendar.Seen.Description: { Length: > 0 } said }) => said,
            ("calendar-timezone", DavThing.Collection one) => one.ZoneFile(),
            ("supported-calendar-component-set", DavThing.Collection) => new XElement(
                C + "comp",
                new XAttribute("name", "VEVENT")
            ),
            ("supported-calendar-data", DavThing.Collection) => new XElement(
                C + "calendar-data",
                new XAttribute("content-type", "text/calendar"),
                new XAttribute("version", "2.0")
            ),
            ("supported-collation-set", DavThing.Collection) => new[]
            {
                new XElement(C + "supported-collation", "i;ascii-casemap"),
                new XElement(C + "supported-collation", "i;octet"),
            },
            ("max-resource-size", DavThing.Collection) => Number(LargestObject),
            ("max-instances", DavThing.Collection) => Number(MostInstances),
            ("max-attendees-per-instance", DavThing.Collection) => Number(Core.Events.EventRules.MostAttendees),
            ("min-date-time", DavThing.Collection) => $"{Number(FileLimits.FirstYear)}0101T000000Z",
            ("max-date-time", DavThing.Collection) => $"{Number(FileLimits.LastYear)}1231T235959Z",
            _ => null,
        };

    private static XElement? OfCollection(XName name, DavThing.Collection one)
    {
        var own = one.Own.GetValueOrDefault(name);
        return
            // A colour that a program set is told as it was set, as long as its layer still has the hue that is nearest.
            IsColor(name) && (own is null || HueColors.Nearest(own.Value) != one.Calendar.Hue)
                ? new XElement(name, HueColors.Code(one.Calendar.Hue) + "FF")
            : own is not null ? own
            : name.Namespace == D || name.Namespace == C ? null
            : name.LocalName == Order ? new XElement(name, Number(one.Calendar.Place + 1))
            : name.LocalName == Tag ? new XElement(name, one.Token)
            : null;
    }

    private static IEnumerable<XName> Privileges(DavThing thing, DavReader reader)
    {
        yield return D + "read";
        yield return D + "read-current-user-privilege-set";
        switch (thing)
        {
            case DavThing.Home when reader.Device.Writes:
                yield return D + "bind";
                break;
            case DavThing.Collection { Calendar: var calendar }:
                yield return C + "read-free-busy";
                foreach (var privilege in OnCalendar(calendar, reader))
                {
                    yield return privilege;
                }

                break;
            case DavThing.Event { Object: { IsWhole: true, Row: { } row }, Calendar: var calendar }
                when reader.Device.Writes
                    && Core.Access.AccessRules.ToChange(calendar.OwnersRole, reader.Owner, row.ToCore())
                        == Core.Access.Verdict.Granted:
                yield return D + "write-content";
                break;
        }
    }

    private static IEnumerable<XName> OnCalendar(DavCalendar calendar, DavReader reader)
    {
        var may = DevicePrivileges.On(reader.Device, calendar.OwnersRole, calendar.Row.FromWeb);
        if (may.Write)
        {
            yield return D + "write";
            yield return D + "write-content";
        }

        if (may.Add)
        {
            yield return D + "bind";
            yield return D + "unbind";
        }

        if (may.Look)
        {
            yield return D + "write-properties";
        }
    }

    /// <summary>Which privileges hold which others (RFC 3744, 5.3, and RFC 4791, 6.1.1).</summary>
    private static XElement SupportedPrivileges()
    {
        return Privilege(
            D + "all",
            "All",
            Privilege(
                D + "read",
                "Read",
                Privilege(D + "read-current-user-privilege-set", "Read what one may"),
                Privilege(C + "read-free-busy", "Read when it is busy")
            ),
            Privilege(
                D + "write",
                "Write",
                Privilege(D + "bind", "Add"),
                Privilege(D + "unbind", "Take out"),
                Privilege(D + "write-content", "Change"),
                Privilege(D + "write-properties", "Give a look of one’s own")
            )
        );

        static XElement Privilege(XName name, string said, params XElement[] inside) =>
            new(
                D + "supported-privilege",
                new XElement(D + "privilege", new XElement(name)),
                new XElement(D + "description", new XAttribute(XNamespace.Xml + "lang", "en"), said),
                inside
            );
    }

    private static XElement[] Reports(params XName[] names) =>
        [.. names.Select(name => new XElement(D + "supported-report", new XElement(D + "report", new XElement(name))))];

    private static XElement Href(string href) => new(D + "href", href);

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);
}
