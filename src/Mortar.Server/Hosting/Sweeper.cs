using Mortar.Data.Keeping;
using Mortar.Data.Store;
using Mortar.Server.StandIns;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Takes out what has been kept long enough: a minute after the start, and every hour.</summary>
internal sealed class Sweeper(
    IServiceScopeFactory scopes,
    PostRoom postRoom,
    MortarOptions options,
    TimeProvider time,
    ILogger<Sweeper> log
) : BackgroundService
{
    private static readonly TimeSpan First = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan Every = TimeSpan.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(First, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            timer.Period = Every;
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var swept = await scope
                    .ServiceProvider.GetRequiredService<Sweep>()
                    .Run(Duration.FromDays(options.HistoryDays), stoppingToken);
                Measured.Swept.Add(swept.Total);
                if (swept.Total > 0)
                {
                    log.LogInformation("What was kept long enough has gone: {Swept}", swept);
                }

                postRoom.Sweep();
            }
            catch (Exception bad) when (bad is not OperationCanceledException)
            {
                // A store that is busy must not end it: the next hour goes on where this one was.
                log.LogError(bad, "What was kept long enough could not be taken out; trying again in an hour");
            }
        }
    }
}
