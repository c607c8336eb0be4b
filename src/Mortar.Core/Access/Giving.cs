using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>
/// What a coordinator may give at a moment: nothing that would outlast their own right to give it. One decision for a step
/// that is given, a link, an invitation when it is taken, an answered request, and an undo that brings one of these back.
/// </summary>
public static class Giving
{
    /// <summary>Whether somebody who stands there may give what a grant says.</summary>
    /// <param name="giver">Where the giver stands with the calendar now.</param>
    /// <param name="wish">What is to be given; one of no step gives nothing and may always be.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool MayGive(Standing giver, Grant wish, Instant now) =>
        !wish.CountsAt(now)
        || giver.Grants.Any(grant => grant.Role == Role.Coordinate && Outlasts(grant.EndsAt, wish.EndsAt));

    /// <summary>Until when somebody coordinates a calendar; <c>null</c> for good, and for those who do not.</summary>
    public static Instant? Until(Standing giver)
    {
        var ends = giver.Grants.Where(grant => grant.Role == Role.Coordinate).Select(grant => grant.EndsAt).ToList();
        return ends.Count == 0 || ends.Contains(null) ? null : ends.Max();
    }

    /// <summary>Why it cannot be given, with the way out.</summary>
    /// <param name="lastDay">The last day on which the giver coordinates the calendar.</param>
    public static string WhyNot(LocalDate lastDay) =>
        $"You coordinate this calendar until {lastDay.ToString("ddd d MMMM uuuu", System.Globalization.CultureInfo.InvariantCulture)}, so what you give ends by then. Choose a last day up to that, or ask a coordinator who stays.";

    /// <summary>Whether a step is given on a calendar of the web: nobody changes what is in it, so none by which one would.</summary>
    public static bool IsOfWeb(Role role) => role is <= Role.View or Role.Coordinate;

    /// <summary>Why a step is not given on a calendar of the web; <c>null</c> where it is.</summary>
    public static Refusal? WhyNotOfWeb(Role role) => IsOfWeb(role) ? null : new Refusal.Unfit("role", UpToView);

    /// <summary>What is said where somebody tries.</summary>
    public const string UpToView = "A calendar of the web is read and not changed here. Give up to View.";

    private static bool Outlasts(Instant? own, Instant? given) =>
        own is not { } end || (given is { } other && other <= end);
}
