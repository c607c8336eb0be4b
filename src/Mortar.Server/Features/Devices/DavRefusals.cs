using System.Diagnostics;
using System.Globalization;
using System.Xml.Linq;
using Mortar.Core.Words;
using Mortar.Data.Devices;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>Refusals as calendar programs are told them: by the precondition that the standards name, with the sentence.</summary>
internal static class DavRefusals
{
    /// <summary>What a command came to; throws what is told where it was not done.</summary>
    /// <exception cref="DavException">It was not done.</exception>
    public static T OrThrow<T>(this Outcome<T> outcome, HttpContext context, string href) =>
        outcome switch
        {
            Outcome<T>.Done done => done.Value,
            Outcome<T>.Stale => throw new DavException(
                StatusCodes.Status412PreconditionFailed,
                null,
                "Somebody changed this in the meantime. Nothing was overwritten."
            ),
            Outcome<T>.Not not => throw Of(not.Why, context, href),
            _ => throw new UnreachableException(),
        };

    /// <summary>What is told of a refusal.</summary>
    public static DavException Of(Refusal why, HttpContext context, string href)
    {
        switch (why)
        {
            case Refusal.NotThere notThere:
                return NotThere(notThere.What);
            case Refusal.NotAllowed denied:
                return NotAllowed(href, denied.Sentence);
            case Refusal.Unfit unfit:
                return new DavException(
                    StatusCodes.Status403Forbidden,
                    C + "valid-calendar-data",
                    string.Join(' ', unfit.Problems.Select(problem => problem.Sentence))
                );
            case Refusal.TooOften often:
                context.Response.Headers.RetryAfter = Math.Ceiling(often.Wait.TotalSeconds)
                    .ToString(CultureInfo.InvariantCulture);
                return new DavException(StatusCodes.Status429TooManyRequests, null, often.Sentence);
            case Refusal.AgainstRule { Type: ObjectCommands.UidConflict } conflict:
                return new DavException(StatusCodes.Status409Conflict, C + "no-uid-conflict", conflict.Sentence);
            case Refusal.AgainstRule rule:
                return new DavException(StatusCodes.Status409Conflict, M + rule.Type, rule.Sentence);
            default:
                throw new UnreachableException($"Nothing is told of {why}.");
        }
    }

    /// <summary>A step that does not reach so far (RFC 3744, 7.1.1).</summary>
    public static DavException NotAllowed(string href, string sentence, string privilege = "write-content") =>
        new(
            StatusCodes.Status403Forbidden,
            D + "need-privileges",
            sentence,
            new XElement(
                D + "resource",
                new XElement(D + "href", href),
                new XElement(D + "privilege", new XElement(D + privilege))
            )
        );

    public static DavException NotThere(string what) =>
        new(
            StatusCodes.Status404NotFound,
            null,
            $"There is no such {what}, or it is not shared with you. Ask its coordinator if you expected it."
        );

    /// <summary>What a device that only reads is told.</summary>
    public static DavException ReadsOnly(string href) =>
        NotAllowed(
            href,
            "The key of this device reads only. Make one that does all that you may, in the preferences of Mortar."
        );

    /// <summary>What is told of an event of which not all is shown.</summary>
    public static DavException OnlySome(string href) =>
        NotAllowed(
            href,
            "Of this only some is shown to you, so it cannot be changed. A coordinator can give you a higher step."
        );

    /// <summary>What is told of an event that cannot be taken.</summary>
    public static DavException Of(SentObject.Unfit unfit) =>
        new(
            StatusCodes.Status403Forbidden,
            C
                + (
                    unfit.Fault switch
                    {
                        ObjectFault.SupportedCalendarData => "supported-calendar-data",
                        ObjectFault.ValidCalendarData => "valid-calendar-data",
                        ObjectFault.ValidCalendarObjectResource => "valid-calendar-object-resource",
                        ObjectFault.SupportedCalendarComponent => "supported-calendar-component",
                        _ => throw new UnreachableException(),
                    }
                ),
            unfit.Sentence
        );
}
