namespace Mortar.Core.Calendars;

/// <summary>Whose time the events of a calendar take.</summary>
public enum WhoseTime
{
    /// <summary>Those named on the event.</summary>
    Named,

    /// <summary>Everybody in the calendar's group, and those named.</summary>
    Group,

    /// <summary>One person's, whose own calendar it is, and those named.</summary>
    Person,

    /// <summary>Nobody's: the calendar is only to be looked at.</summary>
    Nobody,
}
