using System.Net.Mime;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Archives;

/// <summary>/api/archives/{id}: all that one sees in one file, made aside and fetched when it is done.</summary>
internal static class ArchivesSetup
{
    /// <param name="GroupId">Of which group; <c>null</c> for all that one sees.</param>
    internal sealed record OrderBody(Guid? GroupId = null);

    /// <param name="Done">How many calendars are in it.</param>
    /// <param name="Total">How many there will be; 0 until that is known.</param>
    /// <param name="Name">What it is called as a file, once it is done.</param>
    /// <param name="Bytes">How large it is, once it is done.</param>
    internal sealed record Body(Guid Id, ArchiveState State, int Done, int Total, string Name, long Bytes);

    public static void AddArchives(this IServiceCollection services) =>
        services
            .AddSingleton<ArchiveDesk>()
            .AddScoped<ArchiveWriting>()
            .AddScoped<OwnFiles>()
            .AddHostedService<ArchiveMaker>();

    public static void MapArchives(this RouteGroupBuilder api)
    {
        var archive = api.MapGroup("/archives/{archiveId:guid}");
        archive.MapPut("/", Order).WithName("MakeArchive").RequireRateLimiting(RateLimits.Searching);
        archive.MapGet("/", Read).WithName("ReadArchive");
        archive
            .MapGet("/file", Fetch)
            .WithName("FetchArchive")
            .Produces(StatusCodes.Status200OK, contentType: MediaTypeNames.Application.Zip);
        archive.MapDelete("/", Stop).WithName("StopArchive");
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Order(
        Guid archiveId,
        OrderBody body,
        Acting acting,
        MortarDb db,
        ArchiveDesk desk,
        CancellationToken cancellationToken
    )
    {
        if (
            body.GroupId is { } group
            && !await db.PlaceIn(new GroupId(group), acting.Person).AnyAsync(cancellationToken)
        )
        {
            return Problems.NotThere("group");
        }

        return desk.Order(archiveId, acting.Person, body.GroupId is { } id ? new GroupId(id) : null) is { } archive
            ? TypedResults.Ok(Of(archive))
            : Problems.TooOften(
                "Many archives wait to be made just now. Try again in a few minutes.",
                Duration.FromMinutes(5)
            );
    }

    private static Results<Ok<Body>, ProblemHttpResult> Read(Guid archiveId, Acting acting, ArchiveDesk desk) =>
        desk.Find(archiveId, acting.Person) is { } archive
            ? TypedResults.Ok(Of(archive))
            : Problems.NotThere("archive");

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Fetch(
        Guid archiveId,
        Acting acting,
        ArchiveDesk desk,
        WindowReader reader,
        CancellationToken cancellationToken
    )
    {
        if (desk.Find(archiveId, acting.Person) is not { State: ArchiveState.Done } archive)
        {
            return Problems.NotThere("archive");
        }

        if (archive.IsOutdated(await reader.See(acting.Person, cancellationToken)))
        {
            // What was taken back since is taken back from this file, too.
            desk.Remove(acting.Person);
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "archive-outdated",
                "What you may see has changed since this archive was made. Make it again."
            );
        }

        return TypedResults.PhysicalFile(archive.Path, MediaTypeNames.Application.Zip, archive.Name);
    }

    private static Results<NoContent, ProblemHttpResult> Stop(Guid archiveId, Acting acting, ArchiveDesk desk)
    {
        if (desk.Find(archiveId, acting.Person) is not { } archive)
        {
            return Problems.NotThere("archive");
        }

        archive.Stop();
        if (archive.State != ArchiveState.Making)
        {
            desk.Remove(acting.Person);
        }

        return TypedResults.NoContent();
    }

    private static Body Of(Archive archive) =>
        new(
            archive.Id,
            archive.State,
            archive.Done,
            archive.Total,
            archive.Name,
            archive.State == ArchiveState.Done ? new FileInfo(archive.Path).Length : 0
        );
}
