using Mortar.Core.Access;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>Something that somebody else did, as one person is told it.</summary>
/// <param name="Topic">What it is about: in which ways it is told, they say by that.</param>
/// <param name="Sentence">What it says.</param>
/// <param name="Event">The event it is about, which they still see; <c>null</c> where it is about none.</param>
public sealed record NoticeLine(NoticeTopic Topic, string Sentence, EventId? Event = null)
{
    /// <summary>What the event is called, where it may be counted with others of the same act; <c>null</c> for everything else.</summary>
    public string? Title { get; init; }
}

/// <summary>Who is told, as they stand now.</summary>
/// <param name="Person">Who.</param>
/// <param name="RoleOn">Their step on a calendar.</param>
/// <param name="Zone">On whose clock.</param>
/// <param name="Zones">Zone rules.</param>
/// <param name="Now">Now.</param>
public sealed record NoticeReader(
    PersonId Person,
    Func<CalendarId, Role> RoleOn,
    DateTimeZone Zone,
    ZoneClock Zones,
    Instant Now
);

/// <summary>A calendar as far as its group is told of it.</summary>
/// <param name="Name">What it is called then.</param>
/// <param name="Default">The step of every member.</param>
/// <param name="IsThere">Whether it is not in the bin.</param>
public readonly record struct CalendarThen(string Name, Role Default, bool IsThere);

/// <summary>How a reader has to do with a calendar of a group.</summary>
/// <param name="IsMember">Whether they have been in the group since before the change.</param>
/// <param name="Stands">Their step on it now, in the bin as well as out of it.</param>
/// <param name="Own">The step they were given on it themselves.</param>
public readonly record struct NoticePlace(bool IsMember, Role Stands, Role Own);
