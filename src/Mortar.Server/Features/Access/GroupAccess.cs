using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>PUT and DELETE /api/calendars/{id}/group-access/{groupId}: a step for everybody in a group, or none.</summary>
internal static class GroupAccess
{
    /// <param name="LastDay">The last day it holds, on the calendar's clock; <c>null</c> for no end.</param>
    internal sealed record Body(Role Role, LocalDate? LastDay = null);

    internal static void Map(RouteGroupBuilder calendar)
    {
        calendar.MapPut("/group-access/{groupId:guid}", Put).WithName("GiveGroupAccess");
        calendar.MapDelete("/group-access/{groupId:guid}", End).WithName("EndGroupAccess");
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Put(
        CalendarId calendarId,
        GroupId groupId,
        Body body,
        Acting acting,
        GroupAccessCommands access,
        CancellationToken cancellationToken
    ) => access.Give(acting.Act, calendarId, groupId, body.Role, body.LastDay, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        CalendarId calendarId,
        GroupId groupId,
        Acting acting,
        GroupAccessCommands access,
        CancellationToken cancellationToken
    ) => access.End(acting.Act, calendarId, groupId, cancellationToken).Answer();
}
