using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Undo;

/// <summary>What bringing a calendar back to a moment comes to.</summary>
/// <param name="Changes">The events that would change, by when they were or are.</param>
/// <param name="Stays">How many stay as they are, since they are in another calendar now, or came from one, of which one may not take them.</param>
public sealed record MomentPreview(IReadOnlyList<MomentChange> Changes, int Stays);

/// <summary>Brings a calendar back to how it was at a moment, in one act that can be undone. Needs the step Coordinate.</summary>
public sealed class MomentCommands(MortarDb db, UndoCommands undo)
{
    /// <summary>What is known of the calendar's events between the moment and now.</summary>
    private sealed record Compared(IReadOnlyList<UndoPlan.Return> Returns, MomentPreview Preview, bool HasCrossed);

    /// <summary>What it would come to; nothing is written.</summary>
    public async Task<Outcome<MomentPreview>> Preview(
        PersonId person,
        CalendarId calendar,
        Instant moment,
        CancellationToken cancellationToken
    ) =>
        await WhyNot(person, calendar, moment, cancellationToken) is { } refusal
            ? refusal
            : (await Compare(person, calendar, moment, cancellationToken)).Preview;

    /// <summary>Does it.</summary>
    public async Task<Outcome<Undone>> BringBack(
        Act act,
        CalendarId calendar,
        Instant moment,
        CancellationToken cancellationToken
    )
    {
        if (await WhyNot(act.Actor, calendar, moment, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var first = await Compare(act.Actor, calendar, moment, cancellationToken);
        return await undo.BringTo(
            act,
            first.Returns.Count >= Aside.Worth && !first.HasCrossed ? calendar : null,
            async () =>
                await WhyNot(act.Actor, calendar, moment, cancellationToken) is { } no
                    ? no
                    : new UndoPlan.Possible((await Compare(act.Actor, calendar, moment, cancellationToken)).Returns),
            cancellationToken
        );
    }

    private async Task<Refusal?> WhyNot(
        PersonId person,
        CalendarId calendar,
        Instant moment,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(person, calendar, cancellationToken)).Role;
        if (AccessRules.ToCoordinate(role).WhyNot("calendar", "Coordinate") is { } refusal)
        {
            return refusal;
        }

        var made = await db
            .Changes.Where(change => change.SubjectId == calendar.Value && change.Before == null)
            .Select(change => (Instant?)change.At)
            .FirstOrDefaultAsync(cancellationToken);
        var remembered = await db
            .Changes.OrderBy(change => change.Sequence)
            .Select(change => change.At)
            .FirstOrDefaultAsync(cancellationToken);
        return MomentPlan.WhyNot(moment, made, remembered, db.Now);
    }

    private async Task<Compared> Compare(
        PersonId person,
        CalendarId calendar,
        Instant moment,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        var first = await FirstSince(calendar, moment, cancellationToken);
        var ids = first.ConvertAll(change => new EventId(change.SubjectId));
        var rows = await db
            .Events.AsNoTracking()
            .Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, cancellationToken);
        var (returns, changes, stays, hasCrossed) = (new List<UndoPlan.Return>(), new List<MomentChange>(), 0, false);
        foreach (var change in first)
        {
            var id = new EventId(change.SubjectId);
            if (!rows.TryGetValue(id, out var row))
            {
                continue; // gone for good since
            }

            var (then, now) = (change.EventBefore(), row.DeletedAt is null ? row.ToCore() : null);
            if (MomentPlan.Of(id, In(then), In(now)) is not { } becomes)
            {
                continue;
            }

            var crosses = (then ?? now)!.CalendarId != calendar || (now ?? then)!.CalendarId != calendar;
            if (crosses && !MayCross(reader, row, then))
            {
                stays++;
                continue;
            }

            hasCrossed |= crosses;
            changes.Add(becomes);
            returns.Add(new UndoPlan.Return(Subject.Event, change.SubjectId, change.Before));
        }

        return new Compared(
            returns,
            new MomentPreview(
                [.. changes.OrderBy(one => (one.Then ?? one.Now)!.Time.LocalStart).ThenBy(one => one.Id.Value)],
                stays
            ),
            hasCrossed
        );

        Event? In(Event? state) => state?.CalendarId == calendar ? state : null;
    }

    /// <summary>Whether what is elsewhere now, or came from elsewhere, may be taken there and back.</summary>
    private static bool MayCross(Reader reader, EventRow row, Event? then) =>
        UndoRules.OfEvent(
            reader.Person,
            row.ToCore(),
            then,
            row.DeletedAt is not null,
            isDeletedThen: false,
            reader.RoleOn
        ) == Verdict.Granted;

    /// <summary>The first change after a moment of each event that is or was in the calendar since.</summary>
    private async Task<List<ChangeRow>> FirstSince(
        CalendarId calendar,
        Instant moment,
        CancellationToken cancellationToken
    )
    {
        // Those changed there since; and those that were there once and are elsewhere, whose changes stand there.
        var touched = await db
            .Changes.Where(change =>
                change.CalendarId == calendar && change.Subject == Subject.Event && change.At > moment
            )
            .Select(change => change.SubjectId)
            .Distinct()
            .ToListAsync(cancellationToken);
        var ever = await db
            .Changes.Where(change => change.CalendarId == calendar && change.Subject == Subject.Event)
            .Select(change => change.SubjectId)
            .Distinct()
            .ToListAsync(cancellationToken);
        var all = ever.ConvertAll(id => new EventId(id));
        var elsewhere = await db
            .Events.Where(row => all.Contains(row.Id) && row.CalendarId != calendar)
            .Select(row => row.Id)
            .ToListAsync(cancellationToken);
        var subjects = touched.Union(elsewhere.Select(id => id.Value)).ToList();
        var first = db
            .Changes.Where(change => subjects.Contains(change.SubjectId) && change.At > moment)
            .GroupBy(change => change.SubjectId)
            .Select(changes => changes.Min(change => change.Sequence));
        return await db
            .Changes.AsNoTracking()
            .Where(change => first.Contains(change.Sequence))
            .OrderBy(change => change.Sequence)
            .ToListAsync(cancellationToken);
    }
}
