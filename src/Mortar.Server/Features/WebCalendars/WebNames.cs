using System.Net;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>Says which addresses a name has.</summary>
internal interface IWebNames
{
    Task<IPAddress[]> Find(string host, CancellationToken cancellationToken);
}

/// <summary>Asks this machine's resolver.</summary>
internal sealed class WebNames : IWebNames
{
    public Task<IPAddress[]> Find(string host, CancellationToken cancellationToken) =>
        Dns.GetHostAddressesAsync(host, cancellationToken);
}
