using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Words;

namespace Mortar.Server.Features.Devices;

/// <summary>What an address of the calendar server means.</summary>
internal abstract record DavPath
{
    private DavPath() { }

    /// <summary>Where everything begins.</summary>
    public const string Top = "/dav/";

    /// <summary>The beginning, which says who asks.</summary>
    public sealed record Root : DavPath;

    /// <summary>A person as who they are (RFC 3744, 2).</summary>
    public sealed record Principal(PersonId Person) : DavPath;

    /// <summary>Where somebody's calendars are (RFC 4791, 6.2.1).</summary>
    public sealed record Home(PersonId Person) : DavPath;

    /// <summary>A calendar on somebody's shelf (RFC 4791, 4.2).</summary>
    public sealed record Collection(PersonId Person, CalendarId Calendar) : DavPath;

    /// <summary>An event in it (RFC 4791, 4.1).</summary>
    public sealed record Object(PersonId Person, CalendarId Calendar, string Name) : DavPath;

    /// <summary>Nothing.</summary>
    public sealed record Nothing : DavPath;

    /// <summary>The longest name of an event in an address.</summary>
    private const int LongestName = 250;

    /// <summary>Reads one, unescaped.</summary>
    public static DavPath Read(string path)
    {
        if (path is "/dav" or Top)
        {
            return new Root();
        }

        var parts = path.StartsWith(Top, StringComparison.Ordinal) ? path[Top.Length..].TrimEnd('/').Split('/') : [];
        return parts switch
        {
            ["principals", var person] when Id(person) is { } id => new Principal(new PersonId(id)),
            ["calendars", var person] when Id(person) is { } id => new Home(new PersonId(id)),
            ["calendars", var person, var calendar]
                when Id(person) is { } id && calendar.Length is > 0 and <= LongestName => new Collection(
                new PersonId(id),
                CalendarOf(new PersonId(id), calendar)
            ),
            ["calendars", var person, var calendar, var name]
                when Id(person) is { } id
                    && calendar.Length is > 0 and <= LongestName
                    && name.Length is > 0 and <= LongestName => new Object(
                new PersonId(id),
                CalendarOf(new PersonId(id), calendar),
                name
            ),
            _ => new Nothing(),
        };

        static Guid? Id(string text) => Guid.TryParseExact(text, "N", out var id) ? id : null;
    }

    /// <summary>A program names a calendar that it makes as it likes; the name leads to the same one each time.</summary>
    private static CalendarId CalendarOf(PersonId person, string segment) =>
        Guid.TryParse(segment, out var id)
            ? new CalendarId(id)
            : new CalendarId(
                new Guid(
                    SHA256.HashData(Encoding.UTF8.GetBytes($"{person.Value:N}/{segment}")).AsSpan(0, 16),
                    bigEndian: true
                )
            );

    public static string OfPrincipal(PersonId person) => $"{Top}principals/{person.Value:N}/";

    public static string OfHome(PersonId person) => $"{Top}calendars/{person.Value:N}/";

    public static string Of(PersonId person, CalendarId calendar) => $"{OfHome(person)}{calendar.Value:N}/";

    public static string Of(PersonId person, CalendarId calendar, string name) =>
        Of(person, calendar) + Uri.EscapeDataString(name);
}
