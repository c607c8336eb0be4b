namespace Mortar.Core.Letters;

/// <summary>Which mails go out first where many wait: the lower, the sooner.</summary>
public enum MailRank
{
    /// <summary>One or a few by what somebody did: an address to confirm, an invitation, a question. Somebody waits for it.</summary>
    Awaited = 0,

    /// <summary>A reminder, or what became of an event somebody was asked to: of use until its time, and to as many as there are.</summary>
    Timed = 1,

    /// <summary>What goes to many at once, or is of use tomorrow as well.</summary>
    ToMany = 2,
}

/// <summary>Ranks what somebody's act has written.</summary>
public static class MailRanks
{
    /// <summary>Up to so many at once are written to people, and more to a crowd.</summary>
    public const int Few = 5;

    /// <summary>The rank of mails of which one act has written so many.</summary>
    public static MailRank Of(int writtenAtOnce) => writtenAtOnce > Few ? MailRank.ToMany : MailRank.Awaited;
}
