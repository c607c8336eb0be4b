using System.Text;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>The sample files, and reading and writing with the studio's settings.</summary>
internal static class Samples
{
    public static readonly ZoneClock Clock = new(new KnownZones(DateTimeZoneProviders.Tzdb));

    public static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 11, 12);

    /// <summary>Where who is named is not the matter.</summary>
    public static readonly IReadOnlyDictionary<PersonId, string> Nobody = new Dictionary<PersonId, string>();

    public static byte[] Bytes(string name) =>
        File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Samples", name));

    public static CalendarFileReading.Understood Read(string text) => Read(Encoding.UTF8.GetBytes(text));

    public static CalendarFileReading.Understood Read(byte[] bytes) =>
        Assert.IsType<CalendarFileReading.Understood>(CalendarFile.Read(bytes, "Europe/London", Clock));

    /// <summary>A file around the lines of one or more components.</summary>
    public static string File_(params string[] lines) =>
        string.Join(
            "\r\n",
            ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//test//EN", .. lines, "END:VCALENDAR", string.Empty]
        );

    public static string Event_(params string[] lines) =>
        File_(["BEGIN:VEVENT", "UID:one@example.org", .. lines, "END:VEVENT"]);
}
