using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Events;

/// <summary>What somebody wants with an event.</summary>
/// <param name="CalendarId">The calendar it is to be in; another one than now moves it there.</param>
/// <param name="Draft">What it is to be.</param>
/// <param name="Key">The start by which the series counts the occurrence that is meant; <c>null</c> for a single event, or a series from its first.</param>
/// <param name="Reach">How far it goes, where the event is a series.</param>
/// <param name="Repeats">How it is to repeat, as the text of a rule (empty for not at all); <c>null</c> for as before.</param>
/// <param name="Version">The version the wish is based on; <c>null</c> to create.</param>
public sealed record EventWish(
    CalendarId CalendarId,
    EventDraft Draft,
    LocalDateTime? Key,
    Reach Reach,
    string? Repeats,
    int? Version
);

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
                var row = await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                if (row is null)
                {
                    return await db.NoEvent(act.Actor, cancellationToken);
                }

                if (await db.WhyNotGiveAway(act.Actor, row, version, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var into = await Into(act, row.CalendarId, cancellationToken);
                var whole = row.ToCore();
                return Apply(row, whole.Without(key, reach, NewId(), zones), one => into.Written(whole, one));
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
        if (wish.Version is not null)
        {
            return await db.NoEvent(act.Actor, cancellationToken);
        }

        if (await WhyNotAdd(act, wish.CalendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var into = await Into(act, wish.CalendarId, cancellationToken);
        var calendar = into.Row;
        var (change, problems) = await Check(act, wish, act.Actor, [], into, cancellationToken);
        if (change is null)
        {
            return new Refusal.Unfit(problems);
        }

        var row = new EventRow
        {
            Id = id,
            CalendarId = wish.CalendarId,
            Uid = $"{id.Value}@mortar",
            AddedBy = act.Actor,
        };
        row.Apply(zones.KeptIn(change.Time, calendar.Zone), change.Content, series: null, zones);
        var made = Apply(
            row,
            row.ToCore().Changed(change with { Time = row.ToCore().Time }, NewId(), zones),
            one => into.Written(before: null, one)
        );
        if (made is not Outcome<EventRow>.Done)
        {
            return made;
        }

        db.Events.Add(row);
        return await db.WhyTaken(act.Actor, calendar, [row], zones, cancellationToken) is { } taken ? taken : made;
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
            return await WhyNotAdd(act, wish.CalendarId, cancellationToken) is { } no ? no : row;
        }

        if (await db.WhyNotChange(act.Actor, row, wish.Version, cancellationToken) is { } refusal)
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

        var whole = row.ToCore();
        var into = await Into(act, wish.CalendarId, cancellationToken);
        var (change, problems) = await Check(act, wish, row.AddedBy, whole.Named, into, cancellationToken);
        if (change is null)
        {
            return new Refusal.Unfit(problems);
        }

        if (wish.CalendarId != row.CalendarId && whole.WhyNotLeave(wish.Key, wish.Reach) is { } together)
        {
            return together;
        }

        var taken = Apply(
            row,
            whole.Changed(
                change with
                {
                    Content = change.Content with { Cancelled = Cancelled(whole, wish.Key) },
                },
                NewId(),
                zones
            ),
            one => into.Written(wish.CalendarId == row.CalendarId ? whole : null, one)
        );
        if (taken is not Outcome<EventRow>.Done)
        {
            return taken;
        }

        row.CalendarId = wish.CalendarId;
        var parted = db.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity);
        return await db.WhyTaken(act.Actor, into.Row, [.. parted], zones, cancellationToken) ?? taken;
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
        if (row is null || row.DeletedAt is not null)
        {
            return await db.NoEvent(act.Actor, cancellationToken);
        }

        var standing = await db.StandingOf(act.Actor, row.CalendarId, cancellationToken);
        if (await db.IsGone(row, standing.Role, cancellationToken))
        {
            return new Refusal.NotThere("event");
        }

        var verdict = isDeletion
            ? AccessRules.ToGiveAway(standing.Role, act.Actor, row.ToCore())
            : AccessRules.ToChange(standing.Role, act.Actor, row.ToCore());
        if (verdict.WhyNot("event", "Edit") is { } refusal)
        {
            return refusal;
        }

        if (isDeletion && wish.Key is { } key)
        {
            return new Outcome<IReadOnlyList<ReachPreview>>.Done(ReachPreview.OfWithout(row.ToCore(), key, zones));
        }

        var into = await Into(act, row.CalendarId, cancellationToken);
        var (change, problems) = await Check(act, wish, row.AddedBy, row.ToCore().Named, into, cancellationToken);
        return change is null
            ? new Refusal.Unfit(problems)
            : new Outcome<IReadOnlyList<ReachPreview>>.Done(ReachPreview.Of(row.ToCore(), change, zones));
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
        var row = await db
            .Events.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Id == id && one.DeletedAt == null, cancellationToken);
        var home = row?.CalendarId ?? calendar;
        var verdict = row is null
            ? Verdict.Hidden
            : AccessRules.ToChange(
                (await db.StandingOf(act.Actor, home, cancellationToken)).Role,
                act.Actor,
                row.ToCore()
            );
        if (row is not null && verdict != Verdict.Hidden)
        {
            if (await db.IsGone(row, Role.None, cancellationToken))
            {
                return new Refusal.NotThere("event");
            }

            if (verdict.WhyNot("event", "Edit") is { } refusal)
            {
                return refusal;
            }
        }
        else
        {
            // One that is hidden is asked about as one that never was: as a new one, in the calendar it is to go to.
            row = null;
            var role = (await db.StandingOf(act.Actor, calendar, cancellationToken)).Role;
            if (AccessRules.ToAdd(role).WhyNot("calendar", "Add") is { } refusal)
            {
                return refusal;
            }
        }

        var (repeats, wrong) = RepeatWish.Read(rule);
        if (repeats is null)
        {
            return new RulePreview(string.Empty, [], time, Rule: null, wrong[0].Sentence);
        }

        var whole =
            row?.ToCore()
            ?? new Event(
                id,
                calendar,
                string.Empty,
                act.Actor,
                zones.KeptIn(
                    time,
                    await db
                        .Calendars.Where(one => one.Id == calendar)
                        .Select(one => one.Zone)
                        .SingleAsync(cancellationToken)
                ),
                EventContent.Blank,
                Series: null,
                Version: 0
            );
        return RulePreview.Of(whole, new EventChange(key, Reach.Whole, time, whole.Content, repeats), zones);
    }

    private static bool Cancelled(Event whole, LocalDateTime? key) =>
        (
            whole
                .Series?.Overrides.FirstOrDefault(one => one.Replaces == key && one.Range == OverrideRange.One)
                ?.Content
            ?? whole.Content
        ).Cancelled;

    /// <summary>A calendar something is written into, and the writer's step on it.</summary>
    private sealed record Target(CalendarRow Row, Role Role)
    {
        private readonly CalendarSettings settings = Row.Settings();

        public Event Written(Event? before, Event after) => Agreement.Written(settings, Role, before, after);
    }

    private async Task<Target> Into(Act act, CalendarId id, CancellationToken cancellationToken) =>
        new(
            await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == id, cancellationToken),
            (await db.StandingOf(act.Actor, id, cancellationToken)).Role
        );

    private static EventId NewId() => new(Guid.CreateVersion7());

    /// <summary>Writes what Core made of it: the event, and the new one that a parted series has as its later part.</summary>
    private Outcome<EventRow> Apply(EventRow row, EventEdit edit, Func<Event, Event> written)
    {
        switch (edit)
        {
            case EventEdit.Done done:
                row.Apply(written(done.Event), zones);
                if (done.Later is { } second)
                {
                    var later = written(second);
                    var added = new EventRow
                    {
                        Id = later.Id,
                        CalendarId = row.CalendarId,
                        Uid = later.Uid,
                        AddedBy = row.AddedBy,
                    };
                    added.Apply(later, zones);
                    db.Events.Add(added);
                    return added;
                }

                return row;
            case EventEdit.Gone:
                row.DeletedAt = clock.GetCurrentInstant();
                return row;
            case EventEdit.Refused refused:
                return new Refusal.AgainstRule(refused.Type, refused.Sentence);
            default:
                return new Refusal.NotThere("occurrence");
        }
    }

    /// <summary>Checks a wish: its draft, its rule, and that those newly named are known in the calendar's group.</summary>
    private async Task<Checked<EventChange?>> Check(
        Act act,
        EventWish wish,
        PersonId addedBy,
        IEnumerable<PersonId> already,
        Target into,
        CancellationToken cancellationToken
    )
    {
        var calendar = into.Row;
        var newly = wish.Draft.Attendees.Except(already).ToList();
        var problems = new List<FieldProblem>();
        var (repeats, badRule) = RepeatWish.Read(wish.Repeats);
        problems.AddRange(badRule);

        if ((await db.StrangersAmong(newly, calendar, cancellationToken)).Count > 0)
        {
            problems.Add(Attendees.Stranger("attendees"));
        }

        if (
            !calendar.Purpose.MayName(into.Role, [], newly)
            && !calendar.Purpose.MayName(
                into.Role,
                await db.AnswersFor(act.Actor, calendar.GroupId, cancellationToken),
                newly
            )
        )
        {
            problems.Add(
                new FieldProblem(
                    "attendees",
                    "With the step Add you enter your own absences. Ask somebody who may edit the calendar to enter others'."
                )
            );
        }

        var attendees = calendar.Purpose.Named(wish.Draft.Attendees, addedBy);
        var (draft, wrong) = (wish.Draft with { Attendees = attendees }).Check(zones);
        return new(
            draft.Time is { } time && wrong.Count + problems.Count == 0
                ? new EventChange(wish.Key, wish.Reach, time, draft.Content, repeats!)
                : null,
            [.. wrong, .. problems]
        );
    }

    private async Task<Refusal?> WhyNotAdd(Act act, CalendarId calendar, CancellationToken cancellationToken) =>
        AccessRules.ToAdd((await db.StandingOf(act.Actor, calendar, cancellationToken)).Role).WhyNot("calendar", "Add");

    private async Task<Refusal?> WhyNotMove(Act act, EventRow row, CalendarId to, CancellationToken cancellationToken)
    {
        if (await db.WhyNotGiveAway(act.Actor, row, row.Version, cancellationToken) is { } stays)
        {
            return stays.WhyNot;
        }

        if (await WhyNotAdd(act, to, cancellationToken) is { } keepsOut)
        {
            return keepsOut;
        }

        return await db.Events.AnyAsync(
            one => one.CalendarId == to && one.Uid == row.Uid && one.DeletedAt == null,
            cancellationToken
        )
            ? new Refusal.AgainstRule("already-there", "A copy of this event is in that calendar already.")
            : null;
    }
}
