using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Availability;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Proposals;
using Mortar.Data.Store;

namespace Mortar.Data.Undo;

/// <summary>Why one thing cannot be brought back by somebody; what they may do, Core decides.</summary>
internal sealed class UndoChecks(MortarDb db, ZoneClock zones)
{
    /// <summary>The refusal; <c>null</c> where they may.</summary>
    /// <param name="actor">Who undoes.</param>
    /// <param name="row">The thing as it is.</param>
    /// <param name="then">As it would be; <c>null</c> where it would not be there.</param>
    /// <param name="standings">Where the actor stands now with the calendars there are, and those in the bin.</param>
    /// <param name="vanishing">The events that were made by the same act: what was said to them goes with them.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Refusal?> WhyNot(
        PersonId actor,
        IRecorded row,
        IRecorded? then,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        IReadOnlySet<EventId> vanishing,
        CancellationToken cancellationToken
    )
    {
        switch (row)
        {
            case EventRow one:
                var before = (EventRow?)then;
                return UndoRules
                    .OfEvent(
                        actor,
                        one.ToCore(),
                        before?.ToCore(),
                        one.DeletedAt is not null,
                        before?.DeletedAt is not null,
                        calendar => StandingOn(calendar).Role
                    )
                    .WhyNot("change", "Edit");
            case GrantRow one:
                return await WhyNotGive(one.CalendarId, ((GrantRow?)then)?.ToCore());
            case GroupGrantRow one:
                return await WhyNotGive(
                    one.CalendarId,
                    then is GroupGrantRow all ? new Grant(all.Role, Way.Group, all.EndsAt) : null
                );
            case LinkRow one:
                return await WhyNotGive(
                    one.CalendarId,
                    then is LinkRow { EndedAt: null } link ? new Grant(link.Role, Way.Link, link.EndsAt) : null
                );
            case CalendarRow one:
                return await WhyNotGive(
                    one.Id,
                    then is CalendarRow settings && settings.GroupDefault > one.GroupDefault
                        ? new Grant(settings.GroupDefault, Way.Default)
                        : null
                );
            case MemberRow one:
                var me = await PlaceOf(actor, one.GroupId, cancellationToken);
                return UndoRules
                    .OfPlace(
                        one.PersonId == actor,
                        me is not null,
                        me?.Coordinates == true,
                        ((MemberRow?)then)?.Place() ?? MemberPlace.Outside
                    )
                    .WhyNotOfGroup();
            case GuardianRow one:
                var keeper = await PlaceOf(actor, one.GroupId, cancellationToken);
                return UndoRules
                    .OfPlace(
                        one.WardId == actor || one.GuardianId == actor,
                        keeper is not null,
                        keeper?.Coordinates == true,
                        ((GuardianRow?)then)?.Place() ?? MemberPlace.Outside
                    )
                    .WhyNotOfGroup();
            case GuestRow one:
                // Anybody in the group names guests; who takes one out wrote them, or coordinates it.
                var namer = await PlaceOf(actor, one.GroupId, cancellationToken);
                return MemberRules
                    .ToKeep(
                        namer is not null,
                        namer?.Coordinates == true || one.AddedBy == actor || then is GuestRow { EndedAt: null }
                    )
                    .WhyNotOfGroup();
            case GroupRow one:
                return await db.WhyNotKeep(actor, one.Id, cancellationToken);
            case ProposalRow one:
                return ProposalRules
                    .ToSettle(StandingOn(one.CalendarId).Role, actor, one.ProposedBy)
                    .WhyNot("change", "Edit");
            case FineClashRow one:
                return AccessRules.ToAdd(StandingOn(one.CalendarId).Role).WhyNot("change", "Add");
            case AnswerRow one when vanishing.Contains(one.EventId):
                return null;
            case AnswerRow one:
                return
                    await db.WhyNotAnswer(
                        actor,
                        one.EventId,
                        one.PersonId,
                        AnswerRow.OnlyOf(one.Only),
                        zones,
                        cancellationToken
                    )
                        is { } no
                    ? no
                    : null;
            case SuitingsRow one:
                return await db.WhyNotSaySuits(actor, one.ProposalId, one.PersonId, cancellationToken) is { } over
                    ? over
                    : null;
            default:
                return null; // what its calendar needs was looked at before
        }

        Standing StandingOn(CalendarId calendar) => standings.GetValueOrDefault(calendar, Standing.Outside);

        async Task<Refusal?> WhyNotGive(CalendarId calendar, Grant? wish)
        {
            var standing = StandingOn(calendar);
            if (wish is not { } grant || Giving.MayGive(standing, grant, db.Now))
            {
                return AccessRules.ToCoordinate(standing.Role).WhyNot("change", "Coordinate");
            }

            return AccessRules.ToCoordinate(standing.Role).WhyNot("change", "Coordinate")
                ?? await db.WhyNotGive(actor, calendar, grant, zones, cancellationToken);
        }
    }

    /// <summary>What was taken back must not leave a calendar or a group without anybody who keeps it. Asked of the store once all is written.</summary>
    public async Task<Refusal?> WhyNotLeft(IReadOnlyList<UndoPlan.Return> returns, CancellationToken cancellationToken)
    {
        var grants = returns.Where(one => one.Subject == Subject.Grant).Select(one => one.SubjectId).ToList();
        var calendars = await db
            .Grants.Where(grant => grants.Contains(grant.Id))
            .Select(grant => grant.CalendarId)
            .Distinct()
            .ToListAsync(cancellationToken);
        foreach (var calendar in calendars)
        {
            // A calendar that is not there any more needs nobody.
            var own = await db
                .Grants.AsNoTracking()
                .Where(grant =>
                    grant.CalendarId == calendar
                    && grant.Role != Role.None
                    && db.Calendars.Any(row => row.Id == calendar && row.DeletedAt == null)
                )
                .ToListAsync(cancellationToken);
            if (own.Count > 0 && !Coordinators.Stay(own.Select(grant => grant.ToCore())))
            {
                return new Refusal.AgainstRule(
                    "last-coordinator",
                    "A calendar keeps at least one coordinator. Make somebody else one first."
                );
            }
        }

        var places = returns.Where(one => one.Subject == Subject.Member).Select(one => one.SubjectId).ToList();
        var groups = await db
            .Members.IgnoreQueryFilters()
            .Where(member => places.Contains(member.Id))
            .Select(member => member.GroupId)
            .Distinct()
            .ToListAsync(cancellationToken);
        foreach (var group in groups)
        {
            if (!await db.Members.AnyAsync(member => member.GroupId == group && member.Coordinates, cancellationToken))
            {
                return new Refusal.AgainstRule(
                    "last-coordinator",
                    "A group keeps at least one coordinator. Make somebody else one first."
                );
            }
        }

        return null;
    }

    private Task<MemberRow?> PlaceOf(PersonId person, GroupId group, CancellationToken cancellationToken) =>
        db
            .Members.AsNoTracking()
            .FirstOrDefaultAsync(member => member.GroupId == group && member.PersonId == person, cancellationToken);
}
