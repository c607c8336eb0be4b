using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>How a row is read.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Uid">A name made of what it says, so that it is found again when it is brought again; empty where it is no event.</param>
/// <param name="Time">When; <c>null</c> where it is no event.</param>
/// <param name="Content">What.</param>
/// <param name="Why">What is wrong with it, or was taken for granted; <c>null</c> for nothing.</param>
public sealed record SheetRow(int Number, string Uid, EventTime? Time, EventContent Content, string? Why)
{
    /// <summary>How it is read, in a sentence.</summary>
    public string Sentence =>
        Time is null
            ? $"left out: {Why}"
            : $"{RangeSentence.For(Time, year: 0)}: {(Content.Title.Length > 0 ? Content.Title : "Untitled")}";
}

/// <summary>Reads the rows of a spreadsheet as events.</summary>
public static class SheetRows
{
    private static readonly Duration Unsaid = Duration.FromHours(1);

    /// <summary>All rows that are not empty, below the one that names the columns.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="plan">How they are read.</param>
    /// <param name="zone">The zone of times that name none.</param>
    /// <param name="clock">Zone rules.</param>
    public static IEnumerable<SheetRow> Read(
        IEnumerable<IncomingRow> rows,
        SheetPlan plan,
        string zone,
        ZoneClock clock
    )
    {
        var seen = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var row in rows.Where(row => row.Number > plan.Head && row.Cells.Any(cell => !cell.IsEmpty)))
        {
            var (time, why) = TimeOf(row, plan, zone, clock);
            var content = EventContent.Blank with
            {
                Title = PlainText.OneLine(Unescaped(row[plan.ColumnOf(ColumnRole.Title)].Text)),
                Place = PlainText.OneLine(Unescaped(row[plan.ColumnOf(ColumnRole.Place)].Text)),
                Notes = PlainText.Lines(Unescaped(row[plan.ColumnOf(ColumnRole.Notes)].Text)),
                Kind = PlainText.OneLine(Unescaped(row[plan.ColumnOf(ColumnRole.Kind)].Text)),
            };
            if (time is null)
            {
                yield return new SheetRow(row.Number, string.Empty, Time: null, content, why);
                continue;
            }

            if (content.Title.Length == 0)
            {
                why = why is null ? "it has no title" : $"{why}; and it has no title";
            }

            // Two rows that say the same are two events: the second is named as the second.
            var said = $"{content.Title}|{content.Place}|{time}";
            var nth = seen[said] = seen.GetValueOrDefault(said) + 1;
            yield return new SheetRow(row.Number, UidOf(said, nth), time, content, why);
        }
    }

    private static string UidOf(string said, int nth) =>
        $"row-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(FormattableString.Invariant($"{said}|{nth}"))))[..32]}";

    private static (EventTime? Time, string? Why) TimeOf(IncomingRow row, SheetPlan plan, string zone, ZoneClock clock)
    {
        var first = row[plan.ColumnOf(ColumnRole.StartDay)];
        if (first.IsEmpty)
        {
            return (null, "it names no day");
        }

        if (WrittenDates.Day(first, plan.Dates) is not { } day)
        {
            return (
                null,
                $"“{PlainText.Shorten(PlainText.OneLine(first.Text), 40)}” is not read as a day with its year"
            );
        }

        var last = row[plan.ColumnOf(ColumnRole.EndDay)];
        var lastDay = last.IsEmpty ? null : WrittenDates.Day(last, plan.Dates);
        if (!last.IsEmpty && lastDay is null && WrittenDates.Time(last) is null)
        {
            return (null, $"“{PlainText.Shorten(PlainText.OneLine(last.Text), 40)}” is not read as the day it ends");
        }

        if (lastDay < day)
        {
            return (null, "it ends before it starts");
        }

        var startTime = plan.ColumnOf(ColumnRole.StartTime) is >= 0 and var column ? row[column] : default;
        var start = WrittenDates.Time(startTime.Text is null || startTime.IsEmpty ? first : startTime);
        if (start is not { } begins)
        {
            return startTime.Text is { Length: > 0 }
                ? (null, $"“{PlainText.Shorten(PlainText.OneLine(startTime.Text), 40)}” is not read as a time")
                : (EventTime.Days(day, lastDay ?? day), null);
        }

        var named = row[plan.ColumnOf(ColumnRole.Zone)].Text.Trim();
        if (named.Length > 0 && !clock.Knows(named))
        {
            return (null, $"“{PlainText.Shorten(named, 40)}” is not the name of a time zone, as Europe/London");
        }

        var from = day.At(begins);
        var endTime = row[plan.ColumnOf(ColumnRole.EndTime)];
        var end = WrittenDates.Time(endTime.IsEmpty ? last : endTime);
        var to =
            end is { } ends ? (lastDay ?? (ends < begins ? day.PlusDays(1) : day)).At(ends)
            : WrittenDates.Length(row[plan.ColumnOf(ColumnRole.Length)]) is { } length
                ? from.PlusMinutes((long)length.TotalMinutes)
            : (LocalDateTime?)null;
        if (to < from)
        {
            return (null, "it ends before it starts");
        }

        return (
            EventTime.InZone(from, to ?? from.PlusTicks(Unsaid.BclCompatibleTicks), named.Length > 0 ? named : zone),
            to is null ? "it says no end, so an hour is taken" : null
        );
    }

    /// <summary>Words without the apostrophe that keeps them from being taken for a formula.</summary>
    private static string Unescaped(string text) =>
        text is ['\'', '=' or '+' or '-' or '@' or '\t' or '\r', ..] ? text[1..] : text;
}
