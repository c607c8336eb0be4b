using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Feeds;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Feeds;

/// <summary>A feed and its secret, which is told this once.</summary>
public sealed record MadeFeed(FeedRow Row, string? Secret);

/// <summary>Makes, renews and ends feeds: each is its owner's alone, and the log says nothing of it.</summary>
public sealed class FeedCommands(MortarDb db)
{
    /// <summary>How far apart readings are that are written down.</summary>
    private static readonly Duration BetweenReadings = Duration.FromHours(1);

    /// <summary>Makes a feed where there is none of that id; sent twice, it is made once.</summary>
    public async Task<Outcome<MadeFeed>> Put(PersonId owner, Guid id, Feed wish, CancellationToken cancellationToken)
    {
        if (Feed.Check(wish).WhyNot is { } unfit)
        {
            return unfit;
        }

        Outcome<MadeFeed>? made = null;
        await db.WriteUnlogged(
            async () =>
            {
                var known = await db.Feeds.FirstOrDefaultAsync(row => row.Id == id, cancellationToken);
                made = known is not null
                    ? known.Owner == owner && known.EndedAt is null
                        ? new MadeFeed(known, null)
                        : new Refusal.NotThere("feed")
                    : await WhyNot(owner, wish, cancellationToken) is { } refusal
                        ? refusal
                        : Made(owner, id, wish);
            },
            cancellationToken
        );
        return made!;
    }

    /// <summary>Gives it another secret: the address it had leads nowhere any more.</summary>
    public async Task<Outcome<MadeFeed>> Renew(PersonId owner, Guid id, CancellationToken cancellationToken)
    {
        Outcome<MadeFeed> renewed = new Refusal.NotThere("feed");
        await db.WriteUnlogged(
            async () =>
            {
                if (await Mine(owner).FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } row)
                {
                    var secret = LinkSecret.New();
                    (row.Hash, row.ReadAt) = (LinkSecret.HashOf(secret), null);
                    renewed = new MadeFeed(row, secret);
                }
            },
            cancellationToken
        );
        return renewed;
    }

    /// <summary>Ends it.</summary>
    public async Task<Outcome<MadeFeed>> End(PersonId owner, Guid id, CancellationToken cancellationToken)
    {
        Outcome<MadeFeed> ended = new Refusal.NotThere("feed");
        await db.WriteUnlogged(
            async () =>
            {
                if (await Mine(owner).FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } row)
                {
                    row.EndedAt = db.Now;
                    ended = new MadeFeed(row, null);
                }
            },
            cancellationToken
        );
        return ended;
    }

    /// <summary>Takes note that it was read; to the hour, so that a program that asks every second writes nothing.</summary>
    public async Task See(FeedRow feed, CancellationToken cancellationToken)
    {
        var now = db.Now;
        if (feed.ReadAt is { } before && now - before < BetweenReadings && now >= before)
        {
            return;
        }

        await db.Tidy(
            () =>
                db
                    .Feeds.Where(row => row.Id == feed.Id)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.ReadAt, now), cancellationToken),
            cancellationToken
        );
    }

    /// <summary>The feeds of somebody that are there.</summary>
    public IQueryable<FeedRow> Mine(PersonId owner) => db.Feeds.Where(row => row.Owner == owner && row.EndedAt == null);

    private MadeFeed Made(PersonId owner, Guid id, Feed wish)
    {
        var secret = LinkSecret.New();
        var row = new FeedRow
        {
            Id = id,
            Owner = owner,
            Of = wish.Of,
            CalendarId = wish.CalendarId,
            SetId = wish.SetId,
            Role = wish.Role,
            Hash = LinkSecret.HashOf(secret),
            MadeAt = db.Now,
        };
        db.Feeds.Add(row);
        return new MadeFeed(row, secret);
    }

    private async Task<Refusal?> WhyNot(PersonId owner, Feed wish, CancellationToken cancellationToken)
    {
        if (
            wish.CalendarId is { } calendar
            && AccessRules
                .ToSee((await db.StandingOf(owner, calendar, cancellationToken)).Role)
                .WhyNot("calendar", "Times only")
                is { } hidden
        )
        {
            return hidden;
        }

        if (wish.SetId is { } set && !await db.SetsFor(owner).AnyAsync(row => row.Id == set, cancellationToken))
        {
            return new Refusal.NotThere("set");
        }

        return await Mine(owner).CountAsync(cancellationToken) < Feed.Most
            ? null
            : new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant(
                    $"One person has up to {Feed.Most} feeds. End one that no program reads any more."
                )
            );
    }
}
