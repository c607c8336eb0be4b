namespace Mortar.Core.Groups;

/// <summary>Whether a group is at work.</summary>
public enum GroupState
{
    /// <summary>It is.</summary>
    There,

    /// <summary>It has ended, a term or a season: it is read and not changed, and off the walls until somebody wakes it.</summary>
    AtRest,

    /// <summary>It waits in the bin, with all its calendars.</summary>
    InBin,
}
