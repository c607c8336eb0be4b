using System.Xml;
using System.Xml.Linq;

namespace Mortar.Server.Features.Devices;

/// <summary>The names of WebDAV (RFC 4918, 3744, 5397, 6578) and CalDAV (RFC 4791), and how their XML is read.</summary>
internal static class DavXml
{
    public static readonly XNamespace D = "DAV:";
    public static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";
    public static readonly XNamespace M = "urn:mortar";

    /// <summary>The largest request that is read; a thousand addresses are a tenth of it.</summary>
    public const int Largest = 1024 * 1024;

    /// <summary>Deeper than any request goes.</summary>
    private const int Deepest = 24;

    /// <summary>More elements than any request has.</summary>
    private const int Most = 20_000;

    private static readonly XmlReaderSettings Safe = new()
    {
        // No entities, from inside or outside: they are how a small file becomes a large one, or somebody else's.
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
        MaxCharactersInDocument = Largest,
    };

    /// <summary>Reads the body of a request.</summary>
    /// <param name="context">The request.</param>
    /// <returns>The element; <c>null</c> where there is no body.</returns>
    /// <exception cref="DavException">It is too large, or not XML that is taken.</exception>
    public static async Task<XElement?> Read(HttpContext context)
    {
        var bytes = await Bytes(context, Largest);
        return bytes.Length == 0 ? null : Read(bytes);
    }

    /// <summary>Reads the body of a request, up to so many bytes.</summary>
    public static async Task<byte[]> Bytes(HttpContext context, int most)
    {
        var stop = context.RequestAborted;
        if (context.Request.ContentLength > most)
        {
            throw TooLarge();
        }

        using var body = new MemoryStream();
        var piece = new byte[16 * 1024];
        int count;
        while ((count = await context.Request.Body.ReadAsync(piece, stop)) > 0)
        {
            body.Write(piece, 0, count);
            if (body.Length > most)
            {
                throw TooLarge();
            }
        }

        return body.ToArray();

        static DavException TooLarge() =>
            new(StatusCodes.Status413PayloadTooLarge, null, "That is more than can be taken at once.");
    }

    /// <summary>Reads some XML.</summary>
    /// <exception cref="DavException">It is not XML that is taken.</exception>
    public static XElement Read(byte[] bytes)
    {
        try
        {
            using (var look = XmlReader.Create(new MemoryStream(bytes), Safe))
            {
                var count = 0;
                while (look.Read())
                {
                    if (look.Depth > Deepest || (look.NodeType == XmlNodeType.Element && ++count > Most))
                    {
                        throw new DavException(
                            StatusCodes.Status400BadRequest,
                            null,
                            "The request has more parts, or parts deeper inside one another, than any has to have."
                        );
                    }
                }
            }

            using var reader = XmlReader.Create(new MemoryStream(bytes), Safe);
            return XElement.Load(reader);
        }
        catch (XmlException bad)
        {
            throw new DavException(
                StatusCodes.Status400BadRequest,
                null,
                FormattableString.Invariant(
                    $"The request is not XML that is taken: line {bad.LineNumber}, place {bad.LinePosition}."
                )
            );
        }
    }
}

/// <summary>Why something that a calendar program asked for is not done, in the form in which they are told.</summary>
internal sealed class DavException(int status, XName? condition, string sentence, params object[] about)
    : Exception(sentence)
{
    public int Status => status;

    /// <summary>The precondition or postcondition that is not met; <c>null</c> where the standard names none.</summary>
    public XName? Condition => condition;

    /// <summary>The body of the answer (RFC 4918, 16), with what to do in words.</summary>
    public XElement Body =>
        new(
            DavXml.D + "error",
            condition is null ? null : new XElement(condition, about),
            new XElement(DavXml.D + "responsedescription", Message)
        );
}
