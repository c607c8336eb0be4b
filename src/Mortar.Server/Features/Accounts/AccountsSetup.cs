using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Mortar.Data.Accounts;
using Mortar.Data.Keeping;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>Accounts by ASP.NET Core Identity, with a cookie; keys are kept with the data.</summary>
internal static class AccountsSetup
{
    public static void AddAccounts(this IServiceCollection services, MortarOptions options)
    {
        services
            .AddDataProtection()
            .SetApplicationName("Mortar")
            .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(options.Data, DataFolders.Keys)));
        services
            .AddIdentityCore<Account>(identity =>
            {
                identity.Password.RequiredLength = 10;
                identity.Password.RequireDigit = false;
                identity.Password.RequireLowercase = false;
                identity.Password.RequireUppercase = false;
                identity.Password.RequireNonAlphanumeric = false;
                // The name is the address, which Core has read: O'Brien's is one.
                identity.User.AllowedUserNameCharacters = string.Empty;
                // Who guesses is slowed down, and nobody is locked out by it: see SignInBrake.
                identity.Lockout.AllowedForNewUsers = false;
            })
            .AddPasswordValidator<KnownPasswords>()
            .AddEntityFrameworkStores<MortarDb>()
            .AddTokenProvider<AuthenticatorTokenProvider<Account>>(TokenOptions.DefaultAuthenticatorProvider)
            .AddSignInManager();
        services
            .AddAuthentication(IdentityConstants.ApplicationScheme)
            .AddCookie(
                IdentityConstants.ApplicationScheme,
                cookie =>
                {
                    // Behind https no other way, and set by no neighbour of the host (RFC 6265bis, 4.1.3.2).
                    cookie.Cookie.Name = options.IsSecure ? "__Host-mortar" : "mortar";
                    cookie.Cookie.SecurePolicy = options.IsSecure ? CookieSecurePolicy.Always : CookieSecurePolicy.None;
                    cookie.Cookie.Path = "/";
                    cookie.Cookie.HttpOnly = true;
                    cookie.Cookie.SameSite = SameSiteMode.Lax;
                    cookie.ExpireTimeSpan = TimeSpan.FromDays(30);
                    cookie.Events = SignIns.Events();
                    cookie.Events.OnRedirectToLogin = context =>
                        Problems
                            .Of(
                                StatusCodes.Status401Unauthorized,
                                "signed-out",
                                "You are not signed in. Sign in and try again."
                            )
                            .ExecuteAsync(context.HttpContext);
                    cookie.Events.OnRedirectToAccessDenied = context =>
                        Problems
                            .Of(StatusCodes.Status403Forbidden, "not-allowed", "That is not for this account.")
                            .ExecuteAsync(context.HttpContext);
                }
            );
        services
            .AddAuthentication()
            .AddCookie(
                IdentityConstants.TwoFactorUserIdScheme,
                cookie =>
                {
                    // What a device was asked, or whose password was right, until the answer or the code comes.
                    cookie.Cookie.Name = options.IsSecure ? "__Host-mortar-second" : "mortar-second";
                    cookie.Cookie.SecurePolicy = options.IsSecure ? CookieSecurePolicy.Always : CookieSecurePolicy.None;
                    cookie.Cookie.Path = "/";
                    cookie.Cookie.HttpOnly = true;
                    cookie.Cookie.SameSite = SameSiteMode.Strict;
                    cookie.ExpireTimeSpan = TimeSpan.FromMinutes(10);
                }
            );
        services.Configure<IdentityPasskeyOptions>(passkeys =>
        {
            // It takes the place of address and password, so it asks for a finger or a PIN and is found without an address.
            (passkeys.UserVerificationRequirement, passkeys.ResidentKeyRequirement) = ("required", "required");
            passkeys.ServerDomain = Uri.TryCreate(options.PublicUrl, UriKind.Absolute, out var own) ? own.Host : null;
            passkeys.ValidateOrigin = asked =>
                ValueTask.FromResult(
                    !asked.CrossOrigin && InFront.IsOwn(asked.Origin, asked.HttpContext.Request, options)
                );
        });
        services.AddAuthorization();
        services.AddAntiforgery(antiforgery =>
        {
            antiforgery.HeaderName = AntiforgeryFilter.Header;
            antiforgery.Cookie.Name = options.IsSecure ? "__Host-mortar-antiforgery" : "mortar-antiforgery";
            antiforgery.Cookie.SecurePolicy = options.IsSecure ? CookieSecurePolicy.Always : CookieSecurePolicy.None;
            antiforgery.Cookie.Path = "/";
            antiforgery.Cookie.SameSite = SameSiteMode.Strict;
        });
        services
            .AddScoped<MakeAccount>()
            .AddScoped<AddressCommands>()
            .AddScoped<AccountCommands>()
            .AddScoped<AccountEndCommands>()
            .AddScoped<OwnPassword>()
            .AddScoped<SecondFactor.Changing>()
            .AddScoped<SignIns>();
        services.AddScoped<PasswordResets>().AddScoped<SetPassword>();
        services.AddSingleton<SecurityLog>();
        services.AddSingleton<FirstAccountCode>().AddSingleton<SignInBrake>();

        // OWASP's figure for PBKDF2 with HMAC-SHA512, from memory; older hashes are made anew at the next sign-in.
        services.Configure<PasswordHasherOptions>(hasher => hasher.IterationCount = 210_000);
    }

    public static void MapAccounts(this RouteGroupBuilder api)
    {
        Session.Map(api);
        FirstAccount.Map(api);
        Addresses.Map(api);
        Passwords.Map(api);
        Passkeys.Map(api);
        SecondFactor.Map(api);
        MySignIns.Map(api);
        EndAccount.Map(api);
    }
}
