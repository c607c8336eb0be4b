using System.Collections.Concurrent;
using System.Threading.Channels;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Archives;

/// <summary>Where an archive stands.</summary>
internal enum ArchiveState
{
    /// <summary>Waiting, or being made.</summary>
    Making,

    /// <summary>There to be fetched.</summary>
    Done,

    /// <summary>Stopped by its owner.</summary>
    Stopped,

    /// <summary>Could not be made.</summary>
    Failed,
}

/// <summary>An archive that somebody has asked for.</summary>
/// <param name="id">Which.</param>
/// <param name="owner">Who asked for it; nobody else finds it.</param>
/// <param name="group">Of which group; <c>null</c> for all that they see.</param>
/// <param name="path">Where it lies once it is made.</param>
/// <param name="at">When it was asked for.</param>
internal sealed class Archive(Guid id, PersonId owner, GroupId? group, string path, Instant at) : IDisposable
{
    private readonly CancellationTokenSource stop = new();

    public Guid Id { get; } = id;

    public PersonId Owner { get; } = owner;

    public GroupId? Group { get; } = group;

    public string Path { get; } = path;

    public Instant At { get; } = at;

    public ArchiveState State { get; set; } = ArchiveState.Making;

    /// <summary>How many calendars are in it.</summary>
    public int Done { get; set; }

    /// <summary>How many there will be; 0 until that is known.</summary>
    public int Total { get; set; }

    /// <summary>What it is called as a file.</summary>
    public string Name { get; set; } = string.Empty;

    /// <summary>What its owner could see before it was made; <c>null</c> until that is known.</summary>
    public WindowSight? Seen { get; set; }

    /// <summary>Whether it may hold what its owner cannot see any more.</summary>
    public bool IsOutdated(WindowSight now) =>
        Seen is not { } then
        || then.Sight.LikenessOn(then.Sight.All) != now.Sight.LikenessOn(now.Sight.All)
        || now.Tail.Since(then.Tail.Version) is not { } entries
        || entries.Any(entry =>
            entry.CanTakeFrom(
                then.Calendars.Contains,
                then.Sight.Calendars.Select(calendar => calendar.Row.GroupId).ToHashSet()
            )
        );

    public CancellationToken Stopping => stop.Token;

    public void Stop() => stop.Cancel();

    public void Dispose()
    {
        stop.Cancel();
        stop.Dispose();
        File.Delete(Path);
    }
}

/// <summary>Keeps the archives that were asked for, one of each person and for an hour, and queues those that are to be made.</summary>
internal sealed class ArchiveDesk(IClock clock, FilesToGive files)
{
    private const int MostWaiting = 40;

    private static readonly Duration Kept = Duration.FromHours(1);

    private readonly ConcurrentDictionary<PersonId, Archive> kept = new();
    private readonly Channel<Archive> orders = Channel.CreateBounded<Archive>(MostWaiting);

    public ChannelReader<Archive> Orders => orders.Reader;

    /// <summary>Queues one; what its owner had before goes. <c>null</c> where too many others wait.</summary>
    public Archive? Order(Guid id, PersonId owner, GroupId? group)
    {
        Forget();
        var archive = new Archive(id, owner, group, files.Place(), clock.GetCurrentInstant());
        if (!orders.Writer.TryWrite(archive))
        {
            archive.Dispose();
            return null;
        }

        Remove(owner);
        kept[owner] = archive;
        return archive;
    }

    /// <summary>One of somebody's own.</summary>
    public Archive? Find(Guid id, PersonId owner)
    {
        Forget();
        return kept.TryGetValue(owner, out var archive) && archive.Id == id ? archive : null;
    }

    public void Remove(PersonId owner)
    {
        if (kept.TryRemove(owner, out var archive))
        {
            archive.Dispose();
        }
    }

    private void Forget()
    {
        var before = clock.GetCurrentInstant() - Kept;
        foreach (var archive in kept.Values.Where(one => one.State != ArchiveState.Making && one.At < before))
        {
            Remove(archive.Owner);
        }
    }
}
