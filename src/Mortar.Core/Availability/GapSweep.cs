using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>The taken stretches of everybody in one question, sorted once, and the sweeps over them.</summary>
internal sealed class GapSweep
{
    private readonly GapQuestion question;
    private readonly Invitee[] invitees;
    private readonly long from;
    private readonly long to;
    private readonly long length;

    /// <summary>By start; those of one person are disjoint.</summary>
    private readonly Taking[] takings;

    /// <summary>Places in <see cref="takings"/>, by end; made when somebody may be missing.</summary>
    private int[]? byEnd;

    [StructLayout(LayoutKind.Auto)]
    private readonly record struct Taking(long Start, long End, int Who);

    public GapSweep(GapQuestion question)
    {
        this.question = question;
        invitees = [.. question.Invitees.OrderBy(one => one.Who)];
        from = question.Within.Start.ToUnixTimeTicks();
        to = question.Within.End.ToUnixTimeTicks();
        length = question.Length.BclCompatibleTicks;
        var taken = new List<Taking>(invitees.Sum(one => one.Busy.All.Length));
        for (var who = 0; who < invitees.Length; who++)
        {
            AddTaken(taken, who);
        }

        takings = [.. taken];
        Array.Sort(Array.ConvertAll(takings, one => one.Start), takings);
    }

    /// <summary>Adds the maximal gaps in which exactly so many are missing, from the left to the right.</summary>
    public void Find(int required, int optional, List<Gap> found)
    {
        if (required + optional == 0)
        {
            FindWithAll(found);
            return;
        }

        byEnd ??= [.. Enumerable.Range(0, takings.Length).OrderBy(place => takings[place].End)];
        var sweep = new Sweep(this, required, optional);
        sweep.Run(byEnd, found);
    }

    /// <summary>Nobody is missing: what lies between the stretches, laid over each other.</summary>
    private void FindWithAll(List<Gap> found)
    {
        var left = from;
        foreach (var taking in takings)
        {
            if (taking.Start - left >= length)
            {
                found.Add(Gap(left, taking.Start, null));
            }

            left = Math.Max(left, taking.End);
        }

        if (to - left >= length)
        {
            found.Add(Gap(left, to, null));
        }
    }

    private bool IsRequired(int who) => invitees[who].Need == Need.Required;

    private void AddTaken(List<Taking> taken, int who)
    {
        var (busy, hours) = (invitees[who].Busy.All, invitees[who].Hours);
        if (question.Hours == HoursWish.Kept && hours is not null)
        {
            busy = Stretches.Merged(
                busy.Concat(Stretches.Less([question.Within], hours.Within(question.Within))),
                question.Within
            );
        }

        if (question.Before > Duration.Zero || question.After > Duration.Zero)
        {
            // What has to be free before and after is added to what is taken: then the gap itself needs no margins.
            busy = Stretches.Merged(
                busy.Select(one => new Interval(one.Start - question.After, one.End + question.Before)),
                question.Within
            );
        }

        foreach (var one in busy)
        {
            var start = Math.Max(from, one.Start.ToUnixTimeTicks());
            var end = Math.Min(to, one.End.ToUnixTimeTicks());
            if (start < end)
            {
                taken.Add(new Taking(start, end, who));
            }
        }
    }

    private Gap Gap(long left, long right, int[]? counts)
    {
        var span = new Interval(Instant.FromUnixTimeTicks(left), Instant.FromUnixTimeTicks(right));
        var missing = ImmutableArray.CreateBuilder<Participant>();
        var hours = new HashSet<UsualHours>();
        var required = 0;
        for (var who = 0; who < invitees.Length; who++)
        {
            if (counts is not null && counts[who] > 0)
            {
                missing.Add(invitees[who].Who);
                required += IsRequired(who) ? 1 : 0;
            }
            else if (invitees[who].Hours is { } theirs)
            {
                hours.Add(theirs);
            }
        }

        var inside = hours.Aggregate(
            ImmutableArray.Create(span),
            (left, theirs) => left.IsEmpty ? left : Stretches.Both(left, theirs.Within(span))
        );
        var place = inside.IndexOf(inside.FirstOrDefault(open => open.Duration >= question.Length));
        return new Gap(
            span,
            missing.ToImmutable(),
            required,
            place < 0 ? null : new Interval(inside[place].Start, inside[place].Start + question.Length)
        );
    }

    /// <summary>
    /// A window that grows to the right over one stretch after the other. When it has more missing than it may, it was
    /// as long as it can be before that stretch, and gives up what ends first on its left until it may have it.
    /// </summary>
    private sealed class Sweep(GapSweep all, int required, int optional)
    {
        private readonly int[] counts = new int[all.invitees.Length];
        private readonly bool[] inside = new bool[all.takings.Length];
        private int missingRequired;
        private int missingOptional;
        private long left = all.from;
        private long reported = all.from;

        private bool TooMany => missingRequired > required || missingOptional > optional;

        public void Run(int[] byEnd, List<Gap> found)
        {
            var (nextEnd, place) = (0, 0);
            while (place < all.takings.Length)
            {
                // What begins at the same moment is met at once: the window before it has none of it.
                var next = place + 1;
                while (next < all.takings.Length && all.takings[next].Start == all.takings[place].Start)
                {
                    next++;
                }

                if (WouldBeTooMany(all.takings.AsSpan(place, next - place)))
                {
                    Report(all.takings[place].Start, found);
                }

                for (; place < next; place++)
                {
                    if (all.takings[place].End > left)
                    {
                        Choose(place);
                    }
                }

                // What is passed over here and has not begun yet ends before the new left edge: it is never looked at.
                while (TooMany || (nextEnd < byEnd.Length && all.takings[byEnd[nextEnd]].End <= left))
                {
                    Give(byEnd[nextEnd++]);
                }
            }

            Report(all.to, found);
        }

        private bool WouldBeTooMany(ReadOnlySpan<Taking> together)
        {
            var (more, moreOptional) = (missingRequired, missingOptional);
            foreach (var one in together)
            {
                if (one.End > left && counts[one.Who] == 0)
                {
                    if (all.IsRequired(one.Who))
                    {
                        more++;
                    }
                    else
                    {
                        moreOptional++;
                    }
                }
            }

            return more > required || moreOptional > optional;
        }

        private void Choose(int place)
        {
            inside[place] = true;
            var who = all.takings[place].Who;
            if (counts[who]++ == 0)
            {
                Count(who, 1);
            }
        }

        private void Give(int place)
        {
            if (!inside[place])
            {
                return;
            }

            inside[place] = false;
            left = Math.Max(left, all.takings[place].End);
            var who = all.takings[place].Who;
            if (--counts[who] == 0)
            {
                Count(who, -1);
            }
        }

        private void Count(int who, int by)
        {
            if (all.IsRequired(who))
            {
                missingRequired += by;
            }
            else
            {
                missingOptional += by;
            }
        }

        private void Report(long right, List<Gap> found)
        {
            if (right <= reported)
            {
                return;
            }

            reported = right;
            if (right - left >= all.length && missingRequired == required && missingOptional == optional)
            {
                found.Add(all.Gap(left, right, counts));
            }
        }
    }
}
