using System.Collections.Immutable;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>Somebody who is counted.</summary>
/// <param name="Person">Who.</param>
/// <param name="Busy">Their time over the days that are asked for; only absences count.</param>
/// <param name="Hours">Their usual hours; <c>null</c> where they are there at any time.</param>
public sealed record CoverPerson(PersonId Person, BusyTime Busy, UsualHours? Hours)
{
    /// <summary>When they would be away as well if all that is only proposed were agreed to.</summary>
    public ImmutableArray<Interval> Proposed { get; init; } = [];
}

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
    /// <summary>Those of the present who would be missing if all that is only proposed were agreed to, in order of their ids.</summary>
    public ImmutableArray<PersonId> Perhaps { get; init; } = [];

    /// <summary>Of a whole day: those of the present who are away before noon, in order of their ids.</summary>
    public ImmutableArray<PersonId> AwayBeforeNoon { get; init; } = [];

    /// <summary>Of a whole day: those of the present who are away from noon on, in order of their ids.</summary>
    public ImmutableArray<PersonId> AwayAfterNoon { get; init; } = [];

    /// <summary>How many are there all the time: in the half of the day in which fewer are.</summary>
    public int There => Present.Length - Math.Max(AwayBeforeNoon.Length, AwayAfterNoon.Length);

    /// <summary>How many too few; 0 where there are enough. What is only proposed takes nobody away yet.</summary>
    public int TooFew => Math.Max(0, Needed - There);
}

/// <summary>Counts who is left.</summary>
public static class Cover
{
    /// <summary>How many too few a day has: as many as the need that is met least; 0 where none is said.</summary>
    /// <param name="needs">The day by each need of the group.</param>
    public static int TooFew(IEnumerable<CoverDay> needs) => needs.Select(one => one.TooFew).DefaultIfEmpty().Max();

    /// <summary>Each day, also those for which nobody is needed, in order. On a day off of all nobody is needed, there or missing.</summary>
    /// <param name="window">The days, on the group's clock.</param>
    /// <param name="need">How many of whom are needed when.</param>
    /// <param name="people">The group.</param>
    /// <param name="daysOff">Dates on which nobody works.</param>
    /// <remarks>
    /// Somebody without hours on that part of the day is neither present nor missing. Who is away for more than half of
    /// their hours in it is missing; an hour at the dentist's does not break the cover. A whole day has two such parts,
    /// before noon and from noon on: who is away in one of them is there for the other (common practice, no source).
    /// </remarks>
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
        // The hours of all days at once: day by day they would be worked out anew for each part of each.
        var all = people
            .OrderBy(one => one.Person.Value)
            .Select(one => new Counted(
                one.Person,
                one.Hours?.Within(window.Span) ?? [window.Span],
                one.Busy.Away,
                one.Proposed
            ))
            .ToList();
        return from day in window.Days
            from part in parts
            let isOff = daysOff?.Contains(day) == true
            select isOff ? new CoverDay(day, part, Needed: 0, [], []) : On(day, part, window.Reader, needed(day), all);
    }

    private static CoverDay On(LocalDate day, DayPart part, DateTimeZone zone, int needed, List<Counted> people)
    {
        var span = part.On(day, zone);
        ImmutableArray<Interval> halves = part.IsWhole
            ? [DayPart.Morning.On(day, zone), DayPart.Afternoon.On(day, zone)]
            : [];
        var states = people.ToLookup(one => one.IsThere(one.Away, span, halves));
        return new CoverDay(
            day,
            part,
            needed,
            [.. states[true].Select(one => one.Person)],
            [.. states[false].Select(one => one.Person)]
        )
        {
            AwayBeforeNoon = AwayIn(0),
            AwayAfterNoon = AwayIn(1),
            Perhaps =
            [
                .. states[true]
                    .Where(one =>
                        !one.Proposed.IsEmpty
                        && one.IsThere(Stretches.Merged(one.Away.Concat(one.Proposed), span), span, halves) == false
                    )
                    .Select(one => one.Person),
            ],
        };

        ImmutableArray<PersonId> AwayIn(int half) =>
            halves.IsEmpty
                ? []
                :
                [
                    .. states[true]
                        .Where(one => !one.Away.IsEmpty && one.IsThere(one.Away, halves[half]) == false)
                        .Select(one => one.Person),
                ];
    }

    /// <summary>Somebody with their hours over all the days.</summary>
    private sealed record Counted(
        PersonId Person,
        ImmutableArray<Interval> Hours,
        ImmutableArray<Interval> Away,
        ImmutableArray<Interval> Proposed
    )
    {
        /// <summary>Present, missing, or neither; whoever is there for half of the day is present.</summary>
        public bool? IsThere(ImmutableArray<Interval> away, Interval span, ImmutableArray<Interval> halves) =>
            IsThere(away, span) is var there && there == false && !halves.IsEmpty
                ? halves.Any(half => IsThere(away, half) == true)
                : there;

        /// <summary>Present, missing, or neither, where they are away at these times.</summary>
        public bool? IsThere(ImmutableArray<Interval> away, Interval span)
        {
            var hours = Stretches.Within(Hours, span);
            if (hours.IsEmpty)
            {
                return null;
            }

            var missed = Stretches.Total(Stretches.Both(hours, Stretches.Within(away, span)));
            return missed + missed <= Stretches.Total(hours);
        }
    }
}
