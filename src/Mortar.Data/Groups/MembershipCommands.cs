using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>The answers of those who are asked: to be in a group, to be a guardian, to have one.</summary>
public sealed class MembershipCommands(MortarDb db)
{
    /// <summary>Says yes or no to being in a group. It can be answered while whoever asked still coordinates the group.</summary>
    public Task<Outcome<MemberRow>> Answer(Act act, GroupId groupId, bool yes, CancellationToken cancellationToken) =>
        db.Write<MemberRow>(
            act,
            async () =>
            {
                var row = await db.MembershipsAsked(act.Actor)
                    .FirstOrDefaultAsync(one => one.GroupId == groupId, cancellationToken);
                if (row is null)
                {
                    return new Refusal.NotThere("question");
                }

                if (yes)
                {
                    row.AskedAt = null;
                }
                else
                {
                    (row.LeftAt, row.SaidNoAt) = (db.Now, db.Now);
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>Takes the question back before it is answered.</summary>
    public Task<Outcome<MemberRow>> Withdraw(
        Act act,
        GroupId groupId,
        PersonId whose,
        CancellationToken cancellationToken
    ) =>
        db.Write<MemberRow>(
            act,
            async () =>
            {
                if (await db.WhyNotKeep(act.Actor, groupId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (
                    await db.AnyPlaceOf(groupId, whose, cancellationToken) is not { } row
                    || row.Place() != MemberPlace.Asked
                )
                {
                    return new Refusal.NotThere("question");
                }

                row.LeftAt = db.Now;
                return row;
            },
            cancellationToken
        );

    /// <summary>Says yes or no to being, or having, a guardian; each answers for themselves.</summary>
    public Task<Outcome<GuardianRow>> AnswerGuardian(Act act, Guid id, bool yes, CancellationToken cancellationToken) =>
        db.Write<GuardianRow>(
            act,
            async () =>
            {
                var row = await db.GuardiansAsked(act.Actor)
                    .FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                if (row is null)
                {
                    return new Refusal.NotThere("question");
                }

                if (!yes)
                {
                    row.EndedAt = db.Now;
                }
                else if (row.WardId == act.Actor)
                {
                    row.WardAskedAt = null;
                }
                else
                {
                    row.GuardianAskedAt = null;
                }

                return row;
            },
            cancellationToken
        );
}

/// <summary>Reads who is asked for a yes.</summary>
public static class MembershipQueries
{
    /// <summary>The groups that somebody is asked to be in, while whoever asked coordinates them.</summary>
    public static IQueryable<MemberRow> MembershipsAsked(this MortarDb db, PersonId person) =>
        db
            .Members.IgnoreQueryFilters([MemberRow.Asked])
            .Where(row =>
                row.PersonId == person
                && row.AskedAt != null
                && db.Members.Any(by => by.GroupId == row.GroupId && by.PersonId == row.AskedBy && by.Coordinates)
            );

    /// <summary>Those who were asked to be in a group and have not answered.</summary>
    public static IQueryable<MemberRow> MembershipsWaiting(this MortarDb db, GroupId group) =>
        db.Members.IgnoreQueryFilters([MemberRow.Asked]).Where(row => row.GroupId == group && row.AskedAt != null);

    /// <summary>What somebody is asked about guardians: to be one, or to have one; while whoever chose coordinates the group.</summary>
    public static IQueryable<GuardianRow> GuardiansAsked(this MortarDb db, PersonId person) =>
        db
            .Guardians.IgnoreQueryFilters([GuardianRow.Asked])
            .Where(row =>
                (
                    (row.WardId == person && row.WardAskedAt != null)
                    || (row.GuardianId == person && row.GuardianAskedAt != null)
                )
                && db.Members.Any(ward => ward.GroupId == row.GroupId && ward.PersonId == row.WardId)
                && db.Members.Any(by => by.GroupId == row.GroupId && by.PersonId == row.ChosenBy && by.Coordinates)
            );

    /// <summary>Where somebody has a guardian, or is one.</summary>
    public static IQueryable<GuardianRow> GuardianshipsOf(this MortarDb db, PersonId person) =>
        db.Guardians.Where(row =>
            (row.WardId == person || row.GuardianId == person)
            && db.Members.Any(ward => ward.GroupId == row.GroupId && ward.PersonId == row.WardId)
        );

    /// <summary>The guardians in a group, also those whose yes, or whose ward's, is waited for.</summary>
    public static IQueryable<GuardianRow> GuardiansIn(this MortarDb db, GroupId group) =>
        db.Guardians.IgnoreQueryFilters([GuardianRow.Asked]).Where(row => row.GroupId == group);

    /// <summary>The refusal for somebody who does not coordinate a group; <c>null</c> for who does.</summary>
    public static async Task<Refusal?> WhyNotKeep(
        this MortarDb db,
        PersonId person,
        GroupId groupId,
        CancellationToken cancellationToken
    )
    {
        var me = await db
            .Members.AsNoTracking()
            .FirstOrDefaultAsync(member => member.GroupId == groupId && member.PersonId == person, cancellationToken);
        return MemberRules.ToKeep(me is not null, me?.Coordinates == true).WhyNotOfGroup();
    }
}
