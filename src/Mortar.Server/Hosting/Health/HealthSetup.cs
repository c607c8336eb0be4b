using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Mortar.Server.Hosting.Health;

/// <summary>
/// /health: what works and what does not, each in a word and a sentence, for whoever watches over this Mortar. Anybody may
/// ask, so no sentence has a name, a number of people or an address in it, and asking often costs nothing.
/// </summary>
internal static class HealthSetup
{
    /// <param name="Status"><c>healthy</c>; <c>degraded</c> where something waits; <c>unhealthy</c> where nothing can be read or written.</param>
    /// <param name="Checks">The same of each part, by its name.</param>
    internal sealed record Body(HealthStatus Status, IReadOnlyDictionary<string, CheckBody> Checks);

    /// <param name="Status">As of the whole.</param>
    /// <param name="Sentence">What is wrong; <c>null</c> where nothing is.</param>
    internal sealed record CheckBody(HealthStatus Status, string? Sentence);

    public static void AddHealth(this IServiceCollection services)
    {
        services.AddSingleton<LastReport>();
        services
            .AddHealthChecks()
            .AddCheck<StoreCheck>("store")
            .AddCheck<DiskCheck>("disk")
            .AddCheck<WritingCheck>("writing")
            .AddCheck<MailCheck>("mail")
            .AddCheck<BackupCheck>("backup");
    }

    public static void MapHealth(this WebApplication app) =>
        app.MapGet("/health", Answer).AllowAnonymous().ExcludeFromDescription();

    private static async Task<IResult> Answer(LastReport last, CancellationToken cancellationToken)
    {
        var report = await last.Read(cancellationToken);
        return TypedResults.Json(
            new Body(
                report.Status,
                report.Entries.ToDictionary(
                    entry => entry.Key,
                    entry => new CheckBody(entry.Value.Status, entry.Value.Description),
                    StringComparer.Ordinal
                )
            ),
            statusCode: report.Status == HealthStatus.Unhealthy
                ? StatusCodes.Status503ServiceUnavailable
                : StatusCodes.Status200OK
        );
    }

    /// <summary>The last report, for a second: however many ask, it is made once.</summary>
    internal sealed class LastReport(HealthCheckService checks, TimeProvider time) : IDisposable
    {
        private static readonly TimeSpan Kept = TimeSpan.FromSeconds(1);

        private readonly SemaphoreSlim making = new(1, 1);
        private HealthReport? report;
        private long madeAt;

        public async Task<HealthReport> Read(CancellationToken cancellationToken)
        {
            await making.WaitAsync(cancellationToken);
            try
            {
                if (report is null || time.GetElapsedTime(madeAt) > Kept)
                {
                    report = await checks.CheckHealthAsync(CancellationToken.None);
                    madeAt = time.GetTimestamp();
                }

                return report;
            }
            finally
            {
                making.Release();
            }
        }

        public void Dispose() => making.Dispose();
    }
}
