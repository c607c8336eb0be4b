using System.Security.Claims;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.Features.Accounts;

/// <summary>Keeps a row for each sign-in, looks at it with each request, and ends it with all that hangs on it.</summary>
internal sealed class SignIns(
    MortarDb db,
    KeptPeople people,
    LiveConnections lines,
    IOptions<IdentityOptions> identity,
    SecurityLog log,
    IClock clock
)
{
    /// <summary>Writes the row of somebody who is about to be signed in, and names it in their cookie.</summary>
    public async Task Begin(HttpContext context, ClaimsPrincipal principal)
    {
        var now = clock.GetCurrentInstant();
        var row = new SignInRow
        {
            Id = Guid.CreateVersion7(),
            PersonId = principal.Person(),
            Device = PlainText.Shorten(
                PlainText.OneLine(context.Request.Headers.UserAgent.ToString()),
                SignInRow.LongestDevice
            ),
            StartedAt = now,
            SeenAt = now,
            EndsAt = now + SignInRow.Lasts,
        };
        db.SignIns.Add(row);
        await db.SaveChangesAsync(context.RequestAborted);
        ((ClaimsIdentity)principal.Identity!).AddClaim(new Claim(LiveHub.SignInClaim, row.Id.ToString()));
        log.SignedIn(row.PersonId.Value, row.Id, context.Connection.RemoteIpAddress);
    }

    /// <summary>Whether a cookie still signs somebody in: its row counts, and nothing about the account was changed that ends all sign-ins.</summary>
    public async Task<bool> Counts(ClaimsPrincipal principal, CancellationToken cancellationToken)
    {
        if (!Guid.TryParse(principal.FindFirstValue(LiveHub.SignInClaim), out var id))
        {
            return false;
        }

        var stamp = principal.FindFirstValue(identity.Value.ClaimsIdentity.SecurityStampClaimType);
        var found = await people.SignIn(db, id, cancellationToken);
        return found is not null
            && found.Row.PersonId == principal.Person()
            && found.Row.CountsAt(clock.GetCurrentInstant())
            && found.Stamp == stamp;
    }

    /// <summary>Takes note that a sign-in is used, and that somebody is here.</summary>
    public async Task See(ClaimsPrincipal principal, PersonRow person, CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var row = Guid.TryParse(principal.FindFirstValue(LiveHub.SignInClaim), out var id)
            ? await db.SignIns.FirstOrDefaultAsync(one => one.Id == id, cancellationToken)
            : null;
        if (person.Sees(now) | (row?.Sees(now) == true))
        {
            await db.SaveChangesAsync(cancellationToken);
        }
    }

    /// <summary>The sign-in that a cookie names; <c>null</c> where it names none.</summary>
    public static Guid? IdOf(ClaimsPrincipal principal) =>
        Guid.TryParse(principal.FindFirstValue(LiveHub.SignInClaim), out var id) ? id : null;

    /// <summary>Ends the one that a cookie names.</summary>
    public async Task End(ClaimsPrincipal principal, CancellationToken cancellationToken)
    {
        if (IdOf(principal) is { } id)
        {
            await EndOne(principal.Person(), id, cancellationToken);
        }
    }

    /// <summary>Ends one of somebody's: its cookie signs nobody in any more, and its live lines are cut. Whether there is such a one.</summary>
    public async Task<bool> EndOne(PersonId person, Guid id, CancellationToken cancellationToken)
    {
        var row = await db.SignIns.FirstOrDefaultAsync(
            one => one.Id == id && one.PersonId == person && one.EndedAt == null,
            cancellationToken
        );
        if (row is not null)
        {
            await End([row]);
        }

        return row is not null;
    }

    /// <summary>Ends all of somebody's, but one.</summary>
    public async Task EndAll(PersonId person, Guid? but, CancellationToken cancellationToken) =>
        await End(
            await db
                .SignIns.Where(row => row.PersonId == person && row.EndedAt == null && row.Id != but)
                .ToListAsync(cancellationToken)
        );

    private async Task End(List<SignInRow> rows)
    {
        foreach (var row in rows)
        {
            row.EndedAt = clock.GetCurrentInstant();
            log.SignedOut(row.PersonId.Value, row.Id);
        }

        await db.SaveChangesAsync(CancellationToken.None);
        foreach (var row in rows)
        {
            lines.Cut(row.Id);
        }
    }

    /// <summary>What the cookie does at signing in and with each request.</summary>
    public static CookieAuthenticationEvents Events() =>
        new()
        {
            OnSigningIn = signing =>
                signing
                    .HttpContext.RequestServices.GetRequiredService<SignIns>()
                    .Begin(signing.HttpContext, signing.Principal!),
            OnValidatePrincipal = async validating =>
            {
                var signIns = validating.HttpContext.RequestServices.GetRequiredService<SignIns>();
                if (!await signIns.Counts(validating.Principal!, validating.HttpContext.RequestAborted))
                {
                    // The cookie is left where it is: taking it away would also take the new one of somebody whose sign-in is
                    // renewed while another request with the old one is on its way.
                    validating.RejectPrincipal();
                }
            },
        };
}
