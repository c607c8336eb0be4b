using Mortar.Core.Spreadsheets;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class WrittenDatesTests
{
    private static IncomingCell Cell(string text) => new(text);

    [Theory]
    [InlineData("2026-03-09", "2026-03-09")]
    [InlineData("2026/3/9", "2026-03-09")]
    [InlineData("20260309", "2026-03-09")]
    [InlineData("2026-03-09T14:00", "2026-03-09")]
    [InlineData("9/3/2026", "2026-03-09")]
    [InlineData("09.03.26", "2026-03-09")]
    [InlineData("9-3-99", "1999-03-09")]
    [InlineData("9/3/68", "2068-03-09")]
    [InlineData("9/3/69", "1969-03-09")]
    [InlineData("3/25/2026", "2026-03-25")] // there is no month 25
    [InlineData("Mon 9 March 2026", "2026-03-09")]
    [InlineData("Monday, 9th of March 2026", "2026-03-09")]
    [InlineData("9. März 2026", "2026-03-09")]
    [InlineData("9 mars 2026, 14:00", "2026-03-09")]
    [InlineData("9-Mar-26", "2026-03-09")]
    [InlineData("March 9, 2026", "2026-03-09")]
    [InlineData("46090", "2026-03-09")] // a date that lost its format
    [InlineData("29.2.2028", "2028-02-29")]
    [InlineData("29.2.2026", null)]
    [InlineData("31/4/2026", null)]
    [InlineData("9 March", null)] // no year
    [InlineData("Easter", null)]
    [InlineData("=cmd", null)]
    [InlineData("14:00", null)]
    [InlineData("9/3/12345", null)]
    [InlineData("", null)]
    public void A_day_is_read_as_people_write_it(string text, string? day) =>
        Assert.Equal(
            day,
            WrittenDates.Day(Cell(text), DateOrder.DayFirst) is { } read ? LocalDatePattern.Iso.Format(read) : null
        );

    [Fact]
    public void What_could_be_either_is_read_in_the_order_that_is_said()
    {
        Assert.Equal(new LocalDate(2026, 3, 9), WrittenDates.Day(Cell("9/3/2026"), DateOrder.DayFirst));
        Assert.Equal(new LocalDate(2026, 9, 3), WrittenDates.Day(Cell("9/3/2026"), DateOrder.MonthFirst));
        Assert.Equal(new LocalDate(2026, 3, 25), WrittenDates.Day(Cell("25/3/2026"), DateOrder.MonthFirst));
        Assert.Equal(DateOrder.DayFirst, WrittenDates.OrderOf(Cell("25/3/2026")));
        Assert.Equal(DateOrder.MonthFirst, WrittenDates.OrderOf(Cell("3/25/2026")));
        Assert.Null(WrittenDates.OrderOf(Cell("9/3/2026")));
    }

    [Theory]
    [InlineData("14:00", "14:00:00")]
    [InlineData("9:05:30", "09:05:00")]
    [InlineData("9.30", "09:30:00")]
    [InlineData("9h30", "09:30:00")]
    [InlineData("9 h", "09:00:00")]
    [InlineData("9 Uhr", "09:00:00")]
    [InlineData("7pm", "19:00:00")]
    [InlineData("7.15 p.m.", "19:15:00")]
    [InlineData("12 am", "00:00:00")]
    [InlineData("12:30 pm", "12:30:00")]
    [InlineData("24:00", "00:00:00")]
    [InlineData("2026-03-09 14:00", "14:00:00")]
    [InlineData("0.375", "09:00:00")] // a time that lost its format
    [InlineData("25:00", null)]
    [InlineData("9", null)]
    [InlineData("2026-03-09", null)]
    [InlineData("soon", null)]
    public void A_time_is_read_as_people_write_it(string text, string? time) =>
        Assert.Equal(
            time,
            WrittenDates.Time(Cell(text)) is { } read ? LocalTimePattern.ExtendedIso.Format(read) : null
        );

    [Theory]
    [InlineData("1:30", 90)]
    [InlineData("26:15", 1_575)]
    [InlineData("1.5", 90)]
    [InlineData("1,5 h", 90)]
    [InlineData("45 min", 45)]
    [InlineData("long", null)]
    public void A_length_is_read_as_people_write_it(string text, int? minutes) =>
        Assert.Equal(minutes, (int?)WrittenDates.Length(Cell(text))?.TotalMinutes);

    [Fact]
    public void A_cell_that_is_a_date_is_that_date()
    {
        var cell = new IncomingCell("3/9/26", new LocalDateTime(2026, 3, 9, 14, 0));
        Assert.Equal(new LocalDate(2026, 3, 9), WrittenDates.Day(cell, DateOrder.MonthFirst));
        Assert.Equal(new LocalTime(14, 0), WrittenDates.Time(cell));
        Assert.Null(WrittenDates.Time(new IncomingCell("3/9/26", new LocalDateTime(2026, 3, 9, 0, 0))));
        // A time alone is on the day from which days are counted.
        var time = new IncomingCell("09:00", new LocalDateTime(1899, 12, 31, 9, 0));
        Assert.Null(WrittenDates.Day(time, DateOrder.DayFirst));
        Assert.Equal(new LocalTime(9, 0), WrittenDates.Time(time));
    }
}
