using Microsoft.EntityFrameworkCore;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Makes groups.</summary>
public sealed class GroupCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Makes a group and makes its maker its coordinator. Doing so twice with one id makes it once.</summary>
    public Task<Outcome<GroupRow>> Create(
        Act act,
        GroupId id,
        GroupSettings given,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupRow>(
            act,
            async () =>
            {
                if (await db.Groups.FindAsync([id], cancellationToken) is { } known)
                {
                    return await db.Members.AnyAsync(
                        member => member.GroupId == id && member.PersonId == act.Actor && member.Coordinates,
                        cancellationToken
                    )
                        ? new Outcome<GroupRow>.Done(known)
                        : new Outcome<GroupRow>.NotThere("group");
                }

                var (settings, problems) = GroupSettings.Check(given, zones);
                if (problems.Count > 0)
                {
                    return new Outcome<GroupRow>.Unfit(problems);
                }

                var row = new GroupRow
                {
                    Id = id,
                    Name = settings.Name,
                    Sort = settings.Sort,
                    Zone = settings.Zone,
                    FirstDay = settings.FirstDay,
                };
                db.Groups.Add(row);
                db.Members.Add(
                    new MemberRow
                    {
                        GroupId = id,
                        PersonId = act.Actor,
                        Coordinates = true,
                    }
                );
                return new Outcome<GroupRow>.Done(row);
            },
            cancellationToken
        );
}
