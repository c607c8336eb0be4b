using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>A calendar as a noticeboard tells of it.</summary>
public sealed record BoardCalendar(string Name, Hue Hue, Mark Mark, Role Role);

/// <summary>What a visitor asked for.</summary>
/// <param name="View">The view; <c>null</c> for the first.</param>
/// <param name="At">A day on the page; <c>null</c> for today.</param>
/// <param name="Zone">Their clock, an IANA name; <c>null</c> for that of the noticeboard.</param>
/// <param name="InFrame">Whether it is shown inside another website.</param>
/// <param name="Dates">Writes days in their language.</param>
public sealed record BoardAsk(BoardView? View, LocalDate? At, string? Zone, bool InFrame, BoardDates Dates)
{
    /// <summary>What else a page depends on than its view and day.</summary>
    internal string Key => $"{Zone} {InFrame} {Dates.Language}";
}

/// <summary>All that a page of a noticeboard says; made of what Core lets through, and of nothing else.</summary>
public sealed record BoardModel(
    Noticeboard Board,
    string Address,
    BoardAsk Ask,
    BoardPage Page,
    IReadOnlyList<BoardDay> Days,
    IReadOnlyDictionary<CalendarId, BoardCalendar> Calendars,
    IReadOnlyDictionary<PersonId, string> Names,
    PublicLinks Links,
    DateTimeZone Zone,
    LocalDate Today
)
{
    /// <summary>Whether it is looked at by who makes it: nothing on it leads away.</summary>
    public bool IsPreview { get; init; }

    public BoardDates Dates => Ask.Dates;

    public bool InFrame => Ask.InFrame;

    /// <summary>Where it is found.</summary>
    public string Url => Links.Noticeboard(Address);

    public string FeedUrl => $"{Url}/calendar.ics";

    /// <summary>The same for a calendar program to subscribe to (the scheme is common practice, no source).</summary>
    public string SubscribeUrl => $"webcal{FeedUrl[FeedUrl.IndexOf(':', StringComparison.Ordinal)..]}";

    /// <summary>The clock that a script may find out to be another; <c>null</c> where a visitor has chosen one.</summary>
    public string? ZoneToTry => Ask.Zone is null && !IsPreview ? Zone.Id : null;

    public string Description =>
        Board.Words.Length > 0
            ? PlainText.Shorten(PlainText.OneLine(Board.Words), 200)
            : $"What is on at {Board.Title}.";

    public string PeriodText =>
        Page.View switch
        {
            BoardView.Month => Dates.YearMonth(Page.First),
            BoardView.Week => $"{Dates.DayMonth(Page.First)} – {Dates.DayMonth(Page.Last)}, {Page.Last.Year}",
            _ => Page.First == Today ? "What comes next" : $"From {Dates.LongDay(Page.First)} on",
        };

    /// <summary>Whose clock it is, where that has to be said.</summary>
    public string? ZoneSentence =>
        Zone.Id != Board.Zone
            ? $"Times are on your clock ({Spoken(Zone.Id)}); the plan is made on that of {Spoken(Board.Zone)}."
        : Board.ShowsZone ? $"Times are on the clock of {Spoken(Board.Zone)}."
        : null;

    /// <summary>The way to the other clock.</summary>
    public (string Url, string Text)? ZoneLink =>
        Zone.Id != Board.Zone
            ? (Href(Page.View, Page.First, Board.Zone), $"Show it on the clock of {Spoken(Board.Zone)}")
            : null;

    /// <summary>The search engines' data of what is on the page (schema.org), as an element of the page.</summary>
    public string DataBlock =>
        Page.View == BoardView.Next ? BoardData.Of(this, Days.SelectMany(day => day.Entries)) : string.Empty;

    public string Link(BoardView view, LocalDate? at) => Href(view, at, Ask.Zone);

    public string? EventLink(BoardEntry entry) =>
        entry.Event is null || IsPreview
            ? null
            : $"{EventPath(entry)}{(Query(null, null, Ask.Zone) is { Length: > 0 } query ? $"?{query}" : "")}";

    public string EventUrl(BoardEntry entry) => $"{Links.Url}{EventPath(entry)}";

    public string EventFileUrl(BoardEntry entry) => $"{EventPath(entry)}.ics";

    public string TitleOf(BoardEntry entry) => entry.Title.Length > 0 ? entry.Title : "Untitled";

    public string Summary(BoardEntry entry) =>
        entry.Place.Length > 0 ? $"{Dates.Whole(entry)}, {entry.Place}" : Dates.Whole(entry);

    public IEnumerable<string> NamesOn(BoardEntry entry) =>
        entry.People.Select(person => Names.GetValueOrDefault(person)).OfType<string>().Order(StringComparer.Ordinal);

    public static string Name(BoardView view) =>
        view switch
        {
            BoardView.Next => "Next",
            BoardView.Month => "Month",
            _ => "Week",
        };

    /// <summary>A choice as styles and addresses name it.</summary>
    public static string Word<T>(T value)
        where T : struct, Enum => value.ToString().ToLowerInvariant();

    private string EventPath(BoardEntry entry) =>
        entry.Occurrence is { } start
            ? $"/b/{Address}/{entry.Event!.Value.Value:N}/{LocalDateTimePattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss").Format(start)}"
            : $"/b/{Address}/{entry.Event!.Value.Value:N}";

    private string Href(BoardView view, LocalDate? at, string? zone)
    {
        var query = Query(view == Board.Views[0] ? null : view, at, zone);
        return IsPreview ? "#"
            : query.Length > 0 ? $"/b/{Address}?{query}"
            : $"/b/{Address}";
    }

    private string Query(BoardView? view, LocalDate? at, string? zone)
    {
        var parts = new List<string>();
        if (view is { } one)
        {
            parts.Add($"view={Word(one)}");
        }

        if (at is { } day)
        {
            parts.Add($"at={LocalDatePattern.Iso.Format(day)}");
        }

        if (zone is not null)
        {
            parts.Add($"zone={Uri.EscapeDataString(zone)}");
        }

        if (InFrame)
        {
            parts.Add("frame=1");
        }

        return string.Join('&', parts);
    }

    /// <summary>A zone as people say it: "Europe/London" is London.</summary>
    private static string Spoken(string zone) => zone[(zone.LastIndexOf('/') + 1)..].Replace('_', ' ');
}
