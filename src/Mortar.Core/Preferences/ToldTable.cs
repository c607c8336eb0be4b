using Mortar.Core.Words;

namespace Mortar.Core.Preferences;

/// <summary>What is told to somebody in which ways. As it is made, it is what everybody begins with.</summary>
public sealed record ToldTable
{
    /// <summary>Where and when one is expected is told at once.</summary>
    public NoticeWays Plan { get; init; } = new(Inbox: true, Screen: true, MailWay.AtOnce);

    /// <summary>Events handed to one, or that one may change.</summary>
    public NoticeWays Handed { get; init; } = new(Inbox: true, Screen: true, MailWay.Digest);

    /// <summary>Calendars that came to one's groups.</summary>
    public NoticeWays Calendars { get; init; } = new(Inbox: true, Screen: false, MailWay.Digest);

    /// <summary>What one may do.</summary>
    public NoticeWays Access { get; init; } = new(Inbox: true, Screen: false, MailWay.Digest);

    /// <summary>What was deleted of one's own.</summary>
    public NoticeWays Deleted { get; init; } = new(Inbox: true, Screen: true, MailWay.Digest);

    /// <summary>Somebody waits for it.</summary>
    public NoticeWays Asks { get; init; } = new(Inbox: true, Screen: true, MailWay.AtOnce);

    /// <summary>Answers to what one asked.</summary>
    public NoticeWays Answers { get; init; } = new(Inbox: true, Screen: false, MailWay.None);

    /// <summary>What one keeps.</summary>
    public NoticeWays Keeping { get; init; } = new(Inbox: true, Screen: false, MailWay.None);

    /// <summary>How one sort of thing is told.</summary>
    public NoticeWays Of(NoticeTopic topic) =>
        topic switch
        {
            NoticeTopic.Plan => Plan,
            NoticeTopic.Handed => Handed,
            NoticeTopic.Calendars => Calendars,
            NoticeTopic.Access => Access,
            NoticeTopic.Deleted => Deleted,
            NoticeTopic.Asks => Asks,
            NoticeTopic.Answers => Answers,
            NoticeTopic.Keeping => Keeping,
            _ => throw new ArgumentOutOfRangeException(nameof(topic), topic, "Nothing of that sort is told."),
        };

    /// <summary>What is wrong with it; <c>null</c> where nothing is.</summary>
    public FieldProblem? WhyUnfit() =>
        Asks.Inbox
            ? null
            : new FieldProblem(
                "told.asks.inbox",
                "What somebody asks you stays in your inbox until it is answered. Choose whether it also comes in other ways."
            );
}
