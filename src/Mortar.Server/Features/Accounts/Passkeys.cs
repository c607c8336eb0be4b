using System.Buffers.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Accounts;

/// <summary>
/// /api/passkeys: one's own, added with the password and told by mail; /api/session/passkey: signing in by one alone. What is
/// asked of a device and what it answers are as Web Authentication writes them in JSON
/// (https://www.w3.org/TR/webauthn-3/#sctn-parseCreationOptionsFromJSON); Identity reads and checks them.
/// </summary>
internal static class Passkeys
{
    /// <param name="Id">The credential's id, in base64url.</param>
    internal sealed record Body(string Id, string Name, Instant CreatedAt);

    internal sealed record AskBody(string Password);

    /// <param name="Options">What is asked of the device.</param>
    internal sealed record QuestionBody(JsonElement Options);

    /// <param name="Credential">What the device answered.</param>
    internal sealed record AddBody(string Name, JsonElement Credential);

    internal sealed record SignInBody(JsonElement Credential);

    internal sealed record NameBody(string Name);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/passkeys", List).WithName("ListPasskeys");
        api.MapPost("/passkeys/question", Ask).WithName("AskForPasskey").RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/passkeys", Add).WithName("AddPasskey").RequireRateLimiting(RateLimits.SignIn);
        api.MapPut("/passkeys/{passkeyId}", Rename).WithName("RenamePasskey");
        api.MapDelete("/passkeys/{passkeyId}", TakeOut).WithName("TakeOutPasskey");
        api.MapPost("/session/passkey/question", AskToSignIn)
            .WithName("AskToSignInWithPasskey")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/session/passkey", SignIn)
            .WithName("SignInWithPasskey")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
    }

    private static async Task<Ok<List<Body>>> List(Acting acting, UserManager<Account> accounts) =>
        TypedResults.Ok(
            (await accounts.GetPasskeysAsync(await accounts.Of(acting.Person)))
                .OrderBy(one => one.CreatedAt)
                .Select(one => new Body(
                    Base64Url.EncodeToString(one.CredentialId),
                    one.Name ?? string.Empty,
                    Instant.FromDateTimeOffset(one.CreatedAt)
                ))
                .ToList()
        );

    private static async Task<Results<Ok<QuestionBody>, ProblemHttpResult>> Ask(
        AskBody body,
        Acting acting,
        HttpContext context,
        OwnPassword own,
        UserManager<Account> accounts,
        SignInManager<Account> signIn
    )
    {
        if (await own.WhyNot(context, acting.Person, body.Password, "password") is { } wrong)
        {
            return wrong;
        }

        var account = await accounts.Of(acting.Person);
        if (PasskeyRules.WhyNotAnother((await accounts.GetPasskeysAsync(account)).Count) is { } refusal)
        {
            return Problems.Of(refusal);
        }

        var options = await signIn.MakePasskeyCreationOptionsAsync(
            new PasskeyUserEntity
            {
                Id = account.Id.ToString(),
                Name = account.Email ?? "Mortar",
                DisplayName = account.Email ?? "Mortar",
            }
        );
        return TypedResults.Ok(new QuestionBody(JsonSerializer.Deserialize<JsonElement>(options)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Add(
        AddBody body,
        Acting acting,
        MortarDb db,
        AccountCommands letters,
        UserManager<Account> accounts,
        SignInManager<Account> signIn,
        CancellationToken cancellationToken
    )
    {
        var name = PasskeyRules.Name(body.Name);
        if (name.WhyNot is { } unfit)
        {
            return Problems.Of(unfit);
        }

        var made = await Read(() => signIn.PerformPasskeyAttestationAsync(body.Credential.GetRawText()));
        if (made is not { Succeeded: true } || made.UserEntity.Id != acting.Person.Value.ToString())
        {
            return Problems.Of(PasskeyRules.NotMade);
        }

        made.Passkey.Name = name.Value;
        var outcome = await db.Write<Account>(
            acting.Act,
            async () =>
            {
                var account = await accounts.Of(acting.Person);
                // Asked again under the write lock: of two at once one may be the last.
                if (PasskeyRules.WhyNotAnother((await accounts.GetPasskeysAsync(account)).Count) is { } refusal)
                {
                    return refusal;
                }

                if (!(await accounts.AddOrUpdatePasskeyAsync(account, made.Passkey)).Succeeded)
                {
                    return PasskeyRules.NotMade;
                }

                if (account.Email is { } address)
                {
                    letters.TellOfPasskey(address, name.Value);
                }

                return account;
            },
            cancellationToken
        );
        return outcome is Outcome<Account>.Done ? TypedResults.NoContent() : Problems.Of(outcome.WhyNot);
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Rename(
        string passkeyId,
        NameBody body,
        Acting acting,
        MortarDb db,
        UserManager<Account> accounts,
        CancellationToken cancellationToken
    ) =>
        Change(
            passkeyId,
            acting,
            db,
            accounts,
            async (account, passkey) =>
            {
                var name = PasskeyRules.Name(body.Name);
                if (name.WhyNot is { } unfit)
                {
                    return unfit;
                }

                passkey.Name = name.Value;
                await accounts.AddOrUpdatePasskeyAsync(account, passkey).Held();
                return null;
            },
            cancellationToken
        );

    private static Task<Results<NoContent, ProblemHttpResult>> TakeOut(
        string passkeyId,
        Acting acting,
        MortarDb db,
        UserManager<Account> accounts,
        CancellationToken cancellationToken
    ) =>
        Change(
            passkeyId,
            acting,
            db,
            accounts,
            async (account, passkey) =>
            {
                await accounts.RemovePasskeyAsync(account, passkey.CredentialId).Held();
                return null;
            },
            cancellationToken
        );

    /// <summary>Says the same to everybody: which accounts have a passkey is not asked by their address.</summary>
    private static async Task<Ok<QuestionBody>> AskToSignIn(SignInManager<Account> signIn) =>
        TypedResults.Ok(
            new QuestionBody(
                JsonSerializer.Deserialize<JsonElement>(await signIn.MakePasskeyRequestOptionsAsync(user: null))
            )
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        SignInBody body,
        HttpContext context,
        MortarDb db,
        UserManager<Account> accounts,
        SignInManager<Account> signIn,
        SecurityLog log,
        CancellationToken cancellationToken
    )
    {
        var found = await Read(() => signIn.PerformPasskeyAssertionAsync(body.Credential.GetRawText()));
        if (found is not { Succeeded: true })
        {
            log.SignInFailed(context.Connection.RemoteIpAddress, null);
            return Problems.Of(StatusCodes.Status401Unauthorized, "wrong-sign-in", PasskeyRules.NotKnown);
        }

        // How often it was used is kept, so that a copy of it is noticed (Web Authentication, 6.1.1).
        await db.Write<Account>(
            Act.By(new PersonId(found.User.Id)),
            async () =>
            {
                await accounts.AddOrUpdatePasskeyAsync(found.User, found.Passkey).Held();
                return found.User;
            },
            cancellationToken
        );
        await signIn.SignInAsync(found.User, isPersistent: true);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Change(
        string passkeyId,
        Acting acting,
        MortarDb db,
        UserManager<Account> accounts,
        Func<Account, UserPasskeyInfo, Task<Refusal?>> change,
        CancellationToken cancellationToken
    ) =>
        await db.Write<Account>(
            acting.Act,
            async () =>
            {
                var account = await accounts.Of(acting.Person);
                var passkey = Base64Url.IsValid(passkeyId)
                    ? await accounts.GetPasskeyAsync(account, Base64Url.DecodeFromChars(passkeyId))
                    : null;
                if (passkey is null)
                {
                    return new Refusal.NotThere("passkey");
                }

                return await change(account, passkey) is { } refusal ? refusal : account;
            },
            cancellationToken
        )
            is Outcome<Account>.Not { Why: var why }
            ? Problems.Of(why)
            : TypedResults.NoContent();

    /// <summary>What Identity makes of a device's answer; <c>null</c> for what it cannot read, or did not ask for.</summary>
    private static async Task<T?> Read<T>(Func<Task<T>> read)
        where T : class
    {
        try
        {
            return await read();
        }
        catch (Exception bad) when (bad is InvalidOperationException or JsonException or PasskeyException)
        {
            return null;
        }
    }
}
