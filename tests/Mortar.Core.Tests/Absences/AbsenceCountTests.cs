using CsCheck;
using Mortar.Core.Absences;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Absences;

/// <summary>How many working days somebody is away.</summary>
public class AbsencesTests
{
    private static readonly Window March = new(
        new LocalDate(2026, 3, 1),
        new LocalDate(2026, 3, 31),
        Studio.Zone(Studio.London)
    );

    public static TheoryData<string, double, double, int, int> Cases =>
        new()
        {
            { "a working week with its weekend costs five days", 0, 24 * 7, 0, 10 },
            { "a morning is a half", 9, 12, 0, 1 },
            { "an hour at the dentist's is nothing", 9, 10, 0, 0 },
            { "one day off for all in the week costs none", 0, 24 * 5, 1, 8 },
            { "from noon on Monday to noon on Wednesday", 12, (24 * 2) + 12, 0, 4 },
            { "the evening is not worked", 18, 23, 0, 0 },
        };

    [Theory]
    [MemberData(nameof(Cases))]
    public void Only_what_would_be_worked_is_counted(string why, double from, double to, int daysOff, int halves)
    {
        var off = Enumerable.Range(0, daysOff).Select(Monday.PlusDays).ToHashSet();

        var total = AbsenceCount.Of(March, [Person(from, to)], off).Single();

        Assert.True(halves == total.HalfDays.Single() && halves / 2m == total.Days, $"{why}: {total.Days}");
    }

    [Fact]
    public void Each_month_of_a_year_has_its_own()
    {
        var year = new Window(new LocalDate(2026, 1, 1), new LocalDate(2026, 12, 31), Studio.Zone(Studio.London));
        var away = new Interval(
            year.Reader.AtStartOfDay(new LocalDate(2026, 7, 30)).ToInstant(), // Thursday
            year.Reader.AtStartOfDay(new LocalDate(2026, 8, 4)).ToInstant() // back on Tuesday
        );
        var person = new CoverPerson(Studio.Priya, BusyTime.Of(year.Span, [(away, Taken.Away)]), NineToFive);

        var total = AbsenceCount.Of(year, [person], new HashSet<LocalDate>()).Single();

        Assert.Equal([0, 0, 0, 0, 0, 0, 4, 2, 0, 0, 0, 0], total.HalfDays);
    }

    [Fact]
    public void More_days_off_never_cost_more() =>
        Gen.Select(Gen.Int[0, 24 * 14], Gen.Int[1, 24 * 10], Gen.Int[0, 20])
            .Sample(
                (from, hours, off) =>
                    Sum(from, hours, Enumerable.Range(0, off)) <= Sum(from, hours, Enumerable.Range(0, off / 2))
            );

    [Fact]
    public void Days_off_are_whole_days_that_everybody_may_know()
    {
        var found = AbsenceCount.DaysOff(
            [
                Studio.Event(EventTime.Days(Monday, Monday.PlusDays(1))),
                Studio.Event(At(3, 9, 17)), // hours are no day off
                Studio.Event(EventTime.Days(Monday.PlusDays(4), Monday.PlusDays(4)), cancelled: true),
                Studio.Event(EventTime.DaysToBeSet(Monday.PlusDays(5), Monday.PlusDays(5))),
                Private(EventTime.Days(Monday.PlusDays(6), Monday.PlusDays(6))),
            ],
            March,
            Studio.Clock
        );

        Assert.Equal([Monday, Monday.PlusDays(1)], found.Order());
    }

    private static int Sum(int from, int hours, IEnumerable<int> off) =>
        AbsenceCount
            .Of(March, [Person(from, from + hours)], off.Select(Monday.PlusDays).ToHashSet())
            .Single()
            .HalfDays.Sum();

    private static Event Private(EventTime time)
    {
        var whole = Studio.Event(time);
        return whole with { Content = whole.Content with { Private = true } };
    }

    /// <summary>Somebody who works nine to five from Monday to Friday and is away for hours counted from the Monday.</summary>
    private static CoverPerson Person(double from, double to) =>
        new(
            Studio.Priya,
            BusyTime.Of(
                March.Span,
                [
                    (
                        new Interval(
                            ZoneClock.At(Monday.AtMidnight().PlusMinutes((long)(from * 60)), March.Reader),
                            ZoneClock.At(Monday.AtMidnight().PlusMinutes((long)(to * 60)), March.Reader)
                        ),
                        Taken.Away
                    ),
                ]
            ),
            NineToFive
        );
}
