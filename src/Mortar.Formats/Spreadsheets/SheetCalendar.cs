using Mortar.Core.Events;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Formats.Spreadsheets;

/// <summary>Makes a calendar file of a spreadsheet, so that it comes in by the way that files come in.</summary>
public static class SheetCalendar
{
    /// <summary>The rows that are events as an iCalendar file.</summary>
    /// <param name="rows">The rows, as they are read.</param>
    /// <param name="zone">The zone of the calendar they are for.</param>
    /// <param name="clock">Zone rules.</param>
    public static string Of(IEnumerable<SheetRow> rows, string zone, ZoneClock clock) =>
        CalendarFileWriter.Write(
            new FileHead(string.Empty, string.Empty, zone),
            rows.Where(row => row.Time is not null)
                .Select(row => new EventToWrite(
                    new Event(default, default, row.Uid, default, row.Time!, row.Content, Series: null, Version: 1),
                    Source: null
                )),
            new Dictionary<PersonId, string>(),
            Instant.FromUnixTimeSeconds(0),
            clock
        );

    /// <summary>What was not taken as it stands, by row.</summary>
    public static IEnumerable<Finding> Findings(IEnumerable<SheetRow> rows) =>
        rows.Where(row => row.Why is not null)
            .Select(row =>
                row.Time is null
                    ? Finding.Missing(row.Number, What(row), row.Why!)
                    : Finding.Skipped(row.Number, What(row), row.Why!)
            );

    private static string What(SheetRow row) =>
        row.Content.Title.Length > 0 ? $"“{Finding.Quote(row.Content.Title)}”" : "a row";
}
