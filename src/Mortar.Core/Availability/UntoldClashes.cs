using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Availability;

/// <summary>When somebody is taken by what a reader does not see, as far as the reader may know that they are.</summary>
/// <param name="Settled">By what is settled: ordered, disjoint; how many things that are is not told.</param>
/// <param name="Tentative">Perhaps; less what is settled.</param>
public sealed record Untold(ImmutableArray<Interval> Settled, ImmutableArray<Interval> Tentative)
{
    /// <summary>All is seen, or nothing more may be known.</summary>
    public static Untold Nothing { get; } = new([], []);

    /// <summary>What takes somebody's time beside what the reader sees taking it.</summary>
    public static Untold Of(IEnumerable<TakenTime> seen, IEnumerable<TakenTime> all, Window window)
    {
        var told = seen.Select(takenTime => (takenTime.Occurrence.Event.Id, takenTime.Occurrence.Start)).ToHashSet();
        var rest = all.Where(takenTime => !told.Contains((takenTime.Occurrence.Event.Id, takenTime.Occurrence.Start)))
            .ToList();
        var settled = Of(rest.Where(takenTime => takenTime.How != Taken.Tentative));
        return new Untold(
            settled,
            Stretches.Less(Of(rest.Where(takenTime => takenTime.How == Taken.Tentative)), settled)
        );

        ImmutableArray<Interval> Of(IEnumerable<TakenTime> takenTimes) =>
            Stretches.Merged(takenTimes.Select(takenTime => takenTime.Occurrence.Span), window.Span);
    }
}

/// <summary>An event that takes somebody at a time at which they are taken by what is not told.</summary>
/// <param name="Event">The event.</param>
/// <param name="Start">By which start its series counts it; <c>null</c> for a single event.</param>
/// <param name="Who">Whom it takes.</param>
/// <param name="Span">What both share.</param>
/// <param name="Severity">Whether both are settled.</param>
public sealed record UntoldClash(Event Event, LocalDateTime? Start, Participant Who, Interval Span, Severity Severity)
{
    /// <summary>What names it; another as soon as anything of it changes (<see cref="Clash.KeyOf"/>).</summary>
    public string Key =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join(
                        '|',
                        Event.Id.Value.ToString("N"),
                        Start is { } local ? LocalDateTimePattern.GeneralIso.Format(local) : string.Empty,
                        "untold",
                        Span.ToString(),
                        Severity.ToString(),
                        Who.Id.ToString("N")
                    )
                )
            )
        );
}

/// <summary>
/// Finds what collides with what is not told: gaps and "who is free" count it, so who plans is told of it here as well. It
/// is told to those who may change the event, who learn no more by it than by asking whether somebody is free then.
/// </summary>
public static class UntoldClashes
{
    /// <summary>The longest range that is looked through, in days.</summary>
    public const int MostDays = 62;

    /// <summary>How many are told.</summary>
    public const int MostTold = 100;

    /// <summary>The first of them, in order of time.</summary>
    /// <param name="seen">What takes whom, as the reader sees it.</param>
    /// <param name="untold">When people are taken by what the reader does not see.</param>
    /// <param name="whose">Who asks.</param>
    /// <param name="fine">The keys of those that were marked as fine.</param>
    public static ImmutableArray<UntoldClash> Among(
        IEnumerable<TakenTime> seen,
        IReadOnlyDictionary<Participant, Untold> untold,
        ClashesOf whose,
        IReadOnlySet<string> fine
    ) =>
        [
            .. seen.Where(takenTime => IsTheirs(takenTime.Occurrence.Event, whose))
                .SelectMany(takenTime => With(takenTime, untold.GetValueOrDefault(takenTime.Who, Untold.Nothing)))
                .DistinctBy(clash => clash.Key)
                .Where(clash => !fine.Contains(clash.Key))
                .OrderBy(clash => clash.Span.Start)
                .ThenBy(clash => clash.Event.Id.Value)
                .ThenBy(clash => clash.Who)
                .Take(MostTold),
        ];

    /// <summary>Whether what collides with an event is somebody's to resolve here: they may change it.</summary>
    public static bool IsTheirs(Event whole, ClashesOf whose) =>
        AccessRules.ToChange(whose.RoleOn(whole.CalendarId), whose.Reader, whole) == Verdict.Granted;

    private static IEnumerable<UntoldClash> With(TakenTime takenTime, Untold untold)
    {
        var span = takenTime.Occurrence.Span;
        if (span.Duration <= Duration.Zero)
        {
            return [];
        }

        var isSettled = takenTime.How != Taken.Tentative;
        return Shared(untold.Settled, isSettled ? Severity.Hard : Severity.Soft)
            .Concat(Shared(untold.Tentative, Severity.Soft));

        IEnumerable<UntoldClash> Shared(ImmutableArray<Interval> taken, Severity severity) =>
            Stretches
                .Within(taken, span)
                .Select(both => new UntoldClash(
                    takenTime.Occurrence.Event,
                    takenTime.Occurrence.Start,
                    takenTime.Who,
                    both,
                    severity
                ));
    }
}
