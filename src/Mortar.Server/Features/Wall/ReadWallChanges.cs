using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Data.Reading;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/wall/changes: what is other on one's wall than at a version, so that an open screen asks for no more than that.</summary>
internal static class ReadWallChanges
{
    /// <param name="Version">Of when it is now, sealed.</param>
    /// <param name="Whole">Whether that cannot be told, and the whole wall has to be asked for.</param>
    /// <param name="Events">The events whose bricks, and clashes with them in, these take the place of.</param>
    /// <param name="Busy">The calendars whose busy times these take the place of.</param>
    internal sealed record Body(
        string Version,
        bool Whole,
        IReadOnlyList<Guid> Events,
        IReadOnlyList<Guid> Busy,
        IReadOnlyList<BrickBody> Bricks,
        IReadOnlyList<BrickTexts> Texts,
        IReadOnlyList<WallSetup.ClashBody> Clashes
    )
    {
        public static Body Nothing(string version) => new(version, Whole: false, [], [], [], [], []);

        /// <summary>Whether the wall that was told still holds.</summary>
        [JsonIgnore]
        public bool IsNothing => !Whole && Events.Count == 0 && Busy.Count == 0;
    }

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/wall/changes", Handle).WithName(nameof(ReadWallChanges));

    /// <param name="since">The version of the wall that is known.</param>
    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] string since,
        Acting acting,
        WindowReader wall,
        WallChanges changes,
        WallSeal seal,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var seen = await wall.See(acting.Person, cancellationToken);
        var window = seen.Days(from.Value, to.Value);
        return TypedResults.Ok(await changes.Since(seal.Open(since), seen, window, cancellationToken));
    }
}
