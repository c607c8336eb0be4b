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
/// <param name="Told">What is told to one in which ways; left out, as everybody begins with.</param>
/// <param name="Quiet">The hours in which nothing comes by itself; <c>null</c> for none.</param>
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
    DigestRhythm Digest = DigestRhythm.Never,
    PreferencesBody.ToldBody? Told = null,
    PreferencesBody.QuietBody? Quiet = null
)
{
    /// <summary>The hours in which nothing comes by itself.</summary>
    /// <param name="From">Minutes after midnight.</param>
    /// <param name="To">Minutes after midnight; before the other where they go past it.</param>
    internal sealed record QuietBody(int From, int To);

    /// <summary>What is told to one in which ways, a row for each sort of thing.</summary>
    internal sealed record ToldBody(
        NoticeWays Plan,
        NoticeWays Handed,
        NoticeWays Calendars,
        NoticeWays Access,
        NoticeWays Deleted,
        NoticeWays Asks,
        NoticeWays Answers,
        NoticeWays Keeping
    )
    {
        public static ToldBody Of(ToldTable table) =>
            new(
                table.Plan,
                table.Handed,
                table.Calendars,
                table.Access,
                table.Deleted,
                table.Asks,
                table.Answers,
                table.Keeping
            );

        public ToldTable ToCore() =>
            new()
            {
                Plan = Plan,
                Handed = Handed,
                Calendars = Calendars,
                Access = Access,
                Deleted = Deleted,
                Asks = Asks,
                Answers = Answers,
                Keeping = Keeping,
            };
    }

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
            preferences.Digest,
            ToldBody.Of(preferences.Told),
            preferences.Quiet is { } quiet ? new QuietBody(Minutes(quiet.From), Minutes(quiet.To)) : null
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
            Told = Told?.ToCore() ?? new ToldTable(),
            Quiet = Quiet is { } quiet ? new QuietHours(At(quiet.From), At(quiet.To)) : null,
        };

    internal static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;

    private static LocalTime At(int minutes) =>
        LocalTime.FromMinutesSinceMidnight(Math.Clamp(minutes, 0, (24 * 60) - 1));
}
