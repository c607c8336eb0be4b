using System.Diagnostics;

namespace Mortar.Core.Changes;

/// <summary>What a history can be narrowed to.</summary>
public enum HistoryTopic
{
    /// <summary>Events and series, and what was said to them.</summary>
    Events,

    /// <summary>How calendars, groups and noticeboards are set up.</summary>
    Settings,

    /// <summary>Who may see and change what.</summary>
    Access,

    /// <summary>Who is in a group, and who answers for whom.</summary>
    People,

    /// <summary>Times put to people.</summary>
    Proposals,
}

/// <summary>Finds the topic of a change.</summary>
public static class HistoryTopics
{
    /// <summary>What a change is about.</summary>
    public static HistoryTopic Of(Subject subject) =>
        subject switch
        {
            Subject.Event or Subject.Answer or Subject.Agreement or Subject.FineClash => HistoryTopic.Events,
            Subject.Calendar or Subject.Group or Subject.Noticeboard => HistoryTopic.Settings,
            Subject.Grant
            or Subject.GroupGrant
            or Subject.Invitation
            or Subject.Ask
            or Subject.OpenAsk
            or Subject.Link
            or Subject.LinkHolder => HistoryTopic.Access,
            Subject.Member or Subject.Guardian or Subject.Guest => HistoryTopic.People,
            Subject.Proposal or Subject.Suitings => HistoryTopic.Proposals,
            _ => throw new UnreachableException($"{subject} has no topic."),
        };

    /// <summary>The subjects of a topic.</summary>
    public static IReadOnlyList<Subject> Subjects(HistoryTopic topic) =>
        [.. Enum.GetValues<Subject>().Where(subject => Of(subject) == topic)];
}
