using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Says who sees and answers for a member of a group.</summary>
public sealed class GuardianCommands(MortarDb db)
{
    /// <summary>
    /// Chooses some people as the guardians of a member, and nobody else. Who has an account is asked before somebody sees
    /// and answers for them, and before they are a guardian in a group they are not in. A guardian need not be in the
    /// group, but is known to whoever chooses.
    /// </summary>
    public Task<Outcome<int>> Set(
        Act act,
        GroupId groupId,
        PersonId ward,
        IReadOnlyCollection<PersonId> guardians,
        CancellationToken cancellationToken
    ) =>
        db.Write<int>(
            act,
            async () =>
            {
                if (await db.WhyNotKeep(act.Actor, groupId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var members = await db
                    .Members.Where(member => member.GroupId == groupId)
                    .Select(member => member.PersonId)
                    .ToHashSetAsync(cancellationToken);
                if (!members.Contains(ward))
                {
                    return new Refusal.NotThere("member");
                }

                var wished = guardians.ToHashSet();
                var known = await db.KnownTo(act.Actor)
                    .Where(one => wished.Contains(one.Id))
                    .Select(one => one.Id)
                    .ToHashSetAsync(cancellationToken);
                var numbers = wished.Append(ward).Select(one => one.Value).ToList();
                var accounts = await db
                    .Users.Where(account => numbers.Contains(account.Id))
                    .Select(account => account.Id)
                    .ToHashSetAsync(cancellationToken);
                if (
                    wished.Contains(ward)
                    || wished.Count > GuardianRules.Most
                    || !wished.All(one =>
                        GuardianRules.CanBe(members.Contains(one), accounts.Contains(one.Value), known.Contains(one))
                    )
                )
                {
                    return new Refusal.Unfit([
                        new FieldProblem(
                            "guardians",
                            $"Choose up to {GuardianRules.Most} people of this group, or with an account in another group of yours, and not the member themselves."
                        ),
                    ]);
                }

                var rows = await db
                    .Guardians.IgnoreQueryFilters()
                    .Where(row => row.GroupId == groupId && row.WardId == ward)
                    .ToListAsync(cancellationToken);
                foreach (var row in rows.Where(row => row.EndedAt is null && !wished.Contains(row.GuardianId)))
                {
                    row.EndedAt = db.Now;
                }

                foreach (var one in wished.Except(rows.Where(row => row.EndedAt is null).Select(row => row.GuardianId)))
                {
                    var row = rows.Find(known => known.GuardianId == one);
                    if (row is null)
                    {
                        row = new GuardianRow
                        {
                            GroupId = groupId,
                            WardId = ward,
                            GuardianId = one,
                        };
                        db.Guardians.Add(row);
                    }

                    (row.EndedAt, row.ChosenBy) = (null, act.Actor);
                    row.WardAskedAt = GuardianRules.AsksWard(accounts.Contains(ward.Value), ward == act.Actor)
                        ? db.Now
                        : null;
                    row.GuardianAskedAt = GuardianRules.AsksGuardian(
                        accounts.Contains(one.Value),
                        members.Contains(one),
                        one == act.Actor
                    )
                        ? db.Now
                        : null;
                }

                return wished.Count;
            },
            cancellationToken
        );

    /// <summary>Ends one at the wish of either side: the ward has no guardian there any more, or the guardian is none.</summary>
    public Task<Outcome<GuardianRow>> End(Act act, Guid id, CancellationToken cancellationToken) =>
        db.Write<GuardianRow>(
            act,
            async () =>
            {
                var row = await db.GuardianshipsOf(act.Actor)
                    .FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                if (row is null)
                {
                    return new Refusal.NotThere("guardianship");
                }

                row.EndedAt = db.Now;
                return row;
            },
            cancellationToken
        );
}
