using System.Collections.Concurrent;
using System.Threading.Channels;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Server.Features.Imports;

/// <summary>Where an import stands.</summary>
internal enum ImportState
{
    /// <summary>Read and counted; nothing is written.</summary>
    Ready,

    /// <summary>Being written, in one transaction.</summary>
    Writing,

    /// <summary>Written.</summary>
    Done,

    /// <summary>Stopped by its owner; nothing was written.</summary>
    Stopped,

    /// <summary>Refused or failed; nothing was written.</summary>
    Failed,
}

/// <summary>One file that somebody brought, read but not yet written.</summary>
internal sealed class StagedImport(
    Guid id,
    PersonId owner,
    CalendarId calendar,
    CalendarFileReading.Understood file,
    Instant at
) : IDisposable
{
    private readonly CancellationTokenSource stop = new();

    public Guid Id { get; } = id;

    public PersonId Owner { get; } = owner;

    public CalendarId Calendar { get; } = calendar;

    public CalendarFileReading.Understood File { get; } = file;

    public Instant At { get; } = at;

    public required FileSummary Summary { get; init; }

    public IReadOnlyList<EventToImport> Events { get; } =
    [.. file.Events.Select(one => new EventToImport(one.Uid, one.Time, one.Content, one.Series, one.Source))];

    public ImportState State { get; set; } = ImportState.Ready;

    public int Written { get; set; }

    public Outcome<int>? Outcome { get; set; }

    public CancellationToken Stopping => stop.Token;

    public void Stop() => stop.Cancel();

    public void Dispose() => stop.Dispose();
}

/// <summary>What is to be written, under which act.</summary>
internal sealed record ImportOrder(StagedImport Import, Act Act, KnownEvents Known);

/// <summary>Holds the files that were read, for an hour, and queues those that are to be written.</summary>
internal sealed class ImportDesk(IClock clock)
{
    private const int Most = 40;

    private static readonly Duration Kept = Duration.FromHours(1);

    private readonly ConcurrentDictionary<Guid, StagedImport> staged = new();

    private readonly Channel<ImportOrder> orders = Channel.CreateBounded<ImportOrder>(Most);

    public ChannelReader<ImportOrder> Orders => orders.Reader;

    public void Add(StagedImport import)
    {
        var now = clock.GetCurrentInstant();
        var old = staged.Values.Where(one => one.State != ImportState.Writing).OrderBy(one => one.At).ToList();
        foreach (var one in old.Where((one, index) => one.At < now - Kept || index < old.Count - Most))
        {
            staged.TryRemove(one.Id, out _);
        }

        staged[import.Id] = import;
    }

    /// <summary>The import of that id, for its owner alone.</summary>
    public StagedImport? Find(Guid id, CalendarId calendar, PersonId owner) =>
        staged.TryGetValue(id, out var import) && import.Owner == owner && import.Calendar == calendar ? import : null;

    /// <summary>Queues the writing; <c>false</c> where it is under way or done already, or too many others wait.</summary>
    public bool Order(ImportOrder order)
    {
        lock (order.Import)
        {
            if (order.Import.State != ImportState.Ready || !orders.Writer.TryWrite(order))
            {
                return false;
            }

            order.Import.State = ImportState.Writing;
            return true;
        }
    }
}
