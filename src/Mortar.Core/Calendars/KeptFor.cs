using NodaTime;

namespace Mortar.Core.Calendars;

/// <summary>For how long is kept what nobody needs any more. Of what is in the bin, <see cref="Mortar.Core.Binned.BinRules"/> say it, and of mails <see cref="Letters.MailLife"/>.</summary>
public static class KeptFor
{
    /// <summary>How long after a thing began it is remembered that somebody was reminded of it: longer than any clock is put back.</summary>
    public static readonly Duration Reminders = Duration.FromDays(60);

    /// <summary>How long a sign-in that is over is remembered.</summary>
    public static readonly Duration SignIns = Duration.FromDays(60);

    /// <summary>How long the clashes that somebody called fine are remembered once they are over.</summary>
    public static readonly Duration FineClashes = Duration.FromDays(60);

    /// <summary>How long it is remembered how often a noticeboard was opened on a day.</summary>
    public static readonly Duration Opens = Duration.FromDays(400);

    /// <summary>How long what was fetched from the web is kept after the last calendar that came from there is gone.</summary>
    public static readonly Duration LeftSources = Duration.FromHours(1);

    /// <summary>The shortest time for which a change is remembered: longer than anything waits in the bin, or to be told in a digest.</summary>
    public const int ShortestHistory = 60;
}
