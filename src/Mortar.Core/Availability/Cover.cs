using System.Collections.Immutable;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>A part of each day, on a group's clock.</summary>
/// <param name="Begins">From when on.</param>
/// <param name="Ends">Until when, after <paramref name="Begins"/>; <c>null</c> for the end of the day.</param>
public readonly record struct DayPart(LocalTime Begins, LocalTime? Ends)
{
    /// <summary>Midnight to midnight.</summary>
    public static DayPart Whole { get; } = new(LocalTime.Midnight, null);

    /// <summary>Up to noon.</summary>
    public static DayPart Morning { get; } = new(LocalTime.Midnight, LocalTime.Noon);

    /// <summary>From noon on.</summary>
    public static DayPart Afternoon { get; } = new(LocalTime.Noon, null);

    /// <summary>Whether it is the whole day.</summary>
    public bool IsWhole => this == Whole;

    /// <summary>It on one day.</summary>
    public Interval On(LocalDate day, DateTimeZone zone) =>
        new(
            Begins == LocalTime.Midnight ? zone.AtStartOfDay(day).ToInstant() : ZoneClock.At(day + Begins, zone),
            Ends is { } ends ? ZoneClock.At(day + ends, zone) : zone.AtStartOfDay(day.PlusDays(1)).ToInstant()
        );
}

/// <summary>How many of whom a group needs, and when.</summary>
/// <param name="FromMonday">The number for each weekday from Monday to Sunday; 0 for nobody in particular.</param>
public sealed record CoverNeed(ImmutableArray<int> FromMonday)
{
    /// <summary>What it is called, one line; may be empty, for that of the group as a whole.</summary>
    public string Name { get; init; } = string.Empty;

    /// <summary>In which hours.</summary>
    public DayPart Part { get; init; } = DayPart.Whole;

    /// <summary>Those of whom so many are needed; nobody for every member.</summary>
    public ImmutableArray<PersonId> People { get; init; } = [];

    /// <summary>The most that can be needed at a time.</summary>
    public const int MostNeeded = 500;

    /// <summary>The most needs a group can have.</summary>
    public const int Most = 12;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 40;

    /// <summary>How many on a day.</summary>
    public int On(LocalDate day) => FromMonday[(int)day.DayOfWeek - 1];

    /// <summary>Whether somebody counts for it.</summary>
    public bool Counts(PersonId person) => People.IsEmpty || People.Contains(person);

    /// <summary>The same number from Monday to Friday, for whole days.</summary>
    public static CoverNeed OnWorkingDays(int number) => new([number, number, number, number, number, 0, 0]);

    /// <summary>Makes the needs of a group safe and checks them; problems is empty where they are fit.</summary>
    public static (ImmutableArray<CoverNeed> Needs, IReadOnlyList<FieldProblem> Problems) Check(
        IEnumerable<CoverNeed> given
    )
    {
        ImmutableArray<CoverNeed> needs =
        [
            .. given.Select(need =>
                need with
                {
                    Name = PlainText.OneLine(need.Name),
                    People = [.. need.People.Distinct().OrderBy(one => one.Value)],
                }
            ),
        ];
        return (needs, [.. ProblemsOf(needs).Select(problem => new FieldProblem("cover", problem))]);
    }

    private static IEnumerable<string> ProblemsOf(ImmutableArray<CoverNeed> needs)
    {
        if (needs.Length > Most)
        {
            yield return $"A group can say up to {Most} times how many it needs.";
        }

        if (needs.Any(need => need.FromMonday.Length != 7 || need.FromMonday.Any(one => one is < 0 or > MostNeeded)))
        {
            yield return $"Say for each of the seven weekdays how many are needed, from 0 to {MostNeeded}.";
        }

        if (needs.Any(need => need.Part.Ends <= need.Part.Begins))
        {
            yield return "The hours for which so many are needed end after they begin.";
        }

        if (needs.Any(need => need.Name.Length > LongestName))
        {
            yield return $"A name can have up to {LongestName} characters.";
        }

        if (needs.DistinctBy(need => need.Name, StringComparer.OrdinalIgnoreCase).Count() < needs.Length)
        {
            yield return "Two have the same name. Give each its own, such as “Front desk”.";
        }
    }
}

/// <summary>Somebody who is counted.</summary>
/// <param name="Person">Who.</param>
/// <param name="Busy">Their time over the days that are asked for; only absences count.</param>
/// <param name="Hours">Their usual hours; <c>null</c> where they are there at any time.</param>
public sealed record CoverPerson(PersonId Person, BusyTime Busy, UsualHours? Hours);

/// <summary>Who is there on one day, or in a part of it.</summary>
/// <param name="Day">The day, on the group's clock.</param>
/// <param name="Part">Which part of it.</param>
/// <param name="Needed">How many are needed.</param>
/// <param name="Present">Those who are there, in order of their ids.</param>
/// <param name="Missing">Those who would usually be there and are away, in order of their ids.</param>
public sealed record CoverDay(
    LocalDate Day,
    DayPart Part,
    int Needed,
    ImmutableArray<PersonId> Present,
    ImmutableArray<PersonId> Missing
)
{
    /// <summary>How many too few; 0 where there are enough.</summary>
    public int TooFew => Math.Max(0, Needed - Present.Length);
}

/// <summary>Counts who is left.</summary>
public static class Cover
{
    /// <summary>Each day with its part for which somebody is needed, in order.</summary>
    /// <param name="window">The days, on the group's clock.</param>
    /// <param name="need">How many of whom are needed when.</param>
    /// <param name="people">The group.</param>
    /// <remarks>
    /// Somebody without hours on that part of the day is neither present nor missing. Who is away for more than half of
    /// their hours in it is missing; an hour at the dentist's does not break the cover (common practice, no source).
    /// </remarks>
    public static IEnumerable<CoverDay> Of(Window window, CoverNeed need, IEnumerable<CoverPerson> people) =>
        Every(window, need, people).Where(day => day.Needed > 0);

    /// <summary>Each day, also those for which nobody is needed, in order. On a day off of all nobody is needed, there or missing.</summary>
    public static IEnumerable<CoverDay> Every(
        Window window,
        CoverNeed need,
        IEnumerable<CoverPerson> people,
        IReadOnlySet<LocalDate>? daysOff = null
    ) => Every(window, [need.Part], need.On, people.Where(one => need.Counts(one.Person)), daysOff);

    /// <summary>Each part of each day with who is there and who is away, in order, whoever is needed.</summary>
    public static IEnumerable<CoverDay> Every(
        Window window,
        IReadOnlyList<DayPart> parts,
        IEnumerable<CoverPerson> people,
        IReadOnlySet<LocalDate> daysOff
    ) => Every(window, parts, _ => 0, people, daysOff);

    private static IEnumerable<CoverDay> Every(
        Window window,
        IReadOnlyList<DayPart> parts,
        Func<LocalDate, int> needed,
        IEnumerable<CoverPerson> people,
        IReadOnlySet<LocalDate>? daysOff
    )
    {
        var all = people.OrderBy(one => one.Person.Value).ToList();
        return from offset in Enumerable.Range(0, Period.DaysBetween(window.First, window.Last) + 1)
            let day = window.First.PlusDays(offset)
            from part in parts
            let isOff = daysOff?.Contains(day) == true
            select isOff ? new CoverDay(day, part, Needed: 0, [], []) : On(day, part, window.Reader, needed(day), all);
    }

    private static CoverDay On(LocalDate day, DayPart part, DateTimeZone zone, int needed, List<CoverPerson> people)
    {
        var span = part.On(day, zone);
        var states = people.ToLookup(one => State(one, span), one => one.Person);
        return new CoverDay(day, part, needed, [.. states[true]], [.. states[false]]);
    }

    /// <summary>Present, missing, or neither.</summary>
    private static bool? State(CoverPerson one, Interval span)
    {
        var hours = one.Hours?.Within(span) ?? [span];
        if (hours.IsEmpty)
        {
            return null;
        }

        var away = Stretches.Total(Stretches.Both(hours, one.Busy.Away));
        return away + away <= Stretches.Total(hours);
    }
}
