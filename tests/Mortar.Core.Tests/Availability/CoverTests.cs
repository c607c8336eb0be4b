using Mortar.Core.Availability;
using Mortar.Core.Words;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class CoverTests
{
    private static readonly CoverNeed Halves = CoverNeed.OnWorkingDays(2) with { Part = DayPart.Morning };

    [Fact]
    public void Each_working_day_says_who_is_there_and_who_is_missing()
    {
        var days = Cover
            .Of(Week, CoverNeed.OnWorkingDays(2), [Person(Studio.Ines), Person(Studio.Priya, Span(1, 0, 24))])
            .ToList();

        Assert.Equal(Enumerable.Range(0, 5).Select(Monday.PlusDays), days.Select(day => day.Day));
        Assert.Equal([0, 1, 0, 0, 0], days.Select(day => day.TooFew));
        Assert.Equal([Studio.Ines], days[1].Present);
        Assert.Equal([Studio.Priya], days[1].Missing);
    }

    [Theory]
    [InlineData(9, 13, false)] // half of the hours
    [InlineData(9, 13.5, true)]
    [InlineData(11, 12, false)]
    [InlineData(17, 24, false)] // not in the hours at all
    public void Whoever_is_away_for_more_than_half_of_their_hours_is_missing(double from, double to, bool missing) =>
        Assert.Equal(
            missing ? 1 : 0,
            Cover
                .Of(Week, CoverNeed.OnWorkingDays(1), [Person(Studio.Priya, Span(1, from, to))])
                .ElementAt(1)
                .Missing.Length
        );

    [Fact]
    public void Half_days_are_parted_at_noon()
    {
        var tuesday = Cover
            .Of(Week, Halves, [Person(Studio.Ines), Person(Studio.Priya, Span(1, 12, 24))])
            .Where(day => day.Day == Monday.PlusDays(1))
            .ToList();

        Assert.Equal([DayPart.Morning, DayPart.Afternoon], tuesday.Select(day => day.Part));
        Assert.Equal([0, 1], tuesday.Select(day => day.TooFew));
    }

    [Fact]
    public void Whoever_does_not_work_that_day_is_neither_there_nor_missing()
    {
        var person = Person(Studio.Priya, Span(1, 0, 24)) with { Hours = NineToFive.With(IsoDayOfWeek.Tuesday, null) };

        var tuesday = Cover.Of(Week, CoverNeed.OnWorkingDays(1), [person]).ElementAt(1);

        Assert.Empty(tuesday.Present);
        Assert.Empty(tuesday.Missing);
        Assert.Equal(1, tuesday.TooFew);
    }

    [Fact]
    public void Each_day_is_there_also_where_nobody_is_needed()
    {
        var need = CoverNeed.Of([0, 2, 0, 0, 0, 1, 0]);

        var days = Cover.Every(Week, need, [Person(Studio.Ines)]).ToList();

        Assert.Equal([0, 2, 0, 0, 0, 1, 0], days.Select(day => day.Needed));
        Assert.Equal([0, 1, 0, 0, 0, 1, 0], days.Select(day => day.TooFew));
        Assert.Equal([1, 1, 1, 1, 1, 0, 0], days.Select(day => day.Present.Length));
        Assert.Equal(2, Cover.Of(Week, need, [Person(Studio.Ines)]).Count());
    }

    private static CoverPerson Person(PersonId person, params Interval[] away) =>
        new(person, BusyTime.Of(Week.Span, away.Select(span => (span, Taken.Away))), NineToFive);
}
