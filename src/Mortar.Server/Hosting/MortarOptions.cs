using System.ComponentModel.DataAnnotations;
using Mortar.Core.Calendars;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>How this Mortar is run. Bound from the section <c>Mortar</c>, from <c>Mortar__…</c> in the environment or from the command line.</summary>
internal sealed class MortarOptions
{
    public const string Section = "Mortar";

    /// <summary>Where everything is kept: the database, keys, mail of the post room.</summary>
    [Required(ErrorMessage = "Say where the data is kept: --data DIR.")]
    public string Data { get; init; } = string.Empty;

    /// <summary>Made-up people who sign in with one click, and the post room open to all. Never for real use.</summary>
    public bool Demo { get; init; }

    /// <summary>The date that counts as today, as <c>2026-03-11</c>; the real one where it is empty.</summary>
    [RegularExpression(@"^$|^\d{4}-\d{2}-\d{2}$", ErrorMessage = "Give the date as 2026-03-11.")]
    public string Today { get; init; } = string.Empty;

    /// <summary>Where people reach Mortar; links in mails begin with it. The address it listens on where it is empty.</summary>
    public string PublicUrl { get; init; } = string.Empty;

    /// <summary>Whether to start without the writes that a damaged log file holds; for once, after a copy was made.</summary>
    public bool LeaveOutLostWrites { get; init; }

    /// <summary>For how many days it is remembered who changed what and how it was before.</summary>
    [Range(KeptFor.ShortestHistory, 36_500)]
    public int HistoryDays { get; init; } = 36_500;

    /// <summary>For how many days a backup made each day is kept; 0 for none made.</summary>
    [Range(0, 3_650)]
    public int BackupDays { get; init; }

    /// <summary>Where those go; <c>backups</c> in the data directory where it is empty.</summary>
    public string BackupsTo { get; init; } = string.Empty;

    /// <summary>The built web application.</summary>
    public string Web { get; init; } = "web/dist";

    /// <summary>A real SMTP server; the built-in post room where it is empty.</summary>
    public string SmtpHost { get; init; } = string.Empty;

    /// <summary>The port of that server.</summary>
    [Range(1, 65535)]
    public int SmtpPort { get; init; } = 25;

    /// <summary>How many seconds that server may take to answer; three times as long to take a mail.</summary>
    [Range(1, 300)]
    public int SmtpPatience { get; init; } = 20;

    /// <summary>The port of this machine alone at which what is measured is read as text, at <c>/metrics</c>; 0 for none.</summary>
    [Range(0, 65535)]
    public int MetricsPort { get; init; }

    /// <summary>Where traces go: the address of an OTLP collector, as <c>http://127.0.0.1:4318/v1/traces</c>; nowhere where it is empty.</summary>
    [RegularExpression(
        @"^$|^https?://\S+$",
        ErrorMessage = "Give the address of the collector, as http://127.0.0.1:4318/v1/traces."
    )]
    public string TracesTo { get; init; } = string.Empty;

    /// <summary>The address mails come from.</summary>
    public string MailFrom { get; init; } = "mortar@kilnstreet.example.org";

    /// <summary>
    /// The addresses of web servers in front, parted by commas, alone or as ranges (<c>10.0.0.0/8</c>): what they say of where a
    /// request comes from is believed, and nobody else's. Empty for none.
    /// </summary>
    public string Proxies { get; init; } = string.Empty;

    /// <summary>
    /// The hosts inside one's own network from which calendars of the web may be fetched, parted by commas, each as it is written
    /// in an address: <c>cal.example.org</c>, or <c>10.0.0.5:8080</c> for that port alone. None where it is empty.
    /// </summary>
    public string WebInside { get; init; } = string.Empty;

    /// <summary>Whether people reach it by https: cookies go no other way then, and browsers are told never to try.</summary>
    public bool IsSecure => PublicUrl.StartsWith("https://", StringComparison.OrdinalIgnoreCase);

    /// <summary>
    /// How many times a minute one address of the network may try to sign in or make an account: two hundred people behind
    /// one address in the first minutes of a morning. Guessing at one account is slowed down by itself.
    /// </summary>
    [Range(1, 100_000)]
    public int SignInsPerMinute { get; init; } = 120;

    /// <summary>How many times a minute one address of the network may read by a link: a whole class is behind one.</summary>
    [Range(1, 100_000)]
    public int ReadsPerMinute { get; init; } = 600;

    /// <summary>The clock: the system's, or one that was set to a date and runs on from there.</summary>
    public IClock ToClock()
    {
        if (Today.Length == 0)
        {
            return SystemClock.Instance;
        }

        var date = NodaTime.Text.LocalDatePattern.Iso.Parse(Today).GetValueOrThrow();
        var then = (date + new LocalTime(11, 12))
            .InZoneLeniently(DateTimeZoneProviders.Tzdb["Europe/London"])
            .ToInstant();
        return new ShiftedClock(then - SystemClock.Instance.GetCurrentInstant());
    }

    private sealed class ShiftedClock(Duration shift) : IClock
    {
        public Instant GetCurrentInstant() => SystemClock.Instance.GetCurrentInstant() + shift;
    }
}
