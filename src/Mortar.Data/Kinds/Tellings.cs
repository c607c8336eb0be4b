using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>What some people are told at once on their open screens.</summary>
/// <param name="People">Who.</param>
/// <param name="Topic">What changed for them.</param>
/// <param name="About">The calendar in which it did; <c>null</c> where it is about none in particular.</param>
/// <param name="Sets">Where nobody but they did it, by which acts: a screen that did them itself may have asked already.</param>
public sealed record Told(
    IReadOnlyList<PersonId> People,
    Topic Topic,
    CalendarId? About,
    IReadOnlyList<ChangeSetId> Sets
);

/// <summary>Gathers from some changes who is told what on their open screens, each once; what that needs to know is read once.</summary>
/// <param name="db">The store, with the changes in it.</param>
internal sealed class Tellings(MortarDb db)
{
    private sealed record Act(ChangeSetId Set, PersonId Actor);

    private readonly Dictionary<(PersonId Person, Topic Topic, CalendarId? About), HashSet<Act>> heard = [];
    private readonly Dictionary<CalendarId, IReadOnlyDictionary<PersonId, Role>> roles = [];

    /// <summary>The store.</summary>
    public MortarDb Db => db;

    /// <summary>Takes note that people are told of a change.</summary>
    public void Tell(IEnumerable<PersonId> people, Topic topic, ChangeRow change, CalendarId? about = null)
    {
        var act = new Act(change.Set, change.Actor);
        foreach (var person in people)
        {
            if (!heard.TryGetValue((person, topic, about), out var acts))
            {
                heard[(person, topic, about)] = acts = [];
            }

            acts.Add(act);
        }
    }

    /// <summary>Everybody who reaches a calendar, with their step on it.</summary>
    public async Task<IReadOnlyDictionary<PersonId, Role>> RolesOn(
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        if (!roles.TryGetValue(calendar, out var known))
        {
            roles[calendar] = known = (await db.StandingsOn([calendar], cancellationToken)).ToDictionary(
                one => one.Key.Person,
                one => one.Value.Role
            );
        }

        return known;
    }

    /// <summary>Who coordinates a calendar.</summary>
    public async Task<IReadOnlyList<PersonId>> CoordinatorsOf(
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        [
            .. (await RolesOn(calendar, cancellationToken))
                .Where(one => AccessRules.ToCoordinate(one.Value) == Verdict.Granted)
                .Select(one => one.Key),
        ];

    /// <summary>Who is in a group, or keeps it.</summary>
    public Task<List<PersonId>> MembersOf(GroupId group, bool onlyKeepers, CancellationToken cancellationToken) =>
        db
            .Members.Where(member => member.GroupId == group && (!onlyKeepers || member.Coordinates))
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);

    /// <summary>All that is told, the people who are told the same together.</summary>
    public IReadOnlyList<Told> All() =>
        [
            .. heard
                .Select(one => (one.Key, Sets: SetsOf(one.Key.Person, one.Value)))
                .GroupBy(one => (one.Key.Topic, one.Key.About, By: string.Join(' ', one.Sets)))
                .OrderBy(same => same.Key.Topic)
                .Select(same => new Told(
                    [.. same.Select(one => one.Key.Person)],
                    same.Key.Topic,
                    same.Key.About,
                    same.First().Sets
                )),
        ];

    private static List<ChangeSetId> SetsOf(PersonId person, HashSet<Act> acts) =>
        acts.All(act => act.Actor == person) ? [.. acts.Select(act => act.Set).OrderBy(set => set.Value)] : [];
}

/// <summary>What the log says that open screens are told.</summary>
public static class TellingQueries
{
    /// <summary>Who is told what because of some changes.</summary>
    /// <param name="db">The store.</param>
    /// <param name="changes">The changes, in order.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<IReadOnlyList<Told>> ToldOf(
        this MortarDb db,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var tellings = new Tellings(db);
        foreach (var alike in changes.GroupBy(change => change.Subject))
        {
            await ChangeKinds.Of(alike.Key).Tell(tellings, [.. alike], cancellationToken);
        }

        return tellings.All();
    }

    /// <summary>Whether a change says who may what.</summary>
    public static bool IsAccess(this ChangeRow change) => change.Kind().IsAccess;
}
