using System.Collections.Concurrent;
using System.Threading.Channels;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
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

/// <summary>One file that somebody brought: what is in it is summed up here, and the file itself lies on disk until it is written.</summary>
internal sealed class StagedImport(Guid id, PersonId owner, CalendarId calendar, string path, Instant at) : IDisposable
{
    private readonly CancellationTokenSource stop = new();

    public Guid Id { get; } = id;

    public PersonId Owner { get; } = owner;

    public CalendarId Calendar { get; } = calendar;

    /// <summary>Where the file lies.</summary>
    public string Path { get; } = path;

    public Instant At { get; } = at;

    public required long Bytes { get; init; }

    public required string? Name { get; init; }

    public required FileSummary Summary { get; init; }

    /// <summary>The first of what was not taken as it stands.</summary>
    public required IReadOnlyList<Finding> Findings { get; init; }

    public required int FindingsInAll { get; init; }

    public required int LeftOut { get; init; }

    /// <summary>How many of its events were in the calendar when it was brought.</summary>
    public required KnownCount Known { get; init; }

    public ImportState State { get; set; } = ImportState.Ready;

    public int Written { get; set; }

    public Outcome<int>? Outcome { get; set; }

    public CancellationToken Stopping => stop.Token;

    /// <summary>The events of a file that was read.</summary>
    public static IReadOnlyList<EventToImport> Events(CalendarFileReading.Understood file) =>
        [
            .. file.Events.Select(one => new EventToImport(one.Uid, one.Time, one.Content, one.Series, one.Source)
            {
                SaysWho = one.SaysWho,
                Organizer = one.Organizer,
            }),
        ];

    public void Stop() => stop.Cancel();

    public void Dispose()
    {
        stop.Dispose();
        File.Delete(Path);
    }
}

/// <summary>What is to be written, under which act.</summary>
internal sealed record ImportOrder(StagedImport Import, Act Act, KnownEvents Known);

/// <summary>Keeps the files that were read, for an hour and up to so many of each person, and queues those that are to be written.</summary>
internal sealed class ImportDesk
{
    /// <summary>How many files of one person wait to be written.</summary>
    public const int MostOfOne = 5;

    /// <summary>How many bytes of all people wait; a file more than that is refused.</summary>
    public const long MostBytes = 1L << 30;

    private const int MostOrders = 40;

    private static readonly Duration Kept = Duration.FromHours(1);

    private readonly IClock clock;
    private readonly string folder;
    private readonly ConcurrentDictionary<Guid, StagedImport> staged = new();
    private readonly Channel<ImportOrder> orders = Channel.CreateBounded<ImportOrder>(MostOrders);

    public ImportDesk(IClock clock, MortarOptions options)
    {
        this.clock = clock;
        folder = Path.Combine(options.Data, "imports");
        if (Directory.Exists(folder))
        {
            Directory.Delete(folder, recursive: true); // what waited when Mortar ended is brought again
        }

        Directory.CreateDirectory(folder);
    }

    public ChannelReader<ImportOrder> Orders => orders.Reader;

    /// <summary>Keeps the bytes of a file; where they lie.</summary>
    public async Task<string> Keep(byte[] bytes, CancellationToken cancellationToken)
    {
        var path = Path.Combine(folder, $"{Guid.CreateVersion7()}.ics");
        await File.WriteAllBytesAsync(path, bytes, cancellationToken);
        return path;
    }

    /// <summary>Whether so many more bytes can be kept.</summary>
    public bool HasRoomFor(long bytes)
    {
        Forget();
        return staged.Values.Sum(one => one.Bytes) + bytes <= MostBytes;
    }

    /// <summary>Takes a file; of its owner's that were not written the oldest go.</summary>
    public void Add(StagedImport import)
    {
        Forget();
        var own = staged
            .Values.Where(one => one.Owner == import.Owner && one.State != ImportState.Writing)
            .OrderBy(one => one.At)
            .ToList();
        foreach (var one in own.Take(Math.Max(0, own.Count - MostOfOne + 1)))
        {
            Remove(one);
        }

        if (
            staged.TryGetValue(import.Id, out var same)
            && same.Owner == import.Owner
            && same.State != ImportState.Writing
        )
        {
            Remove(same);
        }

        if (!staged.TryAdd(import.Id, import))
        {
            import.Dispose(); // an id of somebody else's, or one that is being written
        }
    }

    private void Forget()
    {
        var before = clock.GetCurrentInstant() - Kept;
        foreach (var one in staged.Values.Where(one => one.State != ImportState.Writing && one.At < before))
        {
            Remove(one);
        }
    }

    private void Remove(StagedImport import)
    {
        if (staged.TryRemove(import.Id, out var removed))
        {
            removed.Dispose();
        }
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
