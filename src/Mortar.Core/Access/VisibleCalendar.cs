using Mortar.Core.Calendars;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>A calendar's settings after they have passed the access rules: the only form in which they may leave for a client.</summary>
/// <remarks>The name, colour and mark are what a layer is known by and go to everybody who has one; what they say of it does not.</remarks>
public sealed record VisibleCalendar
{
    private VisibleCalendar(Role role, CalendarSettings settings)
    {
        Name = settings.Name;
        Hue = settings.Hue;
        Mark = settings.Mark;
        Zone = settings.Zone;
        Purpose = settings.Purpose;
        Description = role >= Role.Outline ? settings.Description : null;
        Takes = settings.Takes;
        Person = role >= Role.Times ? settings.Person : null;
        OneAtATime = settings.OneAtATime;
        Agreed = settings.Agreed;
        Kinds = role >= Role.View ? settings.Kinds : [];
        GroupDefault = role >= Role.Coordinate ? settings.GroupDefault : null;
    }

    /// <summary>Its name.</summary>
    public string Name { get; }

    /// <summary>Its colour.</summary>
    public Hue Hue { get; }

    /// <summary>Its sign.</summary>
    public Mark Mark { get; }

    /// <summary>The zone in which its new events are meant.</summary>
    public string Zone { get; }

    /// <summary>What it is for.</summary>
    public Purpose Purpose { get; }

    /// <summary>Whose time its events take.</summary>
    public WhoseTime Takes { get; }

    /// <summary>The one person whose time it takes, where it is one's.</summary>
    public PersonId? Person { get; }

    /// <summary>Whether it takes one booking at a time.</summary>
    public bool OneAtATime { get; }

    /// <summary>Whether a coordinator agrees to what others enter.</summary>
    public bool Agreed { get; }

    /// <summary>The kinds of its events; none where the step does not show them.</summary>
    public IReadOnlyList<Kind> Kinds { get; }

    /// <summary>What it says of itself; <c>null</c> where the step does not show it.</summary>
    public string? Description { get; }

    /// <summary>What every member of the group gets; <c>null</c> for those who do not coordinate.</summary>
    public Role? GroupDefault { get; }

    /// <summary>The settings as seen at a step; <c>null</c> where the calendar is not there for the reader.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="settings">The settings.</param>
    /// <param name="givesEvents">Whether some event of it is given to the reader by itself: it lies on a layer, which needs a name.</param>
    public static VisibleCalendar? Through(Role role, CalendarSettings settings, bool givesEvents = false) =>
        givesEvents || AccessRules.ToSee(role) == Verdict.Granted ? new VisibleCalendar(role, settings) : null;
}
