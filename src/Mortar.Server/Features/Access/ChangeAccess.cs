using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>PUT and DELETE /api/calendars/{id}/access/{personId}: another step for one person, or none.</summary>
internal static class ChangeAccess
{
    /// <param name="LastDay">The last day it holds, on the calendar's clock; <c>null</c> for no end.</param>
    internal sealed record Body(Role Role, LocalDate? LastDay = null);

    internal static void Map(RouteGroupBuilder calendar)
    {
        calendar.MapPut("/access/{personId:guid}", Put).WithName(nameof(ChangeAccess));
        calendar.MapDelete("/access/{personId:guid}", End).WithName("EndAccess");
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Put(
        Guid calendarId,
        Guid personId,
        Body body,
        Acting acting,
        AccessCommands access,
        CancellationToken cancellationToken
    ) =>
        access
            .SetRole(
                acting.Act,
                new CalendarId(calendarId),
                new PersonId(personId),
                body.Role,
                body.LastDay,
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        Guid calendarId,
        Guid personId,
        Acting acting,
        AccessCommands access,
        CancellationToken cancellationToken
    ) => access.End(acting.Act, new CalendarId(calendarId), new PersonId(personId), cancellationToken).Answer();
}
