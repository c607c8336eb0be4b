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

    /// <summary>The most that are told one by one.</summary>
    public const int Most = 5_000;

    /// <summary>Why they are not told; <c>null</c> where they are.</summary>
    public Refusal? WhyNot =>
        Absences.Count > Most
            ? new Refusal.Unfit(
                "to",
                FormattableString.Invariant($"There are more than {Most} absences in these days. Ask for fewer days.")
            )
            : null;

    /// <summary>On which days of some somebody is away, and for how many halves of each: what counts as missing for cover.</summary>
    private Dictionary<LocalDate, int> Halves(
        AbsentPerson person,
        IReadOnlyCollection<SeenAbsence> absences,
        Window days
    ) =>
        absences.Count == 0
            ? []
            : Cover
                .Every(
                    days,
                    [DayPart.Morning, DayPart.Afternoon],
                    [
                        new CoverPerson(
                            person.Id,
                            BusyTime.Of(days.Span, absences.Select(one => (one.Span, Taken.Away))),
                            person.Hours
                        ),
                    ],
                    DaysOff
                )
                .Where(half => half.Missing.Length > 0)
                .GroupBy(half => half.Day)
                .ToDictionary(day => day.Key, day => day.Count());

    /// <summary>How many working days of the window an absence of somebody costs, a half counted as a half.</summary>
    public decimal Cost(AbsentPerson person, SeenAbsence absence)
    {
        // No day beside its own can count: a year is not gone through for an hour.
        var (first, last) = (
            LocalDate.Max(Window.First, absence.Span.Start.InZone(Window.Reader).Date.PlusDays(-1)),
            LocalDate.Min(Window.Last, absence.Span.End.InZone(Window.Reader).Date.PlusDays(1))
        );
        return first > last ? 0 : Halves(person, [absence], new Window(first, last, Window.Reader)).Values.Sum() / 2m;
    }

    /// <summary>The days of somebody, in order, as a month grid has them.</summary>
    public IReadOnlyList<AbsenceDay> Days(AbsentPerson person)
    {
        var settled = Halves(person, [.. Theirs[person.Id].Where(one => !one.Perhaps)], Window);
        var all = Halves(person, [.. Theirs[person.Id]], Window);
        return
        [
            .. Window.Days.Select(day =>
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
