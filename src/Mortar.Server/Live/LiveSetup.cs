using System.Security.Claims;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;

namespace Mortar.Server.Live;

/// <summary>The open line to each screen. It only tells; nothing is asked over it.</summary>
/// <remarks>
/// It knows one message, <c>changed(topic, calendarId, sets)</c>: of what is told in <see cref="Core.Changes.Topic"/> something
/// changed that its person may see, in that calendar where it is about one; with the acts by which, where nobody but they did
/// it. Never any content, and not how much others write either: the screen fetches what it shows, and gets what its person
/// may see.
/// </remarks>
[Authorize]
internal sealed class LiveHub(LiveConnections lines) : Hub
{
    /// <inheritdoc />
    public override Task OnConnectedAsync()
    {
        lines.Add(
            Context.UserIdentifier ?? string.Empty,
            Guid.TryParse(Context.User?.FindFirstValue(SignInClaim), out var id) ? id : Guid.Empty,
            Context
        );
        return base.OnConnectedAsync();
    }

    /// <inheritdoc />
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        lines.Remove(Context);
        return base.OnDisconnectedAsync(exception);
    }

    /// <summary>The claim that names the sign-in a line came with.</summary>
    public const string SignInClaim = "mortar:sign-in";
}

internal static class LiveSetup
{
    public static void AddLive(this IServiceCollection services)
    {
        services.AddSignalR();
        services.AddSingleton<LiveConnections>();
        services.AddHostedService<ChangeReader>();
        services.AddHostedService<AccessEnds>();
    }

    public static void MapLive(this WebApplication app) => app.MapHub<LiveHub>("/live");
}
