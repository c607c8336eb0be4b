using System.Net;
using System.Net.Sockets;
using Mortar.Core.WebCalendars;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>There is nothing at that host that may be fetched.</summary>
internal sealed class NotPublicException : Exception
{
    public NotPublicException()
        : base("The host is not of the public web.") { }
}

/// <summary>
/// Connects to hosts of the public web and to no others. What a name resolves to is looked up once, all of it is checked, and
/// what was checked is what is connected to: a name that means something else a moment later leads nowhere else.
/// </summary>
internal sealed class WebLine(IWebNames names, WebInside inside)
{
    /// <summary>How many of a name's addresses are tried.</summary>
    private const int MostTries = 4;

    /// <summary>The client that goes by it: without cookies, proxies, redirects of its own, and connections that last.</summary>
    public HttpClient Client() =>
        new(
            new SocketsHttpHandler
            {
                ConnectCallback = Connect,
                AllowAutoRedirect = false,
                UseCookies = false,
                UseProxy = false,
                AutomaticDecompression = DecompressionMethods.None,
                PooledConnectionLifetime = TimeSpan.Zero,
                MaxResponseHeadersLength = 64,
                MaxResponseDrainSize = 0,
                ActivityHeadersPropagator = null,
            }
        )
        {
            Timeout = Timeout.InfiniteTimeSpan, // each fetch has its own
        };

    private async ValueTask<Stream> Connect(SocketsHttpConnectionContext context, CancellationToken cancellationToken)
    {
        var (host, port) = (context.DnsEndPoint.Host, context.DnsEndPoint.Port);
        Exception? last = null;
        foreach (var to in (await Find(host, port, cancellationToken)).Take(MostTries))
        {
            var socket = new Socket(to.AddressFamily, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
            try
            {
                await socket.ConnectAsync(to, cancellationToken);
                return new NetworkStream(socket, ownsSocket: true);
            }
            catch (SocketException bad)
            {
                socket.Dispose();
                last = bad;
            }
            catch
            {
                socket.Dispose();
                throw;
            }
        }

        throw last ?? new NotPublicException();
    }

    /// <summary>One with a zone is of a link, whatever it looks like (RFC 4007).</summary>
    private static bool IsPublic(IPAddress address) =>
        (address.AddressFamily != AddressFamily.InterNetworkV6 || address.ScopeId == 0)
        && PublicWeb.Has(address.GetAddressBytes());

    private async Task<IEnumerable<IPEndPoint>> Find(string host, int port, CancellationToken cancellationToken)
    {
        if (await inside.Own(host) is { } own)
        {
            return [own];
        }

        var isInside = inside.Has(host, port);
        if (!isInside && !PublicWeb.IsPort(port))
        {
            throw new NotPublicException();
        }

        IPAddress[] addresses;
        try
        {
            addresses = IPAddress.TryParse(host, out var literal)
                ? [literal]
                : await names.Find(host, cancellationToken);
        }
        catch (SocketException)
        {
            throw new NotPublicException();
        }

        return addresses.Length > 0 && (isInside || addresses.All(IsPublic))
            ? addresses.Select(address => new IPEndPoint(address, port))
            : throw new NotPublicException();
    }
}
