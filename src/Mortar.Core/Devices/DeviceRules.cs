using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Devices;

/// <summary>What is decided for programs, which cannot ask their owner.</summary>
public static class DeviceRules
{
    /// <summary>In which group a calendar is made that a program makes: the only one that its owner is in.</summary>
    /// <param name="groups">Those they are in, without those that rest.</param>
    public static Outcome<GroupId> GroupOfNew(IReadOnlyList<GroupId> groups) =>
        groups switch
        {
            [var only] => only,
            [] => new Refusal.NotAllowed(
                "A calendar is made in a group, and you are in none. Make one in Mortar first."
            ),
            _ => new Refusal.NotAllowed(
                "You are in several groups, and a program cannot say in which of them a calendar is to be. Make it in Mortar; it comes here by itself."
            ),
        };

    /// <summary>
    /// Who is asked whether they come, of those whom a program names on an event: the newly named (RFC 6638, 3.2.1), but for
    /// the one who names them and those whom the program asks by itself (SCHEDULE-AGENT, RFC 6638, 7.1). Where nobody can be
    /// asked they are named all the same.
    /// </summary>
    /// <param name="sender">Whose program it is.</param>
    /// <param name="role">Their step on the calendar.</param>
    /// <param name="purpose">What the calendar is for.</param>
    /// <param name="before">The event as it was; <c>null</c> for a new one.</param>
    /// <param name="after">The event as it is now.</param>
    /// <param name="notAsked">Whom the program asks by itself.</param>
    public static IReadOnlyList<PersonId> ToAsk(
        PersonId sender,
        Role role,
        Purpose purpose,
        Event? before,
        Event after,
        IReadOnlySet<PersonId> notAsked
    ) =>
        purpose == Purpose.Events && AccessRules.ToGiveAway(role, sender, after) == Verdict.Granted
            ?
            [
                .. after
                    .Named.Except(before?.Named ?? [])
                    .Where(person => person != sender && !notAsked.Contains(person)),
            ]
            : [];
}
