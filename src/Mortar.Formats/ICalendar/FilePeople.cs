using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>Who is to be named in a file, and what they answered.</summary>
/// <param name="Names">What they are called; others are left out.</param>
/// <param name="Answers">What they answered, by event; <c>null</c> where that is not told.</param>
/// <param name="Clock">Zone rules.</param>
internal sealed record PeopleToWrite(
    IReadOnlyDictionary<PersonId, string> Names,
    ILookup<EventId, GivenAnswer>? Answers,
    ZoneClock Clock
)
{
    /// <summary>What counts of what somebody answered to an event, or to one date of it.</summary>
    public Answer AnswerOf(PersonId person, Event whole, LocalDateTime? only) =>
        Answers is null ? Answer.NeedsAction
        : only is { } start
            ? whole.OccurrenceAt(start, Clock, DateTimeZone.Utc) is { } date
                    ? AnswerRules.Of(person, Answers[whole.Id], date, Clock).Answer
                : Answer.NeedsAction
        : AnswerRules.ToWhole(person, Answers[whole.Id], whole, Clock).Answer;
}

/// <summary>
/// Who is named on an event and who organizes it (ATTENDEE and ORGANIZER, RFC 5545, 3.8.4.1 and 3.8.4.3), as calendar
/// addresses that are names and not mail addresses: <c>urn:uuid</c> (RFC 9562, 4), so that a file tells nobody's address and
/// comes back with the same people. Those of other programs are kept in the source and left alone.
/// </summary>
internal static class FilePeople
{
    /// <summary>Says that who is named is kept to those who may change it; others read nothing of it.</summary>
    private const string HidesAttendees = "X-MORTAR-HIDES-ATTENDEES";

    private const string Scheme = "urn:uuid:";

    /// <summary>Whether a component says who of ours is named on it: it was written here.</summary>
    public static bool Says(Component component) => component.Lines.Exists(IsOurs);

    public static PersonId? Organizer(Component component) =>
        component.All("ORGANIZER").Select(Person).FirstOrDefault(person => person is not null);

    /// <summary>The content with those who are named in a component.</summary>
    public static EventContent Read(Component component, EventContent content) =>
        Says(component)
            ? content with
            {
                Attendees = Attendees.Of(component.All("ATTENDEE").Select(Person).OfType<PersonId>()),
                HidesAttendees = component.First(HidesAttendees) is not null,
            }
            : content;

    /// <summary>Writes them with their answers; without names, those that stand there go. Answers do not come back in: nobody answers for others by a file.</summary>
    public static void Put(
        Component component,
        Event whole,
        EventContent content,
        PeopleToWrite? people,
        LocalDateTime? only
    )
    {
        component.Lines.RemoveAll(line => IsOurs(line) || line.Name == HidesAttendees);
        if (people is null || !people.Names.TryGetValue(whole.AddedBy, out var organizer))
        {
            return;
        }

        // One event has one organizer (RFC 5545, 3.6.1); somebody of another program's stays.
        if (component.First("ORGANIZER") is null)
        {
            component.Lines.Add(Line("ORGANIZER", whole.AddedBy, organizer));
        }

        component.Lines.AddRange(
            content
                .Attendees.Where(people.Names.ContainsKey)
                .Select(person =>
                    Line($"ATTENDEE{PartStat(people.AnswerOf(person, whole, only))}", person, people.Names[person])
                )
        );
        if (content.HidesAttendees)
        {
            component.Lines.Add(ContentLine.Of(HidesAttendees, "TRUE"));
        }
    }

    /// <summary>What somebody answered (RFC 5545, 3.2.12); nothing for nothing yet, which is what is taken where it is not said.</summary>
    internal static string PartStat(Answer answer) =>
        answer switch
        {
            Answer.Accepted => ";PARTSTAT=ACCEPTED",
            Answer.Declined => ";PARTSTAT=DECLINED",
            Answer.Tentative => ";PARTSTAT=TENTATIVE",
            _ => string.Empty,
        };

    internal static bool IsOurs(ContentLine line) => line.Name is "ATTENDEE" or "ORGANIZER" && Person(line) is not null;

    internal static PersonId? Person(ContentLine line) =>
        line.Value.StartsWith(Scheme, StringComparison.OrdinalIgnoreCase)
        && Guid.TryParseExact(line.Value[Scheme.Length..], "D", out var id)
            ? new PersonId(id)
            : null;

    /// <summary>A line of somebody who is one of ours, with its parameters.</summary>
    internal static ContentLine As(ContentLine line, PersonId person) =>
        ContentLine.Of(line.Text[..^(line.Value.Length + 1)], $"{Scheme}{person.Value:D}");

    internal static ContentLine Line(string property, PersonId person, string name) =>
        ContentLine.Of(
            $"{property};CN={CalendarFileWriter.Quoted(PlainText.OneLine(name).Replace('"', '\''))}",
            $"{Scheme}{person.Value:D}"
        );
}
