namespace Mortar.Core.Calendars;

/// <summary>How the bricks of a kind differ from the others of their calendar, within its colour.</summary>
public enum Tint
{
    /// <summary>As the calendar.</summary>
    Even,

    /// <summary>Stronger.</summary>
    Deep,

    /// <summary>Paler.</summary>
    Pale,

    /// <summary>With a fine grain.</summary>
    Flecked,
}

/// <summary>A sort of events in a calendar: session, fair, deadline.</summary>
/// <param name="Name">One line; once in a calendar, whatever the case of its letters.</param>
/// <param name="Tint">How its bricks look.</param>
public sealed record Kind(string Name, Tint Tint);
