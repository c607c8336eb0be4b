using Mortar.Data.Noticeboards;
using Mortar.Data.Store;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>
/// Pauses noticeboards whose keeper lost a calendar of theirs, and so has the keeper told. Nobody reads such a one from the
/// moment of the loss on; this only writes it down, so that it stays so until somebody opens it again.
/// </summary>
internal sealed class NoticeboardWatch(
    IServiceScopeFactory scopes,
    ChangeSignal signal,
    TimeProvider time,
    ILogger<NoticeboardWatch> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);

    /// <summary>How often it is looked at though nothing was written: access ends by its date as well.</summary>
    private const int TicksBetweenLooks = 60;

    private volatile bool isStale = true;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            using var timer = new PeriodicTimer(Every, time);
            var (ticks, read) = (0, 0L);
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                if (!isStale && ++ticks < TicksBetweenLooks)
                {
                    continue;
                }

                var isTime = ticks >= TicksBetweenLooks;
                (isStale, ticks) = (false, isTime ? 0 : ticks);
                try
                {
                    await using var scope = scopes.CreateAsyncScope();
                    var noticeboards = scope.ServiceProvider.GetRequiredService<NoticeboardCommands>();
                    var (canHave, newest) = await noticeboards.LossSince(read, stoppingToken);
                    if (canHave || isTime)
                    {
                        await noticeboards.PauseLost(stoppingToken);
                    }

                    read = newest;
                }
                catch (Exception bad) when (bad is not OperationCanceledException)
                {
                    log.LogError(bad, "Noticeboards of whoever lost a calendar could not be paused; trying again");
                    isStale = true;
                }
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => isStale = true;
}
