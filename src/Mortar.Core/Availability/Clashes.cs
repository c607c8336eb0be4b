using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Availability;

/// <summary>How bad a clash is.</summary>
public enum Severity
{
    /// <summary>One of the two is only tentative.</summary>
    Soft,

    /// <summary>Both are settled.</summary>
    Hard,
}

/// <summary>One time at which two events take the same person or place.</summary>
/// <param name="Span">What they share.</param>
/// <param name="FirstStart">By which start the first event's series counts it; <c>null</c> for a single event.</param>
/// <param name="SecondStart">The same of the second.</param>
public readonly record struct ClashTime(Interval Span, LocalDateTime? FirstStart, LocalDateTime? SecondStart);

/// <summary>Two events that take the same people or places at the same time, once or again and again.</summary>
/// <param name="First">The one whose id comes first.</param>
/// <param name="Second">The other; the same event where a series runs into itself.</param>
/// <param name="Severity">The worst of all times.</param>
/// <param name="Who">Whom and what they both take, in order of their ids.</param>
/// <param name="Times">When, in order; each once, however many people are in it.</param>
public sealed record Clash(
    Event First,
    Event Second,
    Severity Severity,
    ImmutableArray<Participant> Who,
    ImmutableArray<ClashTime> Times
)
{
    /// <summary>
    /// What names one time of it: the two occurrences, what they share and whom they take. It is another as soon as any of
    /// that changes, so that what was marked as fine once is not fine for ever.
    /// </summary>
    public string KeyOf(ClashTime time) =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join(
                        '|',
                        [
                            First.Id.Value.ToString("N"),
                            Text(time.FirstStart),
                            Second.Id.Value.ToString("N"),
                            Text(time.SecondStart),
                            time.Span.ToString(),
                            Severity.ToString(),
                            .. Who.Select(who => who.Id.ToString("N")),
                        ]
                    )
                )
            )
        );

    private static string Text(LocalDateTime? start) =>
        start is { } local ? LocalDateTimePattern.GeneralIso.Format(local) : string.Empty;

    /// <summary>Whether it is somebody's to resolve: it takes them, or they may change one of the two.</summary>
    /// <param name="reader">Who asks.</param>
    /// <param name="roleOn">Their step on a calendar.</param>
    public bool Concerns(PersonId reader, Func<CalendarId, Role> roleOn) =>
        Concerns(First, Second, Who.Contains(Participant.Of(reader)), reader, roleOn);

    internal static bool Concerns(
        Event first,
        Event second,
        bool takesReader,
        PersonId reader,
        Func<CalendarId, Role> roleOn
    ) =>
        takesReader
        || AccessRules.ToChange(roleOn(first.CalendarId), reader, first) == Verdict.Granted
        || AccessRules.ToChange(roleOn(second.CalendarId), reader, second) == Verdict.Granted;
}

/// <summary>What collides, as far as it is told.</summary>
/// <param name="Told">The first of them, in order of their first time, then of the events' ids.</param>
/// <param name="More">How many pairs of events collide beside those; where there are very many, at least so many.</param>
public sealed record ClashesFound(ImmutableArray<Clash> Told, int More)
{
    /// <summary>Those that nobody has marked as fine, with those of their times.</summary>
    public ClashesFound Without(IReadOnlySet<string> fine) => this with { Told = Told.Without(fine) };
}

/// <summary>Whose clashes are looked for: those that are theirs to resolve.</summary>
/// <param name="Reader">Who asks.</param>
/// <param name="RoleOn">Their step on a calendar.</param>
public sealed record ClashesOf(PersonId Reader, Func<CalendarId, Role> RoleOn)
{
    /// <summary>Whether they may mark one as fine: who may change one of the two.</summary>
    public bool MayMark(Clash clash) =>
        new[] { clash.First, clash.Second }.Any(one =>
            AccessRules.ToChange(RoleOn(one.CalendarId), Reader, one) == Verdict.Granted
        );
}

/// <summary>Finds what collides.</summary>
public static class Clashes
{
    /// <summary>
    /// How many pairs of occurrences that share time are looked at. Three hundred events at one hour are 45,000; nobody reads
    /// past the first of them.
    /// </summary>
    public const int MostPairs = 1_000_000;

    /// <summary>How many pairs of events are told with their times and people.</summary>
    public const int MostTold = 300;

    /// <summary>How many people and places are told in all of them together: each of 300 pairs can take 500.</summary>
    public const int MostTakersTold = 20_000;

    private const int MostKept = 50_000;
    private const int MostTimes = 400;

    /// <summary>Every two events that take the same person or place at the same time.</summary>
    /// <param name="takenTimes">What takes whom, in any order.</param>
    /// <param name="whose">Whose to resolve they are to be; <c>null</c> for all.</param>
    /// <param name="about">The events of which one has to be in it; <c>null</c> for any.</param>
    /// <remarks>
    /// Touching is not clashing, and a moment takes no time. One sweep over the occurrences, each with the set of those it
    /// takes as bits: what two share is a few words of them, however many people there are. What is told is bounded, and
    /// what is not is counted, since anybody can write three hundred events that name everybody.
    /// </remarks>
    public static ClashesFound Among(
        IEnumerable<TakenTime> takenTimes,
        ClashesOf? whose = null,
        IReadOnlySet<EventId>? about = null
    )
    {
        var (takings, takers) = Takings(takenTimes);
        var isReader = whose is { } of && takers.TryGetValue(Participant.Of(of.Reader), out var number) ? number : -1;
        var found = new Dictionary<(EventId, EventId), Colliding>();
        var more = 0;
        foreach (var (earlier, later) in Pairs(takings).Take(MostPairs))
        {
            if (
                !earlier.Takes.Overlaps(later.Takes)
                || about?.Contains(earlier.Date.Event.Id) == false && !about.Contains(later.Date.Event.Id)
            )
            {
                continue;
            }

            var (first, second) = InOrder(earlier, later);
            var key = (first.Date.Event.Id, second.Date.Event.Id);
            if (!found.TryGetValue(key, out var colliding))
            {
                if (found.Count >= MostKept)
                {
                    more++;
                    continue;
                }

                found[key] = colliding = new Colliding(first.Date.Event, second.Date.Event);
            }

            colliding.Add(first, second);
        }

        var inOrder = found
            .Values.Where(one =>
                whose is null
                || Clash.Concerns(
                    one.First,
                    one.Second,
                    isReader >= 0 && one.TakesBoth(isReader),
                    whose.Reader,
                    whose.RoleOn
                )
            )
            .OrderBy(one => one.FirstTime)
            .ThenBy(one => one.First.Id.Value)
            .ThenBy(one => one.Second.Id.Value)
            .ToList();
        var names = new Participant[takers.Count];
        foreach (var (who, at) in takers)
        {
            names[at] = who;
        }

        var told = ImmutableArray.CreateBuilder<Clash>();
        var left = MostTakersTold;
        foreach (var one in inOrder.Take(MostTold))
        {
            var clash = one.ToClash(names);
            if (told.Count > 0 && clash.Who.Length > left)
            {
                break;
            }

            left -= clash.Who.Length;
            told.Add(clash);
        }

        return new ClashesFound(told.ToImmutable(), inOrder.Count - told.Count + more);
    }

    /// <summary>Those that nobody has marked as fine, with those of their times.</summary>
    /// <param name="all">What collides.</param>
    /// <param name="fine">The keys of what is fine (<see cref="Clash.KeyOf"/>).</param>
    public static ImmutableArray<Clash> Without(this ImmutableArray<Clash> all, IReadOnlySet<string> fine) =>
        fine.Count == 0
            ? all
            :
            [
                .. all.Select(clash =>
                        clash with
                        {
                            Times = [.. clash.Times.Where(time => !fine.Contains(clash.KeyOf(time)))],
                        }
                    )
                    .Where(clash => clash.Times.Length > 0),
            ];

    /// <summary>Whether a change of an event can have made a clash: it takes other time than before, or that of others.</summary>
    /// <param name="before">The event before; <c>null</c> where it was not there.</param>
    /// <param name="after">The event after.</param>
    public static bool CanBeMadeBy(Event? before, Event after) =>
        before is null
        || before.CalendarId != after.CalendarId
        || before.Time != after.Time
        || !Equals(before.Series, after.Series)
        || before.Content.ShowAs != after.Content.ShowAs
        || before.Content.Cancelled != after.Content.Cancelled
        || !before.Content.Attendees.Equals(after.Content.Attendees);

    /// <summary>Each occurrence once, with those it takes. A whole day is each one's own day, and so can be several stretches.</summary>
    private static (List<Taking> Takings, Dictionary<Participant, int> Takers) Takings(
        IEnumerable<TakenTime> takenTimes
    )
    {
        var takers = new Dictionary<Participant, int>();
        var takings = new Dictionary<(EventId, LocalDateTime?, Interval), Taking>();
        foreach (var takenTime in takenTimes)
        {
            var span = takenTime.Occurrence.Span;
            if (span.Duration <= Duration.Zero)
            {
                continue;
            }

            if (!takers.TryGetValue(takenTime.Who, out var number))
            {
                takers[takenTime.Who] = number = takers.Count;
            }

            var key = (takenTime.Occurrence.Event.Id, takenTime.Occurrence.Start, span);
            if (!takings.TryGetValue(key, out var taking))
            {
                takings[key] = taking = new Taking(takenTime.Occurrence, span);
            }

            taking.Takes.Add(number);
            if (takenTime.How != Taken.Tentative)
            {
                taking.Settled.Add(number);
            }
        }

        return ([.. takings.Values], takers);
    }

    /// <summary>What shares time: a sweep by start, with those that have not ended yet.</summary>
    private static IEnumerable<(Taking Earlier, Taking Later)> Pairs(List<Taking> takings)
    {
        var open = new List<Taking>();
        foreach (
            var taking in takings
                .OrderBy(one => one.Span.Start)
                .ThenBy(one => one.Date.Event.Id.Value)
                .ThenBy(one => one.Date.Start)
        )
        {
            open.RemoveAll(earlier => earlier.Span.End <= taking.Span.Start);
            foreach (var earlier in open)
            {
                if (earlier.Date.Event.Id != taking.Date.Event.Id || earlier.Date.Start != taking.Date.Start)
                {
                    yield return (earlier, taking);
                }
            }

            open.Add(taking);
        }
    }

    private static (Taking First, Taking Second) InOrder(Taking one, Taking other) =>
        one.Date.Event.Id.Value.CompareTo(other.Date.Event.Id.Value) <= 0 ? (one, other) : (other, one);

    /// <summary>One occurrence with those it takes, and of them those whom it takes for certain.</summary>
    private sealed record Taking(Occurrence Date, Interval Span)
    {
        public Bits Takes { get; } = new();

        public Bits Settled { get; } = new();
    }

    /// <summary>Two events that collide, as it is found out.</summary>
    private sealed class Colliding(Event first, Event second)
    {
        private readonly Bits who = new();
        private readonly HashSet<ClashTime> times = [];
        private bool isHard;

        public Event First => first;

        public Event Second => second;

        public Instant FirstTime { get; private set; } = Instant.MaxValue;

        public bool TakesBoth(int number) => who.Has(number);

        public void Add(Taking one, Taking other)
        {
            who.AddShared(one.Takes, other.Takes);
            isHard |= one.Settled.Overlaps(other.Settled);
            var start = Instant.Max(one.Span.Start, other.Span.Start);
            FirstTime = Instant.Min(FirstTime, start);
            if (times.Count < MostTimes)
            {
                times.Add(
                    new ClashTime(
                        new Interval(start, Instant.Min(one.Span.End, other.Span.End)),
                        one.Date.Start,
                        other.Date.Start
                    )
                );
            }
        }

        public Clash ToClash(Participant[] names) =>
            new(
                first,
                second,
                isHard ? Severity.Hard : Severity.Soft,
                [.. who.All().Select(number => names[number]).Order()],
                [
                    .. times
                        .OrderBy(time => time.Span.Start)
                        .ThenBy(time => time.Span.End)
                        .ThenBy(time => time.FirstStart)
                        .ThenBy(time => time.SecondStart),
                ]
            );
    }

    /// <summary>A set of small numbers.</summary>
    private sealed class Bits
    {
        private ulong[] words = [];

        public void Add(int number)
        {
            Reach((number / 64) + 1);
            words[number / 64] |= 1UL << (number % 64);
        }

        public bool Has(int number) => number / 64 < words.Length && (words[number / 64] & (1UL << (number % 64))) != 0;

        public bool Overlaps(Bits other)
        {
            for (var i = Math.Min(words.Length, other.words.Length) - 1; i >= 0; i--)
            {
                if ((words[i] & other.words[i]) != 0)
                {
                    return true;
                }
            }

            return false;
        }

        public void AddShared(Bits one, Bits other)
        {
            var shared = Math.Min(one.words.Length, other.words.Length);
            Reach(shared);
            for (var i = 0; i < shared; i++)
            {
                words[i] |= one.words[i] & other.words[i];
            }
        }

        public IEnumerable<int> All()
        {
            for (var i = 0; i < words.Length; i++)
            {
                for (var word = words[i]; word != 0; word &= word - 1)
                {
                    yield return (i * 64) + System.Numerics.BitOperations.TrailingZeroCount(word);
                }
            }
        }

        private void Reach(int length)
        {
            if (words.Length < length)
            {
                Array.Resize(ref words, length);
            }
        }
    }
}
