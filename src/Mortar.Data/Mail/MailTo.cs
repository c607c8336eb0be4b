using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Mail;

/// <summary>Where a mail goes.</summary>
/// <param name="Address">The address.</param>
/// <param name="QuietUntil">Until when it is kept back; <c>null</c> where it goes out at once.</param>
internal readonly record struct MailTo(string Address, Instant? QuietUntil = null);

/// <summary>Asks people's tables of what is told to them.</summary>
internal static class MailReach
{
    /// <summary>Where something that is told at once goes; <c>null</c> where they do not want it so, or have no address.</summary>
    public static MailTo? AtOnce(this PersonRow person, NoticeTopic topic, Instant now, ZoneClock zones) =>
        person.Address is { } address
        && person.ToPreferences() is var preferences
        && preferences.Told.Of(topic).Mail == MailWay.AtOnce
            ? new MailTo(address, preferences.QuietUntil(now, zones.Zone(person.Zone)))
            : null;
}
