using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Devices;
using Mortar.Core.Letters;
using Mortar.Data.Devices;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Devices;

/// <summary>/api/devices: the keys by which one's own calendar programs read and write.</summary>
internal static class DevicesSetup
{
    /// <param name="Name">What it is called.</param>
    /// <param name="Role">The step at most: Edit for all that one may, View, Outline or Times only to read.</param>
    internal sealed record DeviceBody(string? Name, Role Role);

    /// <param name="SeenAt">When its key was last used, to the hour; <c>null</c> for never.</param>
    /// <param name="Program">What the program that used it says it is; empty where it says nothing.</param>
    internal sealed record Body(Guid Id, string Name, Role Role, Instant MadeAt, Instant? SeenAt, string Program);

    /// <summary>What a program has to be told. The key is not kept, so this is the one time it is told.</summary>
    /// <param name="Server">The address of the calendar server.</param>
    /// <param name="Key"><c>null</c> where it was made before.</param>
    /// <param name="Qr">Address and key as an SVG picture to be read by a camera.</param>
    internal sealed record MadeBody(Guid Id, string Server, string? Key, string? Qr);

    public static void AddDevices(this IServiceCollection services) =>
        services
            .AddScoped<DeviceCommands>()
            .AddScoped<ObjectCommands>()
            .AddScoped<OwnPropertyCommands>()
            .AddScoped<DavShelf>()
            .AddScoped<DavObjects>()
            .AddScoped<DavSync>()
            .AddScoped<DavThings>()
            .AddScoped<DavReports>()
            .AddScoped<DavTaking>()
            .AddScoped<DavWriting>()
            .AddScoped<DavMoving>()
            .AddScoped<DavCollections>()
            .AddSingleton<DavKeptObjects>()
            .AddSingleton<DavKept>()
            .AddSingleton<DavKnownBusy>();

    public static void MapDevices(this RouteGroupBuilder api)
    {
        api.MapGet("/devices", List).WithName("ListDevices");
        api.MapPut("/devices/{deviceId:guid}", Put).WithName("PutDevice");
        api.MapDelete("/devices/{deviceId:guid}", End).WithName("EndDevice");
    }

    private static async Task<Ok<IReadOnlyList<Body>>> List(
        Acting acting,
        DeviceCommands devices,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok<IReadOnlyList<Body>>(
            await devices
                .Mine(acting.Person)
                .AsNoTracking()
                .OrderBy(row => row.MadeAt)
                .ThenBy(row => row.Id)
                .Select(row => new Body(row.Id, row.Name, row.Role, row.MadeAt, row.SeenAt, row.Program))
                .ToListAsync(cancellationToken)
        );

    private static Task<Results<Ok<MadeBody>, ProblemHttpResult>> Put(
        Guid deviceId,
        DeviceBody body,
        Acting acting,
        DeviceCommands devices,
        PublicLinks links,
        CancellationToken cancellationToken
    ) =>
        devices
            .Put(acting.Person, deviceId, new Device(body.Name ?? string.Empty, body.Role), cancellationToken)
            .Answer(made =>
                Task.FromResult(
                    new MadeBody(
                        made.Row.Id,
                        links.Devices,
                        made.Key,
                        made.Key is { } key ? QrPicture.Of($"{links.Devices}\n{key}") : null
                    )
                )
            );

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        Guid deviceId,
        Acting acting,
        DeviceCommands devices,
        CancellationToken cancellationToken
    ) => devices.End(acting.Person, deviceId, cancellationToken).Answer();
}
