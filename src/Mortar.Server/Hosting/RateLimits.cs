using System.Globalization;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.Extensions.Primitives;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Limits on guessing, and on what one person can have done for them; the table of them is in docs/operations.md.</summary>
internal static class RateLimits
{
    /// <summary>For everything that takes a password or a code; by address of the network.</summary>
    public const string SignIn = "sign-in";

    /// <summary>For asking for access, which lands in other people's inboxes; by person.</summary>
    public const string Asks = "asks";

    /// <summary>For what is opened and read by a secret link: many pages of a plan, a class at once, and still no guessing at 128 bits; by address of the network.</summary>
    public const string Reading = "reading";

    /// <summary>For what takes long to find out: gaps, searches, what is in a file; by person.</summary>
    public const string Searching = "searching";

    /// <summary>For files that are made to be given out: one after the other, a few waiting; by person.</summary>
    public const string Making = "making";

    /// <summary>For keys of devices that are none; by address of the network.</summary>
    public const string Keys = "keys";

    /// <summary>For what calendar programs ask: two at a time, some waiting; by person, whose devices are counted together.</summary>
    public const string Devices = "devices";

    private const int AsksPerMinute = 60;

    /// <summary>How many changes somebody makes at once before it is slowed down, and how many a second after that.</summary>
    private const int Changes = 1_200;

    private const int ChangesPerSecond = 20;

    /// <summary>The same for what takes long.</summary>
    private const int Searches = 300;

    private const int SearchesPerSecond = 5;

    public static void AddRateLimits(this IServiceCollection services, MortarOptions options) =>
        // Ended with its host, which the limiter of the framework's own is not: that keeps a timer running, and with it
        // all that the host ever held.
        services.AddSingleton(_ => new Limiters(OfChanges(), OfRoutes(options)));

    /// <summary>Comes after what finds the route and who asks; one count for all branches that use it.</summary>
    public static void UseRateLimits(this IApplicationBuilder app)
    {
        var limiters = app.ApplicationServices.GetRequiredService<Limiters>();
        app.Use(
            async (context, next) =>
            {
                using var lease = await limiters.Wait(context);
                if (lease.IsAcquired)
                {
                    await next(context);
                }
                else
                {
                    context.Response.StatusCode = StatusCodes.Status429TooManyRequests;
                    await Tell(context, lease);
                }
            }
        );
    }

    private static PartitionedRateLimiter<HttpContext> OfChanges() =>
        PartitionedRateLimiter.Create<HttpContext, string>(context =>
            HttpMethods.IsGet(context.Request.Method)
            || HttpMethods.IsHead(context.Request.Method)
            || context.Request.Method is "PROPFIND" or "REPORT"
            || PersonOf(context) is not { } person
                ? RateLimitPartition.GetNoLimiter("others")
                : Bucket(person, Changes, ChangesPerSecond)
        );

    /// <summary>What a route says of itself with <c>RequireRateLimiting</c>.</summary>
    private static PartitionedRateLimiter<HttpContext> OfRoutes(MortarOptions options) =>
        PartitionedRateLimiter.Create<HttpContext, string>(context =>
        {
            var policy = context.GetEndpoint()?.Metadata.GetMetadata<EnableRateLimitingAttribute>()?.PolicyName;
            var network = $"{policy} {NetworkOf(context)}";
            var who = PersonOf(context) is { } person ? $"{policy} {person}" : network;
            return policy switch
            {
                null => RateLimitPartition.GetNoLimiter("others"),
                Searching => Bucket(who, Searches, SearchesPerSecond),
                Making => RateLimitPartition.GetConcurrencyLimiter(
                    who,
                    _ => new ConcurrencyLimiterOptions { PermitLimit = 1, QueueLimit = 3 }
                ),
                Asks => PerMinute(who, AsksPerMinute),
                Devices => RateLimitPartition.GetConcurrencyLimiter(
                    who,
                    _ => new ConcurrencyLimiterOptions { PermitLimit = 2, QueueLimit = 60 }
                ),
                Keys => PerMinute(network, options.SignInsPerMinute),
                Reading => PerMinute(network, options.ReadsPerMinute),
                SignIn => PerMinute(network, options.SignInsPerMinute),
                _ => throw new InvalidOperationException($"There is no limit {policy}."),
            };
        });

    private static string? PersonOf(HttpContext context) =>
        context.User.Identity is { IsAuthenticated: true } ? context.User.Person().Value.ToString("N") : null;

    private static string NetworkOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "unknown";

    private static RateLimitPartition<string> PerMinute(string of, int permits) =>
        RateLimitPartition.GetFixedWindowLimiter(
            of,
            _ => new FixedWindowRateLimiterOptions { PermitLimit = permits, Window = TimeSpan.FromMinutes(1) }
        );

    private static RateLimitPartition<string> Bucket(string of, int most, int perSecond) =>
        RateLimitPartition.GetTokenBucketLimiter(
            of,
            _ => new TokenBucketRateLimiterOptions
            {
                TokenLimit = most,
                TokensPerPeriod = perSecond,
                ReplenishmentPeriod = TimeSpan.FromSeconds(1),
                QueueLimit = 0,
            }
        );

    private static async ValueTask Tell(HttpContext context, RateLimitLease lease)
    {
        var wait = lease.TryGetMetadata(MetadataName.RetryAfter, out var after) ? after : TimeSpan.FromMinutes(1);
        var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
        context.Response.Headers.RetryAfter = new StringValues(seconds.ToString(CultureInfo.InvariantCulture));
        await Problems
            .TooOften(
                $"Too many tries in a short time. Wait {Wording.Count(seconds, "second", "seconds")} and try again.",
                Duration.FromSeconds(seconds)
            )
            .ExecuteAsync(context);
    }

    /// <summary>Those of one host: what is chained is not ended with the chain.</summary>
    private sealed class Limiters(
        PartitionedRateLimiter<HttpContext> changes,
        PartitionedRateLimiter<HttpContext> routes
    ) : IDisposable
    {
        private readonly PartitionedRateLimiter<HttpContext> both = PartitionedRateLimiter.CreateChained(
            changes,
            routes
        );

        public ValueTask<RateLimitLease> Wait(HttpContext context) =>
            both.AcquireAsync(context, permitCount: 1, context.RequestAborted);

        public void Dispose()
        {
            both.Dispose();
            changes.Dispose();
            routes.Dispose();
        }
    }
}
