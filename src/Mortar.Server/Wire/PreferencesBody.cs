using Mortar.Core.Preferences;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Wire;

/// <summary>How one person likes to see time, on the wire.</summary>
/// <param name="DayBegins">Minutes after midnight.</param>
/// <param name="DayEnds">Minutes after midnight.</param>
/// <param name="ShowsBusy">Whether people of one's groups are told when one is busy, and never with what.</param>
/// <param name="RemindsByMail">Whether reminders also come by mail.</param>
/// <param name="Digest">How often a mail tells what changed in one's calendars.</param>
internal sealed record PreferencesBody(
    string Zone,
    string? SecondZone,
    IsoDayOfWeek FirstDay,
    ClockStyle Clock,
    string Locale,
    int DayBegins,
    int DayEnds,
    int EventMinutes,
    Guid? EventCalendar,
    bool ShowsBusy = false,
    bool RemindsByMail = true,
    DigestRhythm Digest = DigestRhythm.Never
)
{
    public static PreferencesBody Of(PersonPreferences preferences) =>
        new(
            preferences.Zone,
            preferences.SecondZone,
            preferences.FirstDay,
            preferences.Clock,
            preferences.Locale,
            Minutes(preferences.DayBegins),
            Minutes(preferences.DayEnds),
            preferences.EventMinutes,
            preferences.EventCalendar?.Value,
            preferences.ShowsBusy,
            preferences.RemindsByMail,
            preferences.Digest
        );

    public PersonPreferences ToCore() =>
        new(
            Zone,
            SecondZone,
            FirstDay,
            Clock,
            Locale,
            At(DayBegins),
            At(DayEnds),
            EventMinutes,
            EventCalendar is { } id ? new CalendarId(id) : null
        )
        {
            ShowsBusy = ShowsBusy,
            RemindsByMail = RemindsByMail,
            Digest = Digest,
        };

    internal static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;

    private static LocalTime At(int minutes) =>
        LocalTime.FromMinutesSinceMidnight(Math.Clamp(minutes, 0, (24 * 60) - 1));
}
