using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Imports;

/// <summary>Writes ordered imports one after the other, so that a long one never holds a request.</summary>
internal sealed class ImportWriter(ImportDesk desk, IServiceScopeFactory scopes, ILogger<ImportWriter> log)
    : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await foreach (var order in desk.Orders.ReadAllAsync(stoppingToken))
        {
            await Write(order, stoppingToken);
        }
    }

    private async Task Write(ImportOrder order, CancellationToken stoppingToken)
    {
        var import = order.Import;
        var begun = Stopwatch.GetTimestamp();
        using var writing = Measured.Source.StartActivity("import");
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken, import.Stopping);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var commands = scope.ServiceProvider.GetRequiredService<ImportCommands>();
            import.Outcome = await commands.Apply(
                order.Act,
                import.Calendar,
                await Read(import, scope.ServiceProvider, stop.Token),
                order.Known,
                new Count(import),
                stop.Token
            );
            import.State = import.Outcome is Outcome<int>.Done ? ImportState.Done : ImportState.Failed;
        }
        catch (OperationCanceledException) when (!stoppingToken.IsCancellationRequested)
        {
            import.State = ImportState.Stopped;
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            // The transaction is gone and with it everything written; the one who waits is told, and the next import goes on.
            log.LogError(bad, "Import {Import} into calendar {Calendar} failed", import.Id, import.Calendar.Value);
            import.Outcome = StoreProblems.Of(bad) is { } told
                ? (Outcome<int>)new Refusal.AgainstRule(told.Type, told.Sentence)
                : null;
            import.State = ImportState.Failed;
        }

        Measured.Imports.Record(
            Stopwatch.GetElapsedTime(begun).TotalSeconds,
            new KeyValuePair<string, object?>("state", import.State.ToString())
        );
    }

    /// <summary>The file again, as it was read when it was brought.</summary>
    private static async Task<IReadOnlyList<EventToImport>> Read(
        StagedImport import,
        IServiceProvider services,
        CancellationToken cancellationToken
    )
    {
        var zone = await services
            .GetRequiredService<MortarDb>()
            .Calendars.Where(row => row.Id == import.Calendar)
            .Select(row => row.Zone)
            .SingleAsync(cancellationToken);
        var bytes = await File.ReadAllBytesAsync(import.Path, cancellationToken);
        return
            CalendarFile.Read(bytes, zone, services.GetRequiredService<ZoneClock>())
                is CalendarFileReading.Understood file
            ? StagedImport.Events(file)
            : throw new InvalidDataException("What was read once is read again.");
    }

    private sealed class Count(StagedImport import) : IProgress<int>
    {
        public void Report(int value) => import.Written = value;
    }
}
