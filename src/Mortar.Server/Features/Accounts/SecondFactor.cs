using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Accounts;

/// <summary>
/// /api/second-factor: switched on with the password and a first code, and off with the password; /api/session/second: the code
/// after the password. A passkey asks for two things by itself, and is not asked for a third.
/// </summary>
internal static class SecondFactor
{
    /// <param name="RecoveryCodesLeft">How many recovery codes were not used yet.</param>
    internal sealed record Body(bool IsOn, int RecoveryCodesLeft);

    /// <param name="Key">To be typed into an app that reads no picture; it counts once it is sent back with a code made by it.</param>
    /// <param name="Qr">The same as an SVG to be read by a camera.</param>
    internal sealed record KeyBody(string Key, string Qr);

    internal sealed record OnBody(string Key, string Code, string Password);

    internal sealed record PasswordBody(string Password);

    /// <param name="Codes">Told this once.</param>
    internal sealed record CodesBody(IReadOnlyList<string> Codes);

    internal sealed record CodeBody(string Code);

    /// <summary>Whose token it is that remembers which codes were used.</summary>
    private const string Tokens = "Mortar";
    private const string Used = "UsedCodes";

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/second-factor", Read).WithName("ReadSecondFactor");
        api.MapGet("/second-factor/key", NewKey).WithName("NewSecondFactorKey");
        api.MapPost("/second-factor", SwitchOn).WithName("SwitchSecondFactorOn").RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/second-factor/off", SwitchOff)
            .WithName("SwitchSecondFactorOff")
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/second-factor/codes", NewCodes)
            .WithName("MakeRecoveryCodes")
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/session/second", SignIn)
            .WithName("SignInWithCode")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
    }

    private static async Task<Ok<Body>> Read(Acting acting, UserManager<Account> accounts)
    {
        var account = await accounts.Of(acting.Person);
        return TypedResults.Ok(new Body(account.TwoFactorEnabled, await accounts.CountRecoveryCodesAsync(account)));
    }

    private static async Task<Ok<KeyBody>> NewKey(Acting acting, UserManager<Account> accounts)
    {
        var account = await accounts.Of(acting.Person);
        var key = accounts.GenerateNewAuthenticatorKey();
        return TypedResults.Ok(
            new KeyBody(key, QrPicture.Of(SecondFactorRules.AddressOf(account.Email ?? string.Empty, key)))
        );
    }

    private static Task<Results<Ok<CodesBody>, ProblemHttpResult>> SwitchOn(
        OnBody body,
        HttpContext context,
        Acting acting,
        Changing changing,
        AccountCommands letters,
        IUserStore<Account> store,
        CancellationToken cancellationToken
    ) =>
        changing.Do(
            context,
            acting,
            body.Password,
            async (account, accounts) =>
            {
                if (SecondFactorRules.WhyNotOn(account.TwoFactorEnabled) is { } refusal)
                {
                    return refusal;
                }

                if (!SecondFactorRules.IsKey(body.Key))
                {
                    return new Refusal.Unfit("key", "Take the key that Mortar gave you.");
                }

                var code = SecondFactorRules.Read(body.Code);
                var keys = (IUserAuthenticatorKeyStore<Account>)store;
                await keys.SetAuthenticatorKeyAsync(account, body.Key, cancellationToken);
                if (!await IsOfApp(accounts, account, code))
                {
                    return new Refusal.Unfit("code", SecondFactorRules.WrongCode);
                }

                await accounts.SetTwoFactorEnabledAsync(account, enabled: true).Held();
                letters.TellOfSecondFactor(account.Email, isOn: true);
                return await Codes(accounts, account);
            },
            cancellationToken
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> SwitchOff(
        PasswordBody body,
        HttpContext context,
        Acting acting,
        Changing changing,
        AccountCommands letters,
        CancellationToken cancellationToken
    )
    {
        var done = await changing.Do(
            context,
            acting,
            body.Password,
            async (account, accounts) =>
            {
                await accounts.SetTwoFactorEnabledAsync(account, enabled: false).Held();
                await accounts.ResetAuthenticatorKeyAsync(account).Held();
                await accounts.GenerateNewTwoFactorRecoveryCodesAsync(account, 0);
                letters.TellOfSecondFactor(account.Email, isOn: false);
                return new CodesBody([]);
            },
            cancellationToken
        );
        return done.Result is ProblemHttpResult problem ? problem : TypedResults.NoContent();
    }

    /// <summary>Makes ten new recovery codes; those from before lead nowhere.</summary>
    private static Task<Results<Ok<CodesBody>, ProblemHttpResult>> NewCodes(
        PasswordBody body,
        HttpContext context,
        Acting acting,
        Changing changing,
        CancellationToken cancellationToken
    ) =>
        changing.Do(
            context,
            acting,
            body.Password,
            async (account, accounts) =>
                account.TwoFactorEnabled ? await Codes(accounts, account) : new Refusal.NotThere("second factor"),
            cancellationToken
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        CodeBody body,
        HttpContext context,
        MortarDb db,
        UserManager<Account> accounts,
        SignInManager<Account> signIn,
        SignInBrake brake,
        SecurityLog log,
        CancellationToken cancellationToken
    )
    {
        if (await signIn.GetTwoFactorAuthenticationUserAsync() is not { } account)
        {
            return Problems.Of(StatusCodes.Status401Unauthorized, "wrong-sign-in", SecondFactorRules.TooLate);
        }

        var guessed = $"code of {account.Id}";
        if (brake.Wait(context, guessed) is { } wait)
        {
            return Problems.TooOften("Too many wrong codes. Wait a little and try again.", wait);
        }

        var code = SecondFactorRules.Read(body.Code);
        var outcome = await db.Write<Account>(
            Act.By(new PersonId(account.Id)),
            async () =>
                // Under the write lock, so that of two who send the same code one is signed in.
                (
                    SecondFactorRules.IsOfApp(code)
                        ? await IsOfApp(accounts, account, code)
                        : (await accounts.RedeemTwoFactorRecoveryCodeAsync(account, code)).Succeeded
                )
                    ? account
                    : new Refusal.Unfit("code", SecondFactorRules.WrongCode),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done)
        {
            brake.Failed(context, guessed);
            log.SignInFailed(context.Connection.RemoteIpAddress, account.Id);
            return Problems.Of(outcome.WhyNot);
        }

        brake.Succeeded(context, account.Email ?? string.Empty); // whoever guesses at their password slows down others than them
        await context.SignOutAsync(IdentityConstants.TwoFactorUserIdScheme);
        await signIn.SignInAsync(account, isPersistent: true);
        return TypedResults.NoContent();
    }

    /// <summary>Whether a code is of somebody's app, now, and was not used before; it is remembered as used then.</summary>
    private static async Task<bool> IsOfApp(UserManager<Account> accounts, Account account, string code)
    {
        if (
            !SecondFactorRules.IsOfApp(code)
            || !await accounts.VerifyTwoFactorTokenAsync(account, TokenOptions.DefaultAuthenticatorProvider, code)
            || SecondFactorRules.Accept(await accounts.GetAuthenticationTokenAsync(account, Tokens, Used), code)
                is not { } used
        )
        {
            return false;
        }

        await accounts.SetAuthenticationTokenAsync(account, Tokens, Used, used).Held();
        return true;
    }

    private static async Task<CodesBody> Codes(UserManager<Account> accounts, Account account) =>
        new([.. await accounts.GenerateNewTwoFactorRecoveryCodesAsync(account, SecondFactorRules.RecoveryCodes) ?? []]);

    /// <summary>A change of how one signs in: with the password once more, in one write, and all other sign-ins end with it.</summary>
    internal sealed class Changing(
        MortarDb db,
        OwnPassword own,
        UserManager<Account> accounts,
        SignInManager<Account> signIn,
        SignIns signIns
    )
    {
        public async Task<Results<Ok<CodesBody>, ProblemHttpResult>> Do(
            HttpContext context,
            Acting acting,
            string password,
            Func<Account, UserManager<Account>, Task<Outcome<CodesBody>>> change,
            CancellationToken cancellationToken
        )
        {
            if (await own.WhyNot(context, acting.Person, password, "password") is { } wrong)
            {
                return wrong;
            }

            var outcome = await db.Write<CodesBody>(
                acting.Act,
                async () => await change(await accounts.Of(acting.Person), accounts),
                cancellationToken
            );
            if (outcome is not Outcome<CodesBody>.Done done)
            {
                return Problems.Of(outcome.WhyNot);
            }

            await signIns.EndAll(acting.Person, but: null, CancellationToken.None);
            await signIn.SignInAsync(await accounts.Of(acting.Person), isPersistent: true);
            return TypedResults.Ok(done.Value);
        }
    }
}
