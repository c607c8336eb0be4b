using System.Globalization;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;

namespace Mortar.Core.Calendars;

/// <summary>What a calendar is for.</summary>
public enum Purpose
{
    /// <summary>Things that happen.</summary>
    Events,

    /// <summary>Absences.</summary>
    Away,

    /// <summary>Bookings of a room, a kiln, a van.</summary>
    Place,
}

/// <summary>The twelve layer hues, named for glazes; their values are the interface's.</summary>
public enum Hue
{
    /// <summary>Iron red.</summary>
    Iron,

    /// <summary>Burnt orange.</summary>
    Ember,

    /// <summary>Ochre.</summary>
    Ochre,

    /// <summary>Olive.</summary>
    Olive,

    /// <summary>Moss green.</summary>
    Moss,

    /// <summary>Copper green.</summary>
    Copper,

    /// <summary>Teal.</summary>
    Teal,

    /// <summary>Lake blue.</summary>
    Lake,

    /// <summary>Cobalt.</summary>
    Cobalt,

    /// <summary>Violet.</summary>
    Violet,

    /// <summary>Plum.</summary>
    Plum,

    /// <summary>Rose.</summary>
    Rose,
}

/// <summary>The twelve small signs that calendars carry beside their colour.</summary>
public enum Mark
{
    /// <summary>A triangle.</summary>
    Cone,

    /// <summary>A half round.</summary>
    Dome,

    /// <summary>A diamond.</summary>
    Tile,

    /// <summary>Two bars.</summary>
    Shelf,

    /// <summary>A plus.</summary>
    Cross,

    /// <summary>A disc.</summary>
    Disc,

    /// <summary>A ring.</summary>
    Ring,

    /// <summary>A square.</summary>
    Block,

    /// <summary>A wave.</summary>
    Wave,

    /// <summary>A drop.</summary>
    Drop,

    /// <summary>A star of four points.</summary>
    Spark,

    /// <summary>An upright bar.</summary>
    Post,
}

/// <summary>The settings of a calendar, checked.</summary>
/// <param name="Name">One line, not empty.</param>
/// <param name="Description">Lines of text; may be empty.</param>
/// <param name="Hue">Its colour, for everybody who has not set their own.</param>
/// <param name="Mark">Its sign.</param>
/// <param name="Zone">The zone in which new events are meant, an IANA name.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="GroupDefault">What every member of its group gets; <see cref="Role.None"/> for nothing.</param>
public sealed record CalendarSettings(
    string Name,
    string Description,
    Hue Hue,
    Mark Mark,
    string Zone,
    Purpose Purpose,
    Role GroupDefault
)
{
    /// <summary>Whose time its events take.</summary>
    public WhoseTime Takes { get; init; } = WhoseTime.Named;

    /// <summary>The one person whose time it takes, for <see cref="WhoseTime.Person"/>.</summary>
    public PersonId? Person { get; init; }

    /// <summary>The kinds its events can be of, in the order in which they are offered.</summary>
    public IReadOnlyList<Kind> Kinds { get; init; } = [];

    /// <summary>Whether it takes one booking at a time, where it is a place.</summary>
    public bool OneAtATime { get; init; }

    /// <summary>Whether a coordinator agrees to what others enter, where it is for absences (<see cref="Agreement"/>).</summary>
    public bool Agreed { get; init; }

    /// <summary>Whether its events come from the web, and are only read here (<see cref="WebCalendarRules"/>).</summary>
    public bool FromWeb { get; init; }

    /// <summary>The most kinds one calendar can have.</summary>
    public const int MostKinds = 20;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 80;

    /// <summary>The longest description, in UTF-16 units.</summary>
    public const int LongestDescription = 2_000;

    /// <summary>The highest step a whole group can be given without anybody being asked by name.</summary>
    public const Role HighestDefault = Role.Edit;

    /// <summary>Makes texts safe and checks the settings.</summary>
    public static Checked<CalendarSettings> Check(CalendarSettings given, ZoneClock clock)
    {
        var settings = given with
        {
            Name = PlainText.OneLine(given.Name),
            Description = PlainText.Lines(given.Description),
            Kinds = [.. given.Kinds.Select(kind => kind with { Name = PlainText.OneLine(kind.Name) })],
            Person = given.Takes == WhoseTime.Person ? given.Person : null,
            OneAtATime = given.OneAtATime && given.Purpose == Purpose.Place,
            Agreed = given.Agreed && given.Purpose == Purpose.Away,
            Purpose = given.FromWeb ? Purpose.Events : given.Purpose,
        };
        var problems = new List<FieldProblem>();
        if (settings.Name.Length == 0)
        {
            problems.Add(new FieldProblem("name", "Give the calendar a name, so that people know it on their shelf."));
        }

        if (settings.Name.Length > LongestName)
        {
            problems.Add(new FieldProblem("name", Longer("A name", LongestName, settings.Name.Length)));
        }

        if (settings.Description.Length > LongestDescription)
        {
            problems.Add(
                new FieldProblem(
                    "description",
                    Longer("A description", LongestDescription, settings.Description.Length)
                )
            );
        }

        if (!clock.Knows(settings.Zone))
        {
            problems.Add(
                new FieldProblem("zone", "There is no time zone of that name. Use a name such as Europe/London.")
            );
        }

        if (settings.GroupDefault > HighestDefault)
        {
            problems.Add(
                new FieldProblem("groupDefault", "A whole group can be given up to Edit. Make coordinators by name.")
            );
        }

        if (settings.FromWeb && !Giving.IsOfWeb(settings.GroupDefault))
        {
            problems.Add(new FieldProblem("groupDefault", Giving.UpToView));
        }

        problems.AddRange(ProblemsOf(settings.Kinds));
        if (settings is { Takes: WhoseTime.Person, Person: null })
        {
            problems.Add(new FieldProblem("person", "Say whose time it takes."));
        }

        return new(settings, problems);
    }

    private static IEnumerable<FieldProblem> ProblemsOf(IReadOnlyList<Kind> kinds)
    {
        if (kinds.Count > MostKinds)
        {
            yield return new FieldProblem("kinds", $"A calendar can have up to {MostKinds} kinds.");
        }

        if (kinds.Any(kind => kind.Name.Length is 0 or > EventRules.LongestKind))
        {
            yield return new FieldProblem(
                "kinds",
                $"Each kind needs a name of up to {EventRules.LongestKind} characters."
            );
        }

        if (kinds.DistinctBy(kind => kind.Name, StringComparer.OrdinalIgnoreCase).Count() < kinds.Count)
        {
            yield return new FieldProblem("kinds", "Two kinds have the same name.");
        }
    }

    private static string Longer(string what, int longest, int length) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{what} can have up to {longest} characters; this has {length}. Shorten it."
        );
}
