using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Groups;

/// <summary>The sorts of groups.</summary>
public enum GroupSort
{
    /// <summary>People who work together.</summary>
    Staff,

    /// <summary>A class or course.</summary>
    Class,

    /// <summary>A club.</summary>
    Club,

    /// <summary>A family.</summary>
    Family,

    /// <summary>Something else.</summary>
    Other,
}

/// <summary>The settings of a group, checked.</summary>
/// <param name="Name">One line, not empty.</param>
/// <param name="Sort">What sort of group.</param>
/// <param name="Zone">Where it lives, an IANA name; new calendars begin with it.</param>
/// <param name="FirstDay">The day its week begins with.</param>
public sealed record GroupSettings(string Name, GroupSort Sort, string Zone, IsoDayOfWeek FirstDay)
{
    /// <summary>When its usual hours begin.</summary>
    public LocalTime DayBegins { get; init; } = new(8, 0);

    /// <summary>When they end; after <see cref="DayBegins"/>.</summary>
    public LocalTime DayEnds { get; init; } = new(19, 0);

    /// <summary>How many are needed on each weekday, from Monday to Sunday; 0 for nobody in particular.</summary>
    public ImmutableArray<int> Cover { get; init; } = [0, 0, 0, 0, 0, 0, 0];

    /// <summary>The calendar whose whole days are days off for all; <c>null</c> for none.</summary>
    public CalendarId? DaysOff { get; init; }

    /// <summary>The most that can be needed on a day.</summary>
    public const int MostNeeded = 500;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 80;

    /// <summary>Makes texts safe and checks the settings; problems is empty where they are fit.</summary>
    public static (GroupSettings Settings, IReadOnlyList<FieldProblem> Problems) Check(
        GroupSettings given,
        ZoneClock clock
    )
    {
        var settings = given with
        {
            Name = PlainText.OneLine(given.Name),
            Cover = given.Cover.IsDefault ? [0, 0, 0, 0, 0, 0, 0] : given.Cover,
        };
        var problems = new List<FieldProblem>();
        if (settings.Name.Length is 0 or > LongestName)
        {
            problems.Add(
                new FieldProblem(
                    "name",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"Give the group a name of 1 to {LongestName} characters; this has {settings.Name.Length}."
                    )
                )
            );
        }

        if (!clock.Knows(settings.Zone))
        {
            problems.Add(
                new FieldProblem("zone", "There is no time zone of that name. Use a name such as Europe/London.")
            );
        }

        if (settings.FirstDay == IsoDayOfWeek.None)
        {
            problems.Add(new FieldProblem("firstDay", "Choose the day the week begins with."));
        }

        if (settings.DayEnds <= settings.DayBegins)
        {
            problems.Add(new FieldProblem("dayEnds", "Usual hours end after they begin."));
        }

        if (settings.Cover.Length != 7 || settings.Cover.Any(number => number is < 0 or > MostNeeded))
        {
            problems.Add(
                new FieldProblem(
                    "cover",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"Say for each of the seven weekdays how many are needed, from 0 to {MostNeeded}."
                    )
                )
            );
        }

        return (settings, problems);
    }
}
