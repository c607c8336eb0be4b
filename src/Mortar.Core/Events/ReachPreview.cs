using System.Globalization;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>What a change to a series would come to, if it reached so far.</summary>
/// <param name="Reach">How far.</param>
/// <param name="Possible">Whether it can be done.</param>
/// <param name="Sentence">What it would change, or why it cannot be.</param>
public sealed record ReachPreview(Reach Reach, bool Possible, string Sentence)
{
    /// <summary>More dates than this are not counted.</summary>
    private const int MostCounted = 1_000;

    /// <summary>For each reach, nearest first, what changing one occurrence would come to. Nothing for a single event.</summary>
    public static IReadOnlyList<ReachPreview> Of(Event whole, EventChange change, ZoneClock clock) =>
        For(
            whole,
            change.Key,
            reach =>
                reach == Reach.OnlyThis && change.Repeats is not RepeatWish.AsBefore
                    ? new EventEdit.Refused("only-this", "How it repeats is changed for more than one date.")
                    : whole.Changed(change with { Reach = reach }, new EventId(Guid.Empty), clock),
            clock
        );

    /// <summary>The same for taking it away.</summary>
    public static IReadOnlyList<ReachPreview> OfWithout(Event whole, LocalDateTime key, ZoneClock clock) =>
        For(whole, key, reach => whole.Without(key, reach, new EventId(Guid.Empty), clock), clock);

    private static IReadOnlyList<ReachPreview> For(
        Event whole,
        LocalDateTime? key,
        Func<Reach, EventEdit> edit,
        ZoneClock clock
    ) =>
        whole.Series is null || key is not { } start
            ? []
            :
            [
                .. Enum.GetValues<Reach>()
                    .Select(reach =>
                        edit(reach) switch
                        {
                            EventEdit.Refused refused => new ReachPreview(reach, Possible: false, refused.Sentence),
                            EventEdit.NotThere => new ReachPreview(
                                reach,
                                Possible: false,
                                "The series does not take place then any more."
                            ),
                            EventEdit.Done done => new ReachPreview(
                                reach,
                                Possible: true,
                                Dates(whole, start, reach, clock) + Losing(done.Lost.Count)
                            ),
                            _ => new ReachPreview(reach, Possible: true, Dates(whole, start, reach, clock)),
                        }
                    ),
            ];

    private static string Dates(Event whole, LocalDateTime key, Reach reach, ZoneClock clock)
    {
        var day = key.ToString("ddd d MMMM uuuu", CultureInfo.InvariantCulture);
        if (reach == Reach.OnlyThis)
        {
            return $"{day} alone";
        }

        var from = reach == Reach.AndLater ? key : CivilDays.ToTime(CivilDays.FirstSecond);
        var count = Count(whole, from, clock);
        return reach == Reach.AndLater
            ? count is { } later
                ? $"{Wording.Count(later, "date", "dates")} from {day} on"
                : $"every date from {day} on, without end"
            : count is { } all
                ? $"all {Wording.Count(all, "date", "dates")}, past ones too"
                : "every date, past ones too";
    }

    /// <summary>How many dates, those changed by themselves too; <c>null</c> where there is no end to count to.</summary>
    private static int? Count(Event whole, LocalDateTime from, ZoneClock clock)
    {
        var single = whole.Series!.Overrides.Count(one => one.Range == OverrideRange.One && one.Replaces >= from);
        var counted = whole.StartsFrom(from, clock).Take(MostCounted + 1).Count();
        return counted > MostCounted ? null : counted + single;
    }

    private static string Losing(int lost) =>
        lost == 0 ? string.Empty : $"; {Wording.Count(lost, "date", "dates")} changed by themselves would be lost";
}
