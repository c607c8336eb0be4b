using System.Collections.Immutable;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Groups;

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

    /// <summary>Of how many people by name one need can be.</summary>
    public const int MostPeople = 500;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 40;

    /// <summary>How many on a day.</summary>
    public int On(LocalDate day) => FromMonday[(int)day.DayOfWeek - 1];

    /// <summary>Whether somebody counts for it.</summary>
    public bool Counts(PersonId person) => People.IsEmpty || People.Contains(person);

    /// <summary>The same number from Monday to Friday, for whole days.</summary>
    public static CoverNeed OnWorkingDays(int number) => new([number, number, number, number, number, 0, 0]);

    /// <summary>Makes the needs of a group safe and checks them.</summary>
    public static Checked<ImmutableArray<CoverNeed>> Check(IEnumerable<CoverNeed> given)
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
        return new(needs, [.. ProblemsOf(needs).Select(problem => new FieldProblem("cover", problem))]);
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

        if (needs.Any(need => need.People.Length > MostPeople))
        {
            yield return $"One need can be of up to {MostPeople} people by name. Leave them out for everybody.";
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
