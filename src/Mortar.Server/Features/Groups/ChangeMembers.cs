using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups/{id}/members: adding people, correcting, inviting again, coordinators, ends.</summary>
internal static class ChangeMembers
{
    /// <param name="Id">The new person's id, made by the client; or that of somebody with whom one shares another group.</param>
    internal sealed record NewBody(Guid Id, string Name, string? Address = null);

    internal sealed record AddBody(IReadOnlyList<NewBody> People);

    /// <param name="Added">How many names are in at once.</param>
    /// <param name="Asked">How many with accounts are asked, and are in once they say yes.</param>
    /// <param name="SaidNo">How many are left alone, since they said no not long ago.</param>
    internal sealed record AddedBody(int Added, int Asked, int SaidNo);

    /// <param name="Calendars">Calendars of which events could be left to them.</param>
    /// <param name="Alone">Calendars that nobody else of the group coordinates, which are handed on first.</param>
    internal sealed record EndingBody(IReadOnlyList<EndingCalendarBody> Calendars, IReadOnlyList<string> Alone);

    /// <param name="Events">How many of its events are given to them by themselves.</param>
    internal sealed record EndingCalendarBody(string CalendarName, int Events);

    internal sealed record CorrectBody(string Name, string? Address = null);

    internal sealed record CoordinatesBody(bool Coordinates);

    /// <param name="Guardians">All who are to see and answer for the member; who is not in it does so no longer.</param>
    internal sealed record GuardiansBody(IReadOnlyList<Guid> Guardians);

    internal static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/groups/{groupId:guid}/members");
        group.MapPut("/", Add).WithName("AddMembers");
        group.MapPut("/{personId:guid}", Correct).WithName("CorrectMember");
        group.MapPut("/{personId:guid}/coordinates", Coordinate).WithName("SetCoordinates");
        group.MapPut("/{personId:guid}/guardians", SetGuardians).WithName("SetGuardians");
        group.MapPost("/{personId:guid}/invite", Invite).WithName("InviteMember");
        group.MapDelete("/{personId:guid}", End).WithName("EndMembership");
        group.MapGet("/{personId:guid}/ending", ReadEnding).WithName("ReadEnding");
    }

    private static Task<Results<Ok<AddedBody>, ProblemHttpResult>> Add(
        GroupId groupId,
        AddBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) =>
        members
            .Add(
                acting.Act,
                groupId,
                [.. body.People.Select(one => new NewMember(new PersonId(one.Id), one.Name, one.Address))],
                cancellationToken
            )
            .Answer(arrived => Task.FromResult(new AddedBody(arrived.Named, arrived.Asked, arrived.SaidNo)));

    private static Task<Results<NoContent, ProblemHttpResult>> Correct(
        GroupId groupId,
        PersonId personId,
        CorrectBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) => members.Correct(acting.Act, groupId, personId, body.Name, body.Address, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Coordinate(
        GroupId groupId,
        PersonId personId,
        CoordinatesBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) => members.SetCoordinates(acting.Act, groupId, personId, body.Coordinates, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> SetGuardians(
        GroupId groupId,
        PersonId personId,
        GuardiansBody body,
        Acting acting,
        GuardianCommands guardians,
        CancellationToken cancellationToken
    ) =>
        guardians
            .Set(acting.Act, groupId, personId, [.. body.Guardians.Select(one => new PersonId(one))], cancellationToken)
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Invite(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) => members.InviteAgain(acting.Act, groupId, personId, cancellationToken).Answer();

    /// <param name="leavesEvents">Whether events given to them by themselves stay theirs, of calendars that one coordinates.</param>
    /// <param name="handOnTo">Who coordinates from now on what they alone did.</param>
    private static Task<Results<NoContent, ProblemHttpResult>> End(
        GroupId groupId,
        PersonId personId,
        [FromQuery] bool? leavesEvents,
        [FromQuery] Guid? handOnTo,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) =>
        members
            .End(
                acting.Act,
                groupId,
                personId,
                leavesEvents == true,
                handOnTo is { } next ? new PersonId(next) : null,
                cancellationToken
            )
            .Answer();

    /// <summary>
    /// What somebody who goes has to hand on, told to themselves and to coordinators of the group; and what those could leave
    /// them: events given to them by themselves, of calendars that one coordinates.
    /// </summary>
    private static async Task<Results<Ok<EndingBody>, ProblemHttpResult>> ReadEnding(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var isOwn =
            personId == acting.Person
            && await db.Members.AnyAsync(
                member => member.GroupId == groupId && member.PersonId == personId,
                cancellationToken
            );
        if (!isOwn && await db.WhyNotKeep(acting.Person, groupId, cancellationToken) is { } refusal)
        {
            return Problems.Of(refusal);
        }

        var alone = (await db.KeepersIn(groupId, cancellationToken))
            .Where(one => one.IsLeftBy(personId))
            .Select(one => one.Name)
            .ToList();
        if (isOwn)
        {
            return TypedResults.Ok(new EndingBody([], alone));
        }

        var mine = await db.StandingsOf(acting.Person, cancellationToken);
        var calendars = await db
            .Calendars.Where(row => row.GroupId == groupId && row.DeletedAt == null)
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        var coordinated = calendars
            .Keys.Where(id =>
                AccessRules.ToCoordinate(mine.GetValueOrDefault(id, Standing.Outside).Role) == Verdict.Granted
            )
            .ToList();
        var own = await db
            .Grants.Where(grant => grant.PersonId == personId && grant.Role != Role.None)
            .Select(grant => grant.CalendarId)
            .ToHashSetAsync(cancellationToken);
        var given = await db.GivenAlone(coordinated, (calendar, _) => own.Contains(calendar), cancellationToken);
        return TypedResults.Ok(
            new EndingBody(
                [.. given[personId].Select(one => new EndingCalendarBody(calendars[one.Calendar], one.Events))],
                alone
            )
        );
    }
}
