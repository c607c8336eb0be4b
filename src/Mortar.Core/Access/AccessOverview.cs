using System.Collections.Immutable;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>
/// Who reaches which of a group's calendars that one coordinates, at which step and by which way. Calendars that one does not
/// coordinate are not in it, and neither is who reaches only those.
/// </summary>
/// <param name="GroupName">The group's name.</param>
/// <param name="Calendars">By name.</param>
/// <param name="Groups">Whole groups that were given a step, by name.</param>
/// <param name="Links">Links to whole calendars that lead somewhere, by name.</param>
/// <param name="Noticeboards">Noticeboards that the world reads now, and what it reads of the calendars there, by title.</param>
/// <param name="People">Everybody who reaches one of the calendars, and every member, by name.</param>
/// <param name="Left">Calendars that nobody of the group coordinates any more, told to those who coordinate the group.</param>
public sealed record AccessOverview(
    string GroupName,
    ImmutableArray<OverviewCalendar> Calendars,
    ImmutableArray<OverviewGroup> Groups,
    ImmutableArray<OverviewLink> Links,
    ImmutableArray<OverviewNoticeboard> Noticeboards,
    ImmutableArray<OverviewPerson> People,
    ImmutableArray<LeftCalendar> Left
);

/// <summary>A calendar of the group that nobody of it keeps.</summary>
public sealed record LeftCalendar(CalendarId Id, string Name);

/// <summary>A calendar that the reader coordinates.</summary>
public sealed record OverviewCalendar(CalendarId Id, string Name, Hue Hue, Mark Mark, Role GroupDefault);

/// <summary>A group that was given a step as a whole.</summary>
/// <param name="Members">How many are in it.</param>
public sealed record OverviewGroup(GroupId Id, string Name, int Members, ImmutableArray<OverviewCell> Cells);

/// <summary>A link to hand round, which gives a step on one calendar.</summary>
/// <param name="MostUses">How many people may use it; <c>null</c> for any number.</param>
/// <param name="Holders">How many have the calendar on their wall by it.</param>
public sealed record OverviewLink(
    LinkId Id,
    string Name,
    int? MostUses,
    int Holders,
    ImmutableArray<OverviewCell> Cells
);

/// <summary>A noticeboard, which gives a step to everybody who opens it.</summary>
public sealed record OverviewNoticeboard(NoticeboardId Id, string Title, ImmutableArray<OverviewCell> Cells);

/// <summary>Somebody who reaches one of the calendars, or a member.</summary>
/// <param name="Address">Told to coordinators of the group, and of whom was invited there or asked with it.</param>
/// <param name="IsMember">Whether they are in the group; others come from outside.</param>
/// <param name="HasLeft">Whether they were in it once and are no longer.</param>
/// <param name="HasAccount">Whether they can sign in.</param>
/// <param name="WasHere">Whether they have been here at all.</param>
/// <param name="IsUnseen">Whether they have not been here for long; when just is theirs.</param>
/// <param name="EventsAlone">How many events are given to them by themselves, of calendars that nothing else leads them to.</param>
public sealed record OverviewPerson(
    PersonId Id,
    string Name,
    ToldAddress? Address,
    bool IsMember,
    bool HasLeft,
    bool HasAccount,
    bool WasHere,
    bool IsUnseen,
    int EventsAlone,
    ImmutableArray<OverviewCell> Cells
);

/// <summary>One calendar for one row.</summary>
/// <param name="Role">The step: the highest of all ways.</param>
/// <param name="Stays">The step that stays where what was given to it alone ends, as <see cref="Standing.Stays"/>.</param>
/// <param name="Ways">Every way that counts, highest first.</param>
public sealed record OverviewCell(CalendarId Calendar, Role Role, Role Stays, ImmutableArray<OverviewWay> Ways);

/// <summary>A way that leads to a step.</summary>
/// <param name="Group">The name of the group it was given to, for that way.</param>
/// <param name="LastDay">The last day on which it counts; <c>null</c> where it has no end.</param>
public sealed record OverviewWay(Way Way, Role Role, string? Group, LocalDate? LastDay);
