using Microsoft.EntityFrameworkCore;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>Makes, changes, moves and deletes events: finds what <see cref="EventWriting"/> decides of, and writes down what it decided.</summary>
public sealed class EventCommands(MortarDb db, ZoneClock zones)
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

    /// <summary>Puts an event in the bin, or takes an occurrence or all from one on out of its series.</summary>
    public Task<Outcome<EventRow>> Delete(
        Act act,
        EventId id,
        LocalDateTime? key,
        Reach reach,
        int? version,
        CancellationToken cancellationToken
    ) =>
        db.Write(
            act,
            async () =>
            {
                if (await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
                {
                    return await db.NoEvent(act.Actor, cancellationToken);
                }

                var writer = await db.ReaderOf(act.Actor, cancellationToken);
                var home = await db.Reached(writer, row.CalendarId, row, cancellationToken);
                return Apply(
                    row,
                    EventWriting.Delete(
                        writer,
                        await db.Stored(row, writer, cancellationToken),
                        key,
                        reach,
                        version,
                        home?.ToCore([], hasCopy: false),
                        NewId(),
                        zones
                    )
                );
            },
            cancellationToken
        );

    /// <summary>Under the write lock of the one who calls.</summary>
    internal async Task<Outcome<EventRow>> Create(
        Act act,
        EventId id,
        EventWish wish,
        CancellationToken cancellationToken
    )
    {
        var writer = await db.ReaderOf(act.Actor, cancellationToken);
        if (wish.Version is not null)
        {
            // As long as where there is one that is hidden.
            _ = await db.StoredOrNone(row: null, writer, cancellationToken);
        }

        var into = await db.Reached(writer, wish.CalendarId, row: null, cancellationToken);
        var decided = EventWriting.Create(
            writer,
            id,
            wish,
            await db.Wished(into, wish.NewlyNamed(null), row: null, cancellationToken),
            NewId(),
            zones
        );
        if (decided is not Outcome<EventEdit>.Done { Value: EventEdit.Done made })
        {
            return decided.WhyNot;
        }

        var row = Row(made.Event);
        db.Events.Add(row);
        var done = Apply(row, decided);
        return await db.WhyTaken(act.Actor, into!, [row], zones, cancellationToken) ?? done;
    }

    private async Task<Outcome<EventRow>> Change(
        Act act,
        EventRow row,
        EventWish wish,
        CancellationToken cancellationToken
    )
    {
        var writer = await db.ReaderOf(act.Actor, cancellationToken);
        var into = await db.Reached(writer, wish.CalendarId, row, cancellationToken);
        var done = Apply(
            row,
            EventWriting.Change(
                writer,
                await db.Stored(row, writer, cancellationToken),
                wish,
                await db.Wished(into, wish.NewlyNamed(row.ToCore()), row, cancellationToken),
                NewId(),
                zones
            )
        );
        if (done is not Outcome<EventRow>.Done)
        {
            return done;
        }

        var parted = db.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity);
        return await db.WhyTaken(act.Actor, into!, [.. parted], zones, cancellationToken) ?? done;
    }

    /// <summary>What would be changed if the wish reached so far or further; nothing is written.</summary>
    public async Task<Outcome<IReadOnlyList<ReachPreview>>> Preview(
        Act act,
        EventId id,
        EventWish wish,
        bool isDeletion,
        CancellationToken cancellationToken
    )
    {
        var row = await db.Events.AsNoTracking().FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
        var writer = await db.ReaderOf(act.Actor, cancellationToken);
        var stored = await db.StoredOrNone(row, writer, cancellationToken);
        var home = await db.Reached(writer, row?.CalendarId ?? default, row, cancellationToken);
        return EventWriting.Preview(
            writer,
            stored,
            wish,
            isDeletion,
            await db.Wished(home, wish.NewlyNamed(row?.ToCore()), row, cancellationToken),
            zones
        );
    }

    /// <summary>
    /// What another time or rule would come to for the whole of an event, there already or not; nothing is written. A new one
    /// lives in the zone of its calendar.
    /// </summary>
    /// <param name="act">By whom.</param>
    /// <param name="id">The event; an id that is not there for one that is being made.</param>
    /// <param name="calendar">The calendar it goes to.</param>
    /// <param name="key">The start by which the series counts the occurrence in question.</param>
    /// <param name="time">When that is to be.</param>
    /// <param name="rule">The rule as text; <c>null</c> for as before.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Outcome<RulePreview>> PreviewRule(
        Act act,
        EventId id,
        CalendarId calendar,
        LocalDateTime? key,
        EventTime time,
        string? rule,
        CancellationToken cancellationToken
    )
    {
        var row = await db.Events.AsNoTracking().FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
        var writer = await db.ReaderOf(act.Actor, cancellationToken);
        var stored = await db.StoredOrNone(row, writer, cancellationToken);
        var into = await db.Reached(writer, calendar, row: null, cancellationToken);
        return EventWriting.PreviewRule(writer, stored, id, into?.ToCore([], hasCopy: false), key, time, rule, zones);
    }

    private static EventId NewId() => new(Guid.CreateVersion7());

    private static EventRow Row(Event whole) =>
        new()
        {
            Id = whole.Id,
            CalendarId = whole.CalendarId,
            Uid = whole.Uid,
            AddedBy = whole.AddedBy,
        };

    /// <summary>Writes what was decided: the event, and the new one that a parted series has as its later part.</summary>
    /// <returns>The row that what one meant is in now.</returns>
    private Outcome<EventRow> Apply(EventRow row, Outcome<EventEdit> decided)
    {
        switch (decided)
        {
            case Outcome<EventEdit>.Done { Value: EventEdit.Done done }:
                row.CalendarId = done.Event.CalendarId;
                row.Apply(done.Event, zones);
                if (done.Later is not { } second)
                {
                    return row;
                }

                var later = Row(second);
                later.Apply(second, zones);
                db.Events.Add(later);
                return later;
            case Outcome<EventEdit>.Done:
                row.DeletedAt = db.Now;
                return row;
            case Outcome<EventEdit>.Stale:
                return new Outcome<EventRow>.Stale(row);
            default:
                return decided.WhyNot;
        }
    }
}
