namespace Mortar.Core.Noticeboards;

/// <summary>Another website that may show a noticeboard.</summary>
public static class BoardSite
{
    /// <summary>
    /// Its origin (RFC 6454, 6.2) from what somebody wrote or pasted: the address of a page of it, or its name alone.
    /// <c>null</c> where it is none. What comes out has no character that could end a header or a list in it.
    /// </summary>
    public static string? Origin(string written)
    {
        var text = written.Contains("://", StringComparison.Ordinal) ? written : $"https://{written}";
        if (
            !Uri.TryCreate(text, UriKind.Absolute, out var uri)
            || (uri.Scheme != Uri.UriSchemeHttps && uri.Scheme != Uri.UriSchemeHttp)
            || uri.UserInfo.Length > 0
            || !(uri.HostNameType == UriHostNameType.Dns || uri.HostNameType == UriHostNameType.IPv4)
        )
        {
            return null;
        }

        var host = uri.IdnHost.ToLowerInvariant();
        return
            host.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.')
            && (host == "localhost" || host.Contains('.', StringComparison.Ordinal))
            ? FormattableString.Invariant($"{uri.Scheme}://{host}{(uri.IsDefaultPort ? "" : $":{uri.Port}")}")
            : null;
    }
}
