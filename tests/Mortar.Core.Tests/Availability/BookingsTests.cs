using CsCheck;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Availability;

public class BookingsTests
{
    private static readonly LocalDate Today = new(2026, 3, 11);
    private static readonly DateTimeZone London = Studio.Zone(Studio.London);

    private static BookingCheck.Taken? Overlap(Event added, params Event[] there) =>
        Check(added, there) as BookingCheck.Taken;

    private static BookingCheck Check(Event added, params Event[] there) =>
        Bookings.Check([added], there, Bookings.Reach([added], London, Today), Studio.Clock);

    /// <summary>A booking every second: with itself, with another, and of no time at all. Each is answered after a bounded number of dates.</summary>
    [Fact]
    public void A_rule_for_every_second_is_looked_at_no_further_than_to_the_first_that_collide()
    {
        var longer = At(9, 5) with { Series = Studio.Every("FREQ=SECONDLY") };
        var moments = At(9, 0) with { Series = Studio.Every("FREQ=SECONDLY") };

        Assert.NotNull(Overlap(longer));
        Assert.NotNull(Overlap(At(9, 30), longer));
        Assert.IsType<BookingCheck.TooMany>(Check(moments));
        Assert.IsType<BookingCheck.TooMany>(Check(At(8, 30) with { Series = Studio.Every("FREQ=DAILY") }, moments));
    }

    private static Event At(int hour, int minutes, ShowAs showAs = ShowAs.Busy, bool cancelled = false) =>
        Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 3, 12, hour, 0), minutes),
            showAs: showAs,
            cancelled: cancelled
        );

    [Fact]
    public void Two_that_take_the_place_at_once_overlap_and_those_that_touch_do_not()
    {
        Assert.NotNull(Overlap(At(14, 90), At(15, 60)));
        Assert.Null(Overlap(At(14, 60), At(15, 60)));
        Assert.Null(Overlap(At(14, 60), At(13, 60)));
    }

    [Fact]
    public void What_takes_no_time_or_was_called_off_takes_no_place()
    {
        Assert.Null(Overlap(At(14, 60), At(14, 60, ShowAs.Free)));
        Assert.Null(Overlap(At(14, 60), At(14, 60, cancelled: true)));
        Assert.Null(Overlap(At(14, 0), At(13, 120)));
        Assert.NotNull(Overlap(At(14, 60), At(14, 60, ShowAs.Tentative)));
    }

    [Fact]
    public void A_booking_is_not_in_its_own_way_when_it_is_moved()
    {
        var before = At(14, 60);
        var after = before with { Time = Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 30), 60) };

        Assert.Null(Overlap(after, before));
    }

    [Fact]
    public void A_series_is_looked_at_on_each_date_two_years_ahead_and_not_before_today()
    {
        var weekly = Studio.Event(Studio.Hours(new LocalDateTime(2025, 9, 4, 14, 0), 60), Studio.Every("FREQ=WEEKLY"));
        Event On(LocalDate day) => Studio.Event(Studio.Hours(day + new LocalTime(14, 30), 60));

        Assert.Equal(new LocalDate(2027, 3, 11), Found(new LocalDate(2027, 3, 11))); // a Thursday, within two years
        Assert.Null(Found(new LocalDate(2028, 6, 1)));
        Assert.Null(Found(new LocalDate(2025, 9, 11)));

        LocalDate? Found(LocalDate day) => Overlap(weekly, On(day))?.Other.Time.LocalStart.Date;
    }

    [Fact]
    public void It_agrees_with_comparing_each_with_each() =>
        Gen.Select(Gen.Int[0, 40], Gen.Int[1, 6])
            .List[1, 12]
            .Sample(drawn =>
            {
                var bookings = drawn
                    .Select(one =>
                        Studio.Event(
                            Studio.Hours(
                                new LocalDateTime(2026, 3, 12, 8, 0).PlusMinutes(one.Item1 * 10),
                                one.Item2 * 10
                            )
                        )
                    )
                    .ToList();
                var (added, there) = (bookings[0], bookings.Skip(1).ToArray());
                var (from, to) = (drawn[0].Item1, drawn[0].Item1 + drawn[0].Item2);

                var plain = drawn.Skip(1).Any(one => one.Item1 < to && one.Item1 + one.Item2 > from);

                return plain == Overlap(added, there) is not null;
            });

    [Fact]
    public void What_takes_it_is_said_only_as_far_as_it_may_be()
    {
        var when = Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 0), 90);

        Assert.Equal(
            "“Big kiln” is taken by “Bisque”: Thu 12 March, 14:00 to 15:30. It takes one booking at a time; choose another time or place.",
            Bookings.Sentence("Big kiln", when, "Bisque", 2026)
        );
        Assert.StartsWith(
            "“Big kiln” is taken: Thu 12 March",
            Bookings.Sentence("Big kiln", when, null, 2026),
            StringComparison.Ordinal
        );
    }
}
