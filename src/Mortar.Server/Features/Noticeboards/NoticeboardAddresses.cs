using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>/api/groups/{id}/noticeboards/address and /open: whether a name can be had as it is typed, and which lead somewhere.</summary>
internal static class NoticeboardAddresses
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/groups/{groupId:guid}/noticeboards/address", Look)
            .WithName("CheckNoticeboardAddress")
            .RequireRateLimiting(RateLimits.Searching);
        api.MapGet("/groups/{groupId:guid}/noticeboards/open", ListOpen).WithName("ListOpenNoticeboards");
    }

    /// <summary>What the world reads of a group's calendars, told to its members: they need not be sent what anybody can read.</summary>
    private static async Task<Results<Ok<List<NoticeboardsSetup.OpenBody>>, ProblemHttpResult>> ListOpen(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        PublicLinks links,
        CancellationToken cancellationToken
    )
    {
        if (!await db.PlaceIn(groupId, acting.Person).AnyAsync(cancellationToken))
        {
            return Problems.NotThere("group");
        }

        var open = new List<NoticeboardsSetup.OpenBody>();
        foreach (
            var row in await db
                .Noticeboards.AsNoTracking()
                .Where(row => row.GroupId == groupId && row.EndedAt == null && row.State == BoardState.Open)
                .OrderBy(row => row.Id)
                .ToListAsync(cancellationToken)
        )
        {
            // One whose address is drawn by lot is for whom its keeper tells it.
            if (!ShortAddress.IsDrawn(row.Address) && await db.IsRead(row, cancellationToken))
            {
                open.Add(new NoticeboardsSetup.OpenBody(row.ToCore().Title, links.Noticeboard(row.Address)));
            }
        }

        return TypedResults.Ok(open);
    }

    /// <summary>Whether a name can be had as it is being typed, and which can.</summary>
    private static async Task<Results<Ok<NameBody>, ProblemHttpResult>> Look(
        GroupId groupId,
        string? name,
        string? title,
        Guid? noticeboardId,
        Acting acting,
        MortarDb db,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var group = await db
            .Groups.Where(row =>
                row.Id == groupId
                && row.DeletedAt == null
                && db.Members.Any(member => member.GroupId == groupId && member.PersonId == acting.Person)
            )
            .Select(row => row.Name)
            .FirstOrDefaultAsync(cancellationToken);
        if (group is null)
        {
            return Problems.NotThere("group");
        }

        return TypedResults.Ok(
            await NameBody.Of(
                db,
                NoticeboardRow.AddressSpace,
                noticeboardId ?? Guid.Empty,
                name,
                title,
                group,
                clock.GetCurrentInstant().InUtc().Year,
                cancellationToken
            )
        );
    }
}
