namespace Mortar.Core.Events;

/// <summary>Occurrences of several sequences in the order of their start, each asked for its next only: a rule for every second has no end.</summary>
internal static class OccurrenceOrder
{
    /// <summary>Several sequences, each in order, as one; of two at the same time the one of the earlier sequence first.</summary>
    public static IEnumerable<Occurrence> Together(IEnumerable<IEnumerable<Occurrence>> all)
    {
        var next = new PriorityQueue<IEnumerator<Occurrence>, (long Start, int Turn)>();
        try
        {
            var turn = 0;
            foreach (var one in all)
            {
                Ask(one.GetEnumerator(), turn++);
            }

            while (next.TryDequeue(out var walk, out var place))
            {
                var date = walk.Current;
                Ask(walk, place.Turn);
                yield return date;
            }
        }
        finally
        {
            foreach (var (walk, _) in next.UnorderedItems)
            {
                walk.Dispose();
            }
        }

        void Ask(IEnumerator<Occurrence> walk, int turn)
        {
            if (walk.MoveNext())
            {
                next.Enqueue(walk, (walk.Current.StartSecond, turn));
            }
            else
            {
                walk.Dispose();
            }
        }
    }
}
