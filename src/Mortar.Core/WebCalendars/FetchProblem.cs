using System.Globalization;

namespace Mortar.Core.WebCalendars;

/// <summary>Why a calendar could not be fetched, as it is told to whoever reads it. None says what is where nobody is let in.</summary>
public static class FetchProblem
{
    /// <summary>Names that are not known, and hosts that are not of the public web: which of both is not told.</summary>
    public static string NotPublic(string host) =>
        $"“{host}” is not found on the public web. Check the address; one inside your own network has to be allowed by whoever runs Mortar.";

    /// <summary>It takes no calls.</summary>
    public static string NoAnswer(string host) => $"“{host}” does not answer.";

    /// <summary>It takes too long.</summary>
    public static string TooSlow(string host) => $"“{host}” took too long to give it out.";

    /// <summary>Who answers cannot show that they are that host.</summary>
    public static string NotTrusted(string host) =>
        $"“{host}” cannot show that it is who it says: its certificate does not hold.";

    /// <summary>It leads on, and again.</summary>
    public static string LeadsAstray(string host) => $"“{host}” leads on to where no calendar can be fetched from.";

    /// <summary>It is too much.</summary>
    public static string TooLarge(string host, int most) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"What “{host}” gives out is larger than {most / 1024 / 1024} MB, and no more is fetched."
        );

    /// <summary>It is packed in a way that is not opened.</summary>
    public static string Unreadable(string host) => $"What “{host}” gives out cannot be read.";

    /// <summary>It refuses.</summary>
    /// <param name="host">Who.</param>
    /// <param name="status">The status of HTTP (RFC 9110, 15).</param>
    public static string Refused(string host, int status) =>
        status switch
        {
            401 or 403 => $"“{host}” does not give it out to everybody. Ask for an address that needs no password.",
            404 or 410 => $"There is no calendar any more where the address leads on “{host}”.",
            429 or 503 => $"“{host}” asks to be left alone for a while.",
            >= 500 => $"“{host}” is in trouble itself just now.",
            _ => string.Create(CultureInfo.InvariantCulture, $"“{host}” answers {status} instead of a calendar."),
        };
}
