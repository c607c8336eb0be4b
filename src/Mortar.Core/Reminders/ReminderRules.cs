using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Reminders;

/// <summary>How somebody is reminded of what is in one calendar.</summary>
public abstract record CalendarReminder
{
    private CalendarReminder() { }

    /// <summary>Of what they are named on, as each event says.</summary>
    public sealed record AsEventsSay : CalendarReminder;

    /// <summary>Of nothing.</summary>
    public sealed record Never : CalendarReminder;

    /// <summary>Of everything: as an event says, and so many minutes before where it says nothing.</summary>
    public sealed record Before(int Minutes) : CalendarReminder;
}

/// <summary>Who is reminded of what, and when.</summary>
public static class ReminderRules
{
    /// <summary>
    /// How late a reminder is still of use once the thing has begun: as long as a sender may take that looks every few
    /// seconds, and no longer. Before that it is of use however late it is.
    /// </summary>
    public static readonly Duration Grace = Duration.FromMinutes(10);

    /// <summary>How many minutes before the start somebody is reminded; <c>null</c> for not at all.</summary>
    /// <param name="person">Who.</param>
    /// <param name="occurrence">One time of an event that they see.</param>
    /// <param name="own">What they chose for its calendar.</param>
    /// <param name="answer">Whether they come. Whoever said no is left in peace.</param>
    public static int? MinutesFor(PersonId person, Occurrence occurrence, CalendarReminder own, Answer answer)
    {
        var content = occurrence.Content;
        return content.Cancelled || answer == Answer.Declined
            ? null
            : own switch
            {
                CalendarReminder.Before before => content.Reminder ?? before.Minutes,
                CalendarReminder.AsEventsSay when Concerns(person, occurrence) => content.Reminder,
                _ => null,
            };
    }

    /// <summary>When a reminder is due: so long before the start, or before usual hours begin on the first of whole days.</summary>
    /// <remarks>A day begins at midnight by the standard; nobody is helped by being reminded of it then (common practice, no source).</remarks>
    /// <param name="occurrence">What it is about.</param>
    /// <param name="minutes">How long before.</param>
    /// <param name="zone">The zone of who is reminded.</param>
    /// <param name="dayBegins">When their usual hours begin.</param>
    public static Instant DueAt(Occurrence occurrence, int minutes, DateTimeZone zone, LocalTime dayBegins) =>
        StartFor(occurrence, zone, dayBegins) - Duration.FromMinutes(minutes);

    /// <summary>When it begins for somebody: whole days with their usual hours, floating times on their own clock.</summary>
    public static Instant StartFor(Occurrence occurrence, DateTimeZone zone, LocalTime dayBegins) =>
        occurrence.Time switch
        {
            EventTime.AllDay => ZoneClock.At(occurrence.Time.LocalStart.Date + dayBegins, zone),
            EventTime.Floating => ZoneClock.At(occurrence.Time.LocalStart, zone),
            _ => occurrence.Span.Start,
        };

    /// <summary>Whether a reminder that was due is still to be given.</summary>
    /// <param name="due">When it was due.</param>
    /// <param name="start">When the thing begins.</param>
    /// <param name="now">Now.</param>
    public static bool IsStillOfUse(Instant due, Instant start, Instant now) => now < start || now - due <= Grace;

    /// <summary>Those named on it, and where nobody is, who put it in.</summary>
    private static bool Concerns(PersonId person, Occurrence occurrence) =>
        occurrence.Content.Attendees.Count > 0
            ? occurrence.Content.Attendees.Has(person)
            : occurrence.Event.AddedBy == person;
}
