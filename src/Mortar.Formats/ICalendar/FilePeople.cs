using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Formats.ICalendar;

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

    /// <summary>Writes them; without names, those that stand there go.</summary>
    public static void Put(
        Component component,
        Event whole,
        EventContent content,
        IReadOnlyDictionary<PersonId, string>? names
    )
    {
        component.Lines.RemoveAll(line => IsOurs(line) || line.Name == HidesAttendees);
        if (names is null || !names.TryGetValue(whole.AddedBy, out var organizer))
        {
            return;
        }

        // One event has one organizer (RFC 5545, 3.6.1); somebody of another program's stays.
        if (component.First("ORGANIZER") is null)
        {
            component.Lines.Add(Line("ORGANIZER", whole.AddedBy, organizer));
        }

        component.Lines.AddRange(
            content.Attendees.Where(names.ContainsKey).Select(person => Line("ATTENDEE", person, names[person]))
        );
        if (content.HidesAttendees)
        {
            component.Lines.Add(ContentLine.Of(HidesAttendees, "TRUE"));
        }
    }

    private static bool IsOurs(ContentLine line) => line.Name is "ATTENDEE" or "ORGANIZER" && Person(line) is not null;

    private static PersonId? Person(ContentLine line) =>
        line.Value.StartsWith(Scheme, StringComparison.OrdinalIgnoreCase)
        && Guid.TryParseExact(line.Value[Scheme.Length..], "D", out var id)
            ? new PersonId(id)
            : null;

    private static ContentLine Line(string property, PersonId person, string name) =>
        ContentLine.Of(
            $"{property};CN={CalendarFileWriter.Quoted(PlainText.OneLine(name).Replace('"', '\''))}",
            $"{Scheme}{person.Value:D}"
        );
}
