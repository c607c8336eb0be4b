using Mortar.Core.Availability;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Time;

public class RangeSentenceTests
{
    private static readonly UsualHours Working = UsualHours
        .On(
            DateTimeZone.Utc,
            new DayHours(new LocalTime(9, 0), new LocalTime(17, 0)),
            Enumerable.Range(1, 5).Select(day => (IsoDayOfWeek)day)
        )
        .Off(new LocalDate(2026, 4, 3));

    [Theory]
    [InlineData("2026-03-16", "2026-03-16", "Mon 16 March", "2026-03-17")]
    [InlineData("2026-03-16", "2026-03-20", "Mon 16 to Fri 20 March", "2026-03-23")]
    [InlineData("2026-03-20", "2026-03-23", "Fri 20 to Mon 23 March", "2026-03-24")]
    [InlineData("2026-03-21", "2026-03-22", "Sat 21 to Sun 22 March", "2026-03-23")]
    [InlineData("2026-03-30", "2026-04-02", "Mon 30 March to Thu 2 April", "2026-04-06")] // Friday is a holiday
    [InlineData("2026-03-27", "2026-03-31", "Fri 27 to Tue 31 March", "2026-04-01")]
    [InlineData("2026-12-28", "2027-01-01", "Mon 28 December to Fri 1 January 2027", "2027-01-04")]
    [InlineData("2027-02-01", "2027-02-05", "Mon 1 to Fri 5 February 2027", "2027-02-08")]
    public void An_absence_is_said_as_people_say_it(string first, string last, string days, string back)
    {
        var (from, to) = (Day(first), Day(last));

        Assert.Equal(days, RangeSentence.For(EventTime.Days(from, to), 2026));
        Assert.Equal(Day(back), Working.BackAfter(to));
    }

    [Theory]
    [InlineData(14, 16, "Mon 16 March, 14:00 to 16:00")]
    [InlineData(9, 9, "Mon 16 March, 09:00")]
    [InlineData(20, 24, "Mon 16 March, 20:00 to 00:00")]
    [InlineData(22, 30, "Mon 16 March, 22:00 to Tue 17 March, 06:00")]
    public void Hours_are_said_with_their_day(int from, int to, string sentence)
    {
        var day = Day("2026-03-16").AtMidnight();

        Assert.Equal(sentence, RangeSentence.For(EventTime.OnEveryClock(day.PlusHours(from), day.PlusHours(to)), 2026));
    }

    [Fact]
    public void A_year_without_a_working_day_ends_on_the_next() =>
        Assert.Equal(
            Day("2026-03-17"),
            UsualHours
                .On(DateTimeZone.Utc, new DayHours(new LocalTime(9, 0), new LocalTime(17, 0)))
                .BackAfter(Day("2026-03-16"))
        );

    private static LocalDate Day(string text) => LocalDatePattern.Iso.Parse(text).Value;
}
