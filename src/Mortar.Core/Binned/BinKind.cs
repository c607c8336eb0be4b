namespace Mortar.Core.Binned;

/// <summary>What sort of thing waits in the bin.</summary>
public enum BinKind
{
    /// <summary>Events and series that one act deleted.</summary>
    Events,

    /// <summary>Dates that one act took out of a series that is still there.</summary>
    Dates,

    /// <summary>A calendar with all that is in it.</summary>
    Calendar,

    /// <summary>A group with all its calendars.</summary>
    Group,

    /// <summary>Several times put to people as one question, taken back.</summary>
    Proposal,
}
