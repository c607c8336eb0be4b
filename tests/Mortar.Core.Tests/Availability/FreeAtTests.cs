using Mortar.Core.Availability;
using Mortar.Core.Words;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class FreeAtTests
{
    private static readonly Invitee Asked = new(
        Priya,
        Need.Required,
        BusyTime.Of(
            Week.Span,
            [
                (Span(1, 9, 10), Taken.Busy),
                (Span(1, 10, 11), Taken.Tentative),
                (Span(1, 13, 15), Taken.Away),
                (Span(1, 14, 16), Taken.Busy),
            ]
        ),
        NineToFive
    );

    [Theory]
    [InlineData(9, 9, Presence.Busy)] // an instant
    [InlineData(10, 10, Presence.Tentative)] // the busy hour is over on its last instant
    [InlineData(11, 11, Presence.Free)]
    [InlineData(14, 14, Presence.Away)] // whoever is away cannot be busy
    [InlineData(15, 15, Presence.Busy)]
    [InlineData(17, 17, Presence.OutsideHours)]
    [InlineData(16, 17, Presence.Free)]
    [InlineData(16.5, 17.5, Presence.OutsideHours)]
    [InlineData(10.5, 13, Presence.Tentative)]
    [InlineData(9.5, 13.5, Presence.Away)] // the worst of it
    [InlineData(12, 13, Presence.Free)] // ends as the absence begins
    public void Somebody_is_as_the_worst_moment_says(double from, double to, Presence presence) =>
        Assert.Equal(
            presence,
            FreeAt.Ask([Asked], new Interval(Span(1, from, 24).Start, Span(1, to, 24).Start))[Priya]
        );

    [Fact]
    public void A_day_off_has_no_hours()
    {
        var off = Asked with { Hours = NineToFive.Off(Monday.PlusDays(1)) };

        Assert.Equal(Presence.OutsideHours, FreeAt.Ask([off], Span(1, 11, 12))[Priya]);
    }

    [Fact]
    public void Hours_over_midnight_belong_to_the_day_they_begin_on()
    {
        var night = UsualHours.On(
            Studio.Zone(Studio.London),
            new DayHours(new LocalTime(22, 0), new LocalTime(6, 0)),
            IsoDayOfWeek.Monday
        );
        var firing = new Invitee(Priya, Need.Required, BusyTime.None(Week.Span), night);

        Assert.Equal(Presence.Free, FreeAt.Ask([firing], Span(1, 5, 6))[Priya]);
        Assert.Equal(Presence.OutsideHours, FreeAt.Ask([firing], Span(0, 5, 6))[Priya]);
        Assert.Equal(Presence.OutsideHours, FreeAt.Ask([firing], Span(1, 23, 24))[Priya]);
    }

    [Fact]
    public void Nothing_is_answered_for_a_time_nobody_knows() =>
        Assert.Throws<ArgumentOutOfRangeException>(() => FreeAt.Ask([Asked], Span(8, 9, 10)));

    [Fact]
    public void What_is_offered_is_in_usual_hours()
    {
        // Asked for Tuesday 16:30 to 17:30, which goes over five o'clock.
        var wished = Span(1, 16.5, 17.5);

        var (earlier, later) = FreeAt.Offers(
            [Asked with { Busy = BusyTime.None(Week.Span) }],
            Week.Span,
            wished,
            NineToFive
        );

        Assert.Equal(Span(1, 16, 17).Start, earlier);
        Assert.Equal(Span(2, 9, 10).Start, later);
    }

    [Fact]
    public void A_place_is_offered_in_the_hours_of_who_asks()
    {
        var kiln = new Invitee(
            Participant.Of(new CalendarId(Guid.NewGuid())),
            Need.Required,
            BusyTime.Of(Week.Span, [(Span(1, 12, 24), Taken.Busy)]),
            Hours: null
        );

        Assert.Equal(
            (Span(1, 11, 12).Start, Span(2, 9, 10).Start),
            FreeAt.Offers([kiln], Week.Span, Span(1, 14, 15), NineToFive)
        );

        // With somebody whose hours are known, those hold.
        var night = Asked with
        {
            Busy = BusyTime.None(Week.Span),
            Hours = UsualHours.On(
                Studio.Zone(Studio.London),
                new DayHours(new LocalTime(20, 0), new LocalTime(23, 0)),
                IsoDayOfWeek.Wednesday
            ),
        };
        Assert.Equal(
            (null, Span(2, 20, 21).Start),
            FreeAt.Offers([kiln, night], Week.Span, Span(1, 14, 15), NineToFive)
        );
    }

    [Fact]
    public void What_is_longer_than_a_day_of_hours_is_offered_at_any_time()
    {
        var free = Asked with { Busy = BusyTime.None(Week.Span) };

        Assert.Equal(
            (Span(1, 0, 24).Start, Span(1, 0, 24).Start),
            FreeAt.Offers([free], Week.Span, Span(1, 0, 24), NineToFive)
        );
    }

    [Fact]
    public void Nothing_is_offered_where_all_days_are_over() =>
        Assert.Equal(
            (null, null),
            FreeAt.Offers([Asked], new Interval(Week.Span.End, Week.Span.End), Span(1, 14, 15), NineToFive)
        );
}
