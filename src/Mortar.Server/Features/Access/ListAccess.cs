using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>GET /api/calendars/{id}/access: who has access and who is invited, for coordinators.</summary>
internal static class ListAccess
{
    /// <param name="Members">How many have the group's default; 0 where there is none.</param>
    internal sealed record Body(
        IReadOnlyList<PersonBody> People,
        IReadOnlyList<InvitationBody> Invitations,
        Role GroupDefault,
        int Members
    );

    internal sealed record PersonBody(Guid PersonId, string Name, string? Address, Role Role);

    /// <param name="Name">Their name, where they share a group with the reader; an address alone is no way to find out a name.</param>
    internal sealed record InvitationBody(
        Guid Id,
        string Address,
        string? Name,
        Role Role,
        InvitationState State,
        Instant SentAt
    );

    internal static void Map(RouteGroupBuilder calendar) =>
        calendar.MapGet("/access", Handle).WithName(nameof(ListAccess));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        Guid calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var id = new CalendarId(calendarId);
        if (await db.WhyNotCoordinate(acting.Person, id, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var people =
            from grant in db.Grants
            where grant.CalendarId == id && grant.Role != Role.None
            join person in db.People on grant.PersonId equals person.Id
            orderby person.Name
            select new PersonBody(person.Id.Value, person.Name, person.Address, grant.Role);
        var invitations =
            from invitation in db.Invitations
            where
                invitation.CalendarId == id
                && (invitation.State == InvitationState.Waiting || invitation.State == InvitationState.Declined)
            orderby invitation.SentAt descending
            join person in db.KnownTo(acting.Person) on invitation.PersonId equals person.Id into known
            from person in known.DefaultIfEmpty()
            select new InvitationBody(
                invitation.Id.Value,
                invitation.Address,
                person == null ? null : person.Name,
                invitation.Role,
                invitation.State,
                invitation.SentAt
            );
        var calendar = await db.Calendars.SingleAsync(one => one.Id == id, cancellationToken);
        var members =
            calendar.GroupDefault == Role.None
                ? 0
                : await db.Members.CountAsync(member => member.GroupId == calendar.GroupId, cancellationToken);
        return TypedResults.Ok(
            new Body(
                await people.ToListAsync(cancellationToken),
                await invitations.ToListAsync(cancellationToken),
                calendar.GroupDefault,
                members
            )
        );
    }

    /// <summary>The problem for somebody who does not coordinate the calendar; <c>null</c> for who does.</summary>
    internal static async Task<ProblemHttpResult?> WhyNotCoordinate(
        this MortarDb db,
        PersonId person,
        CalendarId id,
        CancellationToken cancellationToken
    ) => AccessRules.ToCoordinate((await db.StandingOf(person, id, cancellationToken)).Role).Refusal("Coordinate");
}
