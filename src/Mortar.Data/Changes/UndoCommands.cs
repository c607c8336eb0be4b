using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Changes;

/// <summary>Takes an act back by reading the log: every thing it touched returns to its state before.</summary>
public sealed class UndoCommands(MortarDb db, IClock clock, ZoneClock zones)
{
    private readonly UndoChecks checks = new(db, zones);

    private const int Chunk = 500;

    /// <summary>Undoes a set. The undoing is itself a set and can be undone. Returns how many things went back.</summary>
    public Task<Outcome<int>> Undo(Act act, ChangeSetId set, CancellationToken cancellationToken) =>
        db.Write<int>(
            act,
            async () =>
            {
                var changes = await db
                    .Changes.AsNoTracking()
                    .Where(change => change.Set == set)
                    .OrderBy(change => change.Sequence)
                    .ToListAsync(cancellationToken);
                var standings = await Standings(act.Actor, cancellationToken);

                // Access first: whoever no longer sees a calendar is not told either that something in it has changed.
                return await WhyNot(act.Actor, changes, standings, cancellationToken)
                    ?? await Plan(act.Actor, changes, set, cancellationToken) switch
                    {
                        Undo.Possible plan => await Return(act.Actor, plan.Returns, standings, cancellationToken),
                        Undo.Refused refused => new Outcome<int>.Refused(refused.Type, refused.Sentence),
                        _ => throw new UnreachableException(),
                    };
            },
            cancellationToken
        );

    private async Task<Undo> Plan(
        PersonId actor,
        List<ChangeRow> changes,
        ChangeSetId set,
        CancellationToken cancellationToken
    )
    {
        var touched = db.Changes.Where(mine => mine.Set == set).Select(mine => mine.SubjectId);
        var latest = await db
            .Changes.Where(change => touched.Contains(change.SubjectId))
            .GroupBy(change => change.SubjectId)
            .Select(all => new { all.Key, Last = all.Max(change => change.Sequence) })
            .ToDictionaryAsync(all => all.Key, all => all.Last, cancellationToken);
        return Core.Changes.Undo.Plan([.. changes.Select(change => change.ToCore())], actor, latest);
    }

    /// <summary>Access first, so that whoever no longer sees a calendar is not told either that something in it has changed. Each thing is looked at by itself in <see cref="ReturnOne"/>.</summary>
    private async Task<Outcome<int>?> WhyNot(
        PersonId actor,
        List<ChangeRow> changes,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        CancellationToken cancellationToken
    )
    {
        // A request cannot be undone by who made it: whether it reached anybody would be told by that.
        if (
            changes.Count == 0
            || changes.Exists(change =>
                change.Actor != actor || (change.Subject == Subject.OpenAsk && change.Concerns == actor)
            )
        )
        {
            return new Outcome<int>.NotThere("change");
        }

        var touched = changes
            .Where(change => change.Subject == Subject.Event)
            .Select(change => new EventId(change.SubjectId))
            .ToList();
        var given = (
            await db.EventsGivenTo(actor).Where(id => touched.Contains(id)).ToListAsync(cancellationToken)
        ).ConvertAll(id => id.Value);
        return changes
            .Where(change => change.CalendarId is not null && !given.Contains(change.SubjectId))
            .Select(change =>
                Undoing.InCalendar(
                    change.Subject,
                    standings.GetValueOrDefault(change.CalendarId!.Value, Standing.Outside).Role
                )
            )
            .Select(one => one.Verdict.Refusal<int>("change", RoleSentence.Name(one.Needs)))
            .FirstOrDefault(refusal => refusal is not null);
    }

    /// <summary>Where somebody stands now; also with calendars in the bin, whose deletion may be what is to be undone.</summary>
    private async Task<IReadOnlyDictionary<CalendarId, Standing>> Standings(
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var all = new Dictionary<CalendarId, Standing>(await db.StandingsInBin(person, cancellationToken));
        foreach (var (calendar, standing) in await db.StandingsOf(person, cancellationToken))
        {
            all[calendar] = standing;
        }

        return all;
    }

    private async Task<Outcome<int>> Return(
        PersonId actor,
        IReadOnlyList<Undo.Return> returns,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        CancellationToken cancellationToken
    )
    {
        try
        {
            var booked = new List<EventRow>();
            var vanishing = returns
                .Where(one => one is { Subject: Subject.Event, To: null })
                .Select(one => new EventId(one.SubjectId))
                .ToHashSet();
            foreach (var chunk in returns.Chunk(Chunk))
            {
                foreach (var one in chunk)
                {
                    if (await ReturnOne(actor, one, standings, vanishing, cancellationToken) is { } refusal)
                    {
                        return refusal;
                    }
                }

                booked.AddRange(db.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity));
                await db.SaveChangesAsync(cancellationToken);
                db.ChangeTracker.Clear();
            }

            if (await checks.WhyNotLeft(returns, cancellationToken) is { } left)
            {
                return left;
            }

            foreach (var inOne in booked.GroupBy(row => row.CalendarId))
            {
                var place = await db
                    .Calendars.AsNoTracking()
                    .SingleAsync(row => row.Id == inOne.Key, cancellationToken);
                if (await db.WhyTaken<int>(actor, place, [.. inOne], zones, cancellationToken) is { } taken)
                {
                    return taken;
                }
            }
        }
        catch (DbUpdateException taken) when (taken.InnerException is SqliteException { SqliteErrorCode: 19 })
        {
            // A rule of the store (a UID once, one waiting invitation): something made since then has the place.
            return new Outcome<int>.Refused(
                "already-there",
                "Something made since then stands in its place. Delete that first, then undo again."
            );
        }

        return new Outcome<int>.Done(returns.Count);
    }

    private async Task<Outcome<int>?> ReturnOne(
        PersonId actor,
        Undo.Return one,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        IReadOnlySet<EventId> vanishing,
        CancellationToken cancellationToken
    )
    {
        if (await Find(one, cancellationToken) is not { } row)
        {
            return new Outcome<int>.NotThere("change");
        }

        if (row is GroupRow && one.To is null)
        {
            return new Outcome<int>.Refused("kept", "A group that was made cannot be taken back.");
        }

        var then = one.To is { } state ? (IRecorded)StoredText.Read(state, row.GetType()) : null;
        if (await checks.WhyNot(actor, row, then, standings, vanishing, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (then is null)
        {
            row.Vanish(clock.GetCurrentInstant());
            return null;
        }

        var (mailed, before) = (Mailed.Of(row), StoredText.Of(row));
        BringBack(row, then);
        if (mailed is null)
        {
            return null;
        }

        Mailed.Keep(row, mailed);
        return StoredText.Of(row) == before
            ? new Outcome<int>.Refused(
                "sent",
                "What went out cannot be taken back, and a link that ended stays ended. Withdraw or end it instead."
            )
            : null;
    }

    private void BringBack(IRecorded row, IRecorded then)
    {
        var version = row.Version;
        db.Entry(row).CurrentValues.SetValues(then);
        row.Version = version;
    }

    private async Task<IRecorded?> Find(Undo.Return one, CancellationToken cancellationToken) =>
        one.Subject switch
        {
            Subject.Event => await db.Events.FindAsync([new EventId(one.SubjectId)], cancellationToken),
            Subject.Calendar => await db.Calendars.FindAsync([new CalendarId(one.SubjectId)], cancellationToken),
            Subject.Grant => await db.Grants.FindAsync([one.SubjectId], cancellationToken),
            Subject.Invitation => await db.Invitations.FindAsync([new InvitationId(one.SubjectId)], cancellationToken),
            Subject.GroupGrant => await db.GroupGrants.FindAsync([one.SubjectId], cancellationToken),
            Subject.Member => await db
                .Members.IgnoreQueryFilters()
                .FirstOrDefaultAsync(member => member.Id == one.SubjectId, cancellationToken),
            Subject.Guest => await db
                .Guests.IgnoreQueryFilters()
                .FirstOrDefaultAsync(guest => guest.Id == one.SubjectId, cancellationToken),
            Subject.Guardian => await db
                .Guardians.IgnoreQueryFilters()
                .FirstOrDefaultAsync(guardian => guardian.Id == one.SubjectId, cancellationToken),
            Subject.Group => await db.Groups.FindAsync([new GroupId(one.SubjectId)], cancellationToken),
            Subject.Link => await db.Links.FindAsync([new LinkId(one.SubjectId)], cancellationToken),
            Subject.LinkHolder => await db.LinkHolders.FindAsync([one.SubjectId], cancellationToken),
            Subject.Answer => await db.Answers.FindAsync([one.SubjectId], cancellationToken),
            Subject.Proposal => await db.Proposals.FindAsync([new ProposalId(one.SubjectId)], cancellationToken),
            Subject.Agreement => await db.Agreements.FindAsync([one.SubjectId], cancellationToken),
            Subject.Vote => await db.Votes.FindAsync([one.SubjectId], cancellationToken),
            Subject.FineClash => await db.FineClashes.FindAsync([one.SubjectId], cancellationToken),
            Subject.OpenAsk => await db.OpenAsks.FindAsync([new AskId(one.SubjectId)], cancellationToken),
            Subject.Ask => await db.Asks.FindAsync([new AskId(one.SubjectId)], cancellationToken),
            _ => null,
        };
}
