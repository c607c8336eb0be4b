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

    /// <summary>How many of whom are needed when; none where nobody is in particular.</summary>
    public ImmutableArray<CoverNeed> Cover { get; init; } = [];

    /// <summary>The calendar whose whole days are days off for all; <c>null</c> for none.</summary>
    public CalendarId? DaysOff { get; init; }

    /// <summary>The name in its short address, by which its members find what they see of it; empty for none, <c>null</c> where nothing is said.</summary>
    public string? Address { get; init; }

    /// <summary>How many groups of one coordinator have a short address: names are there for all.</summary>
    public const int MostAddresses = 50;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 80;

    /// <summary>Makes texts safe and checks the settings.</summary>
    public static Checked<GroupSettings> Check(GroupSettings given, ZoneClock clock)
    {
        var (cover, coverProblems) = CoverNeed.Check(given.Cover.IsDefault ? [] : given.Cover);
        var address = given.Address is { Length: > 0 } wished
            ? ShortAddress.Check(wished, "shortName")
            : new Checked<string>(string.Empty);
        var settings = given with
        {
            Name = PlainText.OneLine(given.Name),
            Cover = cover,
            Address = given.Address is null ? null : address.Value,
        };
        var problems = new List<FieldProblem>([.. coverProblems, .. address.Problems]);
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

        return new(settings, problems);
    }
}
