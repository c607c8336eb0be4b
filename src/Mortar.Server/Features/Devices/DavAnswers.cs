using System.Xml;
using System.Xml.Linq;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>Makes and sends the answers of the calendar server (RFC 4918, 13).</summary>
internal static class DavAnswers
{
    /// <summary>A thing and those of its properties that are asked for, found and not.</summary>
    public static XElement Of(string href, IEnumerable<(XName Name, XElement? Value)> properties)
    {
        var all = properties.ToList();
        var found = all.Where(one => one.Value is not null).Select(one => one.Value!).ToList();
        var missing = all.Where(one => one.Value is null).Select(one => new XElement(one.Name)).ToList();
        return new XElement(
            D + "response",
            new XElement(D + "href", href),
            found.Count > 0 || missing.Count == 0 ? Stat(found, "200 OK") : null,
            missing.Count > 0 ? Stat(missing, "404 Not Found") : null
        );
    }

    /// <summary>A thing of which something else is to be said.</summary>
    public static XElement Said(string href, string status, params object[] more) =>
        new(D + "response", new XElement(D + "href", href), new XElement(D + "status", $"HTTP/1.1 {status}"), more);

    /// <summary>Some properties and what came of them.</summary>
    public static XElement Stat(IEnumerable<XElement> properties, string status, params object[] more) =>
        new(
            D + "propstat",
            new XElement(D + "prop", properties),
            new XElement(D + "status", $"HTTP/1.1 {status}"),
            more
        );

    /// <summary>Sends several answers in one.</summary>
    public static Task Many(HttpContext context, IEnumerable<XElement> responses, params object[] more) =>
        Send(
            context,
            StatusCodes.Status207MultiStatus,
            new XElement(
                D + "multistatus",
                new XAttribute(XNamespace.Xmlns + "d", D.NamespaceName),
                new XAttribute(XNamespace.Xmlns + "c", C.NamespaceName),
                responses,
                more
            )
        );

    /// <summary>Sends some XML.</summary>
    public static async Task Send(HttpContext context, int status, XElement body)
    {
        foreach (var text in body.DescendantNodes().OfType<XText>().Where(text => !IsXml(text.Value)))
        {
            text.Value = string.Concat(text.Value.EnumerateRunes().Where(rune => IsXml(rune.ToString())));
        }

        context.Response.StatusCode = status;
        context.Response.ContentType = "application/xml; charset=utf-8";
        await using var writer = new StreamWriter(context.Response.Body, leaveOpen: true);
        await writer.WriteAsync("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n");
        await writer.WriteAsync(body.ToString(SaveOptions.DisableFormatting).AsMemory(), context.RequestAborted);
    }

    /// <summary>Whether a text can stand in XML (1.0, 2.2): one letter that cannot would be the end of everything told with it.</summary>
    private static bool IsXml(string text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            if (XmlConvert.IsXmlChar(text[at]))
            {
                continue;
            }

            if (at + 1 < text.Length && XmlConvert.IsXmlSurrogatePair(text[at + 1], text[at]))
            {
                at++;
                continue;
            }

            return false;
        }

        return true;
    }
}
