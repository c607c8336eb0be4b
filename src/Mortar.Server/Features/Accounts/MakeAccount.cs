using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Accounts;

/// <summary>Makes an account with its person, and gives the person the invitations that wait for the address.</summary>
internal sealed class MakeAccount(
    MortarDb db,
    UserManager<Account> accounts,
    AddressCommands addresses,
    LinkCommands links,
    SecurityLog log,
    ZoneClock zones
)
{
    /// <summary>Who is to have one.</summary>
    /// <param name="Name">What others call them.</param>
    /// <param name="Password">At least ten characters.</param>
    /// <param name="Zone">Their zone as their browser names it; UTC where nobody knows it.</param>
    internal sealed record Wish(string? Name, string? Password, string Zone);

    /// <param name="address">The address, which the caller has made sure belongs to whoever asks.</param>
    /// <param name="wish">Who they are.</param>
    /// <param name="cancellationToken">Stops before anything is written.</param>
    /// <param name="onlyAsFirst">Whether it is made only where there is none yet.</param>
    public async Task<Outcome<Account>> For(
        Address address,
        Wish wish,
        CancellationToken cancellationToken,
        bool onlyAsFirst = false
    )
    {
        var id = new PersonId(Guid.CreateVersion7());
        var outcome = await db.Write(
            Act.By(id),
            async () =>
            {
                // Asked under the write lock: of eight who have the code at once one makes it.
                if (onlyAsFirst && await db.Users.AnyAsync(cancellationToken))
                {
                    return new Refusal.NotThere("page");
                }

                if (PersonName.Check(wish.Name).WhyNot is { } unfit)
                {
                    return unfit;
                }

                if (await db.PersonAt(address, cancellationToken) is not null)
                {
                    return new Refusal.AgainstRule(
                        "has-account",
                        $"There is an account for {address} already. Sign in with it."
                    );
                }

                var made = await Write(id, address.Value, Account.At(id, address.Value), wish);
                foreach (
                    var invitation in await db
                        .Invitations.Where(one => one.Address == address.Value && one.State == InvitationState.Waiting)
                        .ToListAsync(cancellationToken)
                )
                {
                    invitation.PersonId = id;
                }

                return made;
            },
            cancellationToken
        );
        return Logged(outcome, isConfirmed: true);
    }

    /// <summary>
    /// Makes one where a link is opened, and puts its calendar on the new wall, in one. The address counts for nothing until a
    /// mail to it was answered: whoever opens a link may write any.
    /// </summary>
    /// <param name="secret">That of the link.</param>
    /// <param name="written">The address.</param>
    /// <param name="wish">Who they are.</param>
    /// <param name="cancellationToken">Stops before anything is written.</param>
    public async Task<Outcome<Account>> AtLink(
        string secret,
        string? written,
        Wish wish,
        CancellationToken cancellationToken
    )
    {
        var id = new PersonId(Guid.CreateVersion7());
        var outcome = await db.Write(
            Act.By(id),
            async () =>
            {
                var found = await links.ForAccount(secret, cancellationToken);
                if (found is not Outcome<LinkRow>.Done { Value: var link })
                {
                    return found.WhyNot;
                }

                var problems = new List<FieldProblem>(PersonName.Check(wish.Name).Problems);
                if (!Address.TryParse(written, out var address))
                {
                    problems.Add(new FieldProblem("address", Address.Problem(written)));
                }

                if (problems.Count > 0 || address is null)
                {
                    return new Refusal.Unfit(problems);
                }

                var made = await Write(id, address: null, Account.Without(id), wish);
                if (made is not Outcome<Account>.Done)
                {
                    return made;
                }

                var me = await db.People.SingleAsync(person => person.Id == id, cancellationToken);
                await addresses.AskNew(me, address.Value, cancellationToken);
                return await links.Take(id, link, cancellationToken) is Outcome<LinkRow>.Not refused
                    ? refused.Why
                    : made;
            },
            cancellationToken
        );
        return Logged(outcome, isConfirmed: false);
    }

    /// <summary>What is wrong with a password that was refused.</summary>
    public static Refusal WhyNot(IdentityResult refused) =>
        new Refusal.Unfit(
            "password",
            refused.Errors.Any(error => error.Code == "KnownPassword")
                ? "Many have that password, so it is tried first by whoever guesses. Choose another, such as four words that do not belong together."
                : "Choose a password of at least 10 characters."
        );

    private Outcome<Account> Logged(Outcome<Account> outcome, bool isConfirmed)
    {
        if (outcome is Outcome<Account>.Done made)
        {
            log.AccountMade(made.Value.Id, isConfirmed);
        }

        return outcome;
    }

    private async Task<Outcome<Account>> Write(PersonId id, string? address, Account account, Wish wish)
    {
        db.People.Add(
            new PersonRow
            {
                Id = id,
                Name = PersonName.Check(wish.Name).Value,
                Address = address,
                Zone = zones.Knows(wish.Zone) ? wish.Zone : "UTC",
            }
        );
        var made = await accounts.CreateAsync(account, wish.Password ?? string.Empty);
        return made.Succeeded ? account : WhyNot(made);
    }
}
