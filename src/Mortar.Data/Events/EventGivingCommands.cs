using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>Hands one event on: to another organizer, or to be changed by people named on it.</summary>
public sealed class EventGivingCommands(MortarDb db)
{
    /// <summary>Hands an event to another organizer, who may change it from then on as what they added.</summary>
    public Task<Outcome<EventRow>> HandOver(
        Act act,
        EventId id,
        PersonId to,
        int? version,
        CancellationToken cancellationToken
    ) =>
        Give(
            act,
            id,
            version,
            async row =>
            {
                if (!AccessRules.CanOrganize((await db.StandingOf(to, row.CalendarId, cancellationToken)).Role))
                {
                    return new FieldProblem(
                        "personId",
                        "An organizer needs the step Add on this calendar. Give it to them first."
                    );
                }

                row.AddedBy = to;
                return null;
            },
            cancellationToken
        );

    /// <summary>Lets just these people, named on the event, change it without having its calendar.</summary>
    public Task<Outcome<EventRow>> LetChange(
        Act act,
        EventId id,
        IReadOnlyCollection<PersonId> people,
        int? version,
        CancellationToken cancellationToken
    ) =>
        Give(
            act,
            id,
            version,
            row =>
            {
                if (people.Except(row.ToCore().Named).Any())
                {
                    return Task.FromResult<FieldProblem?>(
                        new FieldProblem(
                            "personIds",
                            "Only who is named on an event can change it by themselves. Name them on it first."
                        )
                    );
                }

                row.Editors = EventRow.FromAttendees(Attendees.Of(people));
                return Task.FromResult<FieldProblem?>(null);
            },
            cancellationToken
        );

    private Task<Outcome<EventRow>> Give(
        Act act,
        EventId id,
        int? version,
        Func<EventRow, Task<FieldProblem?>> give,
        CancellationToken cancellationToken
    ) =>
        db.Write<EventRow>(
            act,
            async () =>
            {
                if (await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
                {
                    return await db.NoEvent(act.Actor, cancellationToken);
                }

                if (await db.WhyNotGiveAway(act.Actor, row, version, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                return await give(row) is { } problem ? new Refusal.Unfit([problem]) : row;
            },
            cancellationToken
        );
}
