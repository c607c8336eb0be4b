using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Accounts;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Accounts;

/// <summary>Further addresses of somebody with an account: an invitation to any of them arrives, and any of them signs in.</summary>
public sealed class AddressCommands(MortarDb db, PublicLinks links)
{
    /// <summary>Of how many accounts that wait for one address a password is tried.</summary>
    private const int MostWaiting = 3;

    /// <summary>Sends a mail to an address that asks to confirm it. It comes to the same whether it is somebody else's or not.</summary>
    public Task<Outcome<AddressRow>> Ask(Act act, string? written, CancellationToken cancellationToken) =>
        db.Write<AddressRow>(
            act,
            async () =>
            {
                if (!Address.TryParse(written, out var address))
                {
                    return new Refusal.Unfit([new FieldProblem("address", Address.Problem(written))]);
                }

                var mine = await Of(act.Actor).ToListAsync(cancellationToken);
                var me = await db.People.SingleAsync(person => person.Id == act.Actor, cancellationToken);
                var row = mine.Find(one => one.Address == address.Value.Value);
                if (me.Address == address.Value.Value || row is { ConfirmedAt: not null })
                {
                    return new Refusal.AgainstRule("already-yours", $"{address} is yours already.");
                }

                if (row is null)
                {
                    var most = FirstAddress.Most(me.Address is not null);
                    if (mine.Count >= most)
                    {
                        return new Refusal.AgainstRule(
                            "too-many",
                            FormattableString.Invariant(
                                $"You can have up to {most} further addresses. Take one out first."
                            )
                        );
                    }

                    row = new AddressRow
                    {
                        PersonId = act.Actor,
                        Address = address.Value.Value,
                        AskedAt = db.Now,
                    };
                    db.Add(row);
                }

                var secret = LinkSecret.New();
                (row.Hash, row.AskedAt) = (LinkSecret.HashOf(secret), db.Now);
                db.Post(AccountLetters.ToConfirm(me.Name, links.Address(secret)), row.Address);
                return row;
            },
            cancellationToken
        );

    /// <summary>
    /// Gives a new account its address, which counts for nothing until its mail was shown to arrive; part of a write that is
    /// under way. It comes to the same whether it is somebody else's or not: the owner alone is told, by mail.
    /// </summary>
    public async Task AskNew(PersonRow me, Address address, CancellationToken cancellationToken)
    {
        var since = db.Now - FirstAddress.BetweenQuestions;
        var isQuiet = await db.Addresses.AnyAsync(
            row => row.Address == address.Value && row.AskedAt > since,
            cancellationToken
        );
        var secret = LinkSecret.New();
        db.Addresses.Add(
            new AddressRow
            {
                PersonId = me.Id,
                Address = address.Value,
                AskedAt = db.Now,
                Hash = LinkSecret.HashOf(secret),
            }
        );
        if (!isQuiet)
        {
            db.Post(
                await db.PersonAt(address, cancellationToken) is null
                    ? AccountLetters.ToConfirmNew(me.Name, links.Address(secret))
                    : AccountLetters.HasAccount(links.Url),
                address.Value
            );
        }
    }

    /// <summary>
    /// Confirms an address by the mailed link. Only whoever asked for it can, signed in: otherwise one could have somebody
    /// else's mail sent to oneself by their pressing a link.
    /// </summary>
    public Task<Outcome<AddressRow>> Confirm(Act act, string secret, CancellationToken cancellationToken) =>
        db.Write<AddressRow>(
            act,
            async () =>
            {
                var hash = LinkSecret.HashOf(secret);
                var row = await Of(act.Actor).FirstOrDefaultAsync(one => one.Hash == hash, cancellationToken);
                if (row is null)
                {
                    return new Refusal.NotThere("address to confirm");
                }

                if (
                    Address.TryParse(row.Address, out var address)
                    && await db.PersonAt(address.Value, cancellationToken) is not null
                )
                {
                    return new Refusal.AgainstRule(
                        "has-account",
                        $"{row.Address} belongs to another account. Sign in there to use it."
                    );
                }

                var me = await db.People.SingleAsync(person => person.Id == act.Actor, cancellationToken);
                if (me.Address is null)
                {
                    var account = await db.Users.SingleAsync(one => one.Id == act.Actor.Value, cancellationToken);
                    me.Address = row.Address;
                    account.GoesBy(row.Address);
                    db.Remove(row);
                }
                else
                {
                    (row.Hash, row.ConfirmedAt) = (null, db.Now);
                }

                foreach (
                    var invitation in await db
                        .Invitations.Where(one =>
                            one.Address == row.Address && one.PersonId == null && one.State == InvitationState.Waiting
                        )
                        .ToListAsync(cancellationToken)
                )
                {
                    invitation.PersonId = act.Actor;
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>Takes a further address out.</summary>
    public Task<Outcome<AddressRow>> TakeOut(Act act, Guid id, CancellationToken cancellationToken) =>
        db.Write<AddressRow>(
            act,
            async () =>
            {
                if (await Of(act.Actor).FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
                {
                    return new Refusal.NotThere("address");
                }

                var me = await db.People.SingleAsync(person => person.Id == act.Actor, cancellationToken);
                var others = await Of(act.Actor).CountAsync(one => one.Id != id, cancellationToken);
                if (FirstAddress.WhyNotTakeOut(me.Address is not null, others) is { } only)
                {
                    return only;
                }

                db.Remove(row);
                return row;
            },
            cancellationToken
        );

    /// <summary>Somebody's further addresses, confirmed or not.</summary>
    public IQueryable<AddressRow> Of(PersonId person) =>
        db.Addresses.Where(row => row.PersonId == person).OrderBy(row => row.Address);

    /// <summary>Those whose account has no address yet but one that waits, and who can sign in by it meanwhile; the newest first.</summary>
    public static IQueryable<PersonId> WaitingAt(MortarDb db, Address address) =>
        db
            .Addresses.Where(row =>
                row.Address == address.Value
                && row.ConfirmedAt == null
                && db.People.Any(person => person.Id == row.PersonId && person.Address == null)
            )
            .OrderByDescending(row => row.AskedAt)
            .Select(row => row.PersonId)
            .Take(MostWaiting);
}
