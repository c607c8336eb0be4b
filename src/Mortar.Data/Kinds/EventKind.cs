using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>An event or series.</summary>
internal sealed class EventKind : ChangeKind<EventRow>
{
    public override Subject Subject => Subject.Event;

    protected override async Task<EventRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Events.FindAsync([new EventId(id)], cancellationToken);

    /// <summary>Those who see a state of it differ, where it was and where it is; and those to whom it is given by itself.</summary>
    public override async Task Tell(
        Tellings tellings,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        foreach (var ofAct in changes.GroupBy(change => (Calendar: CalendarOf(change), change.Set)))
        {
            // A file of thousands is read only as far as it takes to find somebody who sees one of them.
            var states = ofAct.Select(change => new States(change)).ToList();
            await TellReaders(tellings, ofAct.Key.Calendar, states, cancellationToken);
            foreach (var left in states.Where(one => one.HasMoved).GroupBy(one => one.Before!.CalendarId))
            {
                await TellReaders(tellings, left.Key, [.. left], cancellationToken);
            }

            await TellKeepers(tellings, ofAct.Key.Calendar, states, cancellationToken);
        }

        foreach (var change in changes)
        {
            TellGiven(tellings, change);
        }

        await TellConcerned(tellings, changes, cancellationToken);
    }

    /// <summary>Those in whose inbox it may stand.</summary>
    private static async Task TellConcerned(
        Tellings tellings,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var (first, last) = (changes[0].Sequence, changes[^1].Sequence);
        var concerned = await tellings
            .Db.ConcernedByEvents.Where(row => row.Sequence >= first && row.Sequence <= last)
            .ToListAsync(cancellationToken);
        var people = concerned.ToLookup(row => row.Sequence, row => row.PersonId);
        foreach (var change in changes)
        {
            tellings.Tell(people[change.Sequence], Topic.Inbox, change);
        }
    }

    protected override Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken) =>
        Tell(tellings, [change], cancellationToken);

    private static async Task TellReaders(
        Tellings tellings,
        CalendarId calendar,
        List<States> states,
        CancellationToken cancellationToken
    )
    {
        foreach (var (reader, role) in await tellings.RolesOn(calendar, cancellationToken))
        {
            if (states.Find(one => one.IsSeen(calendar, role, reader)) is { } seen)
            {
                tellings.Tell([reader], Topic.Wall, seen.Change, calendar);
            }
        }
    }

    /// <summary>Where absences are agreed to, one may wait now or wait no more.</summary>
    private static async Task TellKeepers(
        Tellings tellings,
        CalendarId calendar,
        List<States> states,
        CancellationToken cancellationToken
    )
    {
        if (await tellings.Db.Calendars.AnyAsync(row => row.Id == calendar && row.Agreed, cancellationToken))
        {
            var keepers = await tellings.CoordinatorsOf(calendar, cancellationToken);
            tellings.Tell(keepers.Append(states[0].Change.Actor), Topic.Inbox, states[0].Change);
        }
    }

    /// <summary>An event given by itself brings a layer, and taken back takes one along; of the rest of its calendar they learn nothing.</summary>
    private static void TellGiven(Tellings tellings, ChangeRow change)
    {
        var (before, after) = (ChangeRow.GivenOfEvent(change.Before), ChangeRow.GivenOfEvent(change.After));
        var people = before.Union(after).ToList();
        tellings.Tell(people, Topic.Wall, change, CalendarOf(change));
        tellings.Tell(people, Topic.Inbox, change);
        if (!before.SetEquals(after))
        {
            tellings.Tell(people, Topic.Shelf, change);
        }
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        EventRow now,
        EventRow? then,
        CancellationToken cancellationToken
    ) =>
        Task.FromResult(
            UndoRules
                .OfEvent(
                    undoing.Actor,
                    now.ToCore(),
                    then?.ToCore(),
                    now.DeletedAt is not null,
                    then?.DeletedAt is not null,
                    undoing.RoleOn
                )
                .WhyNot("change", "Edit")
        );

    public override IReadOnlyList<IReadOnlyCollection<string>> Together { get; } =
    [
        [
            nameof(EventRow.TimeForm),
            nameof(EventRow.Start),
            nameof(EventRow.End),
            nameof(EventRow.Zone),
            nameof(EventRow.Series),
        ],
        [nameof(EventRow.DeletedAt), nameof(EventRow.DeletedIn)],
    ];

    public override IReadOnlyCollection<string> Derived { get; } =
    [
        nameof(EventRow.Version),
        nameof(EventRow.IndexStart),
        nameof(EventRow.IndexEnd),
        nameof(EventRow.LongestReminder),
    ];

    /// <summary>Who has left the group since is named on it as then, and not given it by itself: what has ended stays ended.</summary>
    public override async Task KeepEnded(
        Undoing undoing,
        IRecorded row,
        string was,
        CancellationToken cancellationToken
    )
    {
        var one = (EventRow)row;
        if (one is { GivenTo: null, Editors: null })
        {
            return; // as most are; the state is not read for them
        }

        var anew = Given(one).Except(Given(StoredText.Read<EventRow>(was))).ToList();
        if (anew.Count == 0)
        {
            return;
        }

        var home = await undoing
            .Db.Calendars.AsNoTracking()
            .SingleAsync(home => home.Id == one.CalendarId, cancellationToken);
        foreach (var stranger in await undoing.Db.StrangersAmong(anew, home, cancellationToken))
        {
            one.Apply(one.ToCore().NoLongerGivenTo(stranger), undoing.Zones);
        }

        static IEnumerable<PersonId> Given(EventRow state) =>
            EventRow.ToAttendees(state.GivenTo).Concat(EventRow.ToAttendees(state.Editors));
    }

    public override void KeepTrue(IRecorded row, ZoneClock zones)
    {
        var one = (EventRow)row;
        one.Apply(one.ToCore(), zones);
    }

    /// <summary>What others changed about the events one is on, may change or had made.</summary>
    public override Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    ) =>
        Task.FromResult<IQueryable<ChangeRow>?>(
            from one in db.ConcernedByEvents
            where one.PersonId == reader
            join change in db.Changes on one.Sequence equals change.Sequence
            where !db.Calendars.Any(row => row.Id == change.CalendarId && row.DeletedAt != null)
            select change
        );

    protected override NoticeLine? Notice(Said<EventRow> said, string actor, NoticeFacts facts)
    {
        var (before, after) = (said.Change.EventBefore(), said.Change.EventAfter());
        return NoticeRules.OfEvent(
            actor,
            before,
            after,
            isBack: before is null && said.Before is not null,
            facts.ToReader()
        );
    }

    public override bool IsInDigest => true;

    public override string? Digest(IReadOnlyList<(ChangeRow Change, string Actor)> ofOne, DigestFacts facts) =>
        DigestRules.Sentence(
            [.. ofOne.Select(one => new EventStep(one.Change.EventBefore(), one.Change.EventAfter(), one.Actor))],
            facts.Reader.RoleOn,
            facts.Reader.Person,
            facts.Zone,
            facts.Zones
        );

    /// <summary>For those who see all of it before and after.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        var reader = facts.Reader;
        var (before, after) = (change.EventBefore(), change.EventAfter());
        if ((before ?? after) is null || !Sees(before) || !Sees(after))
        {
            return null;
        }

        var (was, now) = (Known(before), Known(after));
        var title = (now ?? was)!.Content.Title;
        return change is { Before: not null } && was is null
            ? new Deed(title, [EventDifference.BroughtBack], now!.Id)
            : new Deed(title, EventDifference.Between(was, now, facts.Zone, facts.Zones), now?.Id);

        bool Sees(Event? state) =>
            state is null || VisibleEvent.SeesEverything(reader.RoleOn(state.CalendarId), reader.Person, state);

        Event? Known(Event? state) =>
            state is null ? null : VisibleEvent.WithNamesSeen(reader.RoleOn(state.CalendarId), reader.Person, state);
    }

    /// <summary>The two states of an event, read when they are looked at.</summary>
    private sealed class States(ChangeRow change)
    {
        private readonly Lazy<Event?> before = new(change.EventBefore);
        private readonly Lazy<Event?> after = new(change.EventAfter);

        public ChangeRow Change => change;

        public Event? Before => before.Value;

        public bool HasMoved => Before is { } whole && whole.CalendarId != change.CalendarId;

        public bool IsSeen(CalendarId calendar, Role role, PersonId reader) =>
            VisibleEvent.IsChangeSeen(role, reader, Here(Before, calendar), Here(after.Value, calendar));

        private static Event? Here(Event? whole, CalendarId calendar) => whole?.CalendarId == calendar ? whole : null;
    }
}
