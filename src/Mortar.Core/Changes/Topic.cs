namespace Mortar.Core.Changes;

/// <summary>What an open screen is told about: what it shows of that it asks for anew. No content is ever told with it.</summary>
public enum Topic
{
    /// <summary>Something on a calendar.</summary>
    Wall,

    /// <summary>Which layers and groups one has, and what of them.</summary>
    Shelf,

    /// <summary>The people of one's groups, and those from outside.</summary>
    Groups,

    /// <summary>Who has a calendar, for those who coordinate it.</summary>
    Access,

    /// <summary>What waits for one, and what one is told.</summary>
    Inbox,

    /// <summary>Several times put to people as one question.</summary>
    Proposals,

    /// <summary>What one is reminded of.</summary>
    Reminders,

    /// <summary>The noticeboards that show calendars one coordinates.</summary>
    Noticeboards,
}
