using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Core.Noticeboards;

/// <summary>How much of what the world will find on a noticeboard, counted over all that it shows.</summary>
/// <param name="Events">Events that are told as such; each date of a series.</param>
/// <param name="WithNotes">Those of them that tell notes.</param>
/// <param name="WithPeople">Those of them that name people.</param>
/// <param name="Busy">Stretches of which only the time is told.</param>
public sealed record BoardCount(int Events, int WithNotes, int WithPeople, int Busy)
{
    /// <summary>Counts what is on a noticeboard.</summary>
    public static BoardCount Of(IReadOnlyCollection<BoardEntry> entries) =>
        new(
            entries.Where(one => one.Event is not null).Sum(one => one.Dates),
            entries.Where(one => one.Notes.Length > 0).Sum(one => one.Dates),
            entries.Where(one => one.People.Count > 0).Sum(one => one.Dates),
            entries.Count(one => one.Event is null)
        );
}

/// <summary>Says what the world will see, before it does.</summary>
public static class BoardSentence
{
    /// <summary>For example: "Anybody with the address sees everything but names in “Classes” and when “Kiln” is busy, for 13 weeks ahead. Search engines may list it."</summary>
    /// <param name="board">The noticeboard.</param>
    /// <param name="names">What its calendars are called.</param>
    public static string For(Noticeboard board, IReadOnlyDictionary<CalendarId, string> names)
    {
        if (board.Layers.IsEmpty)
        {
            return "There is no calendar on it yet, so there is nothing to see.";
        }

        var seen = board
            .Layers.GroupBy(layer => layer.Role)
            .OrderByDescending(same => same.Key)
            .Select(same =>
                Seen(
                    board,
                    same.Key,
                    Wording.List(same.Select(layer => $"“{names.GetValueOrDefault(layer.CalendarId, "a calendar")}”")),
                    same.Count()
                )
            );
        var who = board.Listed ? "Anybody in the world" : "Anybody with the address";
        var found = board.Listed ? "Search engines may list it." : "Search engines are asked to leave it out.";
        return $"{who} sees {string.Join("; ", seen)}, for {Ahead(board.DaysAhead)} ahead. {found}";
    }

    /// <summary>For example: "84 events, 3 with notes".</summary>
    public static string For(BoardCount count)
    {
        var parts = new List<string>();
        if (count.Events > 0 || count.Busy == 0)
        {
            parts.Add(Wording.Count(count.Events, "event", "events"));
        }

        if (count.WithNotes > 0)
        {
            parts.Add(FormattableString.Invariant($"{count.WithNotes} with notes"));
        }

        if (count.WithPeople > 0)
        {
            parts.Add(FormattableString.Invariant($"{count.WithPeople} with names of people"));
        }

        if (count.Busy > 0)
        {
            parts.Add($"{Wording.Count(count.Busy, "busy stretch", "busy stretches")} without a title");
        }

        return string.Join(", ", parts);
    }

    private static string Seen(Noticeboard board, Role role, string calendars, int number) =>
        role switch
        {
            Role.Times => $"when {calendars} {(number == 1 ? "is" : "are")} busy and nothing else",
            Role.Outline => board.ShowsPlaces ? $"titles and places in {calendars}" : $"titles in {calendars}",
            _ => (board.ShowsPlaces, board.ShowsPeople) switch
            {
                (true, true) => $"everything in {calendars}, also notes and who is named",
                (true, false) => $"titles, places and notes in {calendars}, not who is named",
                (false, true) => $"titles, notes and who is named in {calendars}, not places",
                _ => $"titles and notes in {calendars}, neither places nor who is named",
            },
        };

    private static string Ahead(int days) =>
        days % 7 == 0 ? Wording.Count(days / 7, "week", "weeks") : Wording.Count(days, "day", "days");
}
