using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Events;

/// <summary>GET /api/events/{eventId}/history: who changed it when, newest first; from the step View on.</summary>
internal static class EventHistory
{
    private const int Most = 100;

    /// <param name="By">Who did it.</param>
    /// <param name="What">What they did, as words that follow the name.</param>
    internal sealed record Entry(Instant At, string By, IReadOnlyList<string> What);

    public static void Map(RouteGroupBuilder events) => events.MapGet("/history", Read).WithName("ReadEventHistory");

    private static async Task<Results<Ok<IReadOnlyList<Entry>>, ProblemHttpResult>> Read(
        EventId eventId,
        Acting acting,
        MortarDb db,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var row = await db
            .Events.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Id == eventId && one.DeletedAt == null, cancellationToken);
        var standings = await db.StandingsOf(acting.Person, cancellationToken);
        if (
            row is null
            || await db.IsGone(row, Role(row.CalendarId), cancellationToken)
            || !VisibleEvent.IsThere(Role(row.CalendarId), acting.Person, row.ToCore())
        )
        {
            return Problems.NotThere("event");
        }

        if (!Sees(row.ToCore()))
        {
            return Verdict.Denied.WhyNot("calendar", "View").Problem()!;
        }

        var zone = await db.ZoneOf(acting.Person, clock, cancellationToken);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where change.Subject == Subject.Event && change.SubjectId == eventId.Value
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new { change, actor.Name }
        )
            .Take(Most)
            .ToListAsync(cancellationToken);
        return TypedResults.Ok<IReadOnlyList<Entry>>([
            .. from one in changes
            let before = one.change.EventBefore()
            let after = one.change.EventAfter()

            // What it was while it was not shared with the reader, or was private, stays so.
            where (before is null || Sees(before)) && (after is null || Sees(after))
            select new Entry(
                one.change.At,
                one.Name,
                before is null && one.change.Before is not null
                    ? [EventDifference.BroughtBack]
                    : EventDifference.Between(Known(before), Known(after), zone, clock)
            ),
        ]);

        Event? Known(Event? state) =>
            state is null ? null : VisibleEvent.Known(Role(state.CalendarId), acting.Person, state);

        bool Sees(Event state) => VisibleEvent.SeesEverything(Role(state.CalendarId), acting.Person, state);

        Core.Access.Role Role(CalendarId calendar) => standings.GetValueOrDefault(calendar, Standing.Outside).Role;
    }
}
