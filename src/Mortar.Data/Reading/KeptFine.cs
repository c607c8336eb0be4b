using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>The keys of clashes that somebody marked as fine, kept until anybody marks or unmarks one.</summary>
public sealed class KeptFine
{
    /// <summary>For how many windows they are kept; then all begin anew.</summary>
    public const int Most = 500;

    private readonly ConcurrentDictionary<Instant, IReadOnlySet<string>> kept = new();
    private long marks;

    public KeptFine(LogTail tail) => tail.TellFirst(Forget);

    /// <summary>Those that are not over before a window.</summary>
    public async Task<IReadOnlySet<string>> In(MortarDb db, Window window, CancellationToken cancellationToken)
    {
        if (kept.TryGetValue(window.Span.Start, out var known))
        {
            return known;
        }

        var before = Interlocked.Read(ref marks);
        var from = window.Span.Start;
        var read = await db
            .FineClashes.Where(row => row.EndedAt == null && row.Until >= from)
            .Select(row => row.Key)
            .ToHashSetAsync(cancellationToken);
        if (kept.Count >= Most)
        {
            kept.Clear();
        }

        kept[window.Span.Start] = read;
        if (Interlocked.Read(ref marks) != before)
        {
            kept.TryRemove(window.Span.Start, out _);
        }

        return read;
    }

    private void Forget(IReadOnlyList<TailEntry>? entries)
    {
        if (entries is null || entries.Any(entry => entry.Subject is Subject.FineClash))
        {
            Interlocked.Increment(ref marks);
            kept.Clear();
        }
    }
}
