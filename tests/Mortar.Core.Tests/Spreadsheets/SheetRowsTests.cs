using Mortar.Core.Spreadsheets;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class SheetRowsTests
{
    /// <summary>Rows of cells parted by bars.</summary>
    private static List<IncomingRow> Rows(params string[] lines) =>
        [
            .. lines.Select(
                (line, index) =>
                    new IncomingRow(index + 1, [.. line.Split('|').Select(text => new IncomingCell(text.Trim()))])
            ),
        ];

    private static List<string> Read(List<IncomingRow> rows, SheetWish? wish = null) =>
        [
            .. SheetRows
                .Read(rows, SheetGuess.Plan(rows, wish ?? new SheetWish()), Studio.London, Studio.Clock)
                .Select(row =>
                    $"{row.Number} {row.Sentence}{(row is { Time: not null, Why: { } why } ? $" ({why})" : "")}"
                ),
        ];

    [Fact]
    public void Columns_are_known_by_their_names_in_any_order_under_a_heading_over_all()
    {
        var rows = Rows(
            "Autumn programme 2026",
            "",
            "Room | What | End time | Start time | Date",
            "Hall | Throwing | 21:00 | 19:00 | 5/10/26",
            "Kiln yard | Firing | 02:00 | 20:00 | 6/10/26",
            "| | | |",
            "Studio | Open day | | | 7/10/26"
        );

        Assert.Equal(3, SheetGuess.Plan(rows, new SheetWish()).Head);
        Assert.Equal(
            [
                "4 Mon 5 October 2026, 19:00 to 21:00: Throwing",
                "5 Tue 6 October 2026, 20:00 to Wed 7 October 2026, 02:00: Firing",
                "7 Wed 7 October 2026: Open day",
            ],
            Read(rows)
        );
    }

    [Fact]
    public void A_name_that_could_be_of_days_or_times_is_taken_for_what_is_under_it() =>
        Assert.Equal(
            ["2 Mon 5 October 2026, 19:00 to 21:00: A", "3 Tue 6 October 2026, 09:00 to 10:00: B"],
            Read(Rows("Date | Start | End | Title", "5.10.26 | 19:00 | 21:00 | A", "6.10.26 | 9:00 | 10:00 | B"))
        );

    [Fact]
    public void Without_names_they_are_known_by_what_is_in_them()
    {
        var rows = Rows(
            "Throwing | 2026-10-05 | 19:00 | 21:00 | Hall",
            "Glazing | 2026-10-06 | 19:00 | 20:00 | Glaze room"
        );
        var plan = SheetGuess.Plan(rows, new SheetWish());

        Assert.Equal(0, plan.Head);
        Assert.Equal(
            [ColumnRole.Title, ColumnRole.StartDay, ColumnRole.StartTime, ColumnRole.EndTime, ColumnRole.Place],
            plan.Columns
        );
    }

    [Fact]
    public void Which_number_is_the_month_is_seen_in_the_whole_column_and_can_be_said()
    {
        var american = Rows("Date | Title", "3/4/2026 | A", "3/25/2026 | B");
        var either = Rows("Date | Title", "3/4/2026 | A");
        var mixed = Rows("Date | Title", "3/4/2026 | A", "3/25/2026 | B", "25/3/2026 | C", "2026-03-01 | D");

        Assert.Equal(["2 Wed 4 March 2026: A", "3 Wed 25 March 2026: B"], Read(american));
        Assert.True(SheetGuess.Plan(american, new SheetWish()).AreDatesSure);
        Assert.Equal(["2 Fri 3 April 2026: A"], Read(either));
        Assert.False(SheetGuess.Plan(either, new SheetWish()).AreDatesSure);
        Assert.Equal(["2 Wed 4 March 2026: A"], Read(either, new SheetWish(Dates: DateOrder.MonthFirst)));
        Assert.False(SheetGuess.Plan(mixed, new SheetWish()).AreDatesSure);
        Assert.Equal(4, Read(mixed).Count(row => row.Contains("2026", StringComparison.Ordinal)));
    }

    [Fact]
    public void What_is_guessed_wrong_can_be_mended()
    {
        var rows = Rows("A | B | C", "Hall | Throwing | 2026-10-05");

        Assert.Equal(
            ["2 Mon 5 October 2026: Throwing"],
            Read(rows, new SheetWish(1, [ColumnRole.Place, ColumnRole.Title, ColumnRole.StartDay]))
        );
    }

    [Theory]
    [InlineData(" | Nothing", "2 left out: it names no day")]
    [InlineData("soon | A", "2 left out: “soon” is not read as a day with its year")]
    [InlineData("2026-10-05 | A | late", "2 left out: “late” is not read as a time")]
    [InlineData("2026-10-05 | A | 19:00 | | 2026-10-04", "2 left out: it ends before it starts")]
    [InlineData(
        "2026-10-05 | A | 19:00",
        "2 Mon 5 October 2026, 19:00 to 20:00: A (it says no end, so an hour is taken)"
    )]
    [InlineData("2026-10-05 | | 19:00 | 20:00", "2 Mon 5 October 2026, 19:00 to 20:00: Untitled (it has no title)")]
    [InlineData("2026-10-05 | '=cmd | 19:00 | 20:00", "2 Mon 5 October 2026, 19:00 to 20:00: =cmd")]
    [InlineData("2026-10-05 | A | | | 2026-10-07", "2 Mon 5 to Wed 7 October 2026: A")]
    [InlineData(
        "2026-10-05 | A | 19:00 | 20:00 | | Nowhere/Land",
        "2 left out: “Nowhere/Land” is not the name of a time zone, as Europe/London"
    )]
    public void Each_row_says_how_it_is_read(string row, string said) =>
        Assert.Equal([said], Read(Rows("Date | Title | Start time | End time | End date | Time zone", row)));

    [Fact]
    public void A_row_has_a_name_by_which_it_is_found_again_and_its_twin_another()
    {
        var rows = Rows("Date | Title", "2026-10-05 | A", "2026-10-05 | A", "2026-10-05 | B");
        List<string> Uids(List<IncomingRow> some) =>
            [
                .. SheetRows
                    .Read(some, SheetGuess.Plan(some, new SheetWish()), Studio.London, Studio.Clock)
                    .Select(row => row.Uid),
            ];

        Assert.Equal(3, Uids(rows).Distinct().Count());
        Assert.Equal(Uids(rows), Uids(rows));
        // Other columns, another order and another form of the date: the same events.
        Assert.Equal(
            Uids(rows).Order(),
            Uids(Rows("Title | When", "B | 5 October 2026", "A | 5.10.26", "A | 05.10.2026")).Order()
        );
    }
}
