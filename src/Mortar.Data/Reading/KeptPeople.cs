using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;

namespace Mortar.Data.Reading;

/// <summary>What each request asks of the one who makes it, kept until anything about anybody's account is written.</summary>
public sealed class KeptPeople(ChangeSignal signal)
{
    /// <summary>For how many it is kept; then all begin anew.</summary>
    public const int Most = 20_000;

    private readonly KeptWhile<PersonId, string> zones = new(() => signal.WritesAboutPeople, Most);
    private readonly KeptWhile<Guid, SignedIn?> signIns = new(() => signal.WritesAboutPeople, Most);

    /// <param name="Row">The sign-in.</param>
    /// <param name="Stamp">What the account's cookies have to carry.</param>
    public sealed record SignedIn(SignInRow Row, string? Stamp);

    /// <summary>The name of the zone on whose clock somebody sees everything.</summary>
    public Task<string> ZoneOf(MortarDb db, PersonId person, CancellationToken cancellationToken) =>
        zones.Get(
            person,
            () => db.People.Where(one => one.Id == person).Select(one => one.Zone).SingleAsync(cancellationToken)
        );

    /// <summary>A sign-in with what its cookie has to carry; <c>null</c> where there is none. To be read, not changed.</summary>
    public Task<SignedIn?> SignIn(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        signIns.Get(
            id,
            async () =>
            {
                var row = await db.SignIns.AsNoTracking().FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
                return row is null
                    ? null
                    : await db
                        .Users.Where(account => account.Id == row.PersonId.Value)
                        .Select(account => new SignedIn(row, account.SecurityStamp))
                        .FirstOrDefaultAsync(cancellationToken);
            }
        );
}
