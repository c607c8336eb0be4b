using System.Globalization;
using Mortar.Core.Words;

namespace Mortar.Core.WebCalendars;

/// <summary>Where a calendar is kept on the web, as it is fetched: <c>https</c> or <c>http</c>, without names, passwords and marks within it.</summary>
public sealed record WebAddress
{
    /// <summary>The longest address, in UTF-16 units.</summary>
    public const int Longest = 2_000;

    private readonly Uri uri;

    private WebAddress(Uri uri) => this.uri = uri;

    /// <summary>All of it. It may hold a secret by which its owner gives the calendar out: it is for whoever brought it.</summary>
    public string Value => uri.AbsoluteUri;

    /// <summary>The host alone, which everybody may be told; a name in its own letters.</summary>
    public string Host => uri.Host;

    /// <summary>The host as names are looked up: in letters of ASCII, without the brackets of IPv6.</summary>
    public string DnsHost => uri.IdnHost;

    /// <summary>The port.</summary>
    public int Port => uri.Port;

    /// <summary>Whether nobody on the way reads what is fetched.</summary>
    public bool IsSecure => uri.Scheme == Uri.UriSchemeHttps;

    /// <summary>It, to be asked for.</summary>
    public Uri ToUri() => uri;

    /// <summary>Reads what somebody wrote. <c>webcal</c> stands for <c>https</c> (common practice, no source).</summary>
    public static Checked<WebAddress?> Check(string? written, string path = "address")
    {
        var text = (written ?? string.Empty).Trim().TrimStart('<').TrimEnd('>');
        return text.Length == 0 ? No("Write or paste the address of a calendar.")
            : text.Length > Longest
                ? No(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"An address can have up to {Longest} characters; this has {text.Length}."
                    )
                )
            : text.Any(char.IsControl) || !Uri.TryCreate(Web(text), UriKind.Absolute, out var uri)
                ? No("That is not an address. It should look like https://example.org/calendar.ics.")
            : uri.Scheme != Uri.UriSchemeHttp && uri.Scheme != Uri.UriSchemeHttps
                ? No("Calendars are fetched by https, http or webcal. Ask for an address that begins with one of them.")
            : uri.UserInfo.Length > 0
                ? No(
                    "There is a name or a password in that address, and everybody who coordinates the calendar would read it. Ask for an address without."
                )
            : uri.Host.Length == 0
                ? No("That address names no host. It should look like https://example.org/calendar.ics.")
            : new Checked<WebAddress?>(new WebAddress(Whole(uri)));

        Checked<WebAddress?> No(string sentence) => new(null, [new FieldProblem(path, sentence)]);
    }

    /// <summary>Where this one leads on to; <c>null</c> where that is no address that is fetched.</summary>
    /// <param name="location">What it says, which may be a part of an address.</param>
    public WebAddress? LeadsTo(Uri? location) =>
        location is not null
        && Uri.TryCreate(uri, location, out var next)
        && Check(next.AbsoluteUri) is { IsFit: true, Value: { } address }
        && (address.IsSecure || !IsSecure)
            ? address
            : null;

    /// <summary>Its address, as it is compared: a record of one address is one.</summary>
    public bool Equals(WebAddress? other) => other is not null && Value == other.Value;

    /// <inheritdoc />
    public override int GetHashCode() => Value.GetHashCode(StringComparison.Ordinal);

    /// <summary>The host alone: an address is never written out by mistake.</summary>
    public override string ToString() => Host;

    private static string Web(string text)
    {
        foreach (var scheme in new[] { "webcals://", "webcal://" })
        {
            if (text.StartsWith(scheme, StringComparison.OrdinalIgnoreCase))
            {
                return $"https://{text[scheme.Length..]}";
            }
        }

        return text.Contains("://", StringComparison.Ordinal) ? text : $"https://{text}";
    }

    private static Uri Whole(Uri uri) => new(uri.GetComponents(UriComponents.HttpRequestUrl, UriFormat.UriEscaped));
}
