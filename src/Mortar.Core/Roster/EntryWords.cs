using System.Globalization;
using Mortar.Core.Access;
using Mortar.Core.Events;
using NodaTime;

namespace Mortar.Core.Roster;

/// <summary>Says in a line what lies on a day, where there is no room for more: "09:00–12:00 Throwing".</summary>
public static class EntryWords
{
    /// <summary>Its time, as far as one day has to say it: nothing for whole days, and the other end's day where it is another.</summary>
    public static string Time(RosterEntry entry, LocalDate day)
    {
        if (entry.IsWholeDays)
        {
            return string.Empty;
        }

        var (start, end) = (entry.Seen.LocalStart, entry.Seen.LocalEnd);
        return (entry.First < day, entry.Last > day) switch
        {
            (false, false) when start == end => Hour(start),
            (false, false) => $"{Hour(start)}–{Hour(end)}",
            (false, true) => $"from {Hour(start)}",
            (true, false) => $"until {Hour(end)}",
            (true, true) => "all day",
        };
    }

    /// <summary>When it begins, where a day has no room for more: its end where it began before.</summary>
    public static string Start(RosterEntry entry, LocalDate day) =>
        entry.IsWholeDays || entry.First < day ? Time(entry, day) : Hour(entry.Seen.LocalStart);

    /// <summary>Its title; what has none and what is only seen as a time say so.</summary>
    public static string Title(VisibleEvent what) =>
        what switch
        {
            VisibleEvent.Shown { Title.Length: > 0 } shown => shown.Title,
            VisibleEvent.Shown => "Untitled",
            _ => "Busy",
        };

    /// <summary>What else has to be known of it before one relies on it; empty where there is nothing.</summary>
    public static string State(VisibleEvent what) =>
        what switch
        {
            VisibleEvent.Shown { Cancelled: true } => "called off",
            VisibleEvent.Shown { ShowAs: ShowAs.Tentative } or VisibleEvent.Busy { Tentative: true } => "perhaps",
            _ => string.Empty,
        };

    /// <summary>All of it in one line.</summary>
    public static string Line(RosterEntry entry, LocalDate day)
    {
        var (time, state) = (Time(entry, day), State(entry.What));
        return (time.Length > 0 ? $"{time} " : string.Empty)
            + Title(entry.What)
            + (state.Length > 0 ? $" ({state})" : string.Empty);
    }

    private static string Hour(LocalDateTime time) =>
        time.ToString(time.Second == 0 ? "HH:mm" : "HH:mm:ss", CultureInfo.InvariantCulture);
}
