using System.Collections.Concurrent;
using System.Net;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>The hosts inside one's own network from which calendars may be fetched, as whoever runs Mortar names them.</summary>
internal sealed class WebInside
{
    private readonly HashSet<string> allowed;
    private readonly ConcurrentDictionary<string, Func<Task<IPEndPoint>>> own = new(StringComparer.OrdinalIgnoreCase);

    public WebInside(MortarOptions options) =>
        allowed = options
            .WebInside.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>Where a name leads that is part of Mortar itself; <c>null</c> for all others.</summary>
    public async Task<IPEndPoint?> Own(string host) => own.TryGetValue(host, out var open) ? await open() : null;

    /// <summary>Gives a part of Mortar a name at which calendars are fetched from it; it is opened when it is asked first.</summary>
    public void Lead(string host, Func<Task<IPEndPoint>> open) => own[host] = open;

    /// <summary>Whether one is among them: the host as it is written in the address, at any port or at that one.</summary>
    public bool Has(string host, int port) => allowed.Contains(host) || allowed.Contains($"{host}:{port}");
}
