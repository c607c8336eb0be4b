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
        Who.Contains(Participant.Of(reader))
        || AccessRules.ToChange(roleOn(First.CalendarId), reader, First) == Verdict.Granted
        || AccessRules.ToChange(roleOn(Second.CalendarId), reader, Second) == Verdict.Granted;
}

/// <summary>Finds what collides.</summary>
public static class Clashes
{
    /// <summary>
    /// How many pairs of occurrences are looked at for one person or place. Two events on every minute of a year would
    /// be half a million; nobody reads past the first of them.
    /// </summary>
    public const int MostPairs = 100_000;

    /// <summary>Every two events that take the same person or place at the same time.</summary>
    /// <remarks>
    /// Touching is not clashing, and a moment takes no time. In order of the first time, then of the events' ids, whatever
    /// the order of the claims.
    /// </remarks>
    public static ImmutableArray<Clash> Among(IEnumerable<Claim> claims)
    {
        var pairs = claims
            .Where(claim => claim.Occurrence.Span.Duration > Duration.Zero)
            .GroupBy(claim => claim.Who)
            .SelectMany(theirs => Pairs(theirs).Take(MostPairs));
        return
        [
            .. pairs
                .GroupBy(pair => (pair.First.Occurrence.Event.Id, pair.Second.Occurrence.Event.Id))
                .Select(Together)
                .OrderBy(clash => clash.Times[0].Span.Start)
                .ThenBy(clash => clash.First.Id.Value)
                .ThenBy(clash => clash.Second.Id.Value),
        ];
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

    private static Clash Together(IEnumerable<(Claim First, Claim Second)> pairs)
    {
        var all = pairs.ToList();
        return new Clash(
            all[0].First.Occurrence.Event,
            all[0].Second.Occurrence.Event,
            all.Max(pair =>
                pair.First.How == Taken.Tentative || pair.Second.How == Taken.Tentative ? Severity.Soft : Severity.Hard
            ),
            [.. all.Select(pair => pair.First.Who).Distinct().Order()],
            [
                .. all.Select(Time)
                    .Distinct()
                    .OrderBy(time => time.Span.Start)
                    .ThenBy(time => time.Span.End)
                    .ThenBy(time => time.FirstStart)
                    .ThenBy(time => time.SecondStart),
            ]
        );
    }

    private static ClashTime Time((Claim First, Claim Second) pair)
    {
        var (first, second) = (pair.First.Occurrence, pair.Second.Occurrence);
        return new ClashTime(
            new Interval(
                Instant.Max(first.Span.Start, second.Span.Start),
                Instant.Min(first.Span.End, second.Span.End)
            ),
            first.Start,
            second.Start
        );
    }

    /// <summary>The pairs of one person or place: a sweep by start, with those that have not ended yet.</summary>
    private static IEnumerable<(Claim First, Claim Second)> Pairs(IEnumerable<Claim> theirs)
    {
        var open = new List<Claim>();
        foreach (
            var claim in theirs
                .OrderBy(one => one.Occurrence.Span.Start)
                .ThenBy(one => one.Occurrence.Event.Id.Value)
                .ThenBy(one => one.Occurrence.Start)
        )
        {
            open.RemoveAll(earlier => earlier.Occurrence.Span.End <= claim.Occurrence.Span.Start);
            foreach (var earlier in open)
            {
                if (!IsTheSame(earlier, claim))
                {
                    yield return InOrder(earlier, claim);
                }
            }

            open.Add(claim);
        }
    }

    /// <summary>A person can be claimed twice by one occurrence: through the group and by name.</summary>
    private static bool IsTheSame(Claim one, Claim other) =>
        one.Occurrence.Event.Id == other.Occurrence.Event.Id && one.Occurrence.Start == other.Occurrence.Start;

    private static (Claim First, Claim Second) InOrder(Claim one, Claim other) =>
        one.Occurrence.Event.Id.Value.CompareTo(other.Occurrence.Event.Id.Value) <= 0 ? (one, other) : (other, one);
}
