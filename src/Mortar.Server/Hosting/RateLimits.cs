using System.Threading.RateLimiting;

namespace Mortar.Server.Hosting;

/// <summary>Limits on guessing.</summary>
internal static class RateLimits
{
    /// <summary>For everything that takes a password, a code or a secret link; by address of the network.</summary>
    public const string SignIn = "sign-in";

    /// <summary>For asking for access, which lands in other people's inboxes; by person.</summary>
    public const string Asking = "asking";

    /// <summary>For reading by a secret link: many pages of a plan, and still no guessing; by address of the network.</summary>
    public const string Reading = "reading";

    private const int AsksPerMinute = 60;

    public static void AddRateLimits(this IServiceCollection services, MortarOptions options) =>
        services.AddRateLimiter(limiter =>
        {
            limiter.OnRejected = (rejected, _) =>
                new ValueTask(
                    Problems
                        .Of(
                            StatusCodes.Status429TooManyRequests,
                            "too-often",
                            "Too many tries. Wait a minute and try again."
                        )
                        .ExecuteAsync(rejected.HttpContext)
                );
            limiter.AddPolicy(
                Asking,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        context.User.Identity?.Name ?? "nobody",
                        _ => new FixedWindowRateLimiterOptions
                        {
                            PermitLimit = AsksPerMinute,
                            Window = TimeSpan.FromMinutes(1),
                        }
                    )
            );
            limiter.AddPolicy(
                Reading,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        context.Connection.RemoteIpAddress?.ToString() ?? "unknown",
                        _ => new FixedWindowRateLimiterOptions
                        {
                            PermitLimit = options.ReadsPerMinute,
                            Window = TimeSpan.FromMinutes(1),
                        }
                    )
            );
            limiter.AddPolicy(
                SignIn,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        context.Connection.RemoteIpAddress?.ToString() ?? "unknown",
                        _ => new FixedWindowRateLimiterOptions
                        {
                            PermitLimit = options.SignInsPerMinute,
                            Window = TimeSpan.FromMinutes(1),
                        }
                    )
            );
        });
}
