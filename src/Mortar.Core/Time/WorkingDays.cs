using System.Collections.Immutable;
using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Which days people work: the weekdays of their week, less holidays.</summary>
/// <param name="Week">The weekdays that are worked.</param>
/// <param name="Holidays">Dates that are not, whatever weekday they are.</param>
public sealed record WorkingDays(ImmutableHashSet<IsoDayOfWeek> Week, ImmutableHashSet<LocalDate> Holidays)
{
    /// <summary>Monday to Friday without holidays.</summary>
    public static WorkingDays MondayToFriday { get; } =
        new(
            [
                IsoDayOfWeek.Monday,
                IsoDayOfWeek.Tuesday,
                IsoDayOfWeek.Wednesday,
                IsoDayOfWeek.Thursday,
                IsoDayOfWeek.Friday,
            ],
            []
        );

    /// <summary>The same week without some dates.</summary>
    public WorkingDays Without(params IEnumerable<LocalDate> holidays) =>
        this with
        {
            Holidays = Holidays.Union(holidays),
        };

    /// <summary>Whether a day is worked.</summary>
    public bool Has(LocalDate day) => Week.Contains(day.DayOfWeek) && !Holidays.Contains(day);

    /// <summary>How many days from the first to the last, both included, are worked.</summary>
    public int Count(LocalDate first, LocalDate last) =>
        Enumerable
            .Range(0, Math.Max(0, Period.DaysBetween(first, last) + 1))
            .Count(offset => Has(first.PlusDays(offset)));

    /// <summary>The first worked day after <paramref name="last"/>; the very next day where none is worked within a year.</summary>
    public LocalDate BackAfter(LocalDate last) =>
        Enumerable.Range(1, 366).Select(last.PlusDays).FirstOrDefault(Has, last.PlusDays(1));
}
