using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>/api/password: a new one for who knows the old, and by mail for who forgot it. Either ends all other sign-ins.</summary>
internal static class Passwords
{
    internal sealed record ForgottenBody(string Address);

    internal sealed record NewBody(string Password);

    /// <param name="Current">The password until now.</param>
    internal sealed record ChangeBody(string Current, string Password);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/password/forgotten", Forgotten)
            .WithName("ForgotPassword")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPost("/password/reset/{secret}", Reset)
            .WithName("ResetPassword")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapPut("/password", Change).WithName("ChangePassword").RequireRateLimiting(RateLimits.SignIn);
    }

    /// <summary>Says the same whether the address leads to an account or not.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Forgotten(
        ForgottenBody body,
        PasswordResets resets,
        CancellationToken cancellationToken
    )
    {
        if (!Address.TryParse(body.Address, out var address))
        {
            return Problems.Unfit([new FieldProblem("address", Address.Problem(body.Address))]);
        }

        await resets.Ask(address.Value, cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Reset(
        string secret,
        NewBody body,
        MortarDb db,
        PasswordResets resets,
        SetPassword passwords,
        SignIns signIns,
        CancellationToken cancellationToken
    )
    {
        var owner = (await resets.OpenedBy(secret, cancellationToken))?.PersonId;
        if (owner is not { } person)
        {
            return Problems.Of(PasswordReset.Ended);
        }

        var outcome = await db.Write<Account>(
            Act.By(person),
            async () =>
                // Asked again under the write lock: of two who use it at once one does.
                await resets.OpenedBy(secret, cancellationToken) is null
                    ? PasswordReset.Ended
                    : await passwords.Set(person, body.Password, cancellationToken),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIns.EndAll(person, but: null, CancellationToken.None);
        await resets.Tell(person, CancellationToken.None);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Change(
        ChangeBody body,
        Acting acting,
        HttpContext context,
        MortarDb db,
        SignInManager<Account> signIn,
        OwnPassword own,
        SetPassword passwords,
        PasswordResets resets,
        SignIns signIns,
        CancellationToken cancellationToken
    )
    {
        if (await own.WhyNot(context, acting.Person, body.Current, "current") is { } wrong)
        {
            return wrong;
        }

        var outcome = await db.Write<Account>(
            acting.Act,
            () => passwords.Set(acting.Person, body.Password, cancellationToken),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done done)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIns.EndAll(acting.Person, but: null, CancellationToken.None);
        await signIn.SignInAsync(done.Value, isPersistent: true);
        await resets.Tell(acting.Person, CancellationToken.None);
        return TypedResults.NoContent();
    }
}

/// <summary>Sets somebody's password, and ends the links that could set another. Under the write lock of the one who calls.</summary>
internal sealed class SetPassword(UserManager<Account> accounts, PasswordResets resets)
{
    public async Task<Outcome<Account>> Set(PersonId person, string? password, CancellationToken cancellationToken)
    {
        if (await accounts.FindByIdAsync(person.Value.ToString()) is not { } account)
        {
            return new Refusal.NotThere("account");
        }

        // Both change the stamp by which every cookie of the account counts; nothing is written where the new one is refused.
        await accounts.RemovePasswordAsync(account);
        var set = await accounts.AddPasswordAsync(account, password ?? string.Empty);
        if (!set.Succeeded)
        {
            return MakeAccount.WhyNot(set);
        }

        await resets.End(person, cancellationToken);
        return account;
    }
}

/// <summary>Asks for somebody's own password once more before what could take the account from them.</summary>
internal sealed class OwnPassword(UserManager<Account> accounts, SignInBrake brake)
{
    /// <summary>What is answered where it is not theirs, or was guessed at too often; <c>null</c> where it is.</summary>
    /// <param name="context">The request.</param>
    /// <param name="person">Who is signed in.</param>
    /// <param name="password">What they gave.</param>
    /// <param name="field">What the field is called.</param>
    public async Task<ProblemHttpResult?> WhyNot(HttpContext context, PersonId person, string? password, string field)
    {
        var account = await accounts.Of(person);
        if (brake.Wait(context, account.Id.ToString()) is { } wait)
        {
            return Problems.TooOften("Too many wrong passwords. Wait a little and try again.", wait);
        }

        if (await accounts.CheckPasswordAsync(account, password ?? string.Empty))
        {
            return null;
        }

        brake.Failed(context, account.Id.ToString());
        return Problems.Unfit([
            new FieldProblem(
                field,
                field == "current" ? "That is not your password until now." : "That is not your password."
            ),
        ]);
    }
}
