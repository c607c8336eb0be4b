using Mortar.Core.Availability;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class CoverTests
{
    [Fact]
    public void Each_working_day_says_who_is_there_and_who_is_missing()
    {
        var days = Needed(Week, CoverNeed.OnWorkingDays(2), [Person(Studio.Ines), Person(Studio.Priya, Span(1, 0, 24))])
            .ToList();

        Assert.Equal(Enumerable.Range(0, 5).Select(Monday.PlusDays), days.Select(day => day.Day));
        Assert.Equal([0, 1, 0, 0, 0], days.Select(day => day.TooFew));
        Assert.Equal([Studio.Ines], days[1].Present);
        Assert.Equal([Studio.Priya], days[1].Missing);
    }

    /// <summary>By hand: from nine to five there are three hours before noon and five from noon on.</summary>
    [Theory]
    [InlineData(9, 10.5, "there")]
    [InlineData(9, 10.75, "away before noon")]
    [InlineData(9, 13, "away before noon")]
    [InlineData(9, 14.5, "away before noon")]
    [InlineData(9, 14.75, "missing")]
    [InlineData(10.25, 15, "missing")]
    [InlineData(12, 17, "away from noon on")]
    [InlineData(11, 12, "there")]
    [InlineData(17, 24, "there")] // not in the hours at all
    public void Whoever_is_away_for_more_than_half_of_their_hours_before_or_after_noon_is_missing_then(
        double from,
        double to,
        string how
    )
    {
        var tuesday = Needed(Week, CoverNeed.OnWorkingDays(1), [Person(Studio.Priya, Span(1, from, to))]).ElementAt(1);

        Assert.Equal(
            (how == "missing", how == "away before noon", how == "away from noon on", how != "there"),
            (
                !tuesday.Missing.IsEmpty,
                !tuesday.AwayBeforeNoon.IsEmpty,
                !tuesday.AwayAfterNoon.IsEmpty,
                tuesday.TooFew == 1
            )
        );
    }

    [Fact]
    public void Half_days_are_parted_at_noon()
    {
        CoverPerson[] people = [Person(Studio.Ines), Person(Studio.Priya, Span(1, 12, 24))];

        var tuesday = new[] { DayPart.Morning, DayPart.Afternoon }.Select(part =>
            Needed(Week, CoverNeed.OnWorkingDays(2) with { Part = part }, people).ElementAt(1)
        );

        Assert.Equal([0, 1], tuesday.Select(day => day.TooFew));
    }

    /// <summary>By hand: of three, Priya has agreed to be away on Tuesday before noon, Dele after it; two are there in each half.</summary>
    [Fact]
    public void A_half_day_away_is_told_and_leaves_its_half_of_the_day_with_one_less()
    {
        CoverPerson[] people =
        [
            Person(Studio.Ines),
            Person(Studio.Priya, Span(1, 9, 12)),
            Person(Dele, Span(1, 12, 17)),
        ];

        var tuesday = Needed(Week, CoverNeed.OnWorkingDays(3), people).ElementAt(1);

        Assert.Empty(tuesday.Missing);
        Assert.Equal([Studio.Priya], tuesday.AwayBeforeNoon);
        Assert.Equal([Dele], tuesday.AwayAfterNoon);
        Assert.Equal((2, 1), (tuesday.There, tuesday.TooFew));
        Assert.Equal(3, Needed(Week, CoverNeed.OnWorkingDays(3), people).First().There);
    }

    /// <summary>By hand: of two who can fire the kiln one is at the dentist's all Tuesday morning; others do not help.</summary>
    [Fact]
    public void A_need_in_some_hours_counts_those_who_can_meet_it()
    {
        var watch = CoverNeed.OnWorkingDays(2) with
        {
            Part = new DayPart(new LocalTime(9, 0), new LocalTime(13, 0)),
            People = [Studio.Priya, Dele],
        };
        CoverPerson[] people =
        [
            Person(Studio.Ines),
            Person(Studio.Priya, Span(1, 9, 12), Span(3, 14, 17)),
            Person(Dele),
        ];

        var days = Needed(Week, watch, people).ToList();

        Assert.Equal([0, 1, 0, 0, 0], days.Select(day => day.TooFew));
        Assert.Equal([Dele], days[1].Present);
        Assert.Equal([Studio.Priya], days[1].Missing);
        Assert.DoesNotContain(Studio.Ines, days[0].Present);
    }

    /// <summary>On 29 March 2026 the clocks of London go from 1:00 to 2:00 (tz database): the night has an hour less.</summary>
    [Fact]
    public void The_hours_are_those_on_the_clock_also_when_it_is_changed()
    {
        var zone = DateTimeZoneProviders.Tzdb["Europe/London"];
        var day = new LocalDate(2026, 3, 29);

        Assert.Equal(Duration.FromHours(23), DayPart.Whole.On(day, zone).Duration);
        Assert.Equal(Duration.FromHours(11), DayPart.Morning.On(day, zone).Duration);
        Assert.Equal(
            Instant.FromUtc(2026, 3, 29, 8, 0),
            new DayPart(new LocalTime(9, 0), new LocalTime(13, 0)).On(day, zone).Start
        );
    }

    /// <summary>By hand: Priya has asked for Tuesday, of which an hour is agreed to; nobody is missing until somebody says yes.</summary>
    [Fact]
    public void What_is_only_proposed_takes_nobody_away_and_is_told()
    {
        var priya = Person(Studio.Priya, Span(1, 9, 10)) with { Proposed = [Span(1, 10, 24)] };
        var ines = Person(Studio.Ines) with { Proposed = [Span(1, 9, 12)] }; // less than half of her hours

        var tuesday = Needed(Week, CoverNeed.OnWorkingDays(2), [priya, ines]).ElementAt(1);

        Assert.Equal(2, tuesday.Present.Length);
        Assert.Equal([Studio.Priya], tuesday.Perhaps);
        Assert.Equal(0, tuesday.TooFew);
        Assert.Empty(Needed(Week, CoverNeed.OnWorkingDays(2), [priya]).First().Perhaps);
    }

    [Fact]
    public void What_cannot_be_needed_is_said()
    {
        var fit = CoverNeed.OnWorkingDays(1);
        CoverNeed[][] unfit =
        [
            [new CoverNeed([1, 2])],
            [new CoverNeed([0, 0, 0, 0, 0, 0, -1])],
            [new CoverNeed([501, 0, 0, 0, 0, 0, 0])],
            [fit with { Part = new DayPart(new LocalTime(13, 0), new LocalTime(9, 0)) }],
            [fit with { Name = new string('x', 41) }],
            [fit, fit],
            [fit with { Name = "Desk" }, fit with { Name = " desk " }],
            [.. Enumerable.Range(0, 13).Select(at => fit with { Name = $"{at}" })],
        ];

        Assert.All(unfit, needs => Assert.Equal("cover", Assert.Single(CoverNeed.Check(needs).Problems).Path));
        var (checkedNeeds, problems) = CoverNeed.Check([
            fit,
            fit with
            {
                Name = " Front\ndesk ",
                People = [Dele, Studio.Ines, Dele],
            },
        ]);
        Assert.Empty(problems);
        Assert.Equal("Front desk", checkedNeeds[1].Name);
        Assert.Equal(2, checkedNeeds[1].People.Length);
    }

    [Fact]
    public void Whoever_does_not_work_that_day_is_neither_there_nor_missing()
    {
        var person = Person(Studio.Priya, Span(1, 0, 24)) with { Hours = NineToFive.With(IsoDayOfWeek.Tuesday, null) };

        var tuesday = Needed(Week, CoverNeed.OnWorkingDays(1), [person]).ElementAt(1);

        Assert.Empty(tuesday.Present);
        Assert.Empty(tuesday.Missing);
        Assert.Equal(1, tuesday.TooFew);
    }

    [Fact]
    public void Each_day_is_there_also_where_nobody_is_needed()
    {
        var need = new CoverNeed([0, 2, 0, 0, 0, 1, 0]);

        var days = Cover.Every(Week, need, [Person(Studio.Ines)]).ToList();

        Assert.Equal([0, 2, 0, 0, 0, 1, 0], days.Select(day => day.Needed));
        Assert.Equal([0, 1, 0, 0, 0, 1, 0], days.Select(day => day.TooFew));
        Assert.Equal([1, 1, 1, 1, 1, 0, 0], days.Select(day => day.Present.Length));
        Assert.Equal(2, Needed(Week, need, [Person(Studio.Ines)]).Count());
    }

    /// <summary>The days on which somebody is needed.</summary>
    [Fact]
    public void A_day_is_as_bad_as_the_need_that_is_met_least()
    {
        CoverDay Day(int needed) => new(Monday, Core.Time.DayPart.Whole, needed, [Studio.Ines], []);

        Assert.Equal(2, Cover.TooFew([Day(1), Day(3), Day(2)]));
        Assert.Equal(0, Cover.TooFew([Day(1), Day(0)]));
        Assert.Equal(0, Cover.TooFew([]));
    }

    private static IEnumerable<CoverDay> Needed(Window window, CoverNeed need, IEnumerable<CoverPerson> people) =>
        Cover.Every(window, need, people).Where(day => day.Needed > 0);

    private static CoverPerson Person(PersonId person, params Interval[] away) =>
        new(person, BusyTime.Of(Week.Span, away.Select(span => (span, Taken.Away))), NineToFive);
}
