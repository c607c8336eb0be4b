using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Letters;

/// <summary>Where what is written about in a mail is found.</summary>
/// <param name="Url">Where people reach Mortar, without a slash at the end.</param>
public sealed record PublicLinks(string Url)
{
    /// <summary>Where one says whether one comes. Whoever has the secret needs no account, here and in those below.</summary>
    public string Answer(string secret) => $"{Url}/answer/{secret}";

    /// <summary>Where one says which of several times suit.</summary>
    public string Suits(string secret) => $"{Url}/suits/{secret}";

    /// <summary>Where a name in a group becomes somebody's own.</summary>
    public string Join(string secret) => $"{Url}/join/{secret}";

    /// <summary>Where an invitation to a calendar is answered.</summary>
    public string Invitation(string secret) => $"{Url}/invitation/{secret}";

    /// <summary>Where a further address is confirmed.</summary>
    public string Address(string secret) => $"{Url}/address/{secret}";

    /// <summary>Where who forgot their password sets a new one.</summary>
    public string Reset(string secret) => $"{Url}/reset/{secret}";

    /// <summary>Where who forgot their password asks for that.</summary>
    public string Forgotten => $"{Url}/forgotten";

    /// <summary>A noticeboard, by the name in its address.</summary>
    public string Noticeboard(string address) => $"{Url}/b/{address}";

    /// <summary>Where calendar programs read a feed, by its secret.</summary>
    public string Feed(string secret) => $"{Url}/feed/{secret}.ics";

    /// <summary>Where calendar programs sign in with the key of a device.</summary>
    public string Devices => $"{Url}/dav/";

    /// <summary>What waits for one's answer.</summary>
    public string Inbox => $"{Url}/inbox";

    /// <summary>Where one says what is told to one, and how.</summary>
    public string Preferences => $"{Url}/preferences";

    /// <summary>A request for access, to be answered by those who sign in.</summary>
    public string Ask(AskId id) => $"{Url}/inbox?ask={id.Value}";

    /// <summary>The wall of this week.</summary>
    public string Week => $"{Url}/week";

    /// <summary>The wall of the week of a day.</summary>
    public string WeekOf(LocalDate day) => $"{Url}/week/{LocalDatePattern.Iso.Format(day)}";
}
