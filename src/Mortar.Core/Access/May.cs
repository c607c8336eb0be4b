namespace Mortar.Core.Access;

/// <summary>What somebody may do with a calendar, for whoever offers it to them: decided by the very rules of the doing.</summary>
/// <param name="Add">To put events in; of a place, to book it.</param>
/// <param name="Export">To take everything with them as a file.</param>
/// <param name="History">To read what was done in it.</param>
/// <param name="Coordinate">To say who has it, agree to what others enter, and set it.</param>
public sealed record May(bool Add, bool Export, bool History, bool Coordinate)
{
    /// <summary>What a step allows.</summary>
    /// <param name="role">The step.</param>
    /// <param name="fromWeb">Whether what is in the calendar comes from the web.</param>
    public static May On(Role role, bool fromWeb) =>
        new(
            AccessRules.WhyNotAdd(role, fromWeb) is null,
            AccessRules.ToExport(role) == Verdict.Granted,
            AccessRules.ToReadHistory(role) == Verdict.Granted,
            AccessRules.ToCoordinate(role) == Verdict.Granted
        );
}
