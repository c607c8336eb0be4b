using Mortar.Core.Availability;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class HourRowsTests
{
    private static readonly DateTimeZone London = Studio.Zone(Studio.London);

    private static CountedTime At(
        LocalDateTime start,
        int hours,
        string kind = "Session",
        bool perhaps = false,
        bool wholeDays = false
    ) =>
        new(
            Studio.Ines,
            "Classes",
            kind,
            new Interval(ZoneClock.At(start, London), ZoneClock.At(start.PlusHours(hours), London)),
            wholeDays,
            perhaps
        );

    private static IReadOnlyList<Table> Of(params CountedTime[] times) =>
        HourRows.Of(
            new GroupHours(
                "Studio team",
                new Window(new LocalDate(2026, 3, 9), new LocalDate(2026, 3, 22), London),
                IsoDayOfWeek.Monday,
                [(Studio.Ines, "Ines"), (Studio.Priya, "Priya")],
                times
            )
        );

    [Fact]
    public void What_overlaps_counts_once_within_a_kind_and_within_a_week()
    {
        var tables = Of(
            At(new(2026, 3, 9, 9, 0), 3),
            At(new(2026, 3, 9, 11, 0), 2),
            At(new(2026, 3, 9, 12, 0), 3, kind: "Visit")
        );

        Assert.Equal(
            ["Ines|2026-03-09|Classes|Session|4||", "Ines|2026-03-09|Classes|Visit|3||"],
            tables[0].Lines().Skip(1)
        );
        Assert.Equal(["Person|from 2026-03-09|from 2026-03-16|In all", "Ines|6||6", "Priya|||0"], tables[1].Lines());
    }

    [Fact]
    public void A_night_between_two_weeks_is_parted_at_midnight_and_what_is_not_settled_stands_apart()
    {
        var tables = Of(
            At(new(2026, 3, 15, 22, 0), 6, kind: string.Empty),
            At(new(2026, 3, 16, 3, 0), 3, kind: string.Empty, perhaps: true)
        );

        Assert.Equal(["Ines|2026-03-09|Classes||2||", "Ines|2026-03-16|Classes||4|2|"], tables[0].Lines().Skip(1));
    }

    [Fact]
    public void Whole_days_have_no_hours_and_are_counted_as_days()
    {
        var tables = Of(At(new(2026, 3, 10, 0, 0), 72, kind: "Fair", wholeDays: true));

        Assert.Equal(["Ines|2026-03-09|Classes|Fair|||3"], tables[0].Lines().Skip(1));
    }
}
