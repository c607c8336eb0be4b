namespace Mortar.Server.Features.Archives;

/// <summary>Makes the archives that were asked for, one after the other, so that a large one never holds a request.</summary>
internal sealed class ArchiveMaker(ArchiveDesk desk, IServiceScopeFactory scopes, ILogger<ArchiveMaker> log)
    : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var archive in desk.Orders.ReadAllAsync(stoppingToken))
        {
            await Make(archive, stoppingToken);
        }
    }

    private async Task Make(Archive archive, CancellationToken stoppingToken)
    {
        try
        {
            using var stop = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken, archive.Stopping);
            await using var scope = scopes.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<ArchiveWriting>().Write(archive, stop.Token);
            archive.State = ArchiveState.Done;
        }
        catch (Exception stopped)
            when (stopped is OperationCanceledException or ObjectDisposedException
                && !stoppingToken.IsCancellationRequested
            )
        {
            archive.State = ArchiveState.Stopped; // or another was asked for in its place
            File.Delete(archive.Path);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            log.LogError(bad, "Archive {Archive} could not be made", archive.Id);
            archive.State = ArchiveState.Failed;
            File.Delete(archive.Path);
        }
    }
}
