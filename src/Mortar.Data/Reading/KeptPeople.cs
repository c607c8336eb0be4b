using System.Collections.Concurrent;
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

    private readonly ConcurrentDictionary<PersonId, Kept<string>> zones = new();
    private readonly ConcurrentDictionary<Guid, Kept<SignedIn?>> signIns = new();

    private readonly record struct Kept<T>(T Value, long Writes);

    /// <param name="Row">The sign-in.</param>
    /// <param name="Stamp">What the account's cookies have to carry.</param>
    public sealed record SignedIn(SignInRow Row, string? Stamp);

    /// <summary>The name of the zone on whose clock somebody sees everything.</summary>
    public Task<string> ZoneOf(MortarDb db, PersonId person, CancellationToken cancellationToken) =>
        Get(
            zones,
            person,
            () => db.People.Where(one => one.Id == person).Select(one => one.Zone).SingleAsync(cancellationToken)
        );

    /// <summary>A sign-in with what its cookie has to carry; <c>null</c> where there is none. To be read, not changed.</summary>
    public Task<SignedIn?> SignIn(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        Get(
            signIns,
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

    private async Task<T> Get<TKey, T>(ConcurrentDictionary<TKey, Kept<T>> kept, TKey key, Func<Task<T>> read)
        where TKey : notnull
    {
        // Counted before it is read: what is written meanwhile makes it untrue.
        var writes = signal.WritesAboutPeople;
        if (kept.TryGetValue(key, out var known) && known.Writes == writes)
        {
            return known.Value;
        }

        var value = await read();
        if (kept.Count >= Most)
        {
            kept.Clear();
        }

        kept[key] = new Kept<T>(value, writes);
        return value;
    }
}
