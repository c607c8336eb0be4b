using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Writing;

/// <summary>
/// What becomes of an event that somebody makes, changes, moves or deletes: decided here, of what a command found, and then
/// only written down.
/// </summary>
public static class EventWriting
{
    internal const string OthersAbsences =
        "With the step Add you enter your own absences. Ask somebody who may edit the calendar to enter others'.";

    /// <summary>An event that is not there yet.</summary>
    /// <param name="writer">Who makes it.</param>
    /// <param name="id">What it is called.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="into">The calendar it goes to; <c>null</c> where there is none for them.</param>
    /// <param name="later">The id that a later part of it gets.</param>
    /// <param name="clock">Zone rules.</param>
    public static Outcome<EventEdit> Create(
        Reader writer,
        EventId id,
        EventWish wish,
        WishedCalendar? into,
        EventId later,
        ZoneClock clock
    )
    {
        if (wish.Version is not null)
        {
            return new Refusal.NotThere("event");
        }

        if (WhyNotAdd(writer, wish.CalendarId, into) is { } refusal)
        {
            return refusal;
        }

        var (change, problems) = Check(writer, wish, before: null, into!, clock);
        if (change is null)
        {
            return new Refusal.Unfit(problems);
        }

        var whole = new Event(
            id,
            wish.CalendarId,
            $"{id.Value}@mortar",
            writer.Person,
            clock.KeptIn(change.Time, into!.Settings.Zone),
            change.Content,
            Series: null,
            Version: 0
        );
        return Came(
            whole.Changed(change with { Time = whole.Time }, later, clock),
            one => Written(writer, into, before: null, one)
        );
    }

    /// <summary>An event that is there.</summary>
    /// <param name="writer">Who changes it.</param>
    /// <param name="stored">The event.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="into">The calendar it is to be in; <c>null</c> where there is none for them.</param>
    /// <param name="later">The id that its later part gets, where it is parted.</param>
    /// <param name="clock">Zone rules.</param>
    public static Outcome<EventEdit> Change(
        Reader writer,
        StoredEvent stored,
        EventWish wish,
        WishedCalendar? into,
        EventId later,
        ZoneClock clock
    )
    {
        var whole = stored.Event;
        var (role, moves) = (writer.RoleOn(whole.CalendarId), wish.CalendarId != whole.CalendarId);
        EventEdit current = new EventEdit.Done(whole, Later: null, []);
        if (IsSentAgain(writer, stored, wish))
        {
            return WhyNotAdd(writer, wish.CalendarId, into) is { } no ? no : current;
        }

        var may = AccessRules.ToChange(role, writer.Person, whole);
        if (stored.WhyNot(may, wish.Version, current) is { } refusal)
        {
            return refusal;
        }

        if (moves && WhyNotMove(writer, stored, wish, into) is { } stays)
        {
            return stays;
        }

        var (change, problems) = Check(writer, wish, whole, into!, clock);
        if (change is null)
        {
            return new Refusal.Unfit(problems);
        }

        if (moves && whole.WhyNotLeave(wish.Key, wish.Reach) is { } together)
        {
            return together;
        }

        var content = change.Content with { Cancelled = IsCancelled(whole, wish.Key) };
        return Came(
            whole.Changed(change with { Content = content }, later, clock),
            one => Written(writer, into!, moves ? null : whole, one) with { CalendarId = wish.CalendarId }
        );
    }

    /// <summary>An event that is to go, or an occurrence, or all from one on.</summary>
    /// <param name="writer">Who deletes it.</param>
    /// <param name="stored">The event.</param>
    /// <param name="key">The occurrence that is meant.</param>
    /// <param name="reach">How far it goes.</param>
    /// <param name="version">The version that they saw.</param>
    /// <param name="home">The calendar it is in; <c>null</c> where nothing leads the writer there.</param>
    /// <param name="later">The id that a later part gets.</param>
    /// <param name="clock">Zone rules.</param>
    public static Outcome<EventEdit> Delete(
        Reader writer,
        StoredEvent stored,
        LocalDateTime? key,
        Reach reach,
        int? version,
        WishedCalendar? home,
        EventId later,
        ZoneClock clock
    )
    {
        var whole = stored.Event;
        var may = AccessRules.ToGiveAway(writer.RoleOn(whole.CalendarId), writer.Person, whole);
        EventEdit current = new EventEdit.Done(whole, Later: null, []);
        return stored.WhyNot(may, version, current)
            ?? Came(whole.Without(key, reach, later, clock), one => Written(writer, home!, whole, one));
    }

    /// <summary>What would be changed or deleted if a wish reached so far or further.</summary>
    /// <param name="writer">Who asks.</param>
    /// <param name="stored">The event; <c>null</c> where there is none.</param>
    /// <param name="wish">What is wanted.</param>
    /// <param name="isDeletion">Whether it is to go.</param>
    /// <param name="home">The calendar it is in.</param>
    /// <param name="clock">Zone rules.</param>
    public static Outcome<IReadOnlyList<ReachPreview>> Preview(
        Reader writer,
        StoredEvent? stored,
        EventWish wish,
        bool isDeletion,
        WishedCalendar? home,
        ZoneClock clock
    )
    {
        if (stored is not { IsInBin: false, Event: var whole })
        {
            return new Refusal.NotThere("event");
        }

        var role = writer.RoleOn(whole.CalendarId);
        var may = isDeletion
            ? AccessRules.ToGiveAway(role, writer.Person, whole)
            : AccessRules.ToChange(role, writer.Person, whole);
        if (stored.WhyHidden(may) is { } refusal)
        {
            return refusal;
        }

        if (isDeletion && wish.Key is { } key)
        {
            return new Outcome<IReadOnlyList<ReachPreview>>.Done(ReachPreview.OfWithout(whole, key, clock));
        }

        var (change, problems) = Check(writer, wish, whole, home!, clock);
        return change is null
            ? new Refusal.Unfit(problems)
            : new Outcome<IReadOnlyList<ReachPreview>>.Done(ReachPreview.Of(whole, change, clock));
    }

    /// <summary>What another time or rule would come to for the whole of an event, there already or not.</summary>
    /// <param name="writer">Who asks.</param>
    /// <param name="stored">The event; <c>null</c> for one that is being made.</param>
    /// <param name="id">What it is called, or is to be.</param>
    /// <param name="into">The calendar it goes to, whose zone a new one lives in; <c>null</c> where there is none.</param>
    /// <param name="key">The start by which the series counts the occurrence in question.</param>
    /// <param name="time">When that is to be.</param>
    /// <param name="rule">The rule as text; <c>null</c> for as before.</param>
    /// <param name="clock">Zone rules.</param>
    public static Outcome<RulePreview> PreviewRule(
        Reader writer,
        StoredEvent? stored,
        EventId id,
        WishedCalendar? into,
        LocalDateTime? key,
        EventTime time,
        string? rule,
        ZoneClock clock
    )
    {
        var whole = stored is { IsInBin: false } ? stored.Event : null;
        var may = whole is null
            ? Verdict.Hidden
            : AccessRules.ToChange(writer.RoleOn(whole.CalendarId), writer.Person, whole);
        if (may != Verdict.Hidden && stored!.WhyHidden(may) is { } refusal)
        {
            return refusal;
        }

        // One that is hidden is asked about as one that never was: as a new one, in the calendar it is to go to.
        if (may == Verdict.Hidden)
        {
            whole = null;
            if ((into is null ? new Refusal.NotThere("calendar") : WhyNotAdd(writer, into.Id, into)) is { } no)
            {
                return no;
            }
        }

        var (repeats, wrong) = RepeatWish.Read(rule);
        if (repeats is null)
        {
            return new RulePreview(string.Empty, [], time, Rule: null, wrong[0].Sentence);
        }

        whole ??= new Event(
            id,
            into!.Id,
            string.Empty,
            writer.Person,
            clock.KeptIn(time, into.Settings.Zone),
            EventContent.Blank,
            Series: null,
            Version: 0
        );
        return RulePreview.Of(whole, new EventChange(key, Reach.Whole, time, whole.Content, repeats), clock);
    }

    /// <summary>Whether it is the same creation once more, because its first answer was lost on the way.</summary>
    private static bool IsSentAgain(Reader writer, StoredEvent stored, EventWish wish) =>
        wish.Version is null
        && stored is { IsInBin: false, Event.Version: 1 }
        && stored.Event.AddedBy == writer.Person
        && stored.Event.CalendarId == wish.CalendarId;

    private static Refusal? WhyNotAdd(Reader writer, CalendarId calendar, WishedCalendar? into) =>
        AccessRules.WhyNotAdd(writer.RoleOn(calendar), into?.Settings.FromWeb == true);

    private static Refusal? WhyNotMove(Reader writer, StoredEvent stored, EventWish wish, WishedCalendar? into) =>
        stored.WhyHidden(AccessRules.ToGiveAway(writer.RoleOn(stored.Event.CalendarId), writer.Person, stored.Event))
        ?? WhyNotAdd(writer, wish.CalendarId, into)
        ?? (
            into!.HasCopy
                ? new Refusal.AgainstRule("already-there", "A copy of this event is in that calendar already.")
                : null
        );

    /// <summary>Checks a wish: its draft, its rule, and that those newly named are known in the calendar's group.</summary>
    private static Checked<EventChange?> Check(
        Reader writer,
        EventWish wish,
        Event? before,
        WishedCalendar into,
        ZoneClock clock
    )
    {
        var (repeats, badRule) = RepeatWish.Read(wish.Repeats);
        var problems = new List<FieldProblem>(badRule);
        if (into.Strangers.Count > 0)
        {
            problems.Add(Attendees.Stranger("attendees"));
        }

        var purpose = into.Settings.Purpose;
        if (!purpose.MayName(writer.RoleOn(into.Id), writer.AnswersIn(into.Group), wish.NewlyNamed(before)))
        {
            problems.Add(new FieldProblem("attendees", OthersAbsences));
        }

        var attendees = purpose.Named(wish.Draft.Attendees, before?.AddedBy ?? writer.Person);
        var (draft, wrong) = (wish.Draft with { Attendees = attendees }).Check(clock);
        return new(
            draft.Time is { } time && wrong.Count + problems.Count == 0
                ? new EventChange(wish.Key, wish.Reach, time, draft.Content, repeats!)
                : null,
            [.. wrong, .. problems]
        );
    }

    /// <summary>A date that was called off stays so when it is changed.</summary>
    private static bool IsCancelled(Event whole, LocalDateTime? key) =>
        (
            whole
                .Series?.Overrides.FirstOrDefault(one => one.Replaces == key && one.Range == OverrideRange.One)
                ?.Content
            ?? whole.Content
        ).Cancelled;

    private static Event Written(Reader writer, WishedCalendar into, Event? before, Event after) =>
        Agreement.Written(into.Settings, writer.RoleOn(into.Id), before, after);

    private static Outcome<EventEdit> Came(EventEdit edit, Func<Event, Event> written) =>
        edit switch
        {
            EventEdit.Done done => done with
            {
                Event = written(done.Event),
                Later = done.Later is { } later ? written(later) : null,
            },
            EventEdit.Gone => edit,
            EventEdit.Refused refused => new Refusal.AgainstRule(refused.Type, refused.Sentence),
            _ => new Refusal.NotThere("occurrence"),
        };
}
