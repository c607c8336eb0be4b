using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Ranges of days in questions.</summary>
internal static class Ranges
{
    /// <summary>The problem of a range that is not answered; <c>null</c> for one that is.</summary>
    public static ProblemHttpResult? WhyNot(LocalDate from, LocalDate to, int longestDays = Window.LongestDays) =>
        to < from || Period.DaysBetween(from, to) >= longestDays || from.Year < 1 || to.Year > 9_998
            ? Problems.Unfit([
                new FieldProblem(
                    "to",
                    FormattableString.Invariant($"Ask for 1 to {longestDays} days; the last not before the first.")
                ),
            ])
            : null;
}
