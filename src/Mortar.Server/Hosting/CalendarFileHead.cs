using System.Globalization;
using Microsoft.Net.Http.Headers;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>What stands before a calendar file that other programs fetch again and again.</summary>
internal static class CalendarFileHead
{
    /// <summary>
    /// Writes it, and says whether the file itself is to follow: it is not for whoever asks for the head alone, nor for whoever
    /// has it, by its tag or, for programs that know only that, by its date (RFC 9110, 13.1).
    /// </summary>
    /// <param name="context">The request.</param>
    /// <param name="hash">Stands for all that the file tells, in hexadecimal.</param>
    /// <param name="changedAt">Since when it tells that.</param>
    /// <param name="name">What it is called as a file, without its ending.</param>
    /// <param name="caches">Who may keep it; everybody asks before they use it once more.</param>
    public static bool Begin(HttpContext context, string hash, Instant changedAt, string name, string caches)
    {
        var headers = context.Response.Headers;
        var tag = new EntityTagHeaderValue($"\"{hash[..32]}\"", isWeak: true);
        headers.CacheControl = $"{caches}, no-cache";
        headers.XContentTypeOptions = "nosniff";
        headers.ETag = tag.ToString();
        headers.LastModified = changedAt.ToDateTimeUtc().ToString("R", CultureInfo.InvariantCulture);
        if (Preconditions.IsKnown(context.Request, tag, changedAt))
        {
            context.Response.StatusCode = StatusCodes.Status304NotModified;
            return false;
        }

        context.Response.ContentType = "text/calendar; charset=utf-8";
        headers.ContentDisposition = $"inline; filename=\"{name}.ics\"";
        return !HttpMethods.IsHead(context.Request.Method);
    }
}
