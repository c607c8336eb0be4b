using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Mortar.Data.Store;
using Mortar.Server.Mail;

namespace Mortar.Server.Hosting.Health;

/// <summary>Whether the store can be read.</summary>
internal sealed class StoreCheck(MortarDb db) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    )
    {
        try
        {
            await db.People.AsNoTracking().Select(person => person.Id).FirstOrDefaultAsync(cancellationToken);
            return HealthCheckResult.Healthy();
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            return HealthCheckResult.Unhealthy("The store cannot be read; the log says why.");
        }
    }
}

/// <summary>Whether anything can be written where the data is, and whether there is room for what comes.</summary>
internal sealed class DiskCheck(MortarOptions options) : IHealthCheck
{
    /// <summary>The file that is written to see whether one can be.</summary>
    public const string ProbeName = "health.probe";

    /// <summary>A page of the store, and what SQLite writes to its log of one change.</summary>
    private const int Probe = 64 * 1024;

    /// <summary>Room for an import of the largest file, its log and a copy before an update of a usual store.</summary>
    private const long Little = 200 * 1024 * 1024;

    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    )
    {
        var probe = Path.Combine(options.Data, ProbeName);
        try
        {
            try
            {
                await File.WriteAllBytesAsync(probe, new byte[Probe], cancellationToken);
            }
            finally
            {
                File.Delete(probe); // also the part of it that a full disk took
            }

            var free = new DriveInfo(Path.GetFullPath(options.Data)).AvailableFreeSpace;
            return free < Little
                ? HealthCheckResult.Degraded(
                    "The disk is almost full. Make room: what nobody can write any more is not kept."
                )
                : HealthCheckResult.Healthy();
        }
        catch (Exception bad) when (bad is IOException or UnauthorizedAccessException)
        {
            return HealthCheckResult.Unhealthy(
                "Nothing can be written where the data is: the disk is full, or it can only be read."
            );
        }
    }
}

/// <summary>Whether those who write get their turn.</summary>
internal sealed class WritingCheck(WriteTurn turn) : IHealthCheck
{
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(5);

    public Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    ) =>
        Task.FromResult(
            turn.HeldFor is { } held && held > Long
                ? HealthCheckResult.Degraded(
                    "One write holds the store for longer than five seconds; another program may have it open."
                )
                : HealthCheckResult.Healthy()
        );
}

/// <summary>Whether mails go out.</summary>
internal sealed class MailCheck(MailLine line) : IHealthCheck
{
    public Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    ) =>
        Task.FromResult(
            line.Trouble is { } trouble
                ? HealthCheckResult.Degraded(
                    $"{trouble.Sentence} Mails wait, since {trouble.Since:uuuu-MM-dd HH:mm} UTC."
                )
                : HealthCheckResult.Healthy()
        );
}

/// <summary>Whether the backup of each day is made, where one is asked for.</summary>
internal sealed class BackupCheck(DailyBackups backups) : IHealthCheck
{
    public Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    ) =>
        Task.FromResult(
            backups.FailingSince is { } since
                ? HealthCheckResult.Degraded(
                    $"The backup of the day cannot be made, since {since.ToDateTimeUtc():yyyy-MM-dd HH:mm} UTC; the log says why."
                )
                : HealthCheckResult.Healthy()
        );
}
