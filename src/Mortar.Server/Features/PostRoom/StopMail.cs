using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Mail;

namespace Mortar.Server.Features.PostRoom;

/// <summary>/api/mail-stops/{token}: whoever gets mail from here stops it, or has it again, by a link in it and without an account.</summary>
internal static class StopMail
{
    internal sealed record Body(ToldAddress Address, bool Stopped);

    /// <summary>Outside of what asks for a page's token: a mail program presses for its reader (RFC 8058, 3.2).</summary>
    public static void Map(WebApplication app)
    {
        var link = app.MapGroup("/api/mail-stops/{token}").AllowAnonymous().RequireRateLimiting(RateLimits.Reading);
        link.MapGet("/", Read).WithName("ReadMailStop");
        link.MapPost("/", Stop).WithName("StopMail").DisableAntiforgery();
        link.MapDelete("/", Start).WithName("StartMail").DisableAntiforgery();
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        string token,
        MailStops stops,
        MortarDb db,
        CancellationToken cancellationToken
    ) =>
        stops.AddressOf(token) is { } address
            ? TypedResults.Ok(
                new Body(
                    ToldAddress.OfMail(address),
                    await db.MailStops.AnyAsync(row => row.Address == address, cancellationToken)
                )
            )
            : Problems.NotThere("link");

    private static async Task<Results<NoContent, ProblemHttpResult>> Stop(
        string token,
        MailStops stops,
        MailStopCommands commands,
        CancellationToken cancellationToken
    )
    {
        if (stops.AddressOf(token) is not { } address)
        {
            return Problems.NotThere("link");
        }

        await commands.Stop(address, cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Start(
        string token,
        MailStops stops,
        MailStopCommands commands,
        CancellationToken cancellationToken
    )
    {
        if (stops.AddressOf(token) is not { } address)
        {
            return Problems.NotThere("link");
        }

        await commands.Start(address, cancellationToken);
        return TypedResults.NoContent();
    }
}
