using System.Collections.Immutable;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>Any so many of some people: "two of these five".</summary>
/// <param name="Among">Of whom; each once, and none of those who are asked for by themselves.</param>
/// <param name="Count">How many of them: the same ones from the beginning to the end.</param>
public sealed record GapPool(IReadOnlyList<Invitee> Among, int Count)
{
    /// <summary>From more than these it is not looked for: twelve over six are 924 searches.</summary>
    public const int MostAmong = 12;
}

/// <summary>Gaps in which any so many of some people are free, beside those who have to be.</summary>
public static class GapPools
{
    /// <summary>
    /// All gaps in which those who are asked for, and at least so many of the pool, are free: the same ones from the
    /// beginning to the end. In the order of <see cref="Gaps.Find"/>; a gap that lies in another with as few missing is left out.
    /// </summary>
    /// <param name="question">The question to those who have to be there.</param>
    /// <param name="pool">Of whom so many are wanted beside them.</param>
    /// <param name="most">How many are told, the best first.</param>
    /// <param name="cancellationToken">Stops it where nobody waits for the answer any more.</param>
    /// <exception cref="ArgumentOutOfRangeException">The pool is larger than <see cref="GapPool.MostAmong"/> or has fewer than the count, or the question is not fit.</exception>
    public static ImmutableArray<Gap> Find(
        GapQuestion question,
        GapPool pool,
        int most = int.MaxValue,
        CancellationToken cancellationToken = default
    )
    {
        if (pool.Among.Count > GapPool.MostAmong || pool.Count < 1 || pool.Count > pool.Among.Count)
        {
            throw new ArgumentOutOfRangeException(
                nameof(pool),
                $"A pool is 1 to {GapPool.MostAmong} people, of whom one at least and no more than all are wanted."
            );
        }

        var inPool = pool.Among.Select(one => one.Who).ToHashSet();
        var found = new Dictionary<(Interval, string), Gap>();
        foreach (var chosen in Chosen(pool.Among, pool.Count))
        {
            cancellationToken.ThrowIfCancellationRequested();
            foreach (var gap in Gaps.Find(With(question, chosen)).Where(gap => !gap.Missing.Any(inPool.Contains)))
            {
                found.TryAdd((gap.Span, string.Join(' ', gap.Missing.Select(who => who.Id))), gap);
            }
        }

        return
        [
            .. Widest(found.Values, cancellationToken)
                .OrderBy(gap => gap.MissingRequired)
                .ThenBy(gap => gap.Missing.Length)
                .ThenBy(gap => gap.InHours is null)
                .ThenBy(gap => gap.InHours?.Start ?? gap.Span.Start)
                .ThenBy(gap => gap.Span.Start)
                .ThenBy(gap => gap.Span.End)
                .Take(most)
                .Select(gap => gap with { Any = FreeIn(gap.Span, question, pool) }),
        ];
    }

    /// <summary>Those that lie in no other: by start, each is held beside those only that began before it and have not ended.</summary>
    private static List<Gap> Widest(IEnumerable<Gap> all, CancellationToken cancellationToken)
    {
        var (kept, open) = (new List<Gap>(), new List<Gap>());
        foreach (var gap in all.OrderBy(gap => gap.Span.Start).ThenByDescending(gap => gap.Span.End))
        {
            cancellationToken.ThrowIfCancellationRequested();
            open.RemoveAll(other => other.Span.End <= gap.Span.Start);
            if (!open.Exists(other => Holds(other, gap)))
            {
                kept.Add(gap);
            }

            open.Add(gap);
        }

        return kept;
    }

    private static GapQuestion With(GapQuestion question, IEnumerable<Invitee> chosen) =>
        question with
        {
            Invitees = [.. question.Invitees, .. chosen.Select(one => one with { Need = Need.Required })],
        };

    private static bool Holds(Gap wide, Gap narrow) =>
        wide.Span != narrow.Span
        && wide.Span.Start <= narrow.Span.Start
        && narrow.Span.End <= wide.Span.End
        && wide.Missing.All(who => narrow.Missing.Contains(who))
        && (wide.InHours is not null || narrow.InHours is null)
        && (wide.InHours?.Start ?? wide.Span.Start) <= (narrow.InHours?.Start ?? narrow.Span.Start);

    private static ImmutableArray<Participant> FreeIn(Interval span, GapQuestion question, GapPool pool) =>
        [
            .. pool
                .Among.Where(one =>
                    Gaps.Find(
                        question with
                        {
                            Invitees = [one with { Need = Need.Required }],
                            Within = span,
                            Length = span.Duration,
                            MayBeMissing = 0,
                        }
                    ).Length > 0
                )
                .Select(one => one.Who)
                .Order(),
        ];

    /// <summary>Every choice of so many, each in the order of the whole.</summary>
    private static IEnumerable<ImmutableList<Invitee>> Chosen(IReadOnlyList<Invitee> all, int count, int begin = 0) =>
        count == 0
            ?
            [
                [],
            ]
            : from first in Enumerable.Range(begin, Math.Max(0, all.Count - begin - count + 1))
            from rest in Chosen(all, count - 1, first + 1)
            select rest.Insert(0, all[first]);
}
