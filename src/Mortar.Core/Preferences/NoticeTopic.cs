namespace Mortar.Core.Preferences;

/// <summary>What somebody can be told that others did: the rows of the table in which they say how.</summary>
public enum NoticeTopic
{
    /// <summary>One was put on an event, it was moved, one was taken off it, or it was called off.</summary>
    Plan,

    /// <summary>An event was handed to one, or one may change it now.</summary>
    Handed,

    /// <summary>A calendar came to one's group.</summary>
    Calendars,

    /// <summary>What one may do was raised, lowered or ended, also by its date.</summary>
    Access,

    /// <summary>A calendar or an event of one's own was deleted.</summary>
    Deleted,

    /// <summary>Somebody asks one something.</summary>
    Asks,

    /// <summary>Somebody answered what one asked.</summary>
    Answers,

    /// <summary>Something happened in what one keeps: who came to a group or left it, what became of a noticeboard.</summary>
    Keeping,
}

/// <summary>When something is told by mail.</summary>
public enum MailWay
{
    /// <summary>Not at all.</summary>
    None,

    /// <summary>As soon as it happened and no quiet hours are.</summary>
    AtOnce,

    /// <summary>In the mail that tells what changed, as often as that comes.</summary>
    Digest,
}

/// <summary>How one sort of thing is told.</summary>
/// <param name="Inbox">Whether it stands in the inbox.</param>
/// <param name="Screen">Whether it is shown on an open screen as it happens.</param>
/// <param name="Mail">When it comes by mail.</param>
public sealed record NoticeWays(bool Inbox, bool Screen, MailWay Mail);
