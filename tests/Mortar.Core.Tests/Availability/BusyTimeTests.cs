using CsCheck;
using Mortar.Core.Answers;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class BusyTimeTests
{
    private static readonly Event Firing = Studio.Event(At(1, 9, 12));

    [Theory]
    [InlineData(WhoseTime.Named, Answer.Accepted, true, false)]
    [InlineData(WhoseTime.Named, Answer.NeedsAction, true, false)]
    [InlineData(WhoseTime.Named, Answer.Declined, false, false)]
    [InlineData(WhoseTime.Group, Answer.Accepted, true, true)]
    [InlineData(WhoseTime.Group, Answer.Declined, false, true)] // the others of the group are still taken
    [InlineData(WhoseTime.Nobody, Answer.Accepted, false, false)]
    public void A_calendar_takes_the_time_of_those_it_says(WhoseTime takes, Answer answer, bool priya, bool ines)
    {
        var busy = Busy(Calendar(takes, Purpose.Events, Counted(Firing, Comes(Studio.Priya, answer))));

        Assert.Equal(priya, busy.ContainsKey(Priya));
        Assert.Equal(ines, busy.ContainsKey(Ines));
    }

    [Theory]
    [InlineData(ShowAs.Busy, false, Answer.Accepted, Purpose.Events, "busy")]
    [InlineData(ShowAs.Tentative, false, Answer.Accepted, Purpose.Events, "tentative")]
    [InlineData(ShowAs.Busy, false, Answer.Tentative, Purpose.Events, "tentative")]
    [InlineData(ShowAs.Free, false, Answer.Accepted, Purpose.Events, "")]
    [InlineData(ShowAs.Busy, true, Answer.Accepted, Purpose.Events, "")]
    [InlineData(ShowAs.Busy, false, Answer.Accepted, Purpose.Away, "away")]
    [InlineData(ShowAs.Tentative, false, Answer.Accepted, Purpose.Away, "tentative")] // proposed, not agreed
    public void An_event_takes_time_as_it_says(
        ShowAs showAs,
        bool cancelled,
        Answer answer,
        Purpose purpose,
        string how
    )
    {
        var whole = Studio.Event(At(1, 9, 12), showAs: showAs, cancelled: cancelled);

        var busy = Busy(Calendar(WhoseTime.Named, purpose, Counted(whole, Comes(Studio.Priya, answer))))
            .GetValueOrDefault(Priya, BusyTime.None(Week.Span));

        Assert.Equal(how == "busy" ? [Span(1, 9, 12)] : [], busy.Busy);
        Assert.Equal(how == "away" ? [Span(1, 9, 12)] : [], busy.Away);
        Assert.Equal(how == "tentative" ? [Span(1, 9, 12)] : [], busy.Tentative);
    }

    [Fact]
    public void A_booking_takes_the_place_and_those_named()
    {
        var busy = Busy(Calendar(WhoseTime.Named, Purpose.Place, Counted(Firing, Comes(Studio.Priya))));

        Assert.Equal([Span(1, 9, 12)], busy[Participant.Of(Kiln)].Busy);
        Assert.Equal([Span(1, 9, 12)], busy[Priya].Busy);
    }

    [Fact]
    public void An_event_elsewhere_takes_the_places_it_books()
    {
        var booked = new CountedEvent(Firing, [], [Kiln]);

        Assert.Equal(
            [Span(1, 9, 12)],
            Busy(Calendar(WhoseTime.Nobody, Purpose.Events, booked))[Participant.Of(Kiln)].Busy
        );
    }

    [Fact]
    public void One_cancelled_date_of_a_series_is_free()
    {
        var daily = Studio.Event(At(0, 9, 10), Studio.Every("FREQ=DAILY;COUNT=3"));
        var called = daily.Series!.With(
            new Override(
                Monday.PlusDays(1) + new LocalTime(9, 0),
                At(1, 9, 10),
                daily.Content with
                {
                    Cancelled = true,
                }
            )
        );

        var busy = Busy(Calendar(WhoseTime.Group, Purpose.Events, CountedEvent.Of(daily with { Series = called })));

        Assert.Equal([Span(0, 9, 10), Span(2, 9, 10)], busy[Priya].Busy);
    }

    [Fact]
    public void A_whole_day_away_is_each_ones_own_day()
    {
        var away = Studio.Event(EventTime.Days(Monday.PlusDays(2), Monday.PlusDays(2)));

        var busy = Busy(Calendar(WhoseTime.Named, Purpose.Away, Counted(away, Comes(Studio.Priya), Comes(Astrid))));

        Assert.Equal("2026-03-11T00:00:00Z/2026-03-12T00:00:00Z", busy[Priya].Away[0].ToString());

        // Halifax has been on summer time since the Sunday before.
        Assert.Equal("2026-03-11T03:00:00Z/2026-03-12T03:00:00Z", busy[Participant.Of(Astrid)].Away[0].ToString());
    }

    [Fact]
    public void Tentative_is_what_nothing_settled_lies_over()
    {
        var busy = BusyTime.Of(
            Week.Span,
            [(Span(0, 9, 12), Taken.Tentative), (Span(0, 10, 11), Taken.Busy), (Span(0, 11.5, 13), Taken.Away)]
        );

        Assert.Equal([Span(0, 9, 10), Span(0, 11, 11.5)], busy.Tentative);
        Assert.Equal([Span(0, 9, 13)], busy.All);
    }

    [Fact]
    public void Every_quarter_of_an_hour_is_what_the_worst_event_on_it_says() =>
        Gen.Select(Stretches(60), Stretches(60), Stretches(60))
            .Sample(
                (busy, away, tentative) =>
                {
                    var merged = BusyTime.Of(
                        Week.Span,
                        busy.Select(one => (one, Taken.Busy))
                            .Concat(away.Select(one => (one, Taken.Away)))
                            .Concat(tentative.Select(one => (one, Taken.Tentative)))
                    );
                    return Enumerable
                        .Range(0, 72)
                        .Select(Tick)
                        .All(moment =>
                        {
                            var isBusy = Has(busy, moment);
                            var isAway = Has(away, moment);
                            return Has(merged.Busy, moment) == isBusy
                                && Has(merged.Away, moment) == isAway
                                && Has(merged.Settled, moment) == (isBusy || isAway)
                                && Has(merged.Tentative, moment) == (Has(tentative, moment) && !isBusy && !isAway);
                        });
                }
            );

    [Fact]
    public void Free_and_taken_part_the_window_and_nothing_touches() =>
        Gen.Select(Stretches(60), Gen.Shuffle(Enumerable.Range(0, 6).ToArray()))
            .Sample(
                (stretches, order) =>
                {
                    var one = BusyTime.Of(Week.Span, stretches.Select(span => (span, Taken.Busy)));
                    var other = BusyTime.Of(
                        Week.Span,
                        order.Where(place => place < stretches.Length).Select(place => (stretches[place], Taken.Busy))
                    );
                    var all = one.All.Concat(one.Free).OrderBy(span => span.Start).ToList();
                    return one.All.SequenceEqual(other.All)
                        && one.All.Zip(one.All.Skip(1)).All(pair => pair.First.End < pair.Second.Start)
                        && all[0].Start == Week.Span.Start
                        && all[^1].End == Week.Span.End
                        && all.Zip(all.Skip(1)).All(pair => pair.First.End == pair.Second.Start);
                }
            );

    internal static bool Has(IEnumerable<Interval> set, Instant moment) =>
        set.Any(one => one.Start <= moment && moment < one.End);
}
