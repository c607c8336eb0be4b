using Mortar.Data.Answers;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Answers;

/// <summary>Has those who were asked by mail told what became of an event, once it has rested for a while.</summary>
internal sealed class AskedTeller(
    IServiceScopeFactory scopes,
    ChangeSignal signal,
    IClock clock,
    TimeProvider time,
    ILogger<AskedTeller> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    /// <summary>Long enough to press Undo, short enough for somebody who is on the way.</summary>
    private static readonly TimeSpan Rest = TimeSpan.FromSeconds(60);

    /// <summary>The last commit that was not looked at yet; also before the first one, since the server may have been away.</summary>
    private long lastCommit;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        TakeNote(this, EventArgs.Empty);
        try
        {
            using var timer = new PeriodicTimer(Every, time);
            long? looked = null;
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                var (commit, now) = (Interlocked.Read(ref lastCommit), time.GetTimestamp());
                if (looked is { } at && time.GetElapsedTime(commit, at) >= Rest)
                {
                    continue;
                }

                try
                {
                    await using var scope = scopes.CreateAsyncScope();
                    await scope
                        .ServiceProvider.GetRequiredService<AnswerCommands>()
                        .TellAsked(clock.GetCurrentInstant(), Duration.FromTimeSpan(Rest), stoppingToken);
                    looked = now;
                }
                catch (Exception bad) when (bad is not OperationCanceledException)
                {
                    // A store that is busy must not end the telling: the next look tries again.
                    log.LogError(bad, "Those who were asked could not be told; trying again");
                }
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => Interlocked.Exchange(ref lastCommit, time.GetTimestamp());
}
