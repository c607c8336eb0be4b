using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Absences;

/// <summary>One absence of one person, as the reader sees it.</summary>
/// <param name="Person">Who is away.</param>
/// <param name="Calendar">On which calendar it stands; empty where the reader is not told.</param>
/// <param name="Kind">Its kind; empty for none, or where the reader does not see it.</param>
/// <param name="Title">Its title; empty for none, or where the reader does not see it.</param>
/// <param name="Notes">Its notes, in the same way.</param>
/// <param name="Seen">When, on the group's clock.</param>
/// <param name="Span">The real time it takes.</param>
/// <param name="Perhaps">Whether it is not settled: proposed, waiting to be agreed to.</param>
public sealed record SeenAbsence(
    PersonId Person,
    string Calendar,
    string Kind,
    string Title,
    string Notes,
    EventTime Seen,
    Interval Span,
    bool Perhaps
);

/// <summary>Somebody of whom absences are told.</summary>
public sealed record AbsentPerson(PersonId Id, string Name, UsualHours? Hours);

/// <summary>The absences of a group in some days, as somebody in it sees them.</summary>
/// <param name="Group">What the group is called.</param>
/// <param name="Window">The days, on the group's clock.</param>
/// <param name="People">Its members by name.</param>
/// <param name="Absences">Their absences.</param>
/// <param name="DaysOff">Dates on which nobody works.</param>
public sealed record GroupAbsences(
    string Group,
    Window Window,
    IReadOnlyList<AbsentPerson> People,
    IReadOnlyList<SeenAbsence> Absences,
    IReadOnlySet<LocalDate> DaysOff
)
{
    /// <summary>The absences of one.</summary>
    public ILookup<PersonId, SeenAbsence> Theirs { get; } = Absences.ToLookup(one => one.Person);

    /// <summary>On which days somebody is away by some absences, and for how many halves of each: what counts as missing for cover.</summary>
    public IReadOnlyDictionary<LocalDate, int> Halves(AbsentPerson person, IReadOnlyCollection<SeenAbsence> absences) =>
        absences.Count == 0
            ? new Dictionary<LocalDate, int>()
            : Cover
                .Every(
                    Window,
                    [DayPart.Morning, DayPart.Afternoon],
                    [
                        new CoverPerson(
                            person.Id,
                            BusyTime.Of(Window.Span, absences.Select(one => (one.Span, Taken.Away))),
                            person.Hours
                        ),
                    ],
                    DaysOff
                )
                .Where(half => half.Missing.Length > 0)
                .GroupBy(half => half.Day)
                .ToDictionary(day => day.Key, day => day.Count());

    /// <summary>How many working days of the window an absence of somebody costs, a half counted as a half.</summary>
    public decimal Cost(AbsentPerson person, SeenAbsence absence) => Halves(person, [absence]).Values.Sum() / 2m;

    /// <summary>The days of somebody, in order, as a month grid has them.</summary>
    public IReadOnlyList<AbsenceDay> Days(AbsentPerson person)
    {
        var settled = Halves(person, [.. Theirs[person.Id].Where(one => !one.Perhaps)]);
        var all = Halves(person, [.. Theirs[person.Id]]);
        return
        [
            .. Enumerable
                .Range(0, Period.DaysBetween(Window.First, Window.Last) + 1)
                .Select(Window.First.PlusDays)
                .Select(day =>
                {
                    var away = settled.GetValueOrDefault(day);
                    return new AbsenceDay(
                        day,
                        !DaysOff.Contains(day) && person.Hours?.IsOn(day) != false,
                        away,
                        all.GetValueOrDefault(day) - away
                    );
                }),
        ];
    }
}

/// <summary>How a day of somebody stands on a month grid.</summary>
/// <param name="Day">Which.</param>
/// <param name="Works">Whether they have hours on it.</param>
/// <param name="Halves">How many halves they are away, 0 to 2.</param>
/// <param name="Perhaps">How many halves more they would be if all that waits were agreed to.</param>
public readonly record struct AbsenceDay(LocalDate Day, bool Works, int Halves, int Perhaps)
{
    /// <summary>What the signs mean.</summary>
    public const string Key = "1: away. 0.5: half a day. In brackets: not agreed yet. –: no working day.";

    /// <summary>As it stands in a cell: 1, 0.5, (1) for what is not agreed to yet, and a dash where there is no work.</summary>
    public string Text =>
        !Works ? "–"
        : Halves > 0 ? Number(Halves)
        : Perhaps > 0 ? $"({Number(Perhaps)})"
        : string.Empty;

    private static string Number(int halves) => halves > 1 ? "1" : "0.5";
}
