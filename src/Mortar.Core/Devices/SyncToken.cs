using System.Globalization;
using Mortar.Core.Access;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Devices;

/// <summary>
/// Up to when a program knows a calendar (DAV:sync-token, RFC 6578, 4): all that decides what it was told, so that it holds
/// over a restart and is known not to hold any more.
/// </summary>
/// <param name="Log">The newest change of the calendar that is in it; 0 for none.</param>
/// <param name="Mark">Stands for that change: another store has others of that number.</param>
/// <param name="Own">The newest of what only its reader set (alarms, a look) that is in it.</param>
/// <param name="Names">The last time anybody was called otherwise that is in it.</param>
/// <param name="Role">The step at which it was read.</param>
/// <param name="Day">The reader's day: what is only told as taken is told around it.</param>
/// <param name="Busy">Stands for the stretches that were told as taken; empty for none.</param>
/// <param name="Through">Up to which event a first reading got that was cut short; <c>null</c> for to the end.</param>
public sealed record SyncToken(
    long Log,
    string Mark,
    long Own,
    long Names,
    Role Role,
    LocalDate Day,
    string Busy,
    Guid? Through
)
{
    /// <summary>After so many days what went meanwhile may be gone for good, with all that says that it was there.</summary>
    public const int LastsDays = 25;

    private const string Scheme = "urn:mortar:sync:";

    /// <summary>It as a URI, as which programs keep it.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Scheme}{Log}:{Mark}:{Own}:{Names}:{(int)Role}:{LocalDatePattern.Iso.Format(Day)}:{Busy}:{(Through is { } through ? through.ToString("N") : "")}"
        );

    /// <summary>Reads one; <c>null</c> where it is none of ours.</summary>
    public static SyncToken? Read(string? text)
    {
        if (text is null || text.Length > 400 || !text.StartsWith(Scheme, StringComparison.Ordinal))
        {
            return null;
        }

        var parts = text[Scheme.Length..].Split(':');
        return
            parts.Length == 8
            && Number(parts[0]) is { } log
            && Number(parts[2]) is { } own
            && Number(parts[3]) is { } names
            && Number(parts[4]) is { } role
            && Enum.IsDefined((Role)(int)Math.Min(role, int.MaxValue))
            && LocalDatePattern.Iso.Parse(parts[5]).TryGetValue(default, out var day)
            && (parts[7].Length == 0 || Guid.TryParseExact(parts[7], "N", out _))
            ? new SyncToken(
                log,
                parts[1],
                own,
                names,
                (Role)(int)role,
                day,
                parts[6],
                parts[7].Length == 0 ? null : Guid.ParseExact(parts[7], "N")
            )
            : null;

        static long? Number(string text) =>
            long.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;
    }

    /// <summary>Whether it may still hold, read at a step on a day.</summary>
    public bool HoldsAt(Role role, LocalDate today) =>
        Role == role && Period.DaysBetween(Day, today) is >= -1 and <= LastsDays;
}
