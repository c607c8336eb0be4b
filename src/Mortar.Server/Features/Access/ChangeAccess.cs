using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>PUT and DELETE /api/calendars/{id}/access/{personId}: another step for one person, or none; /take-over for what is left.</summary>
internal static class ChangeAccess
{
    /// <param name="LastDay">The last day it holds, on the calendar's clock; <c>null</c> for no end.</param>
    internal sealed record Body(Role Role, LocalDate? LastDay = null);

    internal static void Map(RouteGroupBuilder calendar)
    {
        calendar.MapPut("/access/{personId:guid}", Put).WithName(nameof(ChangeAccess));
        calendar.MapDelete("/access/{personId:guid}", End).WithName("EndAccess");
        calendar.MapPost("/take-over", TakeOver).WithName("TakeOverCalendar");
    }

    /// <summary>Of a calendar that nobody of its group coordinates any more, by somebody who coordinates the group.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> TakeOver(
        CalendarId calendarId,
        Acting acting,
        GrantCommands grants,
        CancellationToken cancellationToken
    ) => grants.TakeOver(acting.Act, calendarId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Put(
        CalendarId calendarId,
        PersonId personId,
        Body body,
        Acting acting,
        GrantCommands grants,
        CancellationToken cancellationToken
    ) => grants.Set(acting.Act, calendarId, personId, body.Role, body.LastDay, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        CalendarId calendarId,
        PersonId personId,
        Acting acting,
        GrantCommands grants,
        CancellationToken cancellationToken
    ) => grants.End(acting.Act, calendarId, personId, cancellationToken).Answer();
}
