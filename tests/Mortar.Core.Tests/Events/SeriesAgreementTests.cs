using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Tests.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

/// <summary>What the form shows of a series, what the sentence says and when it takes place are one thing, whatever was done to it.</summary>
public class SeriesAgreementTests
{
    private static readonly LocalDateTime Start = new(2025, 1, 31, 9, 0);

    private static readonly EventId Later = new(Guid.NewGuid());

    private static readonly Gen<string> Zones = Gen.OneOfConst("Europe/London", "America/New_York", "Asia/Tokyo");

    private static readonly Gen<int> Minutes = Gen.OneOfConst(0, 60, -600, 900, 1440, -4320, 1530);

    private static readonly Gen<string> Made = Gen.OneOf(
        AnyRule.Days,
        AnyRule.Times,
        Gen.OneOfConst(
            "FREQ=WEEKLY;BYDAY=TU,TH;UNTIL=20260428",
            "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO",
            "FREQ=DAILY;UNTIL=20250301",
            "FREQ=MONTHLY;BYDAY=2TH;COUNT=9"
        )
    );

    [Fact]
    public void Form_sentence_and_dates_agree_after_every_edit() =>
        Gen.Select(Made, Zones, Gen.Int[0, 12], Gen.Enum<Reach>(), Minutes)
            .Sample(
                (text, zone, place, reach, minutes) =>
                {
                    if (Series(text, zone) is not { } whole || StartOf(whole, place) is not { } key)
                    {
                        return true;
                    }

                    var moved = whole.Time.StartingAt(key.PlusMinutes(minutes));
                    var edit = whole.Changed(
                        new EventChange(key, reach, moved, whole.Content, new RepeatWish.AsBefore()),
                        Later,
                        Studio.Clock
                    );
                    return edit is not EventEdit.Done done
                        || (Agrees(done.Event) && (done.Later is not { } later || Agrees(later)));
                },
                iter: 2_000
            );

    [Fact]
    public void What_is_said_before_another_rule_is_saved_is_what_comes() =>
        Gen.Select(Made, Made, Zones, Gen.Int[0, 12], Minutes)
            .Sample(
                (before, after, zone, place, minutes) =>
                {
                    if (Series(before, zone) is not { } whole || StartOf(whole, place) is not { } key)
                    {
                        return true;
                    }

                    var change = new EventChange(
                        key,
                        Reach.Whole,
                        whole.Time.StartingAt(key.PlusMinutes(minutes)),
                        whole.Content,
                        new RepeatWish.By(RecurrenceRule.Of(after))
                    );
                    var said = RulePreview.Of(whole, change, Studio.Clock);
                    return whole.Changed(change, Later, Studio.Clock) is EventEdit.Done done
                        ? said.Problem is null
                            && Foretells(said, done.Event, change.Time.LocalStart)
                            && Agrees(done.Event)
                        : said.Problem is not null;
                },
                iter: 2_000
            );

    /// <summary>The day that is shown as the last is the one that is said; nothing comes after it, and sent back as it is shown it changes nothing.</summary>
    private static bool Agrees(Event one)
    {
        if (one.Series is null || StartOf(one, 0) is not { } first)
        {
            return true;
        }

        var asItIs = new EventChange(
            first,
            Reach.Whole,
            one.Time.StartingAt(first),
            one.Content,
            new RepeatWish.AsBefore()
        );
        var shown = RulePreview.Of(one, asItIs, Studio.Clock);
        if (shown.Rule is not { } rule)
        {
            return shown.Problem is not null;
        }

        var starts = Starts(one, first);
        if (!Foretells(shown, one, first))
        {
            return false;
        }

        if (rule.End is SeriesEnd.Through through)
        {
            var day = through.LastDay.ToString("d MMMM", System.Globalization.CultureInfo.InvariantCulture);
            if (
                !shown.Sentence.Contains($" until {day}", StringComparison.Ordinal)
                || starts.Exists(start => start.Date > through.LastDay)
            )
            {
                return false;
            }
        }
        else if (rule.End is not (SeriesEnd.Never or SeriesEnd.After))
        {
            return false; // a form knows no other ends
        }

        // Only rules that fall once a day can be chosen; others stay as they are.
        if (
            rule.Frequency < Frequency.Daily
            || !rule.ByHour.IsEmpty
            || !rule.ByMinute.IsEmpty
            || !rule.BySecond.IsEmpty
        )
        {
            return true;
        }

        var again = asItIs with { Repeats = RepeatWish.Read(rule.ToString()).Value! };
        return one.Changed(again, Later, Studio.Clock) is EventEdit.Done { Event: var same }
            && Starts(same, first).SequenceEqual(starts);
    }

    /// <summary>A series as the form makes it: begun on a date its rule has.</summary>
    private static Event? Series(string rule, string zone)
    {
        var time = EventTime.InZone(Start, Start.PlusMinutes(45), zone);
        var once = Studio.Event(time, series: null);
        return
            RepeatWish.Read(rule).Value is { } wish
            && once.Changed(new EventChange(Key: null, Reach.Whole, time, once.Content, wish), Later, Studio.Clock)
                is EventEdit.Done { Event: var made }
            ? made
            : null;
    }

    private static LocalDateTime? StartOf(Event one, int place) =>
        one.StartsFrom(Start.PlusDays(-400), Studio.Clock)
            .Skip(place)
            .Select(start => (LocalDateTime?)start)
            .FirstOrDefault();

    private static List<LocalDateTime> Starts(Event one, LocalDateTime from) =>
        [.. one.StartsFrom(from, Studio.Clock).Take(40)];

    /// <summary>Whether what is foretold is what takes place in the year after, dates changed by themselves too.</summary>
    private static bool Foretells(RulePreview said, Event one, LocalDateTime from)
    {
        var zone = Studio.Zone(((EventTime.Timed)one.Time).Zone);
        var window = new Window(from.Date, from.Date.PlusDays(Window.LongestDays - 1), zone);
        var comes = one.Occurrences(window, Studio.Clock)
            .Select(date => date.Time.LocalStart)
            .Where(start => start >= from)
            .Order()
            .Take(RulePreview.MostNext)
            .ToList();
        return said.Next.Take(comes.Count).SequenceEqual(comes)
            && said.Next.Skip(comes.Count).All(start => start.Date > window.Last);
    }
}
