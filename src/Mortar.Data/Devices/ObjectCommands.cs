using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Devices;

/// <summary>What a program sent, as it is to be kept.</summary>
/// <param name="Event">What the event is to be; <c>null</c> where nothing of it is another.</param>
/// <param name="Source">Its components, with all that other programs know of; <c>null</c> where it was made here.</param>
/// <param name="Alarms">The sender's own; <c>null</c> where they are those of the event.</param>
public sealed record ObjectWish(WholeWish? Event, string? Source, string? Alarms);

/// <summary>Where an event goes.</summary>
/// <param name="Name">Under which name it is found there.</param>
/// <param name="Replaced">What has that name, and goes for it; <c>null</c> for nothing.</param>
public sealed record MovedTo(string Name, EventId? Replaced);

/// <summary>Writes what calendar programs send, by the rules of everything that is written.</summary>
public sealed class ObjectCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>An event that is not there for its sender.</summary>
    /// <param name="act">Whose act.</param>
    /// <param name="calendar">Where it goes.</param>
    /// <param name="name">Under which name it is found there again.</param>
    /// <param name="uid">Its UID.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="replaced">What has that name, and goes for it; <c>null</c> for nothing.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<EventRow>> Create(
        Act act,
        CalendarId calendar,
        string name,
        string uid,
        ObjectWish wish,
        EventId? replaced,
        CancellationToken cancellationToken
    ) =>
        db.Write<EventRow>(
            act,
            async () =>
            {
                var writer = await db.ReaderOf(act.Actor, cancellationToken);
                if (await TakeOut(writer, replaced, cancellationToken) is { } stays)
                {
                    return stays;
                }

                var into = await db.Reached(writer, calendar, row: null, cancellationToken);
                var id = new EventId(Guid.CreateVersion7());
                var same = await db
                    .Events.AsNoTracking()
                    .FirstOrDefaultAsync(
                        row => row.CalendarId == calendar && row.Uid == uid && row.DeletedAt == null,
                        cancellationToken
                    );
                if (same is not null && VisibleEvent.IsThere(writer.RoleOn(calendar), act.Actor, same.ToCore()))
                {
                    return new Refusal.AgainstRule(
                        UidConflict,
                        "This event is in the calendar already, under another name."
                    );
                }

                var decided = WholeWriting.Create(
                    writer,
                    id,
                    // Of one that is hidden from its sender nothing is told, not even that it is there; what was sent keeps its own UID.
                    same is null
                        ? uid
                        : $"{id.Value}@mortar",
                    wish.Event!,
                    await db.Wished(into, wish.Event!.NewlyNamed(null), row: null, cancellationToken)
                );
                if (decided is not Outcome<Event>.Done made)
                {
                    return decided.WhyNot;
                }

                var row = new EventRow
                {
                    Id = id,
                    CalendarId = calendar,
                    Uid = made.Value.Uid,
                    AddedBy = made.Value.AddedBy,
                    Source = wish.Source,
                };
                row.Apply(made.Value, zones);
                db.Events.Add(row);
                if (await Name(writer, calendar, name, id, cancellationToken) is { } named)
                {
                    return new Outcome<EventRow>.Stale(named);
                }

                await SetAlarms(act.Actor, id, wish.Alarms, cancellationToken);
                return await db.WhyTaken(act.Actor, into!, [row], zones, cancellationToken) is { } why ? why : row;
            },
            cancellationToken
        );

    /// <summary>An event that is there, as its sender saw it; also where it is to go to another calendar.</summary>
    /// <param name="act">Whose act.</param>
    /// <param name="id">Which.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="moved">Where it goes to another calendar or name; <c>null</c> where it stays.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<EventRow>> Change(
        Act act,
        EventId id,
        ObjectWish wish,
        MovedTo? moved,
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

                var writer = await db.ReaderOf(act.Actor, cancellationToken);
                if (wish.Event is not { } whole)
                {
                    var role = writer.RoleOn(row.CalendarId);
                    if (!VisibleEvent.IsThere(role, act.Actor, row.ToCore()) || row.DeletedAt is not null)
                    {
                        return new Refusal.NotThere("event");
                    }

                    await SetAlarms(act.Actor, id, wish.Alarms, cancellationToken);
                    return row;
                }

                if (await TakeOut(writer, moved?.Replaced, cancellationToken) is { } stays)
                {
                    return stays;
                }

                var into = await db.Reached(writer, whole.CalendarId, row, cancellationToken);
                var stored = await db.Stored(row, writer, cancellationToken);
                var decided = WholeWriting.Change(
                    writer,
                    stored,
                    whole,
                    await db.Wished(into, whole.NewlyNamed(row.ToCore()), row, cancellationToken)
                );
                switch (decided)
                {
                    case Outcome<Event>.Stale:
                        return new Outcome<EventRow>.Stale(row);
                    case Outcome<Event>.Done done:
                        row.CalendarId = done.Value.CalendarId;
                        row.Source = wish.Source;
                        row.Apply(done.Value, zones);
                        break;
                    default:
                        return decided.WhyNot;
                }

                if (
                    moved is not null
                    && await Name(writer, whole.CalendarId, moved.Name, id, cancellationToken) is { } named
                )
                {
                    return new Outcome<EventRow>.Stale(named);
                }

                await SetAlarms(act.Actor, id, wish.Alarms, cancellationToken);
                return await db.WhyTaken(act.Actor, into!, [row], zones, cancellationToken) is { } why ? why : row;
            },
            cancellationToken
        );

    /// <summary>The rule that of one UID there is one event in a calendar (CALDAV:no-uid-conflict, RFC 4791, 5.3.2.1).</summary>
    public const string UidConflict = "no-uid-conflict";

    /// <summary>Gives an event a name in a calendar, which is taken from what is not there any more.</summary>
    /// <returns>What has that name already, and is there for the writer; <c>null</c> where nothing has.</returns>
    private async Task<EventRow?> Name(
        Reader writer,
        CalendarId calendar,
        string name,
        EventId id,
        CancellationToken cancellationToken
    )
    {
        var role = writer.RoleOn(calendar);
        var isNamed = false;
        foreach (
            var (row, whole) in (
                await (
                    from row in db.ObjectNames
                    join whole in db.Events on row.EventId equals whole.Id
                    where row.CalendarId == calendar && row.Name == name
                    select new { row, whole }
                ).ToListAsync(cancellationToken)
            ).Select(one => (one.row, one.whole))
        )
        {
            if (whole.Id == id)
            {
                isNamed = true;
            }
            else if (whole.DeletedAt is not null || whole.CalendarId != calendar)
            {
                db.ObjectNames.Remove(row);
            }
            else if (VisibleEvent.IsThere(role, writer.Person, whole.ToCore()))
            {
                return whole;
            }
        }

        if (!isNamed)
        {
            db.ObjectNames.Add(
                new ObjectNameRow
                {
                    CalendarId = calendar,
                    Name = name,
                    EventId = id,
                }
            );
        }

        return null;
    }

    private async Task SetAlarms(PersonId person, EventId id, string? alarms, CancellationToken cancellationToken)
    {
        var row = await db.OwnAlarms.FindAsync([person, id], cancellationToken);
        if (row?.Text == alarms)
        {
            return;
        }

        if (row is null)
        {
            row = new OwnAlarmsRow { PersonId = person, EventId = id };
            db.OwnAlarms.Add(row);
        }

        row.Text = alarms;
        row.Stamp = (await db.OwnAlarms.MaxAsync(one => (long?)one.Stamp, cancellationToken) ?? 0) + 1;
    }

    /// <summary>Takes out what has the name that another event is to have.</summary>
    private async Task<Refusal?> TakeOut(Reader writer, EventId? id, CancellationToken cancellationToken)
    {
        if (id is null)
        {
            return null;
        }

        if (await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
        {
            return await db.NoEvent(writer.Person, cancellationToken);
        }

        var home = await db.Reached(writer, row.CalendarId, row, cancellationToken);
        var decided = EventWriting.Delete(
            writer,
            await db.Stored(row, writer, cancellationToken),
            key: null,
            Reach.Whole,
            row.Version,
            home?.ToCore([], hasCopy: false),
            new EventId(Guid.CreateVersion7()),
            zones
        );
        if (decided is not Outcome<EventEdit>.Done)
        {
            return decided.WhyNot;
        }

        row.DeletedAt = db.Now;
        await db.SaveChangesAsync(cancellationToken);
        return null;
    }
}
