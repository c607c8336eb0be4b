using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Links;
using Mortar.Data.People;
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
        IReadOnlyList<GroupBody> Groups,
        IReadOnlyList<InvitationBody> Invitations,
        IReadOnlyList<LinkBody> Links,
        Role GroupDefault,
        int Members
    );

    /// <param name="Role">The step that was given to them.</param>
    /// <param name="Stays">The step that stays where that ends, as <see cref="Standing.Stays"/>; the higher counts.</param>
    /// <param name="LastDay">The last day it holds; <c>null</c> where it has no end.</param>
    internal sealed record PersonBody(
        Guid PersonId,
        string Name,
        ToldAddress? Address,
        Role Role,
        Role Stays,
        LocalDate? LastDay
    );

    /// <summary>A whole group that was given a step, with the number of those it reaches now.</summary>
    internal sealed record GroupBody(Guid GroupId, string Name, int Members, Role Role, LocalDate? LastDay);

    /// <summary>A link that leads somewhere. Its secret is not kept, and so not told.</summary>
    /// <param name="EventTitle">The one event it gives out; <c>null</c> for the whole calendar.</param>
    /// <param name="Holders">How many have the calendar on their wall by it.</param>
    internal sealed record LinkBody(
        Guid LinkId,
        string Name,
        Role Role,
        Guid? EventId,
        string? EventTitle,
        int? MostUses,
        int Uses,
        int Holders,
        LocalDate? LastDay
    );

    /// <param name="Lapsed">Whether it waits and leads nowhere, since whoever sent it can no longer give this; sent again it does.</param>
    /// <param name="Name">Their name, where they share a group with the reader; an address alone is no way to find out a name.</param>
    internal sealed record InvitationBody(
        Guid Id,
        ToldAddress Address,
        string? Name,
        Role Role,
        InvitationState State,
        bool Lapsed,
        Instant SentAt
    );

    internal static void Map(RouteGroupBuilder calendar) =>
        calendar.MapGet("/access", Handle).WithName(nameof(ListAccess));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await db.WhyNotCoordinate(acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var now = db.Now;
        var calendar = await db.Calendars.SingleAsync(one => one.Id == calendarId, cancellationToken);
        var zone = zones.Zone(calendar.Zone);
        var people = await (
            from grant in db.Grants.CountingAt(now)
            where grant.CalendarId == calendarId
            join person in db.People on grant.PersonId equals person.Id
            orderby person.Name
            select new
            {
                person.Id,
                person.Name,
                grant.Role,
                grant.EndsAt,
            }
        ).ToListAsync(cancellationToken);
        var standings = await db.StandingsOn([calendarId], cancellationToken);
        var addresses = await db.AddressesKnownTo(acting.Person, [calendarId], cancellationToken);
        var groups = await (
            from grant in db.GroupGrants.CountingAt(now)
            where grant.CalendarId == calendarId
            join row in db.Groups on grant.GroupId equals row.Id
            orderby row.Name
            select new
            {
                row.Id,
                row.Name,
                Members = db.Members.Count(member => member.GroupId == row.Id),
                grant.Role,
                grant.EndsAt,
            }
        ).ToListAsync(cancellationToken);
        var standing = db.StandingInvitations().Select(row => row.Id);
        var invitations =
            from invitation in db.Invitations
            where
                invitation.CalendarId == calendarId
                && (invitation.State == InvitationState.Waiting || invitation.State == InvitationState.Declined)
            orderby invitation.SentAt descending
            join person in db.KnownTo(acting.Person) on invitation.PersonId equals person.Id into known
            from person in known.DefaultIfEmpty()
            select new InvitationBody(
                invitation.Id.Value,
                ToldAddress.AsWritten(invitation.Address),
                person == null ? null : person.Name,
                invitation.Role,
                invitation.State,
                invitation.State == InvitationState.Waiting && !standing.Contains(invitation.Id),
                invitation.SentAt
            );
        var links = await (
            from link in db.LeadingLinks().CountingAt(now).AsNoTracking()
            where link.CalendarId == calendarId
            join row in db.Events on link.EventId equals row.Id into rows
            from row in rows.DefaultIfEmpty()
            orderby link.Name
            select new
            {
                link,
                Title = row == null ? null : row.Title,
                Holders = db.LinkHolders.Count(holder => holder.LinkId == link.Id && holder.LeftAt == null),
            }
        ).ToListAsync(cancellationToken);
        var members =
            calendar.GroupDefault == Role.None
                ? 0
                : await db.Members.CountAsync(member => member.GroupId == calendar.GroupId, cancellationToken);
        return TypedResults.Ok(
            new Body(
                [
                    .. people.Select(one => new PersonBody(
                        one.Id.Value,
                        one.Name,
                        addresses.GetValueOrDefault(one.Id),
                        one.Role,
                        standings.GetValueOrDefault((calendarId, one.Id), Standing.Outside).Stays,
                        LastDay(one.EndsAt)
                    )),
                ],
                [
                    .. groups.Select(one => new GroupBody(
                        one.Id.Value,
                        one.Name,
                        one.Members,
                        one.Role,
                        LastDay(one.EndsAt)
                    )),
                ],
                await invitations.ToListAsync(cancellationToken),
                links.ConvertAll(one => new LinkBody(
                    one.link.Id.Value,
                    one.link.Name,
                    one.link.Role,
                    one.link.EventId?.Value,
                    one.Title,
                    one.link.MostUses,
                    one.link.Uses,
                    one.Holders,
                    LastDay(one.link.EndsAt)
                )),
                calendar.GroupDefault,
                members
            )
        );

        LocalDate? LastDay(Instant? endsAt) => endsAt is { } end ? AccessEnd.LastDay(end, zone) : null;
    }

    /// <summary>The problem for somebody who does not coordinate the calendar; <c>null</c> for who does.</summary>
    internal static async Task<ProblemHttpResult?> WhyNotCoordinate(
        this MortarDb db,
        PersonId person,
        CalendarId id,
        CancellationToken cancellationToken
    ) =>
        AccessRules
            .ToCoordinate((await db.StandingOf(person, id, cancellationToken)).Role)
            .WhyNot("calendar", "Coordinate")
            .Problem();
}
