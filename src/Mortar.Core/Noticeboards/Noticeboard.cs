using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Noticeboards;

/// <summary>The views of a noticeboard.</summary>
public enum BoardView
{
    /// <summary>What comes next, day by day.</summary>
    Next,

    /// <summary>A month, week by week.</summary>
    Month,

    /// <summary>A week, day by day.</summary>
    Week,
}

/// <summary>How a noticeboard is lit.</summary>
public enum BoardTheme
{
    /// <summary>As the visitor's system is.</summary>
    System,

    /// <summary>Dark on light.</summary>
    Light,

    /// <summary>Light on dark.</summary>
    Dark,
}

/// <summary>Which other websites may show a noticeboard inside their pages.</summary>
public enum BoardFrames
{
    /// <summary>None.</summary>
    Nowhere,

    /// <summary>Those that are named.</summary>
    Named,

    /// <summary>Any.</summary>
    Anywhere,
}

/// <summary>A calendar on a noticeboard, and how much of it.</summary>
public sealed record BoardLayer(CalendarId CalendarId, Role Role);

/// <summary>What a noticeboard shows of its calendars, and how. Its address and whether it is open are not part of it.</summary>
/// <param name="Title">What stands above it.</param>
/// <param name="Words">What stands under the title; may be empty.</param>
/// <param name="Zone">Whose clock it is told by where a visitor's own is not known, an IANA name.</param>
/// <param name="Layers">Its calendars, in order.</param>
public sealed record Noticeboard(string Title, string Words, string Zone, ImmutableArray<BoardLayer> Layers)
{
    /// <summary>The longest title, in UTF-16 units.</summary>
    public const int LongestTitle = 80;

    /// <summary>The longest words above it, in UTF-16 units.</summary>
    public const int LongestWords = 2_000;

    /// <summary>The most calendars on one.</summary>
    public const int MostLayers = 20;

    /// <summary>The most sites that may be named.</summary>
    public const int MostSites = 20;

    /// <summary>The farthest it looks ahead, in days.</summary>
    public const int FarthestAhead = 370;

    /// <summary>Its views; the first is what opens.</summary>
    public ImmutableArray<BoardView> Views { get; init; } = [BoardView.Next, BoardView.Month, BoardView.Week];

    /// <summary>How it is lit.</summary>
    public BoardTheme Theme { get; init; }

    /// <summary>The colour of what can be pressed.</summary>
    public Hue Accent { get; init; } = Hue.Teal;

    /// <summary>How many days from today on it shows.</summary>
    public int DaysAhead { get; init; } = 91;

    /// <summary>Whether places are told.</summary>
    public bool ShowsPlaces { get; init; } = true;

    /// <summary>Whether those named on events are told, where the step shows them. Not unless it is wished: names of people are more than a plan.</summary>
    public bool ShowsPeople { get; init; }

    /// <summary>Whether the clock it is told by is named even where the visitor's is the same.</summary>
    public bool ShowsZone { get; init; }

    /// <summary>Whether one event can be taken as a file.</summary>
    public bool OffersEvents { get; init; } = true;

    /// <summary>Whether all of it can be had in one's own calendar program, which stays up to date.</summary>
    public bool OffersFeed { get; init; } = true;

    /// <summary>Whether it can be printed by a press.</summary>
    public bool OffersPrint { get; init; } = true;

    /// <summary>Whether search engines may list it.</summary>
    public bool Listed { get; init; }

    /// <summary>Which other websites may show it.</summary>
    public BoardFrames Frames { get; init; }

    /// <summary>Those that are named, as origins (RFC 6454, 6.2): <c>https://club.example.org</c>.</summary>
    public ImmutableArray<string> Sites { get; init; } = [];

    /// <summary>The origins that may show it in a frame; <c>*</c> for any (CSP Level 3, frame-ancestors).</summary>
    public IReadOnlyList<string> Framers =>
        Frames switch
        {
            BoardFrames.Anywhere => ["*"],
            BoardFrames.Named => Sites,
            _ => [],
        };

    /// <summary>Whether another one tells of its calendars in the same way, whichever those are.</summary>
    public bool ShowsAs(Noticeboard other) =>
        (other with { Layers = Layers, Views = Views, Sites = Sites }) == this
        && Views.SequenceEqual(other.Views)
        && Sites.SequenceEqual(other.Sites);

    /// <summary>Makes texts safe and checks it.</summary>
    public static Checked<Noticeboard> Check(Noticeboard given, ZoneClock zones)
    {
        var sites = given.Sites.Select(PlainText.OneLine).Where(site => site.Length > 0).ToList();
        var board = given with
        {
            Title = PlainText.OneLine(given.Title),
            Words = PlainText.Lines(given.Words),
            Views = [.. given.Views.Distinct()],
            Sites = [.. sites.Select(site => BoardSite.Origin(site) ?? site).Distinct(StringComparer.Ordinal)],
        };
        return new(board, [.. Texts(board), .. Contents(board, zones), .. Elsewhere(board)]);
    }

    private static IEnumerable<FieldProblem> Texts(Noticeboard board)
    {
        if (board.Title.Length is 0 or > LongestTitle)
        {
            yield return Problem(
                "title",
                $"Give the noticeboard a title of 1 to {LongestTitle} characters; this has {board.Title.Length}."
            );
        }

        if (board.Words.Length > LongestWords)
        {
            yield return Problem(
                "words",
                $"The words above it can have up to {LongestWords} characters; these have {board.Words.Length}."
            );
        }
    }

    private static IEnumerable<FieldProblem> Contents(Noticeboard board, ZoneClock zones)
    {
        if (board.Layers.Length > MostLayers)
        {
            yield return Problem("layers", $"A noticeboard can show up to {MostLayers} calendars.");
        }
        else if (board.Layers.Any(layer => layer.Role is not (Role.Times or Role.Outline or Role.View)))
        {
            yield return Problem("layers", $"A noticeboard shows a calendar at Times only, Outline or View.");
        }
        else if (board.Layers.DistinctBy(layer => layer.CalendarId).Count() < board.Layers.Length)
        {
            yield return Problem("layers", $"A calendar is on it twice. Leave it out once.");
        }

        if (board.Views.IsEmpty)
        {
            yield return Problem("views", $"Choose at least one view.");
        }

        if (board.DaysAhead is < 1 or > FarthestAhead)
        {
            yield return Problem("daysAhead", $"It can look 1 to {FarthestAhead} days ahead.");
        }

        if (!zones.Knows(board.Zone))
        {
            yield return Problem("zone", $"There is no time zone of that name. Use a name such as Europe/London.");
        }
    }

    private static IEnumerable<FieldProblem> Elsewhere(Noticeboard board)
    {
        if (board.Sites.FirstOrDefault(site => BoardSite.Origin(site) is null) is { } wrong)
        {
            yield return Problem(
                "sites",
                $"“{PlainText.Shorten(wrong, 60)}” is no website. Write each as https://club.example.org, one on a line."
            );
        }
        else if (board.Sites.Length > MostSites)
        {
            yield return Problem("sites", $"Up to {MostSites} websites can be named.");
        }
        else if (board is { Frames: BoardFrames.Named, Sites.IsEmpty: true })
        {
            yield return Problem("sites", $"Name the website that may show it, or choose that none does.");
        }
    }

    private static FieldProblem Problem(string path, FormattableString sentence) =>
        new(path, FormattableString.Invariant(sentence));
}
