using System.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>
/// The alarms that one person has set on an event by a program of theirs (VALARM, RFC 5545, 3.6.6): nobody else's, and in
/// place of those of the event. Kept as they came, component by component.
/// </summary>
/// <param name="Text">
/// Of each component a line of an at sign and its RECURRENCE-ID, nothing for the series or single event itself, and then its
/// alarms, unfolded.
/// </param>
public sealed record OwnAlarms(string Text)
{
    /// <summary>The longest that is kept, in UTF-16 units.</summary>
    public const int Longest = 20_000;

    private const char Mark = '@';

    /// <summary>Those of some components.</summary>
    internal static OwnAlarms Of(IEnumerable<Component> components)
    {
        var text = new StringBuilder();
        foreach (var component in components.Where(component => component.Name == "VEVENT"))
        {
            var alarms = component.Inside.Where(IsAlarm).ToList();
            if (alarms.Count > 0)
            {
                text.Append(Mark).Append(KeyOf(component)).Append('\n');
                alarms.ForEach(alarm => text.Append(alarm.ToText()));
            }
        }

        return new OwnAlarms(text.ToString());
    }

    /// <summary>Which component of an event it is.</summary>
    internal static string KeyOf(Component component) => component.First("RECURRENCE-ID")?.Value.Trim() ?? string.Empty;

    internal static bool IsAlarm(Component component) => component.Name == "VALARM";

    /// <summary>Puts them in the place of whatever alarms there are.</summary>
    internal void Put(IEnumerable<Component> components)
    {
        var mine = Read();
        foreach (var component in components.Where(component => component.Name == "VEVENT"))
        {
            component.Inside.RemoveAll(IsAlarm);
            component.Inside.AddRange(mine.GetValueOrDefault(KeyOf(component), []));
        }
    }

    private Dictionary<string, List<Component>> Read()
    {
        var read = new Dictionary<string, List<Component>>(StringComparer.Ordinal);
        var (key, alarms) = (string.Empty, new StringBuilder());
        // No property begins with the mark, so that no line of an alarm is taken for one of these.
        foreach (var line in Text.Split('\n'))
        {
            if (line.StartsWith(Mark))
            {
                Close();
                key = line[1..];
            }
            else
            {
                alarms.Append(line).Append('\n');
            }
        }

        Close();
        return read;

        void Close()
        {
            read[key] = ComponentReader.Read(alarms.ToString(), new FindingList());
            alarms.Clear();
        }
    }
}
