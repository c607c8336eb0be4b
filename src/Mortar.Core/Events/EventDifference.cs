using System.Globalization;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Says what became of an event between two states, for its history.</summary>
public static class EventDifference
{
    private const int LongestQuoted = 60;

    /// <summary>What is said of an event that came back from the bin.</summary>
    public const string BroughtBack = "brought it back";

    /// <summary>Each difference as words that follow a name: "moved it from … to …"; one at least.</summary>
    /// <param name="before">The state before; <c>null</c> where it was not there.</param>
    /// <param name="after">The state after; <c>null</c> where it is in the bin.</param>
    /// <param name="reader">The zone of the reader.</param>
    /// <param name="clock">Zone rules.</param>
    public static IReadOnlyList<string> Between(Event? before, Event? after, DateTimeZone reader, ZoneClock clock)
    {
        switch (before, after)
        {
            case (null, _):
                return ["added it"];
            case (_, null):
                return ["deleted it"];
        }

        var found = new List<string>();
        if (before.CalendarId != after.CalendarId)
        {
            found.Add("moved it to another calendar");
        }

        if (before.AddedBy != after.AddedBy)
        {
            found.Add("handed it to another organizer");
        }

        if (!before.Editors.Equals(after.Editors))
        {
            found.Add(
                after.Editors.Count == 0
                    ? "lets nobody change it by themselves any more"
                    : $"lets {Wording.Count(after.Editors.Count, "person", "people")} named on it change it"
            );
        }

        if (before.Time != after.Time)
        {
            found.Add($"moved it from {When(before.Time)} to {When(after.Time)}");
        }

        AddContent(found, before.Content, after.Content);
        AddSeries(found, before, after);
        return found.Count > 0 ? found : ["changed it"];

        string When(EventTime time) => RangeSentence.For(clock.AsSeenIn(time, reader), after.Time.LocalStart.Year);
    }

    private static void AddContent(List<string> found, EventContent before, EventContent after)
    {
        AddText(found, "title", before.Title, after.Title);
        AddText(found, "place", before.Place, after.Place);
        AddText(found, "kind", before.Kind, after.Kind);
        if (before.Notes != after.Notes)
        {
            found.Add("changed the notes");
        }

        if (!before.Attendees.Equals(after.Attendees))
        {
            found.Add($"changed who is named on it ({Wording.Count(after.Attendees.Count, "person", "people")} now)");
        }

        if (before.ShowAs != after.ShowAs)
        {
            found.Add($"lets it count as {Counts(after.ShowAs)}");
        }

        if (before.Private != after.Private)
        {
            found.Add(after.Private ? "shows only its times to others" : "shows others what it is");
        }

        if (before.Cancelled != after.Cancelled)
        {
            found.Add(after.Cancelled ? "called it off" : "takes it up again");
        }

        if (before.HidesAttendees != after.HidesAttendees)
        {
            found.Add(after.HidesAttendees ? "keeps to itself who is named" : "shows who is named");
        }

        if (before.Reminder != after.Reminder)
        {
            found.Add("changed the reminder");
        }
    }

    private static string Counts(ShowAs showAs) =>
        showAs switch
        {
            ShowAs.Busy => "busy",
            ShowAs.Tentative => "tentative",
            _ => "free",
        };

    private static void AddText(List<string> found, string what, string before, string after)
    {
        if (before != after)
        {
            found.Add(
                after.Length == 0 ? $"took away the {what} {Quoted(before)}"
                : before.Length == 0 ? $"set the {what} {Quoted(after)}"
                : $"changed the {what} from {Quoted(before)} to {Quoted(after)}"
            );
        }
    }

    private static string Quoted(string text) => $"“{PlainText.Shorten(text, LongestQuoted)}”";

    private static void AddSeries(List<string> found, Event before, Event after)
    {
        var (was, now) = (before.Series, after.Series);
        if (Equals(was, now))
        {
            return;
        }

        if (was is null || now is null)
        {
            found.Add(now is null ? "lets it happen once" : "lets it repeat");
            return;
        }

        if (!was.Rules.SequenceEqual(now.Rules))
        {
            found.Add("changed how it repeats");
        }

        Dates("left out", now.Excluded.Except(was.Excluded));
        Dates("brought back", was.Excluded.Except(now.Excluded));
        Dates("added", now.Extra.Except(was.Extra));
        Dates("changed", now.Overrides.Where(one => !was.Overrides.Contains(one)).Select(one => one.Replaces));

        void Dates(string verb, IEnumerable<LocalDateTime> starts)
        {
            // A series that moved as a whole moves all of these along, which is said already.
            var days = starts.Select(start => start.Date).Distinct().Order().ToList();
            if (days.Count > 0 && before.Time == after.Time)
            {
                found.Add(
                    days.Count <= 3
                        ? $"{verb} {Wording.List([.. days.Select(day => day.ToString("d MMMM uuuu", CultureInfo.InvariantCulture))])}"
                        : $"{verb} {days.Count} dates"
                );
            }
        }
    }
}
