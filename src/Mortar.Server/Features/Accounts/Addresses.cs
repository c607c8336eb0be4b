using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Data.Accounts;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>/api/addresses and /api/name: what one is called, one's own further addresses, and which is the first.</summary>
internal static class Addresses
{
    /// <param name="IsConfirmed">Whether its mail was shown to arrive; until then it leads nowhere.</param>
    internal sealed record Body(Guid Id, ToldAddress Address, bool IsConfirmed);

    internal sealed record AskBody(string Address);

    /// <param name="Password">Asked for once more: mail to the first address can set another one.</param>
    internal sealed record FirstBody(string Password);

    internal sealed record NameBody(string Name);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/addresses", List).WithName("ListAddresses");
        api.MapPost("/addresses", Ask).WithName("AskToConfirmAddress").RequireRateLimiting(RateLimits.Asks);
        api.MapPost("/addresses/confirm/{secret}", Confirm)
            .WithName("ConfirmAddress")
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/addresses/{addressId:guid}/first", MakeFirst)
            .WithName("MakeFirstAddress")
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPut("/name", Rename).WithName("Rename");
        api.MapDelete("/addresses/{addressId:guid}", TakeOut).WithName("TakeOutAddress");
    }

    private static async Task<Ok<List<Body>>> List(
        Acting acting,
        AddressCommands addresses,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok(
            await addresses
                .Of(acting.Person)
                .Select(row => new Body(row.Id, ToldAddress.Own(row.Address), row.ConfirmedAt != null))
                .ToListAsync(cancellationToken)
        );

    private static Task<Results<NoContent, ProblemHttpResult>> Ask(
        AskBody body,
        Acting acting,
        AddressCommands addresses,
        CancellationToken cancellationToken
    ) => addresses.Ask(acting.Act, body.Address, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Confirm(
        string secret,
        Acting acting,
        AddressCommands addresses,
        CancellationToken cancellationToken
    ) => addresses.Confirm(acting.Act, secret, cancellationToken).Answer();

    private static async Task<Results<NoContent, ProblemHttpResult>> MakeFirst(
        Guid addressId,
        FirstBody body,
        Acting acting,
        HttpContext context,
        OwnPassword own,
        AccountCommands account,
        CancellationToken cancellationToken
    ) =>
        await own.WhyNot(context, acting.Person, body.Password, "password") is { } wrong
            ? wrong
            : await account.MakeFirst(acting.Act, addressId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Rename(
        NameBody body,
        Acting acting,
        AccountCommands account,
        CancellationToken cancellationToken
    ) => account.Rename(acting.Act, body.Name, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> TakeOut(
        Guid addressId,
        Acting acting,
        AddressCommands addresses,
        CancellationToken cancellationToken
    ) => addresses.TakeOut(acting.Act, addressId, cancellationToken).Answer();
}
