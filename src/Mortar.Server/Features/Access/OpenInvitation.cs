using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>/api/invitation-links/{token}: an invitation by its mailed link, also for somebody without an account.</summary>
internal static class OpenInvitation
{
    /// <param name="HasAccount">Whether the address has an account, so that one signs in instead of making one.</param>
    /// <param name="IsMine">Whether whoever is signed in is the one invited.</param>
    /// <param name="Closed">Why it cannot be answered any more; <c>null</c> while it can.</param>
    internal sealed record Body(
        Guid Id,
        ToldAddress Address,
        string CalendarName,
        string From,
        Role Role,
        string Sentence,
        string Message,
        LocalDate? LastDay,
        bool InReturn,
        bool HasAccount,
        bool IsMine,
        string? Closed
    );

    internal sealed record AccountBody(string Name, string Password, string Zone);

    internal static void Map(RouteGroupBuilder api)
    {
        var links = api.MapGroup("/invitation-links/{token}").AllowAnonymous();
        links.MapGet("/", Read).WithName(nameof(OpenInvitation)).RequireRateLimiting(RateLimits.Reading);
        links.MapPost("/account", Join).WithName("MakeAccountByInvitation").RequireRateLimiting(RateLimits.SignIn);
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        string token,
        HttpContext context,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var hash = LinkSecret.HashOf(token);
        var found = await (
            from invitation in db.Invitations.AsNoTracking()
            where invitation.LinkHash == hash
            join shared in db.Calendars on invitation.CalendarId equals shared.Id
            where shared.DeletedAt == null
            join person in db.People on invitation.InvitedBy equals person.Id
            select new
            {
                Invitation = invitation,
                Calendar = shared.Name,
                shared.Zone,
                From = person.Name,
            }
        ).FirstOrDefaultAsync(cancellationToken);
        if (found is null || found.Invitation.State == InvitationState.Withdrawn)
        {
            return Problems.NotThere("invitation");
        }

        var (row, me) = (
            found.Invitation,
            context.User.Identity is { IsAuthenticated: true } ? context.User.Person() : (PersonId?)null
        );
        return TypedResults.Ok(
            new Body(
                row.Id.Value,
                ToldAddress.OfMail(row.Address),
                found.Calendar,
                found.From,
                row.Role,
                RoleSentence.ForReader(row.Role, found.Calendar),
                row.Message,
                row.EndsAt is { } end ? AccessEnd.LastDay(end, zones.Zone(found.Zone)) : null,
                row.InReturn,
                row.PersonId is not null,
                me is not null && row.PersonId == me,
                !row.State.IsOpen() ? row.State.WhyClosed()
                    : await db.StandingInvitations().AnyAsync(one => one.Id == row.Id, cancellationToken) ? null
                    : InvitationRules.Lapsed
            )
        );
    }

    /// <summary>Makes an account for the address the link was mailed to: holding the link shows that the address is theirs.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Join(
        string token,
        AccountBody body,
        MortarDb db,
        MakeAccount accounts,
        SignInManager<Account> signIn,
        CancellationToken cancellationToken
    )
    {
        var hash = LinkSecret.HashOf(token);
        var invitation = await db.StandingInvitations()
            .AsNoTracking()
            .FirstOrDefaultAsync(one => one.LinkHash == hash, cancellationToken);
        if (invitation is null || !Address.TryParse(invitation.Address, out var address))
        {
            return Problems.NotThere("invitation");
        }

        var outcome = await accounts.For(
            address.Value,
            new MakeAccount.Wish(body.Name, body.Password, body.Zone),
            cancellationToken
        );
        if (outcome is not Outcome<Account>.Done made)
        {
            return Problems.Of(outcome.WhyNot);
        }

        await signIn.SignInAsync(made.Value, isPersistent: true);
        return TypedResults.NoContent();
    }
}
