using System.Collections.Concurrent;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>What was worked out of the events in some stretches, and whether it is the same for all who see alike.</summary>
internal readonly record struct WorkedOut<TValue>(TValue Value, bool IsAlikeForAll);

/// <summary>Some of the calendars that somebody sees, and what stands for how they see them.</summary>
internal sealed record SeenLayers(WindowSight Seen, IReadOnlySet<CalendarId> Layers)
{
    /// <summary>Two with the same have the same read, but for what depends on who they are.</summary>
    public string Likeness { get; } = Seen.Sight.LikenessOn(Layers);
}

/// <summary>
/// What was worked out of events, kept as long as nothing changes in the stretches it was made of. Those who see the same share
/// it; where something is private, given by itself or kept from some, each has their own.
/// </summary>
/// <param name="most">How many are kept; then all begin anew.</param>
internal sealed class KeptAlike<TKey, TValue>(int most) : IDisposable
    where TKey : notnull
{
    /// <summary>Few at once are worked out for the first time, and none twice at once.</summary>
    private readonly SemaphoreSlim[] turns = [.. Enumerable.Range(0, 16).Select(_ => new SemaphoreSlim(1, 1))];

    private readonly ConcurrentDictionary<Key, Kept> kept = new();

    /// <param name="Person">Whose alone it is; <c>null</c> where it is the same for all who see alike.</param>
    private readonly record struct Key(string Likeness, string Zone, TKey Of, PersonId? Person);

    private sealed class Kept(TValue value, long version)
    {
        private long version = version;

        public TValue Value => value;

        public bool Holds(SeenLayers seen, IReadOnlyCollection<Interval> stretches)
        {
            var tail = seen.Seen.Tail;
            if (
                tail.Since(Math.Min(Volatile.Read(ref version), tail.Version)) is not { } entries
                || entries.Any(entry => entry.Touches(seen.Layers.Contains, stretches))
            )
            {
                return false;
            }

            Volatile.Write(ref version, tail.Version);
            return true;
        }
    }

    /// <summary>What is kept, or worked out now.</summary>
    /// <param name="seen">Who asks, and of which calendars.</param>
    /// <param name="of">What it is about.</param>
    /// <param name="stretches">The stretches whose events it is made of.</param>
    /// <param name="workOut">Works it out.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<TValue> Get(
        SeenLayers seen,
        TKey of,
        IReadOnlyCollection<Interval> stretches,
        Func<Task<WorkedOut<TValue>>> workOut,
        CancellationToken cancellationToken
    )
    {
        var shared = new Key(seen.Likeness, seen.Seen.Zone.Id, of, Person: null);
        var own = shared with { Person = seen.Seen.Sight.Person };
        if (Find() is { } there)
        {
            return there.Value;
        }

        var turn = turns[(shared.GetHashCode() & int.MaxValue) % turns.Length];
        await turn.WaitAsync(cancellationToken);
        try
        {
            if (Find() is { } meanwhile)
            {
                return meanwhile.Value;
            }

            var made = await workOut();
            if (kept.Count >= most)
            {
                kept.Clear();
            }

            kept[made.IsAlikeForAll ? shared : own] = new Kept(made.Value, seen.Seen.Tail.Version);
            return made.Value;
        }
        finally
        {
            turn.Release();
        }

        Kept? Find() =>
            kept.TryGetValue(shared, out var ofAll) && ofAll.Holds(seen, stretches) ? ofAll
            : kept.TryGetValue(own, out var mine) && mine.Holds(seen, stretches) ? mine
            : null;
    }

    public void Dispose()
    {
        foreach (var turn in turns)
        {
            turn.Dispose();
        }
    }
}
