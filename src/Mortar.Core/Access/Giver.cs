using Mortar.Core.Calendars;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>Somebody at a calendar to which they want to give access, or take it. Each answer is what is done, or why it is not.</summary>
/// <param name="Person">Who.</param>
/// <param name="Standing">Where they stand with it.</param>
/// <param name="Zone">The calendar's clock: by it last days end.</param>
/// <param name="Now">What o'clock it is.</param>
/// <param name="FromWeb">Whether what is in the calendar comes from the web.</param>
public sealed record Giver(PersonId Person, Standing Standing, DateTimeZone Zone, Instant Now, bool FromWeb = false)
{
    /// <summary>Why they may neither give nor take anything there; <c>null</c> for those who coordinate it.</summary>
    public Refusal? WhyNotCoordinate => AccessRules.ToCoordinate(Standing.Role).WhyNot("calendar", "Coordinate");

    /// <summary>Why they may not give what a grant says; <c>null</c> where they may.</summary>
    public Refusal? WhyNot(Grant wish) =>
        WhyNotCoordinate
        ?? (FromWeb ? Giving.WhyNotOfWeb(wish.Role) : null)
        ?? (
            Giving.MayGive(Standing, wish, Now)
                ? null
                : new Refusal.AgainstRule(
                    "outlasts-you",
                    Giving.WhyNot(AccessEnd.LastDay(Giving.Until(Standing)!.Value, Zone))
                )
        );

    /// <summary>Puts somebody who is there already on a step of their own. Everybody else is invited.</summary>
    /// <param name="whose">Whose step.</param>
    /// <param name="role">The step.</param>
    /// <param name="lastDay">The last day it holds; <c>null</c> for no end.</param>
    /// <param name="own">What was given to people by themselves and not taken back.</param>
    /// <param name="isThere">Whether they reach the calendar by some way, or are in its group.</param>
    public Outcome<Grant> Set(
        PersonId whose,
        Role role,
        LocalDate? lastDay,
        IReadOnlyDictionary<PersonId, Grant> own,
        bool isThere
    )
    {
        var end = AccessEnd.Check(lastDay, Now, Zone);
        var wish = new Grant(role, Way.Own, end.Value);
        return WhyNotCoordinate is { } refusal ? refusal
            : role == Role.None ? new Refusal.Unfit([Refusals.NoStep(otherwise: "end the access")])
            : end.WhyNot is { } unfit ? unfit
            : WhyNot(wish) is { } beyond ? beyond
            : !isThere && !own.ContainsKey(whose) ? new Refusal.NotThere("access")
            : Replace(whose, wish, own);
    }

    /// <summary>Ends somebody's own access, also what they have by a link; a coordinator anybody's, everybody their own.</summary>
    /// <param name="whose">Whose.</param>
    /// <param name="own">What was given to people by themselves and not taken back.</param>
    /// <param name="holdsLink">Whether they came by a link as well.</param>
    public Outcome<Grant> End(PersonId whose, IReadOnlyDictionary<PersonId, Grant> own, bool holdsLink) =>
        AccessRules.ToEnd(Standing.Role, Person, whose).WhyNot("calendar", "Coordinate") is { } refusal ? refusal
        : own.ContainsKey(whose) ? Replace(whose, Nothing, own)
        : holdsLink ? Nothing
        : new Refusal.NotThere("access");

    /// <summary>Puts everybody of a group on a step. The giver is in it, and so knows who that is.</summary>
    /// <param name="isInGroup">Whether they are.</param>
    /// <param name="role">The step.</param>
    /// <param name="lastDay">The last day it holds; <c>null</c> for no end.</param>
    public Outcome<Grant> SetGroup(bool isInGroup, Role role, LocalDate? lastDay)
    {
        var end = AccessEnd.Check(lastDay, Now, Zone);
        var wish = new Grant(role, Way.Group, end.Value);
        return WhyNotCoordinate is { } refusal ? refusal
            : !isInGroup ? new Refusal.NotThere("group")
            : role is Role.None or > CalendarSettings.HighestDefault
                ? new Refusal.Unfit(
                    "role",
                    "A whole group can be given a step from Times only to Edit. Make coordinators by name."
                )
            : end.WhyNot is { } unfit ? unfit
            : WhyNot(wish) is { } beyond ? beyond
            : wish;
    }

    /// <summary>Invites an address to a step: what the invitation promises.</summary>
    /// <param name="given">What is to be sent.</param>
    /// <param name="lastDay">The last day of the access it leads to; <c>null</c> for no end.</param>
    public Outcome<Grant> Promise(Checked<InvitationWords> given, LocalDate? lastDay)
    {
        var end = AccessEnd.Check(lastDay, Now, Zone);
        var wish = new Grant(given.Value.Role, Way.Own, end.Value);
        return WhyNotCoordinate is { } refusal ? refusal
            : given.And(end.Problems).WhyNot is { } unfit ? unfit
            : WhyNot(wish) is { } beyond ? beyond
            : wish;
    }

    /// <summary>Why a step cannot be given without an end beside what is there; <c>null</c> where it can.</summary>
    /// <param name="role">The step.</param>
    /// <param name="path">The field that names it.</param>
    /// <param name="otherwise">What could be done instead of giving one.</param>
    public Refusal? Gift(Role role, string path = "role", string otherwise = "") =>
        WhyNotCoordinate
        ?? (
            role == Role.None ? new Refusal.Unfit([Refusals.NoStep(path, otherwise)]) : WhyNot(new Grant(role, Way.Own))
        );

    private static Grant Nothing => new(Role.None, Way.Own);

    private static Outcome<Grant> Replace(PersonId whose, Grant next, IReadOnlyDictionary<PersonId, Grant> own) =>
        Coordinators.WouldBeLeftWithout(own.Select(grant => (grant.Key, grant.Value)), whose, next)
            ? Coordinators.WhyOneStays
            : next;
}
