using System.Globalization;
using System.Text.Json;
using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>
/// What others read in the same file. ical.js 2.2.1: its results are kept in <c>studio.ical-js.json</c>, made by
/// <c>read-with-ical-js.mjs</c>. Ical.Net 5.2.4 runs here, and its evaluator also counts for rules drawn at random.
/// </summary>
public class OtherReadersTests
{
    private static readonly Window Years = new(
        new LocalDate(2025, 12, 1),
        new LocalDate(2026, 12, 31),
        DateTimeZone.Utc
    );

    private static readonly IReadOnlyDictionary<string, FileEvent> Ours = Samples
        .Read(Samples.Bytes("studio.ics"))
        .Events.ToDictionary(one => one.Uid);

    public static TheoryData<string> Uids() => [.. Theirs().Select(one => one.GetProperty("uid").GetString()!)];

    [Fact]
    public void Both_find_the_same_events() => Assert.Equal(Uids().Count, Ours.Count);

    [Theory]
    [MemberData(nameof(Uids))]
    public void An_event_is_read_as_ical_js_reads_it(string uid)
    {
        var theirs = Theirs().Single(one => one.GetProperty("uid").GetString() == uid);
        var ours = Ours[uid];

        Assert.Equal(theirs.GetProperty("title").GetString(), ours.Content.Title);
        Assert.Equal(theirs.GetProperty("place").GetString(), ours.Content.Place);
        Assert.Equal(theirs.GetProperty("notes").GetString(), ours.Content.Notes);
        Assert.Equal(theirs.GetProperty("wholeDays").GetBoolean(), ours.Time is EventTime.AllDay);
        Assert.Equal((theirs.GetProperty("start").GetString(), theirs.GetProperty("end").GetString()), Text(ours.Time));
    }

    [Theory]
    [MemberData(nameof(Uids))]
    public void A_series_takes_place_when_ical_js_says(string uid)
    {
        if (uid.StartsWith("birthday", StringComparison.Ordinal))
        {
            // The readers differ: ical.js goes to 1 March in common years. RFC 5545, 3.3.10: invalid dates are ignored.
            Assert.Empty(Occurrences(Ours[uid]));
            return;
        }

        var theirs = Theirs().Single(one => one.GetProperty("uid").GetString() == uid).GetProperty("occurrences");
        if (theirs.ValueKind == JsonValueKind.Null)
        {
            Assert.Null(Ours[uid].Series);
            return;
        }

        var expected = theirs
            .EnumerateArray()
            .Select(one =>
                (
                    one.GetProperty("start").GetString(),
                    one.GetProperty("end").GetString(),
                    one.GetProperty("title").GetString()
                )
            );
        Assert.Equal(expected.Where(one => InYears(one.Item1!)).Order(), Occurrences(Ours[uid]).Order());
    }

    [Fact]
    public void What_we_write_Ical_Net_reads_the_same()
    {
        var file = Samples.Read(Samples.Bytes("studio.ics"));
        var text = CalendarFileWriter.Write(
            new FileHead("Glaze tests", string.Empty, "Europe/London"),
            file.Events.Select(one => new EventToWrite(Whole(one), null)),
            Samples.Nobody,
            Samples.Now,
            Samples.Clock
        );

        var theirs = Ical.Net.Calendar.Load(text)!;

        Assert.Equal(file.Events.Count, theirs.Events.Select(one => one.Uid).Distinct().Count());
        foreach (var one in file.Events)
        {
            var theirOne = theirs.Events.First(their => their.Uid == one.Uid && their.RecurrenceIdentifier is null);
            Assert.Equal(one.Content.Title, theirOne.Summary);
            Assert.Equal(one.Content.Notes, theirOne.Description ?? string.Empty);
            Assert.Equal(one.Time.LocalStart, LocalDateTime.FromDateTime(theirOne.Start!.Value));
        }
    }

    [Fact]
    public void Rules_drawn_at_random_fall_on_the_days_that_Ical_Net_finds() =>
        AnyRule.Sample(
            text =>
            {
                var start = new LocalDate(2025, 1, 7);
                var ours = RecurrenceRule
                    .Of(text)
                    .Starts(start.AtMidnight(), start.AtMidnight())
                    .Select(one => one.Date)
                    .TakeWhile(day => day.Year < 2028)
                    .Append(start)
                    .Distinct()
                    .Order()
                    .Take(80);
                return ours.SequenceEqual(
                    DaysOfIcalNet(text, start).Where(day => day.Year < 2028).Append(start).Distinct().Order().Take(80)
                );
            },
            iter: 300
        );

    /// <summary>
    /// COUNT is left out, and the start itself is taken as given: for a start that the rule does not fall on, the standard leaves open whether it counts
    /// (RFC 5545, 3.8.5.3, DTSTART "SHOULD be synchronized"), and readers differ.
    /// </summary>
    private static readonly Gen<string> AnyRule =
        from frequency in Gen.OneOfConst("DAILY", "WEEKLY", "MONTHLY", "YEARLY")
        from interval in Gen.Int[1, 4]
        from start in Gen.OneOfConst(string.Empty, ";WKST=SU")
        from days in Gen.OneOfConst(string.Empty, ";BYDAY=TU", ";BYDAY=TU,FR,SU")
        from monthDay in Gen.OneOfConst(string.Empty, ";BYMONTHDAY=7", ";BYMONTHDAY=13,-1")
        // Ical.Net reads a yearly BYMONTHDAY without BYMONTH as of the start's month, the standard's table as of every
        // month; rules.txt has that case with another source.
        from month in frequency == "YEARLY" && monthDay.Length > 0
            ? Gen.OneOfConst(";BYMONTH=1", ";BYMONTH=3,10")
            : Gen.OneOfConst(string.Empty, ";BYMONTH=1", ";BYMONTH=3,10")
        select $"FREQ={frequency};INTERVAL={interval}{month}{(frequency == "WEEKLY" ? string.Empty : monthDay)}{days}{start}";

    private static IEnumerable<LocalDate> DaysOfIcalNet(string rule, LocalDate start)
    {
        var file = Samples.Event_(
            $"DTSTART;VALUE=DATE:{start.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}",
            $"RRULE:{rule};UNTIL=20280101"
        );
        return Ical
            .Net.Calendar.Load(file)!
            .GetOccurrences()
            .TakeWhile(one => one.Period.StartTime.Year < 2028)
            .Select(one => LocalDate.FromDateTime(one.Period.StartTime.Value));
    }

    private static IEnumerable<(string? Start, string? End, string? Title)> Occurrences(FileEvent one) =>
        Whole(one)
            .Occurrences(Years, Samples.Clock)
            .Select(occurrence =>
                (Text(occurrence.Time).Start, Text(occurrence.Time).End, (string?)occurrence.Content.Title)
            );

    private static bool InYears(string start) =>
        string.CompareOrdinal(start, "2025-12-01") >= 0 && string.CompareOrdinal(start, "2027") < 0;

    private static Event Whole(FileEvent one) =>
        new(new EventId(Guid.NewGuid()), default, one.Uid, default, one.Time, one.Content, one.Series, Version: 1);

    private static (string? Start, string? End) Text(EventTime time) =>
        time is EventTime.AllDay
            ? (Text(time.LocalStart, "uuuu-MM-dd"), Text(time.LocalEnd, "uuuu-MM-dd"))
            : (Text(time.LocalStart, "uuuu-MM-dd'T'HH:mm:ss"), Text(time.LocalEnd, "uuuu-MM-dd'T'HH:mm:ss"));

    private static string Text(LocalDateTime time, string pattern) =>
        time.ToString(pattern, CultureInfo.InvariantCulture);

    private static List<JsonElement> Theirs() =>
        [.. JsonDocument.Parse(Samples.Bytes("studio.ical-js.json")).RootElement.EnumerateArray()];
}
