using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>One occurrence of a file, in the terms of the file and in UTC.</summary>
/// <param name="Uid">The UID of its event.</param>
/// <param name="Start">Its local start, as ISO 8601; a date for whole days.</param>
/// <param name="End">Its local end, excluded: for whole days the day after the last.</param>
/// <param name="Zone">The IANA zone of the two; <c>null</c> for whole days and floating times.</param>
/// <param name="StartUtc">Its start in UTC; whole days and floating times are taken in the zone that was asked for.</param>
/// <param name="EndUtc">Its end in UTC, excluded.</param>
/// <param name="AllDay">Whether it has whole days.</param>
/// <param name="Summary">Its title.</param>
public sealed record FileOccurrence(
    string Uid,
    string Start,
    string End,
    string? Zone,
    string StartUtc,
    string EndUtc,
    bool AllDay,
    string Summary
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        // A line for people and programs, never put into a page; without this every accent would be six characters.
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The occurrence as one line of JSON.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, Json);
}

/// <summary>The occurrences of a file in a window: what <c>./mortar expand</c> prints.</summary>
/// <param name="Occurrences">By start, then by UID.</param>
/// <param name="Cut">The UIDs of events of which only the first <see cref="SeriesExpansion.MostShown"/> are here.</param>
public sealed record FileExpansion(IReadOnlyList<FileOccurrence> Occurrences, IReadOnlyList<string> Cut)
{
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm:ss"
    );

    /// <summary>Expands all events of a file.</summary>
    public static FileExpansion Of(CalendarFileReading.Understood file, Window window, ZoneClock clock)
    {
        var cut = new List<string>();
        var all = new List<Occurrence>();
        foreach (var one in file.Events)
        {
            var whole = new Event(default, default, one.Uid, default, one.Time, one.Content, one.Series, Version: 1);
            var before = all.Count;
            all.AddRange(whole.Occurrences(window, clock).Take(SeriesExpansion.MostShown + 1));
            if (all.Count - before > SeriesExpansion.MostShown)
            {
                all.RemoveAt(all.Count - 1);
                cut.Add(one.Uid);
            }
        }

        return new FileExpansion(
            [.. all.OrderBy(one => one.Span.Start).ThenBy(one => one.Event.Uid, StringComparer.Ordinal).Select(Told)],
            cut
        );
    }

    private static FileOccurrence Told(Occurrence one)
    {
        var time = one.Time;
        var days = time is EventTime.AllDay;
        return new FileOccurrence(
            one.Event.Uid,
            Text(time.LocalStart, days),
            Text(time.LocalEnd, days),
            time is EventTime.Timed timed ? timed.Zone : null,
            InstantPattern.General.Format(one.Span.Start),
            InstantPattern.General.Format(one.Span.End),
            days,
            one.Content.Title
        );
    }

    private static string Text(LocalDateTime time, bool dayOnly) =>
        dayOnly ? time.Date.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture) : Local.Format(time);
}
