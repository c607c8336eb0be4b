using System.Xml;
using System.Xml.Linq;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>Makes and sends the answers of the calendar server (RFC 4918, 13).</summary>
internal static class DavAnswers
{
    private static readonly XmlWriterSettings AsIs = new()
    {
        Encoding = new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: false),
    };

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
    public static Task Many(HttpContext context, IEnumerable<XElement> responses, params XElement[] more) =>
        Send(
            context,
            StatusCodes.Status207MultiStatus,
            writer =>
            {
                writer.WriteStartElement("d", "multistatus", D.NamespaceName);
                writer.WriteAttributeString("xmlns", "c", null, C.NamespaceName);
                // One after the other: of a whole calendar they are thousands, and none is needed any more once it is written.
                foreach (var response in responses.Concat(more))
                {
                    Fit(response).WriteTo(writer);
                }

                writer.WriteEndElement();
            }
        );

    /// <summary>Sends some XML.</summary>
    public static Task Send(HttpContext context, int status, XElement body) =>
        Send(context, status, writer => Fit(body).WriteTo(writer));

    private static async Task Send(HttpContext context, int status, Action<XmlWriter> write)
    {
        // All of it is written before any goes out: what cannot be told after all is refused, and not cut off.
        using var written = new MemoryStream();
        using (var writer = XmlWriter.Create(written, AsIs))
        {
            write(writer);
        }

        context.Response.StatusCode = status;
        context.Response.ContentType = "application/xml; charset=utf-8";
        context.Response.ContentLength = written.Length;
        await context.Response.Body.WriteAsync(
            written.GetBuffer().AsMemory(0, (int)written.Length),
            context.RequestAborted
        );
    }

    /// <summary>The same without letters that cannot stand in XML.</summary>
    private static XElement Fit(XElement body)
    {
        foreach (var text in body.DescendantNodes().OfType<XText>().Where(text => !IsXml(text.Value)))
        {
            text.Value = string.Concat(text.Value.EnumerateRunes().Where(rune => IsXml(rune.ToString())));
        }

        return body;
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
