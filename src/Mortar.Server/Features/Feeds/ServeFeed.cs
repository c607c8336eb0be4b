using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Feeds;
using Mortar.Data.Feeds;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Feeds;

/// <summary>/feed/{secret}.ics: a feed as other calendar programs read it. Whoever has the secret is nobody else by it; no cookie is read or set.</summary>
internal static class ServeFeed
{
    public static void UseFeeds(this WebApplication app) =>
        app.MapWhen(
            context => context.Request.Path.StartsWithSegments("/feed", StringComparison.Ordinal),
            branch =>
            {
                branch.UseResponseCompression();
                branch.UseRouting();
                branch.UseRateLimits();
                branch.UseEndpoints(feeds =>
                {
                    feeds
                        .MapMethods("/feed/{secret}.ics", [HttpMethods.Get, HttpMethods.Head], Serve)
                        .RequireRateLimiting(RateLimits.Reading)
                        .ExcludeFromDescription();
                    feeds.MapFallback(context => Say(context, StatusCodes.Status404NotFound, "There is no such feed."));
                });
            }
        );

    private static async Task Serve(
        string secret,
        HttpContext context,
        MortarDb db,
        FeedCommands feeds,
        FeedReading reading,
        ToldSince since
    )
    {
        var stop = context.RequestAborted;
        if (await db.FeedBySecret(secret, stop) is not { } feed)
        {
            await Say(context, StatusCodes.Status404NotFound, "There is no such feed, or it has another address now.");
            return;
        }

        if (feed.EndedAt is not null || await IsInBin(db, feed, stop))
        {
            await Say(context, StatusCodes.Status410Gone, "This feed is gone. Take it out of your calendar program.");
            return;
        }

        if (await reading.Source(feed, secret, stop) is not { } source)
        {
            await Say(
                context,
                StatusCodes.Status404NotFound,
                "Whoever made this feed does not see its calendar any more."
            );
            return;
        }

        var told = await Hash(context, feed, source);
        var stamp = since.Of(feed.Id, told);
        await feeds.See(feed, stop);
        Headers(context);
        if (!CalendarFileHead.Begin(context, told, stamp, "calendar", caches: "private"))
        {
            return;
        }

        await foreach (var piece in reading.Pieces(feed, source, stamp, stop))
        {
            await context.Response.WriteAsync(piece, stop);
        }
    }

    /// <summary>
    /// Stands for all that it tells. It is gone through once for that and once more to be sent, so that it is never held as a
    /// whole; and asked every second it is gone through once, as long as nothing has changed.
    /// </summary>
    private static async Task<string> Hash(HttpContext context, FeedRow feed, FeedSource source)
    {
        var services = context.RequestServices;
        var signal = services.GetRequiredService<ChangeSignal>();
        var scopes = services.GetRequiredService<IServiceScopeFactory>();
        var hour = services.GetRequiredService<IClock>().GetCurrentInstant().ToUnixTimeSeconds() / 3_600;
        var seen = string.Join(' ', source.Calendars.Select(one => $"{one.Row.Id.Value:N}{one.Role}"));
        return Convert.ToHexStringLower(
            await services
                .GetRequiredService<KeptAnswers>()
                .Get(
                    $"{feed.Id} {feed.Hash} {signal.Commits} {signal.WritesAboutPeople} {hour} {seen}",
                    async () =>
                    {
                        await using var scope = scopes.CreateAsyncScope();
                        var reading = scope.ServiceProvider.GetRequiredService<FeedReading>();
                        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
                        await foreach (
                            var piece in reading.Pieces(feed, source, Instant.MinValue, CancellationToken.None)
                        )
                        {
                            hash.AppendData(Encoding.UTF8.GetBytes(piece));
                        }

                        return hash.GetHashAndReset();
                    },
                    context.RequestAborted
                )
        );
    }

    private static async Task<bool> IsInBin(MortarDb db, FeedRow feed, CancellationToken cancellationToken) =>
        feed.Of == FeedOf.Calendar
        && await db.Calendars.AnyAsync(row => row.Id == feed.CalendarId && row.DeletedAt != null, cancellationToken);

    private static async Task Say(HttpContext context, int status, string sentence)
    {
        Headers(context);
        context.Response.Headers.CacheControl = "no-store";
        context.Response.StatusCode = status;
        context.Response.ContentType = "text/plain; charset=utf-8";
        await context.Response.WriteAsync(sentence, context.RequestAborted);
    }

    private static void Headers(HttpContext context)
    {
        var headers = context.Response.Headers;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["X-Robots-Tag"] = "noindex";
        headers.ContentSecurityPolicy = "default-src 'none'; frame-ancestors 'none'";
        if (context.Request.IsHttps)
        {
            headers.StrictTransportSecurity = "max-age=31536000; includeSubDomains";
        }
    }
}
