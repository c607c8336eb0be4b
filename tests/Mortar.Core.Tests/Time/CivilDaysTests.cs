using CsCheck;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Time;

/// <summary>The whole-number calendar against NodaTime's.</summary>
public class CivilDaysTests
{
    private static readonly LocalDate First = new(1, 1, 1);

    [Fact]
    public void Every_day_of_the_calendar_is_NodaTimes_day()
    {
        var number = CivilDays.Of(First);
        for (var day = First; day.Year < 9_999; day = day.PlusDays(1))
        {
            Assert.True(CivilDays.Of(day) == number && CivilDays.ToDate(number) == day, $"{day}");
            Assert.True(CivilDays.Weekday(number) == (int)day.DayOfWeek - 1, $"{day}");
            number++;
        }
    }

    [Fact]
    public void A_second_and_its_local_time_are_the_same() =>
        Gen.Long[CivilDays.FirstSecond, CivilDays.LastSecond]
            .Sample(second => CivilDays.Second(CivilDays.ToTime(second)) == second);

    [Fact]
    public void The_seconds_count_from_1970()
    {
        Assert.Equal(0, CivilDays.Second(new LocalDateTime(1970, 1, 1, 0, 0)));
        Assert.Equal(CivilDays.LastSecond, CivilDays.Second(new LocalDateTime(9999, 12, 31, 23, 59, 59)));
        Assert.Equal(CivilDays.FirstSecond, CivilDays.Second(new LocalDateTime(1, 1, 1, 0, 0)));
    }

    [Fact]
    public void Lengths_of_months_and_years_are_NodaTimes() =>
        Gen.Select(Gen.Int[1, 9_999], Gen.Int[1, 12])
            .Sample(
                (year, month) =>
                    CivilDays.InMonth(year, month) == CalendarSystem.Iso.GetDaysInMonth(year, month)
                    && CivilDays.InYear(year) == CalendarSystem.Iso.GetDaysInYear(year)
            );
}
