using System.Globalization;
using System.Text;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>An event to be written, with the source it came from where it came from a file.</summary>
public sealed record EventToWrite(Event Event, string? Source);

/// <summary>What a file says of the calendar as a whole.</summary>
public sealed record FileHead(string Name, string Description, string Zone);

/// <summary>Writes events as an iCalendar file.</summary>
/// <remarks>
/// An event that came from a file is written from its source: what Mortar does not know stays as it was, and only what
/// was changed here is replaced. The others are written from what they are.
/// </remarks>
public static class CalendarFileWriter
{
    /// <summary>Says of whole days that hours will follow; others read them as whole days (RFC 5545, 3.8.8.2).</summary>
    internal const string TimesToBeSet = "X-MORTAR-TIMES-TO-BE-SET";

    private const int LongestOctets = 75;

    /// <summary>The year up to which zones are defined where that is to be the same each time; programs that know their names have rules of their own.</summary>
    private const int LastDefined = 2040;

    private static readonly LocalDatePattern Date = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly LocalDateTimePattern DateTime = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );
    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <summary>The whole file, lines ended by CRLF and folded at 75 octets.</summary>
    /// <param name="head">What stands for the calendar.</param>
    /// <param name="events">The events, in the order in which they are to stand.</param>
    /// <param name="names">What those are called who are named on the events and who organize them; others are left out.</param>
    /// <param name="now">The instant for DTSTAMP of events that have none of their own.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="answers">What those who are named answered, by event; <c>null</c> where that is not told.</param>
    public static string Write(
        FileHead head,
        IEnumerable<EventToWrite> events,
        IReadOnlyDictionary<PersonId, string> names,
        Instant now,
        ZoneClock clock,
        ILookup<EventId, GivenAnswer>? answers = null
    )
    {
        var lines = new List<ContentLine>
        {
            ContentLine.OfText("NAME", head.Name),
            ContentLine.OfText("X-WR-CALNAME", head.Name),
        };
        if (head.Description.Length > 0)
        {
            lines.Add(ContentLine.OfText("DESCRIPTION", head.Description));
        }

        return Write(lines, [], head.Zone, [.. events], new PeopleToWrite(names, answers, clock), now, clock);
    }

    /// <summary>One event as a message between calendars (RFC 5546).</summary>
    /// <param name="method">What is meant by it.</param>
    /// <param name="one">The event.</param>
    /// <param name="people">Lines for each of its components.</param>
    /// <param name="now">The instant for DTSTAMP.</param>
    /// <param name="clock">Zone rules.</param>
    internal static string WriteMessage(
        string method,
        EventToWrite one,
        IReadOnlyList<ContentLine> people,
        Instant now,
        ZoneClock clock
    ) => Write([ContentLine.Of("METHOD", method)], people, "UTC", [one], names: null, now, clock);

    /// <summary>A message that names an event and tells nothing of it, not even when it is.</summary>
    internal static string WriteNameOnly(string method, Event whole, IReadOnlyList<ContentLine> lines, Instant now)
    {
        var text = new StringBuilder();
        Line(text, "BEGIN:VCALENDAR");
        Line(text, "VERSION:2.0");
        Line(text, "PRODID:-//Mortar//Mortar//EN");
        Line(text, ContentLine.Of("METHOD", method).Text);
        Line(text, "BEGIN:VEVENT");
        foreach (var line in Naming(whole, now).Concat(lines))
        {
            Line(text, line.Text);
        }

        Line(text, "END:VEVENT");
        Line(text, "END:VCALENDAR");
        return text.ToString();
    }

    private static string Write(
        IReadOnlyList<ContentLine> lines,
        IReadOnlyList<ContentLine> inEach,
        string homeZone,
        List<EventToWrite> written,
        PeopleToWrite? names,
        Instant now,
        ZoneClock clock
    )
    {
        var components = written.SelectMany(one => Components(one, homeZone, names, now, clock)).ToList();
        foreach (var component in components.Where(component => component.Name == "VEVENT"))
        {
            component.Lines.AddRange(inEach);
        }

        return Whole(lines, components, written.ConvertAll(one => one.Event), now, clock);
    }

    /// <summary>The rules of a zone as a file of nothing else.</summary>
    /// <param name="zone">An IANA name.</param>
    /// <param name="clock">Zone rules.</param>
    public static string ZoneFile(string zone, ZoneClock clock)
    {
        var text = new StringBuilder();
        Line(text, "BEGIN:VCALENDAR");
        Line(text, "VERSION:2.0");
        Line(text, "PRODID:-//Mortar//Mortar//EN");
        text.Append(ZoneDefinition.KeptText(clock.Zone(zone), 2020, LastDefined));
        Line(text, "END:VCALENDAR");
        return text.ToString();
    }

    /// <summary>A whole file of components, with the definitions of the zones they name.</summary>
    /// <param name="lines">What it says of itself.</param>
    /// <param name="components">Those that are in it: VEVENTs, and definitions that came with them.</param>
    /// <param name="events">The events they were written from.</param>
    /// <param name="now">Up to ten years after it zones are defined; <c>null</c> for the same text whenever it is written, as far as the events need it.</param>
    /// <param name="clock">Zone rules.</param>
    internal static string Whole(
        IReadOnlyList<ContentLine> lines,
        IReadOnlyList<Component> components,
        IReadOnlyCollection<Event> events,
        Instant? now,
        ZoneClock clock
    )
    {
        var defined = DefinedZones(events);
        var vevents = components.Where(component => component.Name == "VEVENT").ToList();
        var foreign = CalendarFile.Definitions(components);
        var used = vevents
            .SelectMany(component => component.Lines)
            .Select(line => line.Parameter("TZID"))
            .OfType<string>()
            .Distinct(StringComparer.Ordinal)
            .Order(StringComparer.Ordinal);

        var text = new StringBuilder();
        Line(text, "BEGIN:VCALENDAR");
        Line(text, "VERSION:2.0");
        Line(text, "PRODID:-//Mortar//Mortar//EN");
        foreach (var line in lines)
        {
            Line(text, line.Text);
        }

        var lastYear = now is null ? LastYear(events) : 0;
        foreach (var zone in used)
        {
            if (!foreign.ContainsKey(zone) && clock.Knows(zone) && now is null)
            {
                text.Append(ZoneDefinition.KeptText(clock.Zone(zone), FirstYear(vevents), lastYear));
                continue;
            }

            var definition =
                foreign.TryGetValue(zone, out var kept) ? kept.Unfolded()
                : clock.Knows(zone) ? ZoneDefinition.Lines(clock.Zone(zone), FirstYear(vevents), now!.Value)
                : defined.TryGetValue(zone, out var rules) ? ZoneReader.Lines(rules)
                : [];
            foreach (var line in definition)
            {
                Line(text, line);
            }
        }

        foreach (var line in vevents.SelectMany(component => component.Unfolded()))
        {
            Line(text, line);
        }

        Line(text, "END:VCALENDAR");
        return text.ToString();
    }

    /// <summary>The last year in which zones have to do with some events: where they repeat, as far as definitions go.</summary>
    private static int LastYear(IEnumerable<Event> events) =>
        events.Max(one => one.Series is null ? one.Time.LocalEnd.Year : Math.Max(LastDefined, one.Time.LocalEnd.Year));

    /// <summary>The components of one event: of those that came from a file their source, with what was changed here.</summary>
    internal static IEnumerable<Component> Components(
        EventToWrite one,
        string zone,
        PeopleToWrite? names,
        Instant now,
        ZoneClock clock
    )
    {
        var (read, components) = one.Source is null ? (null, []) : CalendarFile.ReadSource(one.Source, zone, clock);
        return read is null ? New(one.Event, names, now) : Patched(one.Event, read, components, names, now);
    }

    private static IEnumerable<Component> New(Event whole, PeopleToWrite? names, Instant now)
    {
        var component = Bare(whole, whole.Time, whole.Content, names, only: null, now);
        if (whole.Series is not { } series)
        {
            return [component];
        }

        PutLength(component, whole.Time, series.NominalDays);
        component.Lines.AddRange(RuleLines(series));
        component.Lines.AddRange(series.ExceptRules.Select(rule => ContentLine.Of("EXRULE", rule.ToString())));
        component.Lines.AddRange(series.Extra.Select(start => When("RDATE", whole.Time, start)));
        component.Lines.AddRange(series.Excluded.Select(start => When("EXDATE", whole.Time, start)));
        return series.Overrides.Select(one => Changed(whole, one, names, now)).Prepend(component);
    }

    private static IEnumerable<ContentLine> RuleLines(Series series) =>
        series
            .Rules.Select(rule => rule.ToString())
            .Concat(series.NotShown is { } text ? [text] : [])
            .Select(rule => ContentLine.Of("RRULE", rule));

    private static IEnumerable<Component> Patched(
        Event whole,
        FileEvent read,
        List<Component> components,
        PeopleToWrite? names,
        Instant now
    )
    {
        var master = components.Find(component =>
            component.Name == "VEVENT" && component.First("RECURRENCE-ID") is null
        );
        if (master is not null)
        {
            Patch(master, whole.Content, read.Content);
            FilePeople.Put(master, whole, whole.Content, names, only: null);
            if (whole.Time != read.Time)
            {
                PutTime(master, whole.Time);
            }

            PatchSeries(master, whole, read);
        }

        var before = read.Changes.ToDictionary(one => one.Override);
        var after = whole.Series?.Overrides ?? [];
        var unchanged = after.Where(before.ContainsKey).Select(one => (Change: one, before[one].Component)).ToList();
        foreach (var (change, component) in unchanged)
        {
            FilePeople.Put(component, whole, change.Content, names, change.Replaces);
        }

        // A period among the extra dates is an override without a component, and stays in the RDATE as long as that does.
        var inDates = (read.Series?.Overrides ?? []).Where(one =>
            !before.ContainsKey(one) && (whole.Series?.Extra ?? []).SequenceEqual(read.Series!.Extra)
        );
        var changed = after
            .Where(one => !before.ContainsKey(one))
            .Except(inDates)
            .Select(one => Changed(whole, one, names, now));
        return
        [
            .. components.Where(component => component.Name == "VTIMEZONE"),
            .. master is null ? [] : new[] { master },
            .. unchanged.Select(one => one.Component),
            .. changed,
        ];
    }

    private static void PatchSeries(Component master, Event whole, FileEvent read)
    {
        var (now, was) = (whole.Series ?? new Series(), read.Series ?? new Series());
        if (!now.Rules.SequenceEqual(was.Rules) || now.NotShown != was.NotShown)
        {
            master.Replace("RRULE", RuleLines(now));
        }

        if (!now.ExceptRules.SequenceEqual(was.ExceptRules))
        {
            master.Replace("EXRULE", now.ExceptRules.Select(rule => ContentLine.Of("EXRULE", rule.ToString())));
        }

        if (!now.Extra.SequenceEqual(was.Extra))
        {
            master.Replace("RDATE", now.Extra.Select(start => When("RDATE", whole.Time, start)));
        }

        if (!now.Excluded.SequenceEqual(was.Excluded))
        {
            master.Replace("EXDATE", now.Excluded.Select(start => When("EXDATE", whole.Time, start)));
        }
    }

    private static void Patch(Component component, EventContent now, EventContent before)
    {
        Text("SUMMARY", now.Title, before.Title);
        Text("LOCATION", now.Place, before.Place);
        Text("DESCRIPTION", now.Notes, before.Notes);
        Text("CATEGORIES", now.Kind, before.Kind);
        if (now.Private != before.Private)
        {
            component.Replace("CLASS", now.Private ? [ContentLine.Of("CLASS", "PRIVATE")] : []);
        }

        if (now.Reminder != before.Reminder)
        {
            component.Inside.RemoveAll(inside => inside.Name == "VALARM");
            component.Inside.AddRange(now.Reminder is { } minutes ? [Alarm(minutes, now.Title)] : []);
        }

        if (now.ShowAs != before.ShowAs || now.Cancelled != before.Cancelled)
        {
            PutStatus(component, now);
        }

        void Text(string property, string value, string was)
        {
            if (value != was)
            {
                component.Replace(property, value.Length > 0 ? [ContentLine.OfText(property, value)] : []);
            }
        }
    }

    private static Component Alarm(int minutes, string title)
    {
        var alarm = new Component("VALARM", 0) { Whole = true };
        alarm.Lines.Add(ContentLine.Of("ACTION", "DISPLAY"));
        alarm.Lines.Add(ContentLine.OfText("DESCRIPTION", title.Length > 0 ? title : "untitled"));
        alarm.Lines.Add(ContentLine.Of("TRIGGER", string.Create(CultureInfo.InvariantCulture, $"-PT{minutes}M")));
        return alarm;
    }

    private static Component Changed(Event whole, Override one, PeopleToWrite? names, Instant now)
    {
        var component = Bare(whole, one.Time, one.Content, names, one.Replaces, now);
        var range = one.Range == OverrideRange.AndLater ? ";RANGE=THISANDFUTURE" : string.Empty;
        component.Lines.Insert(1, When("RECURRENCE-ID" + range, whole.Time, one.Replaces));
        return component;
    }

    private static Component Bare(
        Event whole,
        EventTime time,
        EventContent content,
        PeopleToWrite? names,
        LocalDateTime? only,
        Instant now
    )
    {
        var component = new Component("VEVENT", 0) { Whole = true };
        component.Lines.AddRange(Naming(whole, now));
        PutTime(component, time);
        Patch(component, content, EventContent.Blank);
        FilePeople.Put(component, whole, content, names, only);
        return component;
    }

    private static void PutStatus(Component component, EventContent content)
    {
        component.Replace(
            "STATUS",
            content.Cancelled ? [ContentLine.Of("STATUS", "CANCELLED")]
                : content.ShowAs == ShowAs.Tentative ? [ContentLine.Of("STATUS", "TENTATIVE")]
                : []
        );
        component.Replace("TRANSP", content.ShowAs == ShowAs.Free ? [ContentLine.Of("TRANSP", "TRANSPARENT")] : []);
    }

    private static void PutTime(Component component, EventTime time)
    {
        component.Lines.RemoveAll(line => line.Name is "DURATION" or TimesToBeSet);
        component.Replace("DTSTART", When("DTSTART", time, time.LocalStart));
        component.Replace("DTEND", time.LocalEnd > time.LocalStart ? [When("DTEND", time, time.LocalEnd)] : []);
        if (time is EventTime.AllDay { TimesToBeSet: true })
        {
            component.Lines.Add(ContentLine.Of(TimesToBeSet, "TRUE"));
        }
    }

    /// <summary>A length in days of the calendar has to be said as such, or others would read exact time (RFC 5545, 3.8.5.3).</summary>
    private static void PutLength(Component component, EventTime time, int nominalDays)
    {
        if (nominalDays > 0 && time is EventTime.Timed)
        {
            var rest = Period.Between(time.LocalStart.PlusDays(nominalDays), time.LocalEnd, PeriodUnits.Seconds);
            component.Replace(
                "DTEND",
                ContentLine.Of(
                    "DURATION",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"P{nominalDays}D{(rest.Seconds > 0 ? $"T{rest.Seconds}S" : string.Empty)}"
                    )
                )
            );
        }
    }

    private static ContentLine When(string property, EventTime kind, LocalDateTime at) =>
        kind switch
        {
            EventTime.AllDay => ContentLine.Of($"{property};VALUE=DATE", Date.Format(at.Date)),
            EventTime.Timed { Zone: "UTC" } => ContentLine.Of(property, DateTime.Format(at) + "Z"),
            EventTime.Timed timed => ContentLine.Of(
                $"{property};TZID={Quoted(ZoneRules.NameOf(timed.Zone))}",
                DateTime.Format(at)
            ),
            _ => ContentLine.Of(property, DateTime.Format(at)),
        };

    /// <summary>A parameter's value; with what would end it, in quotes (RFC 5545, 3.2), in which no quote can stand.</summary>
    internal static string Quoted(string value) =>
        value.AsSpan().ContainsAny(":;,") ? $"\"{value.Replace('"', '\'')}\"" : value;

    /// <summary>The zones that hold their own rules, by the name they are written under.</summary>
    private static Dictionary<string, ZoneRules> DefinedZones(IEnumerable<Event> events) =>
        events
            .SelectMany(one => (one.Series?.Overrides ?? []).Select(changed => changed.Time).Prepend(one.Time))
            .OfType<EventTime.Timed>()
            .Select(timed => ZoneRules.FromId(timed.Zone))
            .OfType<ZoneRules>()
            .GroupBy(rules => rules.Name, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.First(), StringComparer.Ordinal);

    private static int FirstYear(IEnumerable<Component> components) =>
        components
            .Select(component => component.First("DTSTART")?.Value)
            .Select(value =>
                int.TryParse(value?.Length >= 4 ? value[..4] : null, CultureInfo.InvariantCulture, out var year)
                    ? year
                    : 1970
            )
            .DefaultIfEmpty(1970)
            .Min();

    /// <summary>What names an event and its state, and every message has.</summary>
    private static IEnumerable<ContentLine> Naming(Event whole, Instant now) =>
        [
            ContentLine.Of("UID", whole.Uid),
            ContentLine.Of("DTSTAMP", Utc.Format(now)),
            ContentLine.Of("SEQUENCE", (whole.Version - 1).ToString(CultureInfo.InvariantCulture)),
        ];

    /// <summary>One line, folded so that no physical line is longer than 75 octets and no character is cut in two.</summary>
    internal static void Line(StringBuilder text, string line)
    {
        if (line.Length <= LongestOctets && Ascii.IsValid(line))
        {
            // Most lines are such.
            text.Append(line).Append("\r\n");
            return;
        }

        var octets = 0;
        foreach (var rune in line.EnumerateRunes())
        {
            if (octets + rune.Utf8SequenceLength > LongestOctets)
            {
                text.Append("\r\n ");
                octets = 1;
            }

            text.Append(rune);
            octets += rune.Utf8SequenceLength;
        }

        text.Append("\r\n");
    }
}
