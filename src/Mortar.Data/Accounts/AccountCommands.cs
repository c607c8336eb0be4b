using Microsoft.EntityFrameworkCore;
using Mortar.Core.Accounts;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Mail;
using Mortar.Data.Store;

namespace Mortar.Data.Accounts;

/// <summary>What somebody changes of their own account.</summary>
public sealed class AccountCommands(MortarDb db, PublicLinks links, PasswordResets resets)
{
    /// <summary>Another name, by which all who know them see them from now on, also in what was written before.</summary>
    public Task<Outcome<PersonRow>> Rename(Act act, string? name, CancellationToken cancellationToken) =>
        db.Write<PersonRow>(
            act,
            async () =>
            {
                var check = PersonName.Check(name);
                if (check.WhyNot is { } unfit)
                {
                    return unfit;
                }

                var me = await db.People.SingleAsync(person => person.Id == act.Actor, cancellationToken);
                me.Name = check.Value;
                return me;
            },
            cancellationToken
        );

    /// <summary>
    /// Makes a confirmed further address the first one; the first until now becomes a further one, and is told. A link to a new
    /// password that was mailed there leads nowhere any more.
    /// </summary>
    public Task<Outcome<PersonRow>> MakeFirst(Act act, Guid id, CancellationToken cancellationToken) =>
        db.Write<PersonRow>(
            act,
            async () =>
            {
                if (
                    await db.Addresses.FirstOrDefaultAsync(
                        one => one.Id == id && one.PersonId == act.Actor,
                        cancellationToken
                    )
                    is not { } next
                )
                {
                    return new Refusal.NotThere("address");
                }

                if (FirstAddress.WhyNot(next.ConfirmedAt is not null) is { } refusal)
                {
                    return refusal;
                }

                var me = await db.People.SingleAsync(person => person.Id == act.Actor, cancellationToken);
                var account = await db.Users.SingleAsync(one => one.Id == act.Actor.Value, cancellationToken);
                var old = me.Address;
                me.Address = next.Address;
                account.GoesBy(next.Address);
                db.Remove(next);
                if (old is not null)
                {
                    db.Addresses.Add(
                        new AddressRow
                        {
                            PersonId = act.Actor,
                            Address = old,
                            AskedAt = db.Now,
                            ConfirmedAt = db.Now,
                        }
                    );
                    db.Post(AccountLetters.FirstAddress(next.Address, links.Forgotten), old);
                }

                await resets.End(act.Actor, cancellationToken);
                return me;
            },
            cancellationToken
        );

    /// <summary>Writes to somebody that a passkey of their account was added; part of a write that is under way.</summary>
    public void TellOfPasskey(string address, string name) =>
        db.Post(AccountLetters.PasskeyAdded(name, links.Forgotten), address);

    /// <summary>Writes to somebody that a code is asked for, or no longer; part of a write that is under way.</summary>
    public void TellOfSecondFactor(string? address, bool isOn)
    {
        if (address is not null)
        {
            db.Post(AccountLetters.SecondFactor(isOn, links.Forgotten), address);
        }
    }
}
