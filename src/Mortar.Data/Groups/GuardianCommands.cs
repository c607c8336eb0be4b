using Microsoft.EntityFrameworkCore;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Says who sees and answers for a member of a group.</summary>
public sealed class GuardianCommands(MortarDb db)
{
    /// <summary>The most guardians of one member.</summary>
    public const int Most = 8;

    /// <summary>Makes some people the guardians of a member, and nobody else. A guardian need not be in the group, but is known to whoever says so.</summary>
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
                var members = await db
                    .Members.Where(member =>
                        member.GroupId == groupId && (member.PersonId == act.Actor || member.PersonId == ward)
                    )
                    .ToListAsync(cancellationToken);
                var me = members.Find(member => member.PersonId == act.Actor);
                if (MemberRules.ToKeep(me is not null, me?.Coordinates == true).GroupRefusal<int>() is { } refusal)
                {
                    return refusal;
                }

                if (!members.Exists(member => member.PersonId == ward))
                {
                    return new Outcome<int>.NotThere("member");
                }

                var wished = guardians.ToHashSet();
                var known = await db.KnownTo(act.Actor).CountAsync(one => wished.Contains(one.Id), cancellationToken);
                if (wished.Contains(ward) || wished.Count > Most || known < wished.Count)
                {
                    return new Outcome<int>.Unfit([
                        new FieldProblem(
                            "guardians",
                            $"Choose up to {Most} people of your groups, and not the member themselves."
                        ),
                    ]);
                }

                var rows = await db
                    .Guardians.Where(row => row.GroupId == groupId && row.WardId == ward)
                    .ToListAsync(cancellationToken);
                foreach (var row in rows.Where(row => row.EndedAt is null != wished.Contains(row.GuardianId)))
                {
                    row.EndedAt = row.EndedAt is null ? db.Now : null;
                }

                foreach (var one in wished.Except(rows.Select(row => row.GuardianId)))
                {
                    db.Guardians.Add(
                        new GuardianRow
                        {
                            GroupId = groupId,
                            WardId = ward,
                            GuardianId = one,
                        }
                    );
                }

                return new Outcome<int>.Done(wished.Count);
            },
            cancellationToken
        );
}
