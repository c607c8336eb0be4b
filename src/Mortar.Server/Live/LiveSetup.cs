using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;

namespace Mortar.Server.Live;

/// <summary>The open line to each screen. It only tells; nothing is asked over it.</summary>
/// <remarks>
/// <c>calendarChanged(calendarId)</c>: something in that calendar changed. <c>shelfChanged()</c>: a layer came, went
/// or looks different. <c>inboxChanged()</c>: there is something in the inbox. <c>reminded()</c>: a reminder was given. Never any content: the screen fetches
/// what it shows, and gets what its person may see.
/// </remarks>
[Authorize]
internal sealed class LiveHub : Hub;

internal static class LiveSetup
{
    public static void AddLive(this IServiceCollection services)
    {
        services.AddSignalR();
        services.AddHostedService<ChangeReader>();
        services.AddHostedService<AccessEnds>();
    }

    public static void MapLive(this WebApplication app) => app.MapHub<LiveHub>("/live");
}
