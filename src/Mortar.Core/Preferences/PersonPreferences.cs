using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Preferences;

/// <summary>How hours are written.</summary>
public enum ClockStyle
{
    /// <summary>19:00.</summary>
    Hours24,

    /// <summary>7:00 pm.</summary>
    Hours12,
}

/// <summary>How often what changed is told by mail.</summary>
public enum DigestRhythm
{
    /// <summary>Not at all.</summary>
    Never,

    /// <summary>Each day on which something changed, when usual hours begin.</summary>
    Daily,

    /// <summary>On the first day of the week.</summary>
    Weekly,
}

/// <summary>How one person likes to see time, and what their new events begin with; checked.</summary>
/// <param name="Zone">The zone whose clock the wall shows, an IANA name.</param>
/// <param name="SecondZone">A zone whose hours stand beside it; <c>null</c> for none.</param>
/// <param name="FirstDay">The day a week begins with.</param>
/// <param name="Clock">How hours are written.</param>
/// <param name="Locale">The language and region in which dates are written (BCP 47); empty for that of the device.</param>
/// <param name="DayBegins">When usual hours begin.</param>
/// <param name="DayEnds">When they end; after <paramref name="DayBegins"/>.</param>
/// <param name="EventMinutes">How long a new event is at first.</param>
/// <param name="EventCalendar">The calendar a new event goes to; <c>null</c> for the one that was written to last.</param>
public sealed record PersonPreferences(
    string Zone,
    string? SecondZone,
    IsoDayOfWeek FirstDay,
    ClockStyle Clock,
    string Locale,
    LocalTime DayBegins,
    LocalTime DayEnds,
    int EventMinutes,
    CalendarId? EventCalendar
)
{
    /// <summary>Whether people of one's groups are told when one is busy, and never with what.</summary>
    public bool ShowsBusy { get; init; }

    /// <summary>Whether reminders also come by mail.</summary>
    public bool RemindsByMail { get; init; } = true;

    /// <summary>How often a mail tells what changed in one's calendars.</summary>
    public DigestRhythm Digest { get; init; }

    /// <summary>What is told to one in which ways.</summary>
    public ToldTable Told { get; init; } = new();

    /// <summary>The hours in which nothing comes by itself; <c>null</c> for none.</summary>
    public QuietHours? Quiet { get; init; }

    /// <summary>Until when nothing comes by itself; <c>null</c> where it may come now.</summary>
    public Instant? QuietUntil(Instant now, DateTimeZone zone) => Quiet?.Until(now, zone);

    /// <summary>Whether something is laid over one's open screen as it happens.</summary>
    public bool IsOnScreen(NoticeTopic topic, Instant now, DateTimeZone zone) =>
        Told.Of(topic).Screen && QuietUntil(now, zone) is null;

    /// <summary>The shortest a new event can be at first, in minutes.</summary>
    public const int ShortestEvent = 5;

    /// <summary>The longest, in minutes.</summary>
    public const int LongestEvent = 24 * 60;

    /// <summary>The longest name of a language, in characters (RFC 5646, 4.4.1).</summary>
    public const int LongestLocale = 35;

    /// <summary>What somebody begins with in a zone.</summary>
    public static PersonPreferences In(string zone) =>
        new(
            zone,
            SecondZone: null,
            IsoDayOfWeek.Monday,
            ClockStyle.Hours24,
            Locale: string.Empty,
            new LocalTime(8, 0),
            new LocalTime(19, 0),
            EventMinutes: 60,
            EventCalendar: null
        );

    /// <summary>Checks them.</summary>
    public Checked<PersonPreferences> Check(ZoneClock clock)
    {
        var problems = new List<FieldProblem>();
        Unless(clock.Knows(Zone), "zone", "There is no time zone of that name. Use a name such as Europe/London.");
        Unless(
            SecondZone is null || clock.Knows(SecondZone),
            "secondZone",
            "There is no time zone of that name. Use a name such as America/Halifax, or leave it empty."
        );
        Unless(FirstDay != IsoDayOfWeek.None, "firstDay", "Choose the day your week begins with.");
        Unless(
            Locale.Length <= LongestLocale && Locale.All(one => char.IsAsciiLetterOrDigit(one) || one == '-'),
            "locale",
            "A language is written as en-GB, or left empty for that of the device."
        );
        Unless(DayBegins < DayEnds, "dayEnds", "Usual hours end after they begin.");
        Unless(
            EventMinutes is >= ShortestEvent and <= LongestEvent,
            "eventMinutes",
            $"A new event can be {ShortestEvent} to {LongestEvent} minutes long."
        );
        Unless(
            Quiet is not { } quiet || quiet.From != quiet.To,
            "quiet.to",
            "Quiet hours end at another time than they begin."
        );
        if (Told.WhyUnfit() is { } unfit)
        {
            problems.Add(unfit);
        }

        return new(this, problems);

        void Unless(bool fit, string path, string sentence)
        {
            if (!fit)
            {
                problems.Add(new FieldProblem(path, sentence));
            }
        }
    }
}
