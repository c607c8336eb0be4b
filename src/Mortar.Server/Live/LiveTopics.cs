using Microsoft.AspNetCore.SignalR;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Kinds;

namespace Mortar.Server.Live;

/// <summary>How open screens are told that something changed: never what.</summary>
internal static class LiveTopics
{
    /// <summary>The one message of the line: <c>changed(topic, calendarId, sets)</c>.</summary>
    public const string Changed = "changed";

    /// <summary>Tells people of what changed for them.</summary>
    public static Task Tell(this IHubContext<LiveHub> hub, Told told, CancellationToken cancellationToken) =>
        hub
            .Clients.Users([.. told.People.Select(person => person.Value.ToString())])
            .SendAsync(
                Changed,
                NameOf(told.Topic),
                told.About?.Value,
                told.Sets.Select(set => set.Value).ToArray(),
                cancellationToken
            );

    /// <summary>Tells people of what nobody did: a clock, or a mail server.</summary>
    public static Task Tell(
        this IHubContext<LiveHub> hub,
        IReadOnlyCollection<PersonId> people,
        Topic topic,
        CancellationToken cancellationToken
    ) =>
        people.Count == 0
            ? Task.CompletedTask
            : hub.Tell(new Told([.. people], topic, About: null, Sets: []), cancellationToken);

    /// <summary>Has everybody ask anew for all they show.</summary>
    public static async Task TellAll(this IHubContext<LiveHub> hub, CancellationToken cancellationToken)
    {
        foreach (var topic in Enum.GetValues<Topic>())
        {
            await hub.Clients.All.SendAsync(Changed, NameOf(topic), null, Array.Empty<Guid>(), cancellationToken);
        }
    }

    /// <summary>What a topic is called on the line and in the web: "wall".</summary>
    private static string NameOf(Topic topic) => topic.ToString().ToLowerInvariant();
}
