using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Accounts;
using Mortar.Core.Availability;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Accounts;

/// <summary>/api/session: who is signed in; signing in and out.</summary>
internal static class Session
{
    /// <param name="Person">Who is signed in; <c>null</c> for nobody.</param>
    /// <param name="AntiforgeryToken">To be sent in <c>X-Antiforgery</c> with every change; a new one after signing in or out.</param>
    /// <param name="Now">What o'clock it is for Mortar.</param>
    /// <param name="Demo">Whether the demo people may sign in with one click.</param>
    /// <param name="NeedsFirstAccount">Whether there is no account yet.</param>
    internal sealed record Body(
        PersonBody? Person,
        string AntiforgeryToken,
        Instant Now,
        bool Demo,
        bool NeedsFirstAccount
    );

    /// <param name="Halves">The hours of half a day away.</param>
    /// <param name="Weekend">The days of the weekend: 1 for Monday.</param>
    internal sealed record PersonBody(
        Guid Id,
        string Name,
        ToldAddress? Address,
        string Zone,
        PreferencesBody Preferences,
        HalvesBody Halves,
        IReadOnlyList<int> Weekend
    )
    {
        /// <summary>The address that waits to be confirmed, of an account that has none yet.</summary>
        public ToldAddress? Unconfirmed { get; init; }

        public static PersonBody Of(PersonRow row)
        {
            var preferences = row.ToPreferences();
            var halves = HalfDays.Of(preferences.DayBegins, preferences.DayEnds);
            return new(
                row.Id.Value,
                row.Name,
                ToldAddress.Own(row.Address),
                row.Zone,
                PreferencesBody.Of(preferences),
                new HalvesBody(HoursBody.Of(halves.Morning), HoursBody.Of(halves.Afternoon)),
                [.. SortRules.Weekend.Select(day => (int)day)]
            );
        }
    }

    internal sealed record HalvesBody(HoursBody Morning, HoursBody Afternoon);

    /// <param name="From">Minutes after midnight.</param>
    /// <param name="To">Minutes after midnight.</param>
    internal sealed record HoursBody(int From, int To)
    {
        public static HoursBody Of(DayHours hours) =>
            new(PreferencesBody.Minutes(hours.From), PreferencesBody.Minutes(hours.To));
    }

    internal sealed record SignInBody(string Address, string Password);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/session", Read).WithName("ReadSession").AllowAnonymous();
        api.MapPost("/session", SignIn)
            .WithName(nameof(SignIn))
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.SignIn);
        api.MapDelete("/session", SignOut).WithName(nameof(SignOut));
    }

    private static async Task<Ok<Body>> Read(
        HttpContext context,
        MortarDb db,
        IAntiforgery antiforgery,
        IClock clock,
        MortarOptions options,
        SignIns signIns,
        CancellationToken cancellationToken
    )
    {
        PersonBody? person = null;
        if (context.User.Identity is { IsAuthenticated: true })
        {
            var id = context.User.Person();
            if (await db.People.FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } row)
            {
                person = PersonBody.Of(row) with
                {
                    Unconfirmed = row.Address is null ? await Unconfirmed(db, id, cancellationToken) : null,
                };
                await signIns.See(context.User, row, cancellationToken);
            }
        }

        var token =
            antiforgery.GetAndStoreTokens(context).RequestToken
            ?? throw new InvalidOperationException("Antiforgery gives a token.");
        var empty = person is null && !await db.Users.AnyAsync(cancellationToken);
        return TypedResults.Ok(new Body(person, token, clock.GetCurrentInstant(), options.Demo, empty));
    }

    private static async Task<ToldAddress?> Unconfirmed(
        MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        ToldAddress.Own(
            await db
                .Addresses.Where(row => row.PersonId == person)
                .OrderByDescending(row => row.AskedAt)
                .Select(row => row.Address)
                .FirstOrDefaultAsync(cancellationToken)
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        SignInBody body,
        HttpContext context,
        MortarDb db,
        SignInManager<Account> signIn,
        UserManager<Account> accounts,
        SignInBrake brake,
        SecurityLog log,
        CancellationToken cancellationToken
    )
    {
        if (!Address.TryParse(body.Address, out var read) || read is not { } address)
        {
            return Wrong();
        }

        if (brake.Wait(context, address.Value) is { } wait)
        {
            var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
            return Problems.TooOften(
                $"Too many wrong passwords for this address from here. Wait {Wording.Count(seconds, "second", "seconds")} and try again.",
                Duration.FromSeconds(seconds)
            );
        }

        var person = await db.PersonAt(address, cancellationToken);
        var account = person is null
            ? await Waiting(db, accounts, address, body.Password, cancellationToken)
            : await accounts.FindByIdAsync(person.Id.Value.ToString());
        if (account is null)
        {
            // As slow as a wrong password, so that nobody can find out which addresses have accounts.
            accounts.PasswordHasher.HashPassword(new Account(), body.Password);
        }

        var result = account is null
            ? SignInResult.Failed
            : await signIn.PasswordSignInAsync(account, body.Password, isPersistent: true, lockoutOnFailure: false);
        if (result.RequiresTwoFactor)
        {
            return Problems.Of(StatusCodes.Status401Unauthorized, "second-factor", SecondFactorRules.Asked);
        }

        if (!result.Succeeded)
        {
            brake.Failed(context, address.Value);
            log.SignInFailed(context.Connection.RemoteIpAddress, account?.Id);
            return Wrong();
        }

        brake.Succeeded(context, address.Value);
        return TypedResults.NoContent();
    }

    /// <summary>Of the accounts that wait for an address nobody has, that with the password; <c>null</c> where none has it.</summary>
    private static async Task<Account?> Waiting(
        MortarDb db,
        UserManager<Account> accounts,
        Address address,
        string password,
        CancellationToken cancellationToken
    )
    {
        foreach (var id in await AddressCommands.WaitingAt(db, address).ToListAsync(cancellationToken))
        {
            if (
                await accounts.FindByIdAsync(id.Value.ToString()) is { } account
                && await accounts.CheckPasswordAsync(account, password)
            )
            {
                return account;
            }
        }

        return null;
    }

    private static async Task<NoContent> SignOut(
        HttpContext context,
        SignInManager<Account> signIn,
        SignIns signIns,
        CancellationToken cancellationToken
    )
    {
        await signIns.End(context.User, cancellationToken);
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult Wrong() =>
        Problems.Of(
            StatusCodes.Status401Unauthorized,
            "wrong-sign-in",
            "The address and the password do not belong together. Check both and try again."
        );
}
