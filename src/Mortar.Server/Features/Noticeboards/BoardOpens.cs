using System.Collections.Concurrent;
using Mortar.Core.Words;
using Mortar.Data.Noticeboards;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>Counts how often noticeboards are opened, and by day how often that was; by whom is not looked at.</summary>
internal sealed class BoardOpens(IServiceScopeFactory scopes, TimeProvider time, ILogger<BoardOpens> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(10);

    private readonly ConcurrentDictionary<(NoticeboardId Id, LocalDate Day), int> waiting = new();

    /// <summary>One more.</summary>
    public void Count(NoticeboardId id, LocalDate day) => waiting.AddOrUpdate((id, day), 1, (_, before) => before + 1);

    /// <summary>Writes down what was counted since the last time, many in one write.</summary>
    public async Task Keep(CancellationToken cancellationToken)
    {
        var counted = new Dictionary<(NoticeboardId Id, LocalDate Day), int>();
        foreach (var key in waiting.Keys)
        {
            if (waiting.TryRemove(key, out var count))
            {
                counted[key] = count;
            }
        }

        if (counted.Count == 0)
        {
            return;
        }

        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await scope
                .ServiceProvider.GetRequiredService<NoticeboardCommands>()
                .CountOpens(counted, cancellationToken);
        }
        catch
        {
            foreach (var (key, count) in counted)
            {
                waiting.AddOrUpdate(key, count, (_, more) => more + count);
            }

            throw;
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await Keep(stoppingToken);
            }
            catch (Exception bad) when (bad is not OperationCanceledException)
            {
                log.LogError(bad, "How often noticeboards were opened could not be written; trying again");
            }
        }
    }

    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        await Keep(cancellationToken);
    }
}
