using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Noticeboards;
using Mortar.Core.Preferences;
using Mortar.Core.Words;

namespace Mortar.Core.Letters;

/// <summary>
/// Who is told what that others did: the one place where that is decided. In which ways it is told, each person says in
/// their <see cref="ToldTable"/>. Nothing is told to who did it, nor what they may not know as they stand now, nor twice:
/// what somebody is asked waits in their inbox as a question and is no notice beside it.
/// </summary>
public static class NoticeRules
{
    /// <summary>Of one act no more events are told singly.</summary>
    public const int MostOfOneAct = 3;

    /// <summary>Up to so many events of one act are counted; that there are more is said as that.</summary>
    public const int MostCounted = 50;

    /// <summary>Whom a change of an event may concern, however they stand: those on it, those who may change it, whose it was or is.</summary>
    /// <param name="before">The event before; <c>null</c> where it was not there.</param>
    /// <param name="after">The event after; <c>null</c> where it is gone.</param>
    public static IReadOnlySet<PersonId> PeopleOf(Event? before, Event? after)
    {
        var people = new HashSet<PersonId>();
        foreach (var state in new[] { before, after })
        {
            if (state is not null)
            {
                people.UnionWith(state.Named);
                people.UnionWith(state.GivenTo);
                people.UnionWith(state.Editors);
                if (before is null || after is null || before.AddedBy != after.AddedBy)
                {
                    people.Add(state.AddedBy);
                }
            }
        }

        return people;
    }

    /// <summary>What a change of an event says to somebody.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="before">The event before; <c>null</c> where it was not there, or in the bin.</param>
    /// <param name="after">The event after; <c>null</c> where it is in the bin.</param>
    /// <param name="isBack">Whether it came back from the bin.</param>
    /// <param name="reader">Who is told.</param>
    public static NoticeLine? OfEvent(string actor, Event? before, Event? after, bool isBack, NoticeReader reader)
    {
        if (new[] { before, after }.All(state => state is null || IsOver(state, reader)))
        {
            return null;
        }

        var (was, now) = (Seen(before, reader), Seen(after, reader));

        var line = (IsOn(before, reader), IsOn(after, reader)) switch
        {
            // Whoever is asked is told by the question.
            (false, true) when IsAskedAnew(before, after!, reader) => null,
            (false, true) when now is null => null,
            (false, true) => new NoticeLine(NoticeTopic.Plan, PutOn(actor, now, isBack, reader), now.Id),
            (true, true) when OfRights(actor, before!, after!, now, reader) is { } rights => rights,
            (true, true) => was is null || now is null ? null : OfPlan(actor, was, now, reader),
            (true, false) when was is null => null,
            (true, false) when after is null => Gone(
                before!.AddedBy == reader.Person ? NoticeTopic.Deleted : NoticeTopic.Plan,
                was
            ),
            (true, false) => new NoticeLine(
                NoticeTopic.Plan,
                $"{actor} took you off {Spoken(was)}, {When(was, reader)}.",
                now?.Id
            ),
            (false, false) when before is not null && after is not null => OfRights(actor, before, after, now, reader),
            (false, false) when before?.AddedBy == reader.Person && was is not null => Gone(NoticeTopic.Deleted, was),
            _ => null,
        };
        return line is null ? null : line with { Title = (now ?? was)!.Content.Title };

        NoticeLine Gone(NoticeTopic topic, Event one) =>
            new(topic, NoticeSentence.OfEvent(actor, one.Content.Title, Difference(one, null, reader)));
    }

    /// <summary>That a group has ended, or is at work again; <c>null</c> for nothing.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="before">How it was with it.</param>
    /// <param name="after">How it is.</param>
    public static NoticeLine? OfGroup(string actor, string group, GroupState before, GroupState after) =>
        (before, after) switch
        {
            _ when before == after => null,
            (_, GroupState.InBin) => new(
                NoticeTopic.Deleted,
                $"{actor} put the group “{group}” in the bin, with its calendars."
            ),
            (_, GroupState.AtRest) => new(
                NoticeTopic.Calendars,
                $"{actor} put the group “{group}” to rest: its calendars are off your wall and can still be read."
            ),
            (GroupState.InBin, _) => new(
                NoticeTopic.Calendars,
                $"{actor} brought the group “{group}” back, with its calendars."
            ),
            _ => new(NoticeTopic.Calendars, $"{actor} woke the group “{group}”: its calendars are on your wall again."),
        };

    /// <summary>That a calendar came to a group, is gone, or is open to its members in another way.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="before">The calendar before; <c>null</c> where it was not there.</param>
    /// <param name="after">The calendar after.</param>
    /// <param name="place">How the reader has to do with it.</param>
    public static NoticeLine? OfCalendar(
        string actor,
        string group,
        CalendarThen? before,
        CalendarThen after,
        NoticePlace place
    )
    {
        // Whoever has it no more is not told what it is called from then on.
        var name = $"“{(before is { } known && after.Default == Role.None ? known.Name : after.Name)}”";
        var then = before?.Default ?? Role.None;
        var isFelt = place.IsMember && place.Own < Higher(then, after.Default);
        return (before, after) switch
        {
            (null, _) when isFelt => new(
                NoticeTopic.Calendars,
                $"{actor} made the calendar {name} in “{group}”. You have the step {RoleSentence.Name(after.Default)} on it."
            ),
            ({ IsThere: true }, { IsThere: false }) when place.Stands > Role.None => new(
                NoticeTopic.Deleted,
                $"{actor} put the calendar {name} of “{group}” in the bin."
            ),
            ({ IsThere: false }, { IsThere: true }) when place.Stands > Role.None => new(
                NoticeTopic.Calendars,
                $"{actor} brought the calendar {name} of “{group}” back."
            ),
            ({ IsThere: true }, { IsThere: true }) when then != after.Default && isFelt => then == Role.None
                ? new(
                    NoticeTopic.Calendars,
                    $"{actor} opened the calendar {name} to every member of “{group}”: you have the step {RoleSentence.Name(after.Default)} on it."
                )
                : new(
                    NoticeTopic.Access,
                    after.Default == Role.None
                        ? $"{actor} closed the calendar {name} to the members of “{group}”."
                        : $"{actor} changed the step of every member of “{group}” on {name} from {RoleSentence.Name(then)} to {RoleSentence.Name(after.Default)}."
                ),
            _ => null,
        };
    }

    /// <summary>That a calendar of others came to a group as a whole, or what all of it may do there changed.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="calendar">The calendar's name then.</param>
    /// <param name="before">The group's step before.</param>
    /// <param name="after">The group's step after.</param>
    /// <param name="place">How the reader has to do with it.</param>
    public static NoticeLine? OfGroupStep(
        string actor,
        string group,
        string calendar,
        Role before,
        Role after,
        NoticePlace place
    ) =>
        !place.IsMember || before == after || place.Own >= Higher(before, after) ? null
        : before == Role.None
            ? new(
                NoticeTopic.Calendars,
                $"{actor} gave “{group}” the calendar “{calendar}”: you have the step {RoleSentence.Name(after)} on it."
            )
        : new(
            NoticeTopic.Access,
            after == Role.None
                ? $"{actor} took the calendar “{calendar}” from “{group}”."
                : $"{actor} changed the step of “{group}” on “{calendar}” from {RoleSentence.Name(before)} to {RoleSentence.Name(after)}."
        );

    /// <summary>That a step has ended by its date: nobody did that then.</summary>
    /// <param name="calendar">The calendar's name then.</param>
    /// <param name="role">The step.</param>
    /// <param name="group">The group that had it as a whole; <c>null</c> where the reader had it themselves.</param>
    public static NoticeLine OfEnd(string calendar, Role role, string? group) =>
        new(
            NoticeTopic.Access,
            $"{(group is null ? "Your step" : $"The step of “{group}”")} {RoleSentence.Name(role)} on “{calendar}” has ended, as it was given up to then."
        );

    /// <inheritdoc cref="NoticeSentence.OfStep" />
    public static NoticeLine? OfStep(string actor, string calendar, Role before, Role after) =>
        About(NoticeTopic.Access, NoticeSentence.OfStep(actor, calendar, before, after));

    /// <inheritdoc cref="NoticeSentence.OfPlace" />
    public static NoticeLine? OfPlace(
        string actor,
        string group,
        (MemberPlace Place, bool Coordinates) before,
        (MemberPlace Place, bool Coordinates) after
    ) => About(NoticeTopic.Access, NoticeSentence.OfPlace(actor, group, before, after));

    /// <inheritdoc cref="NoticeSentence.OfTheirPlace" />
    public static NoticeLine? OfTheirPlace(string who, string group, MemberPlace before, MemberPlace after) =>
        About(NoticeTopic.Keeping, NoticeSentence.OfTheirPlace(who, group, before, after));

    /// <inheritdoc cref="NoticeSentence.OfClaim" />
    public static NoticeLine? OfClaim(string who, string name, string group) =>
        About(NoticeTopic.Keeping, NoticeSentence.OfClaim(who, name, group));

    /// <inheritdoc cref="NoticeSentence.OfNoticeboard" />
    public static NoticeLine? OfNoticeboard(
        string actor,
        string title,
        (BoardState State, bool IsThere) before,
        (BoardState State, bool IsThere) after
    ) => About(NoticeTopic.Keeping, NoticeSentence.OfNoticeboard(actor, title, before, after));

    /// <summary>What became of an invitation: answered, to who sent it; taken back, to who was asked.</summary>
    /// <inheritdoc cref="NoticeSentence.OfInvitation" />
    public static NoticeLine? OfInvitation(string actor, string calendar, InvitationState after, bool isNew) =>
        About(
            after == InvitationState.Withdrawn ? NoticeTopic.Asks : NoticeTopic.Answers,
            NoticeSentence.OfInvitation(actor, calendar, after, isNew)
        );

    /// <inheritdoc cref="NoticeSentence.OfAsk" />
    public static NoticeLine? OfAsk(string actor, AskState after) =>
        About(NoticeTopic.Answers, NoticeSentence.OfAsk(actor, after));

    /// <summary>That somebody answered one's question.</summary>
    /// <param name="sentence">What they said.</param>
    /// <param name="about">The event it was about, where one still sees it.</param>
    public static NoticeLine? OfAnswer(string? sentence, EventId? about = null) =>
        About(NoticeTopic.Answers, sentence) is { } line ? line with { Event = about } : null;

    /// <summary>The lines of one act: of events each is told by itself where they are few, else they are counted.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="lines">What is said of each thing, in order.</param>
    public static IEnumerable<NoticeLine> OfOneAct(string actor, IReadOnlyList<NoticeLine> lines) =>
        lines
            .GroupBy(line => (line.Topic, IsEvent: line.Title is not null))
            .SelectMany(alike =>
                alike.Key.IsEvent && alike.Count() > MostOfOneAct
                    ? [Counted(actor, alike.Key.Topic, [.. alike.Select(line => line.Title!)])]
                    : alike.AsEnumerable()
            );

    private static NoticeLine Counted(string actor, NoticeTopic topic, IReadOnlyList<string> events)
    {
        var titles = events.Distinct(StringComparer.Ordinal).ToList();
        var named = titles.Take(MostOfOneAct).Select(title => title.Length > 0 ? $"“{title}”" : "one without a title");
        var isUncounted = events.Count > MostCounted;
        string[] more =
            titles.Count <= MostOfOneAct ? []
            : isUncounted ? ["others"]
            : [$"{titles.Count - MostOfOneAct} more"];
        var count = isUncounted ? $"more than {MostCounted}" : $"{events.Count}";
        var which = Wording.List([.. named, .. more]);
        return new(
            topic,
            topic == NoticeTopic.Deleted
                ? $"{actor} deleted {count} events of yours: {which}."
                : $"{actor} changed {count} events that concern you: {which}."
        );
    }

    private static NoticeLine? About(NoticeTopic topic, string? sentence) =>
        sentence is null ? null : new NoticeLine(topic, sentence);

    /// <summary>An event handed to the reader, or that they may change it by itself, or not any more.</summary>
    private static NoticeLine? OfRights(string actor, Event before, Event after, Event? now, NoticeReader reader)
    {
        var (could, can) = (before.Editors.Has(reader.Person), after.Editors.Has(reader.Person));
        var sentence =
            now is null ? null
            : before.AddedBy != reader.Person && after.AddedBy == reader.Person
                ? $"{actor} handed {Spoken(now)} to you, {When(now, reader)}: you organize it now."
            : !could && can ? $"{actor} lets you change {Spoken(now)}, {When(now, reader)}."
            : could && !can && after.AddedBy != reader.Person
                ? $"{actor} does not let you change {Spoken(now)} any more."
            : null;
        return sentence is null ? null : new NoticeLine(NoticeTopic.Handed, sentence, after.Id);
    }

    /// <summary>What is new of an event for somebody who is on it before and after; who else is, is not.</summary>
    private static NoticeLine? OfPlan(string actor, Event was, Event now, NoticeReader reader)
    {
        var (before, after) = (was.WithContents(Plan), now.WithContents(Plan));
        return before.Time == after.Time && before.Content == after.Content && Equals(before.Series, after.Series)
            ? null
            : new(
                NoticeTopic.Plan,
                NoticeSentence.OfEvent(actor, was.Content.Title, Difference(before, after, reader)),
                now.Id
            );

        static EventContent Plan(EventContent content) =>
            content with
            {
                Attendees = Attendees.None,
                HidesAttendees = false,
                Private = false,
                Reminder = null,
                Kind = string.Empty,
            };
    }

    private static string PutOn(string actor, Event now, bool isBack, NoticeReader reader)
    {
        var may = now.Editors.Has(reader.Person) ? " You may change it." : string.Empty;
        return isBack
            ? $"{actor} brought {Spoken(now)} back, {When(now, reader)}; you are on it."
            : $"{actor} put you on {Spoken(now)}, {When(now, reader)}.{may}";
    }

    private static IReadOnlyList<string> Difference(Event? before, Event? after, NoticeReader reader) =>
        EventDifference.Between(before, after, reader.Zone, reader.Zones);

    private static bool IsOn(Event? state, NoticeReader reader) =>
        state is not null && (state.GivenTo.Has(reader.Person) || state.Named.Contains(reader.Person));

    private static bool IsAskedAnew(Event? before, Event after, NoticeReader reader) =>
        after.GivenTo.Has(reader.Person) && before?.GivenTo.Has(reader.Person) != true;

    /// <summary>A single event that is over is no plan any more.</summary>
    private static bool IsOver(Event state, NoticeReader reader) =>
        state.Series is null && reader.Zones.Span(state.Time, reader.Zone).End < reader.Now;

    /// <summary>A state as the reader knows it, who sees all of it; <c>null</c> where they do not.</summary>
    private static Event? Seen(Event? state, NoticeReader reader) =>
        state is not null && VisibleEvent.SeesEverything(reader.RoleOn(state.CalendarId), reader.Person, state)
            ? VisibleEvent.WithNamesSeen(reader.RoleOn(state.CalendarId), reader.Person, state)
            : null;

    private static string Spoken(Event one) =>
        one.Content.Title.Length > 0 ? $"“{one.Content.Title}”" : "an event without a title";

    private static string When(Event one, NoticeReader reader)
    {
        var when = NoticeSentence.When(one.Time, reader.Zone, reader.Now, reader.Zones);
        return one.Series is { } series
            ? $"{when}, {SeriesSentence.For(one.Time, series, reader.Now.InZone(reader.Zone).Year, reader.Zone)}"
            : when;
    }

    private static Role Higher(Role one, Role other) => one > other ? one : other;
}
