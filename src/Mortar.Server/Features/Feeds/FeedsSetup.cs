using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Feeds;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Feeds;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Feeds;

/// <summary>/api/feeds: one's own addresses for other calendar programs.</summary>
internal static class FeedsSetup
{
    /// <param name="Of">Of what it tells.</param>
    /// <param name="CalendarId">The calendar, where it is of one.</param>
    /// <param name="SetId">The set, where it is of one.</param>
    /// <param name="Role">The step at most: Times only, Outline or View.</param>
    internal sealed record WishBody(FeedOf Of, Role Role, Guid? CalendarId = null, Guid? SetId = null);

    /// <param name="Name">What it is of; <c>null</c> where its owner sees nothing of that any more.</param>
    /// <param name="ReadAt">When a program last read it, to the hour; <c>null</c> for never.</param>
    internal sealed record Body(
        Guid Id,
        FeedOf Of,
        Guid? CalendarId,
        Guid? SetId,
        Role Role,
        string? Name,
        Instant MadeAt,
        Instant? ReadAt
    );

    /// <summary>The address itself. Its secret is not kept, so this is the one time it is told.</summary>
    /// <param name="Url"><c>null</c> where it was made before.</param>
    /// <param name="Subscribe">The same, as programs open it by a press.</param>
    /// <param name="Qr">It as an SVG picture to be read by a camera.</param>
    internal sealed record MadeBody(Guid Id, string? Url, string? Subscribe, string? Qr);

    public static void AddFeeds(this IServiceCollection services) =>
        services.AddScoped<FeedCommands>().AddScoped<FeedReading>();

    public static void MapFeeds(this RouteGroupBuilder api)
    {
        api.MapGet("/feeds", List).WithName("ListFeeds");
        api.MapPut("/feeds/{feedId:guid}", Put).WithName("PutFeed");
        api.MapPost("/feeds/{feedId:guid}/renew", Renew).WithName("RenewFeed");
        api.MapDelete("/feeds/{feedId:guid}", End).WithName("EndFeed");
    }

    private static async Task<Ok<IReadOnlyList<Body>>> List(
        Acting acting,
        FeedCommands feeds,
        FeedReading reading,
        CancellationToken cancellationToken
    )
    {
        var told = new List<Body>();
        foreach (
            var row in await feeds
                .Mine(acting.Person)
                .AsNoTracking()
                .OrderBy(row => row.MadeAt)
                .ThenBy(row => row.Id)
                .ToListAsync(cancellationToken)
        )
        {
            var source = await reading.Source(row, string.Empty, cancellationToken);
            told.Add(
                new Body(
                    row.Id,
                    row.Of,
                    row.CalendarId?.Value,
                    row.SetId,
                    row.Role,
                    source?.Head.Name,
                    row.MadeAt,
                    row.ReadAt
                )
            );
        }

        return TypedResults.Ok<IReadOnlyList<Body>>(told);
    }

    private static Task<Results<Ok<MadeBody>, ProblemHttpResult>> Put(
        Guid feedId,
        WishBody body,
        Acting acting,
        FeedCommands feeds,
        PublicLinks links,
        CancellationToken cancellationToken
    ) =>
        feeds
            .Put(
                acting.Person,
                feedId,
                new Feed(body.Of, body.CalendarId is { } id ? new CalendarId(id) : null, body.SetId, body.Role),
                cancellationToken
            )
            .Answer(made => Told(made, links));

    private static Task<Results<Ok<MadeBody>, ProblemHttpResult>> Renew(
        Guid feedId,
        Acting acting,
        FeedCommands feeds,
        PublicLinks links,
        CancellationToken cancellationToken
    ) => feeds.Renew(acting.Person, feedId, cancellationToken).Answer(made => Told(made, links));

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        Guid feedId,
        Acting acting,
        FeedCommands feeds,
        CancellationToken cancellationToken
    ) => feeds.End(acting.Person, feedId, cancellationToken).Answer();

    private static Task<MadeBody> Told(MadeFeed made, PublicLinks links)
    {
        var url = made.Secret is { } secret ? links.Feed(secret) : null;
        return Task.FromResult(
            new MadeBody(
                made.Row.Id,
                url,
                url is null ? null : $"webcal{url[url.IndexOf(':', StringComparison.Ordinal)..]}",
                url is null ? null : QrPicture.Of(url)
            )
        );
    }
}
