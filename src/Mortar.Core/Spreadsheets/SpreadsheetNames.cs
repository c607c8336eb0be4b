using Mortar.Core.Time;

namespace Mortar.Core.Spreadsheets;

/// <summary>What there are spreadsheets of.</summary>
public enum SpreadsheetWhat
{
    /// <summary>Events, a row an occurrence.</summary>
    Events,

    /// <summary>People and places down, days across.</summary>
    Roster,

    /// <summary>Hours of people, by week and kind.</summary>
    Hours,

    /// <summary>Absences, a row each, and the grid of each month.</summary>
    Absences,

    /// <summary>The grid of each month alone.</summary>
    AbsenceDays,

    /// <summary>Who has what.</summary>
    Access,
}

/// <summary>How spreadsheets are asked for.</summary>
public static class SpreadsheetNames
{
    /// <summary>What is asked for by a name such as "absence-days"; <c>null</c> for none.</summary>
    public static SpreadsheetWhat? Find(string name) =>
        name switch
        {
            "events" => SpreadsheetWhat.Events,
            "roster" => SpreadsheetWhat.Roster,
            "hours" => SpreadsheetWhat.Hours,
            "absences" => SpreadsheetWhat.Absences,
            "absence-days" => SpreadsheetWhat.AbsenceDays,
            "access" => SpreadsheetWhat.Access,
            _ => null,
        };

    /// <summary>How many days it may be of: events go on and on, days across do not.</summary>
    public static int LongestDays(SpreadsheetWhat what) =>
        what switch
        {
            SpreadsheetWhat.Events => 1_830,
            SpreadsheetWhat.Roster => RosterRows.MostDays,
            _ => Window.LongestDays,
        };
}
