using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Server.Features.Accounts;

/// <summary>Makes an account with its person, and gives the person the invitations that wait for the address.</summary>
internal sealed class MakeAccount(MortarDb db, UserManager<Account> accounts, ZoneClock zones)
{
    /// <param name="address">The address, which the caller has made sure belongs to whoever asks.</param>
    /// <param name="name">What others call them.</param>
    /// <param name="password">At least ten characters.</param>
    /// <param name="zone">Their zone as their browser names it; UTC where nobody knows it.</param>
    /// <param name="cancellationToken">Stops before anything is written.</param>
    /// <param name="onlyAsFirst">Whether it is made only where there is none yet.</param>
    public Task<Outcome<Account>> For(
        Address address,
        string? name,
        string? password,
        string zone,
        CancellationToken cancellationToken,
        bool onlyAsFirst = false
    )
    {
        var id = new PersonId(Guid.CreateVersion7());
        return db.Write<Account>(
            Act.By(id),
            async () =>
            {
                // Asked under the write lock: of eight who have the code at once one makes it.
                if (onlyAsFirst && await db.Users.AnyAsync(cancellationToken))
                {
                    return new Refusal.NotThere("page");
                }

                var check = PersonName.Check(name);
                if (check.WhyNot is { } unfit)
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

                db.People.Add(
                    new PersonRow
                    {
                        Id = id,
                        Name = check.Value,
                        Address = address.Value,
                        Zone = zones.Knows(zone) ? zone : "UTC",
                    }
                );
                var account = new Account
                {
                    Id = id.Value,
                    UserName = address.Value,
                    Email = address.Value,
                };
                var made = await accounts.CreateAsync(account, password ?? string.Empty);
                if (!made.Succeeded)
                {
                    return WhyNot(made);
                }

                foreach (
                    var invitation in await db
                        .Invitations.Where(one => one.Address == address.Value && one.State == InvitationState.Waiting)
                        .ToListAsync(cancellationToken)
                )
                {
                    invitation.PersonId = id;
                }

                return account;
            },
            cancellationToken
        );
    }

    /// <summary>What is wrong with a password that was refused.</summary>
    public static Refusal WhyNot(IdentityResult refused) =>
        new Refusal.Unfit(
            "password",
            refused.Errors.Any(error => error.Code == "KnownPassword")
                ? "Many have that password, so it is tried first by whoever guesses. Choose another, such as four words that do not belong together."
                : "Choose a password of at least 10 characters."
        );
}
