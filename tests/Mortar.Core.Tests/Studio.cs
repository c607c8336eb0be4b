using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Tests;

/// <summary>A small made-up world for tests: one calendar, a few people, events by a line each.</summary>
internal static class Studio
{
    public const string London = "Europe/London";

    public static readonly ZoneClock Clock = new(new KnownZones(DateTimeZoneProviders.Tzdb));

    public static readonly PersonId Ines = new(new Guid("00000000-0000-0000-0000-000000000001"));

    public static readonly PersonId Priya = new(new Guid("00000000-0000-0000-0000-000000000002"));

    public static readonly CalendarId GlazeTests = new(new Guid("00000000-0000-0000-0000-0000000000c1"));

    public static DateTimeZone Zone(string id) => DateTimeZoneProviders.Tzdb[id];

    public static EventTime Hours(LocalDateTime start, int minutes, string zone = London) =>
        EventTime.InZone(start, start.PlusMinutes(minutes), zone);

    public static Event Event(
        EventTime time,
        Series? series = null,
        string title = "Firing",
        ShowAs showAs = ShowAs.Busy,
        bool cancelled = false
    ) =>
        new(
            new EventId(Guid.NewGuid()),
            GlazeTests,
            "uid",
            Ines,
            time,
            new EventContent(title, "Kiln yard", "Cone 6", showAs, cancelled),
            series,
            Version: 1
        );

    public static Series Every(string rule) => Series.By(RecurrenceRule.Of(rule));

    public static Window Week(LocalDate monday, string zone = London) => new(monday, monday.PlusDays(6), Zone(zone));
}
