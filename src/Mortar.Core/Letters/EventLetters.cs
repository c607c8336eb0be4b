using System.Diagnostics;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>Why somebody named on an event is written to.</summary>
public enum AskedAbout
{
    /// <summary>Whether they come.</summary>
    Whether,

    /// <summary>That one of several times was settled.</summary>
    Settled,
}

/// <summary>What is written about an event. Times are told on the recipient's clock, with its name.</summary>
public static class EventLetters
{
    /// <summary>The question whether somebody comes.</summary>
    /// <param name="whole">The event.</param>
    /// <param name="to">Who is asked.</param>
    /// <param name="from">The name of who asks.</param>
    /// <param name="about">Why they are written to.</param>
    /// <param name="link">Where they answer, account or not.</param>
    /// <param name="now">What o'clock it is: a year is said where it is another.</param>
    /// <param name="zones">Reads the clocks.</param>
    public static Letter ToAttend(
        Event whole,
        Recipient to,
        string from,
        AskedAbout about,
        string link,
        Instant now,
        ZoneClock zones
    )
    {
        var when = When(whole.Time, to, now, zones);
        var title = Title(whole);
        var (subject, opening) = about switch
        {
            AskedAbout.Whether => ($"{from} asks whether you come: {title}", $"{from} asks whether you come:"),
            AskedAbout.Settled => (
                $"It is settled: {title}, {when}",
                $"{from} settled on this time. If you have said how it suits you, that is your answer; here you can give another."
            ),
            _ => throw new UnreachableException(),
        };
        return new(
            subject,
            $"""
            Hello {to.Name},

            {opening}

            {title}
            {when} ({to.Zone.Id}){Repeats(
                whole,
                to,
                zones
            )}{Letter.Line(whole.Content.Place)}{Letter.Paragraph(whole.Content.Notes)}

            Answer here, you need no account for it:
            {link}
            """
        );
    }

    /// <summary>What became of an event, to somebody who was asked to it.</summary>
    /// <param name="tells">What they are told (<see cref="AnswerRules.ToTell"/>).</param>
    /// <param name="told">The event as they were told of it; <c>null</c> where they were told that it is off.</param>
    /// <param name="whole">The event as they may know it.</param>
    /// <param name="to">Who is told.</param>
    /// <param name="from">The name of who asked them.</param>
    /// <param name="link">Where they say whether they still come.</param>
    /// <param name="now">What o'clock it is.</param>
    /// <param name="zones">Reads the clocks.</param>
    public static Letter ToTell(
        ToldOfEvent tells,
        Event? told,
        Event whole,
        Recipient to,
        string from,
        string link,
        Instant now,
        ZoneClock zones
    )
    {
        var when = When(whole.Time, to, now, zones);
        var title = Title(whole);
        var before =
            told is not null && told.Time != whole.Time
                ? $"\n(before: {When(told.Time, to, now, zones)})"
                : string.Empty;
        var (subject, opening) = tells switch
        {
            ToldOfEvent.CalledOff => ($"Called off: {title}, {when}", "This does not take place:"),
            ToldOfEvent.NotAsked => ($"You are not asked any more: {title}, {when}", "This takes place without you:"),
            _ => ($"Changed: {title}, {when}", $"{from} asked you to this. It is now:"),
        };
        var answer =
            tells == ToldOfEvent.Changed
                ? $"\nDo you still come? Answer here, you need no account for it:\n{link}"
                : string.Empty;
        return new(
            subject,
            $"""
            Hello {to.Name},

            {opening}

            {title}
            {when} ({to.Zone.Id}){before}{Repeats(whole, to, zones)}{Letter.Line(whole.Content.Place)}
            {answer}
            """
        );
    }

    /// <summary>A reminder.</summary>
    /// <param name="seen">The date, as they see it.</param>
    /// <param name="to">Who is reminded.</param>
    /// <param name="link">Where it stands among the rest.</param>
    public static Letter ToRemind(VisibleEvent.Shown seen, Recipient to, string link)
    {
        var title = seen.Title.Length > 0 ? seen.Title : "An event without a title";
        var when = RangeSentence.For(seen.Seen, seen.Seen.LocalStart.Year);
        return new(
            $"{title}, {when}",
            $"""
            Hello {to.Name},

            this is to remind you of:

            {title}
            {when} ({to.Zone.Id}){Letter.Line(seen.Place)}{Letter.Paragraph(seen.Notes)}

            See it among the rest:
            {link}

            You set in Mortar when you are reminded: for each calendar in “My look”, by mail or not in your preferences.
            """
        );
    }

    private static string Title(Event whole) => whole.Content.Title.Length > 0 ? whole.Content.Title : "an event";

    private static string When(EventTime time, Recipient to, Instant now, ZoneClock zones) =>
        RangeSentence.For(zones.AsSeenIn(time, to.Zone), now.InZone(to.Zone).Year);

    private static string Repeats(Event whole, Recipient to, ZoneClock zones) =>
        whole.Series is { } series
            ? Letter.Line(
                SeriesSentence.For(whole.Time, series, zones.AsSeenIn(whole.Time, to.Zone).LocalStart.Year, to.Zone)
            )
            : string.Empty;
}
