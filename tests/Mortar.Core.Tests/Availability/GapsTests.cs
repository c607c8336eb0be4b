using CsCheck;
using Mortar.Core.Availability;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class GapsTests
{
    private static readonly Duration Hour = Duration.FromHours(1);

    private static readonly Interval Tuesday = Span(1, 0, 24);

    [Fact]
    public void A_gap_is_where_all_required_are_free()
    {
        var gaps = Gaps.Find(
            new GapQuestion(
                [
                    Invited(Priya, Need.Required, null, Span(1, 0, 9), Span(1, 12, 14)),
                    Invited(Ines, Need.Required, null, Span(1, 11, 13), Span(1, 16, 24)),
                ],
                Tuesday,
                Hour
            )
        );

        Assert.Equal([Span(1, 9, 11), Span(1, 14, 16)], gaps.Select(gap => gap.Span));
        Assert.All(gaps, gap => Assert.Empty(gap.Missing));
    }

    [Fact]
    public void Margins_are_free_too_and_not_part_of_the_gap()
    {
        var question = new GapQuestion(
            [Invited(Priya, Need.Required, null, Span(1, 0, 9), Span(1, 12, 24))],
            Tuesday,
            Hour
        );

        var gap = Assert.Single(
            Gaps.Find(question with { Before = Duration.FromMinutes(30), After = Duration.FromMinutes(15) })
        );

        Assert.Equal(Span(1, 9.5, 11.75), gap.Span);
    }

    [Fact]
    public void Those_missing_are_named_and_gaps_with_more_people_come_first()
    {
        var dele = Participant.Of(Dele);
        var gaps = Gaps.Find(
            new GapQuestion(
                [
                    Invited(Priya, Need.Required, null, Span(1, 0, 9), Span(1, 17, 24)),
                    Invited(Ines, Need.Optional, null, Span(1, 9, 11)),
                    Invited(dele, Need.Optional, null, Span(1, 13, 17)),
                ],
                Tuesday,
                Hour
            )
        );

        Assert.Equal(
            [(Span(1, 11, 13), ""), (Span(1, 9, 13), "Ines"), (Span(1, 11, 17), "Dele"), (Span(1, 9, 17), "Ines Dele")],
            gaps.Select(gap => (gap.Span, string.Join(' ', gap.Missing.Select(one => one == Ines ? "Ines" : "Dele"))))
        );
    }

    [Fact]
    public void A_required_person_is_missing_only_where_that_is_allowed()
    {
        var question = new GapQuestion(
            [Invited(Priya, Need.Required, null, Span(1, 0, 24)), Invited(Ines, Need.Required, null)],
            Tuesday,
            Hour
        );

        Assert.Empty(Gaps.Find(question));
        var gap = Assert.Single(Gaps.Find(question with { MayBeMissing = 1 }));
        Assert.Equal((Tuesday, Priya, 1), (gap.Span, Assert.Single(gap.Missing), gap.MissingRequired));
    }

    [Fact]
    public void Gaps_inside_everyones_hours_come_before_sooner_ones()
    {
        var question = new GapQuestion([Invited(Priya, Need.Required, NineToFive, Span(1, 6, 12))], Tuesday, Hour);

        var gaps = Gaps.Find(question);

        Assert.Equal([Span(1, 12, 24), Span(1, 0, 6)], gaps.Select(gap => gap.Span));
        Assert.Equal([Span(1, 12, 13), null], gaps.Select(gap => gap.InHours));
        Assert.Equal([Span(1, 12, 17)], Gaps.Find(question with { Hours = HoursWish.Kept }).Select(gap => gap.Span));
    }

    [Fact]
    public void Hours_are_told_by_each_ones_own_clock()
    {
        var halifax = UsualHours.On(
            Zones[Astrid],
            new DayHours(new LocalTime(9, 0), new LocalTime(17, 0)),
            IsoDayOfWeek.Tuesday
        );
        var gap = Assert.Single(
            Gaps.Find(
                new GapQuestion(
                    [
                        Invited(Priya, Need.Required, NineToFive),
                        Invited(Participant.Of(Astrid), Need.Required, halifax),
                    ],
                    Tuesday,
                    Hour
                )
                {
                    Hours = HoursWish.Kept,
                }
            )
        );

        // In the second week of March Halifax is three hours behind London, not four.
        Assert.Equal(Span(1, 12, 17), gap.Span);
        Assert.Equal(new LocalDateTime(2026, 3, 10, 9, 0), gap.SeenIn(halifax.Zone).LocalStart);
    }

    /// <summary>
    /// Honolulu is ten hours behind UTC and Dhaka six before it, both all year (tz database): from eight to seven in both
    /// places is two to five in the morning of UTC.
    /// </summary>
    [Fact]
    public void Sixteen_hours_apart_the_hours_in_common_are_found()
    {
        var gap = Assert.Single(
            Gaps.Find(
                new GapQuestion(
                    [
                        Invited(Priya, Need.Required, Daily("Pacific/Honolulu")),
                        Invited(Ines, Need.Required, Daily("Asia/Dhaka")),
                    ],
                    Tuesday,
                    Hour
                )
                {
                    Hours = HoursWish.Kept,
                }
            )
        );

        Assert.Equal(Span(1, 2, 5), gap.Span);
        Assert.Equal(new LocalDateTime(2026, 3, 9, 16, 0), gap.SeenIn(Studio.Zone("Pacific/Honolulu")).LocalStart);
        Assert.Equal(new LocalDateTime(2026, 3, 10, 8, 0), gap.SeenIn(Studio.Zone("Asia/Dhaka")).LocalStart);

        static UsualHours Daily(string zone) =>
            UsualHours.On(
                Studio.Zone(zone),
                new DayHours(new LocalTime(8, 0), new LocalTime(19, 0)),
                [.. Enumerable.Range(1, 7).Cast<IsoDayOfWeek>()]
            );
    }

    /// <summary>On 29 March 2026 London's clocks go from 1:00 to 2:00 (tz database), so half past midnight to half past two is an hour.</summary>
    [Fact]
    public void What_lies_over_the_clock_change_takes_the_time_it_lasts()
    {
        var night = new LocalDate(2026, 3, 29).AtMidnight();
        var firing = Studio.Clock.Span(Studio.Hours(night.PlusMinutes(30), 120), DateTimeZone.Utc);
        var window = new Interval(Instant.FromUtc(2026, 3, 29, 0, 0), Instant.FromUtc(2026, 3, 29, 3, 0));

        var gap = Assert.Single(Gaps.Find(new GapQuestion([Invited(Priya, firing, window)], window, Hour)));

        Assert.Equal(Hour, firing.Duration);
        Assert.Equal(new Interval(Instant.FromUtc(2026, 3, 29, 1, 30), window.End), gap.Span);
        Assert.Equal(night.PlusMinutes(150), gap.SeenIn(Studio.Zone(Studio.London)).LocalStart);

        static Invitee Invited(Participant who, Interval busy, Interval window) =>
            new(who, Need.Required, BusyTime.Of(window, [(busy, Taken.Busy)]), Hours: null);
    }

    [Theory]
    [InlineData(10, 10.0, 10.0)] // free
    [InlineData(8, null, 9.0)]
    [InlineData(11.5, 11.0, 14.0)] // an hour from half past eleven would run into the firing
    [InlineData(13, 11.0, 14.0)]
    [InlineData(23.5, 23.0, null)]
    public void The_nearest_times_are_found_on_both_sides(double wished, double? earlier, double? later)
    {
        var question = new GapQuestion(
            [
                Invited(Priya, Need.Required, null, Span(1, 0, 9), Span(1, 12, 14)),
                Invited(Ines, Need.Optional, null, Tuesday),
            ],
            Tuesday,
            Hour
        );

        var nearest = Gaps.Nearest(question, Span(1, wished, 24).Start);

        Assert.Equal((At(earlier), At(later)), nearest);

        static Instant? At(double? hour) => hour is { } set ? Span(1, set, 24).Start : null;
    }

    [Fact]
    public void A_question_nobody_can_answer_is_refused()
    {
        var question = new GapQuestion([Invited(Priya, Need.Required, null)], Tuesday, Hour);

        Assert.Throws<ArgumentOutOfRangeException>(() => Gaps.Find(question with { Length = Duration.Zero }));
        Assert.Throws<ArgumentOutOfRangeException>(() => Gaps.Find(question with { Before = -Hour }));
        Assert.Throws<ArgumentOutOfRangeException>(() =>
            Gaps.Find(question with { Within = new Interval(Tuesday.Start, Week.Span.End + Hour) })
        );
    }

    [Fact]
    public void Without_anybody_all_of_it_is_one_gap() =>
        Assert.Equal(Tuesday, Assert.Single(Gaps.Find(new GapQuestion([], Tuesday, Hour))).Span);

    /// <summary>The oracle: every stretch on the grid, kept where nobody free in it is lost by not widening it.</summary>
    [Fact]
    public void They_are_all_the_stretches_that_cannot_be_widened() =>
        Gen.Select(Stretches(20).Array[1, 5], Gen.Int[0, 31], Gen.Int[1, 4], Gen.Int[0, 2])
            .Sample(
                (busy, requiredBits, length, mayBeMissing) =>
                {
                    var within = new Interval(Tick(0), Tick(24));
                    var invitees = busy.Select(
                            (stretches, number) =>
                                Invited(
                                    Number(number),
                                    (requiredBits >> number & 1) == 1 ? Need.Required : Need.Optional,
                                    null,
                                    stretches
                                )
                        )
                        .ToList();
                    var question = new GapQuestion(invitees, within, Duration.FromMinutes(15 * length))
                    {
                        MayBeMissing = mayBeMissing,
                    };

                    var found = Gaps.Find(question).Select(gap => (gap.Span, Names(gap.Missing))).ToList();

                    var expected =
                        from start in Enumerable.Range(0, 24)
                        from end in Enumerable.Range(start + 1, 24 - start)
                        where end - start >= length
                        let missing = MissingIn(busy, start, end)
                        where missing.Count(who => (requiredBits >> who & 1) == 1) <= mayBeMissing
                        where start == 0 || MissingIn(busy, start - 1, end).Count > missing.Count
                        where end == 24 || MissingIn(busy, start, end + 1).Count > missing.Count
                        select (new Interval(Tick(start), Tick(end)), Names(missing.Select(Number)));
                    return found.Order(ByStart).SequenceEqual(expected.Order(ByStart));
                },
                iter: 2_000
            );

    [Fact]
    public void The_order_of_the_invitees_does_not_matter() =>
        Gen.Select(Stretches(40).Array[4], Gen.Shuffle(Enumerable.Range(0, 4).ToArray()))
            .Sample(
                (busy, order) =>
                {
                    var invitees = busy.Select(
                            (stretches, number) =>
                                Invited(
                                    Number(number),
                                    number < 2 ? Need.Required : Need.Optional,
                                    NineToFive,
                                    stretches
                                )
                        )
                        .ToList();
                    var question = new GapQuestion(invitees, Week.Span, Hour);
                    return Gaps.Find(question)
                        .SequenceEqual(
                            Gaps.Find(question with { Invitees = [.. order.Select(place => invitees[place])] })
                        );
                }
            );

    [Fact]
    public void With_many_optional_people_the_best_gaps_are_found_however_many_are_missing()
    {
        var invitees = Enumerable
            .Range(0, 12)
            .Select(number => Invited(Number(number), Need.Optional, null, number < 9 ? [Tuesday] : []))
            .ToList();

        var gap = Assert.Single(Gaps.Find(new GapQuestion(invitees, Tuesday, Hour)));

        Assert.Equal(9, gap.Missing.Length);
    }

    private static readonly Comparer<(Interval Span, string Names)> ByStart = Comparer<(Interval, string)>.Create(
        (left, right) => string.CompareOrdinal($"{left}", $"{right}")
    );

    private static List<int> MissingIn(Interval[][] busy, int start, int end) =>
        [
            .. Enumerable
                .Range(0, busy.Length)
                .Where(who => busy[who].Any(one => one.Start < Tick(end) && one.End > Tick(start))),
        ];

    private static string Names(IEnumerable<Participant> who) => string.Join(' ', who.Select(one => one.Id).Order());
}
