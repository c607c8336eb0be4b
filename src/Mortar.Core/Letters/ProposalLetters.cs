using Mortar.Core.Proposals;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>What is written about several times of which one is to be settled.</summary>
public static class ProposalLetters
{
    /// <summary>The question which of them suit.</summary>
    /// <param name="title">What it is about.</param>
    /// <param name="place">Where; empty for nowhere said.</param>
    /// <param name="notes">More about it; empty for nothing.</param>
    /// <param name="times">The times.</param>
    /// <param name="to">Who is asked.</param>
    /// <param name="from">The name of who asks.</param>
    /// <param name="link">Where they say it, account or not.</param>
    /// <param name="now">What o'clock it is: a year is said where it is another.</param>
    public static Letter ToSuit(
        string title,
        string place,
        string notes,
        IEnumerable<ProposedTime> times,
        Recipient to,
        string from,
        string link,
        Instant now
    )
    {
        var year = now.InZone(to.Zone).Year;
        var lines = string.Join('\n', times.Select(time => $"- {RangeSentence.For(AsSeen(time), year)}"));
        return new(
            $"{from} asks which time suits you: {title}",
            $"""
            Hello {to.Name},

            {from} asks which of these times suit you ({to.Zone.Id}):

            {title}{Letter.Line(place)}{Letter.Paragraph(notes)}

            {lines}

            Say it here, you need no account for it:
            {link}
            """
        );

        EventTime AsSeen(ProposedTime time) =>
            EventTime.InZone(
                time.Start.InZone(to.Zone).LocalDateTime,
                time.End.InZone(to.Zone).LocalDateTime,
                to.Zone.Id
            );
    }
}
