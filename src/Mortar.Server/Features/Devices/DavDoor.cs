using System.Security.Claims;
using System.Text;
using Microsoft.AspNetCore.RateLimiting;
using Mortar.Data.Devices;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Devices;

/// <summary>
/// /dav and /.well-known/caldav (RFC 6764, 5): the calendar server for other programs. They come with the key of a device
/// (RFC 7617); no cookie is read or set.
/// </summary>
internal static class DavDoor
{
    private const string WellKnown = "/.well-known/caldav";
    private const string Methods =
        "OPTIONS, GET, HEAD, PUT, DELETE, MOVE, COPY, PROPFIND, PROPPATCH, REPORT, MKCALENDAR";
    private static readonly object Known = new();

    public static void UseDevices(this WebApplication app) =>
        app.MapWhen(
            context =>
                context.Request.Path.StartsWithSegments("/dav", StringComparison.Ordinal)
                || context.Request.Path.StartsWithSegments(WellKnown, StringComparison.Ordinal),
            branch =>
            {
                branch.Use(Headers);
                branch.UseResponseCompression();
                branch.Use(SeeWho);
                branch.UseRateLimits();
                branch.Run(Serve);
            }
        );

    private static Task Headers(HttpContext context, RequestDelegate next)
    {
        var headers = context.Response.Headers;
        headers["DAV"] = "1, 3, access-control, calendar-access";
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["X-Robots-Tag"] = "noindex";
        headers.ContentSecurityPolicy = "default-src 'none'; frame-ancestors 'none'";
        headers.CacheControl = "private, no-cache";
        if (context.Request.IsHttps)
        {
            headers.StrictTransportSecurity = "max-age=31536000; includeSubDomains";
        }

        return next(context);
    }

    /// <summary>Finds out whose key it is, and by which count a request is slowed down.</summary>
    private static async Task SeeWho(HttpContext context, RequestDelegate next)
    {
        var policy = default(string);
        if (KeyOf(context) is { } key)
        {
            var db = context.RequestServices.GetRequiredService<MortarDb>();
            var kept = context.RequestServices.GetRequiredService<DavKept>();
            if (await kept.Device(db, key, context.RequestAborted) is { } device)
            {
                context.Items[Known] = new DavReader(device);
                context.User = new ClaimsPrincipal(
                    new ClaimsIdentity([new Claim(ClaimTypes.NameIdentifier, device.Owner.Value.ToString())], "device")
                );
                policy = context.Request.Method is "REPORT" or "PROPFIND" ? RateLimits.Devices : null;
            }
            else
            {
                // Guessing is counted; who has a key is not kept out by others of their network who do.
                policy = RateLimits.Keys;
            }
        }

        context.SetEndpoint(
            new Endpoint(
                null,
                new EndpointMetadataCollection(policy is null ? [] : [new EnableRateLimitingAttribute(policy)]),
                "devices"
            )
        );
        await next(context);
    }

    private static async Task Serve(HttpContext context)
    {
        if (context.Request.Path.StartsWithSegments(WellKnown, StringComparison.Ordinal))
        {
            context.Response.StatusCode = StatusCodes.Status301MovedPermanently;
            context.Response.Headers.Location = DavPath.Top;
            return;
        }

        if (HttpMethods.IsOptions(context.Request.Method))
        {
            context.Response.Headers.Allow = Methods;
            context.Response.StatusCode = StatusCodes.Status200OK;
            return;
        }

        if (context.Items[Known] is not DavReader reader)
        {
            if (KeyOf(context) is not null)
            {
                context
                    .RequestServices.GetRequiredService<SecurityLog>()
                    .KeyRefused(context.Connection.RemoteIpAddress);
            }

            context.Response.StatusCode = StatusCodes.Status401Unauthorized;
            context.Response.Headers.WWWAuthenticate =
                "Basic realm=\"Mortar, with the key of a device\", charset=\"UTF-8\"";
            context.Response.ContentType = "text/plain; charset=utf-8";
            await context.Response.WriteAsync(
                "Here calendar programs sign in with the key of a device. Make one in the preferences of Mortar.",
                context.RequestAborted
            );
            return;
        }

        try
        {
            await context
                .RequestServices.GetRequiredService<DeviceCommands>()
                .See(reader.Row, context.Request.Headers.UserAgent.ToString(), context.RequestAborted);
            await Answer(new DavRequest(context, reader, DavPath.Read(context.Request.Path.Value ?? string.Empty)));
        }
        catch (DavException refused)
        {
            context.Response.Headers.ETag = default;
            await DavAnswers.Send(context, refused.Status, refused.Body);
        }
    }

    private static Task Answer(DavRequest request)
    {
        var services = request.Http.RequestServices;
        return request.Http.Request.Method switch
        {
            "PROPFIND" => services.GetRequiredService<DavReports>().Find(request),
            "REPORT" => services.GetRequiredService<DavReports>().Report(request),
            "PROPPATCH" => services.GetRequiredService<DavCollections>().Patch(request),
            "MKCALENDAR" => services.GetRequiredService<DavCollections>().Make(request),
            "GET" or "HEAD" => services.GetRequiredService<DavWriting>().Get(request),
            "PUT" => services.GetRequiredService<DavWriting>().Put(request),
            "DELETE" => services.GetRequiredService<DavWriting>().Delete(request),
            "MOVE" => services.GetRequiredService<DavMoving>().Carry(request, copies: false),
            "COPY" => services.GetRequiredService<DavMoving>().Carry(request, copies: true),
            _ => Unknown(request.Http),
        };
    }

    private static Task Unknown(HttpContext context)
    {
        context.Response.Headers.Allow = Methods;
        throw new DavException(StatusCodes.Status405MethodNotAllowed, null, "This is not done here.");
    }

    /// <summary>The key that a request comes with; the name beside it is whatever the program asked its owner for, and says nothing.</summary>
    private static string? KeyOf(HttpContext context)
    {
        var header = context.Request.Headers.Authorization.ToString();
        if (!header.StartsWith("Basic ", StringComparison.OrdinalIgnoreCase) || header.Length > 1_000)
        {
            return null;
        }

        var bytes = new byte[header.Length];
        if (!Convert.TryFromBase64String(header["Basic ".Length..].Trim(), bytes, out var count))
        {
            return null;
        }

        var text = Encoding.UTF8.GetString(bytes, 0, count);
        var colon = text.IndexOf(':', StringComparison.Ordinal);
        return colon >= 0 ? text[(colon + 1)..] : null;
    }
}
