using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>One of the newest changes, as those need it who keep what they read. What it takes to understand it is done once, for all of them.</summary>
public sealed class TailEntry
{
    private readonly Lazy<EventRow?> rowBefore;
    private readonly Lazy<EventRow?> rowAfter;
    private readonly Lazy<Event?> before;
    private readonly Lazy<Event?> after;
    private readonly Lazy<AnswerRow> answer;
    private readonly Lazy<IReadOnlySet<GroupId>> groups;
    private readonly Lazy<bool> isForAll;

    internal TailEntry(ChangeRow row)
    {
        Sequence = row.Sequence;
        (Subject, CalendarId, Concerns) = (row.Subject, row.CalendarId, row.Concerns);
        rowBefore = new Lazy<EventRow?>(() => EventOf(row.Before));
        rowAfter = new Lazy<EventRow?>(() => EventOf(row.After));
        before = new Lazy<Event?>(() => RowBefore?.ToCore());
        after = new Lazy<Event?>(() => RowAfter?.ToCore());
        answer = new Lazy<AnswerRow>(() => StoredText.Read<AnswerRow>((row.After ?? row.Before)!));
        groups = new Lazy<IReadOnlySet<GroupId>>(() => GroupsOf(row));
        isForAll = new Lazy<bool>(() => IsBinned(row.Before) != IsBinned(row.After));
    }

    public long Sequence { get; }

    public Subject Subject { get; }

    public CalendarId? CalendarId { get; }

    /// <summary>The person it is about, where it is about one.</summary>
    public PersonId? Concerns { get; }

    /// <summary>The event before; <c>null</c> where it was not there, or in the bin, and for what is no event.</summary>
    public Event? Before => Subject is Subject.Event ? before.Value : null;

    /// <summary>The event after; <c>null</c> where it is not there, or in the bin, and for what is no event.</summary>
    public Event? After => Subject is Subject.Event ? after.Value : null;

    /// <summary>Which event was answered; <c>null</c> for what is no answer.</summary>
    public EventId? Answered => Subject is Subject.Answer ? answer.Value.EventId : null;

    internal EventRow? RowBefore => Subject is Subject.Event ? rowBefore.Value : null;

    internal EventRow? RowAfter => Subject is Subject.Event ? rowAfter.Value : null;

    /// <summary>The groups whose people it can give a calendar to or take it from.</summary>
    internal IReadOnlySet<GroupId> Groups => groups.Value;

    /// <summary>Whether it is about who may see and be named where: everything but what is written in calendars and said to it.</summary>
    internal bool IsAboutAccess => Subject.DecidesAccess() || Subject is Subject.Guest;

    /// <summary>Whether it can give a calendar to people of whom it says nothing itself.</summary>
    internal bool IsForAnybody =>
        Subject is Subject.Guardian or Subject.Link || (Subject is Subject.Calendar && isForAll.Value);

    /// <summary>Whether it can change what lies in some stretches of some calendars, or what collides there.</summary>
    public bool Touches(Func<CalendarId, bool> isSeen, IReadOnlyCollection<Interval> stretches) =>
        Subject switch
        {
            Subject.Event => Touches(RowBefore, isSeen, stretches) || Touches(RowAfter, isSeen, stretches),
            Subject.Answer or Subject.FineClash => CalendarId is { } calendar && isSeen(calendar),
            _ => false,
        };

    /// <summary>
    /// Whether somebody who read some calendars of some groups before it may have read what they cannot read any more. What
    /// happens in other groups never counts: anybody can have one and change it all day.
    /// </summary>
    public bool CanTakeFrom(Func<CalendarId, bool> isSeen, IReadOnlySet<GroupId> groups) =>
        IsAboutAccess
            ? CalendarId is { } about
                ? isSeen(about)
                : Groups.Overlaps(groups)
            : RowBefore is { } was && isSeen(was.CalendarId) && (RowAfter is not { } now || HidesMore(was, now));

    /// <summary>What a date of a series keeps to itself is in the series, so any change of that counts.</summary>
    private static bool HidesMore(EventRow was, EventRow now) =>
        now.CalendarId != was.CalendarId
        || now.Private
        || now.HidesAttendees
        || now.GivenTo != was.GivenTo
        || now.Editors != was.Editors
        || now.Series != was.Series;

    private static bool Touches(EventRow? row, Func<CalendarId, bool> isSeen, IReadOnlyCollection<Interval> stretches)
    {
        if (row is null || !isSeen(row.CalendarId))
        {
            return false;
        }

        // Whole days and floating times are indexed as UTC, and dates of a series can be such.
        var slack = row is { TimeForm: TimeForm.Timed, Series: null } ? Duration.Zero : EventQueries.Slack;
        var (from, to) = (row.IndexStart - slack, row.IndexEnd + slack);
        return stretches.Any(stretch => to >= stretch.Start && from <= stretch.End);
    }

    /// <summary>Whether it gives an event to somebody by itself, takes it from them, or where it is theirs it is somewhere else now.</summary>
    internal bool IsGivenAnew(PersonId person)
    {
        var (was, now) = (IsGiven(RowBefore), IsGiven(RowAfter));
        return was != now || (was && RowBefore!.CalendarId != RowAfter!.CalendarId);

        bool IsGiven(EventRow? row) =>
            row is { GivenTo: not null } or { Editors: not null }
            && (EventRow.ToAttendees(row.GivenTo).Has(person) || EventRow.ToAttendees(row.Editors).Has(person));
    }

    private static EventRow? EventOf(string? state) =>
        state is not null && StoredText.Read<EventRow>(state) is { DeletedAt: null } row ? row : null;

    private static bool IsBinned(string? state) =>
        state is not null && StoredText.Read<CalendarRow>(state).DeletedAt is not null;

    private static HashSet<GroupId> GroupsOf(ChangeRow row)
    {
        var found = new HashSet<GroupId>();
        if (row.GroupId is { } own)
        {
            found.Add(own);
        }

        foreach (var state in new[] { row.Before, row.After }.OfType<string>())
        {
            if (row.Subject is Subject.Calendar)
            {
                found.Add(StoredText.Read<CalendarRow>(state).GroupId);
            }
            else if (row.Subject is Subject.GroupGrant)
            {
                found.Add(StoredText.Read<GroupGrantRow>(state).GroupId);
            }
        }

        return found;
    }
}
