using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>What somebody wants with an event.</summary>
/// <param name="CalendarId">The calendar it is to be in; another one than now moves it there.</param>
/// <param name="Draft">What it is to be.</param>
/// <param name="Only">The start of the one occurrence that is meant; <c>null</c> for a single event or the whole series.</param>
/// <param name="Version">The version the wish is based on; <c>null</c> to create.</param>
public sealed record EventWish(CalendarId CalendarId, EventDraft Draft, LocalDateTime? Only, int? Version);

/// <summary>Makes, changes, moves and deletes events.</summary>
public sealed class EventCommands(MortarDb db, ZoneClock zones, IClock clock)
{
    /// <summary>Makes the event where there is none of that id, and changes it otherwise.</summary>
    public Task<Outcome<EventRow>> Put(Act act, EventId id, EventWish wish, CancellationToken cancellationToken) =>
        db.Write(
            act,
            async () =>
                await db.Events.FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } known
                    ? await Change(act, known, wish, cancellationToken)
                    : await Create(act, id, wish, cancellationToken),
            cancellationToken
        );

    /// <summary>Puts an event in the bin, or leaves one occurrence out of its series.</summary>
    public Task<Outcome<EventRow>> Delete(
        Act act,
        EventId id,
        LocalDateTime? only,
        int? version,
        CancellationToken cancellationToken
    ) =>
        db.Write(
            act,
            async () =>
            {
                var row = await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                if (row is null)
                {
                    return new Outcome<EventRow>.NotThere("event");
                }

                if (await WhyNotChange(act, row, version, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (only is not { } start)
                {
                    row.DeletedAt = clock.GetCurrentInstant();
                    return new Outcome<EventRow>.Done(row);
                }

                var whole = row.ToCore();
                if (whole.Series is not { } series || !whole.CountsAt(start, zones))
                {
                    return new Outcome<EventRow>.NotThere("occurrence");
                }

                row.Take(whole.Time, whole.Content, series.Without(start), zones);
                return new Outcome<EventRow>.Done(row);
            },
            cancellationToken
        );

    private async Task<Outcome<EventRow>> Create(
        Act act,
        EventId id,
        EventWish wish,
        CancellationToken cancellationToken
    )
    {
        if (wish.Version is not null)
        {
            return new Outcome<EventRow>.NotThere("event");
        }

        if (await WhyNotAdd(act, wish.CalendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var check = wish.Draft.Check(zones);
        if (check is not DraftCheck.Fit fit)
        {
            return new Outcome<EventRow>.Unfit(((DraftCheck.Unfit)check).Problems);
        }

        var zone = await db
            .Calendars.Where(calendar => calendar.Id == wish.CalendarId)
            .Select(calendar => calendar.Zone)
            .SingleAsync(cancellationToken);
        var row = new EventRow
        {
            Id = id,
            CalendarId = wish.CalendarId,
            Uid = $"{id.Value}@mortar",
            AddedBy = act.Actor,
        };
        row.Take(zones.KeptIn(fit.Time, zone), fit.Content, series: null, zones);
        db.Events.Add(row);
        return new Outcome<EventRow>.Done(row);
    }

    private async Task<Outcome<EventRow>> Change(
        Act act,
        EventRow row,
        EventWish wish,
        CancellationToken cancellationToken
    )
    {
        if (
            wish.Version is null
            && row is { Version: 1, DeletedAt: null }
            && row.AddedBy == act.Actor
            && row.CalendarId == wish.CalendarId
        )
        {
            // The same creation sent again, because its first answer was lost on the way.
            return await WhyNotAdd(act, wish.CalendarId, cancellationToken) ?? new Outcome<EventRow>.Done(row);
        }

        if (await WhyNotChange(act, row, wish.Version, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (
            wish.CalendarId != row.CalendarId
            && await WhyNotMove(act, row, wish.CalendarId, cancellationToken) is { } noMove
        )
        {
            return noMove;
        }

        var check = wish.Draft.Check(zones);
        if (check is not DraftCheck.Fit fit)
        {
            return new Outcome<EventRow>.Unfit(((DraftCheck.Unfit)check).Problems);
        }

        var whole = row.ToCore();
        if (wish.Only is { } only)
        {
            if (whole.Series is not null && wish.CalendarId == row.CalendarId && !whole.CountsAt(only, zones))
            {
                return new Outcome<EventRow>.NotThere("occurrence");
            }

            if (whole.Series is not { } series || wish.CalendarId != row.CalendarId)
            {
                return new Outcome<EventRow>.Refused(
                    "not-one-of-a-series",
                    "Only the whole of this event can be changed like that."
                );
            }

            row.Take(
                whole.Time,
                whole.Content,
                series.With(new Override(only, zones.KeptIn(fit.Time, row.Zone), fit.Content)),
                zones
            );
            return new Outcome<EventRow>.Done(row);
        }

        var time = zones.KeptIn(fit.Time, row.Zone);
        var content = fit.Content with { Cancelled = row.Cancelled };
        if (whole.Series is not null)
        {
            switch (whole.Moved(null, time, content, zones))
            {
                case SeriesChange.Refused refused:
                    return new Outcome<EventRow>.Refused("series-time", refused.Sentence);
                case SeriesChange.Done moved:
                    row.CalendarId = wish.CalendarId;
                    row.Take(moved.Event.Time, moved.Event.Content, moved.Event.Series, zones);
                    return new Outcome<EventRow>.Done(row);
            }
        }

        row.CalendarId = wish.CalendarId;
        row.Take(time, content, series: null, zones);
        return new Outcome<EventRow>.Done(row);
    }

    private async Task<Outcome<EventRow>?> WhyNotAdd(
        Act act,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        AccessRules
            .ToAdd((await db.StandingOf(act.Actor, calendar, cancellationToken)).Role)
            .Refusal<EventRow>("calendar", "Add");

    /// <summary>Access first, so that neither a version nor a place in the bin is told to somebody for whom the event is not there.</summary>
    private async Task<Outcome<EventRow>?> WhyNotChange(
        Act act,
        EventRow row,
        int? version,
        CancellationToken cancellationToken
    )
    {
        var standing = await db.StandingOf(act.Actor, row.CalendarId, cancellationToken);
        if (
            AccessRules.ToChange(standing.Role, act.Actor, row.AddedBy).Refusal<EventRow>("event", "Edit") is
            { } refusal
        )
        {
            return refusal;
        }

        if (row.DeletedAt is not null)
        {
            return new Outcome<EventRow>.Refused(
                "in-bin",
                "This event was deleted in the meantime. Bring it back first."
            );
        }

        return version is null ? new Outcome<EventRow>.VersionNeeded()
            : version != row.Version ? new Outcome<EventRow>.Stale(row)
            : null;
    }

    private async Task<Outcome<EventRow>?> WhyNotMove(
        Act act,
        EventRow row,
        CalendarId to,
        CancellationToken cancellationToken
    )
    {
        if (await WhyNotAdd(act, to, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        return await db.Events.AnyAsync(
            one => one.CalendarId == to && one.Uid == row.Uid && one.DeletedAt == null,
            cancellationToken
        )
            ? new Outcome<EventRow>.Refused("already-there", "A copy of this event is in that calendar already.")
            : null;
    }
}
