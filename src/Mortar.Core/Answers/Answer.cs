namespace Mortar.Core.Answers;

/// <summary>What somebody who is named on an event answered (PARTSTAT, RFC 5545, 3.2.12).</summary>
public enum Answer
{
    /// <summary>Nothing yet; their time counts as taken.</summary>
    NeedsAction,

    /// <summary>Yes.</summary>
    Accepted,

    /// <summary>Perhaps; their time counts as tentative.</summary>
    Tentative,

    /// <summary>No; their time is theirs.</summary>
    Declined,
}
