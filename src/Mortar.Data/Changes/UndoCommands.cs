using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Groups;
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
                var roles = await Roles(act.Actor, changes, cancellationToken);

                // Access first: whoever no longer sees a calendar is not told either that something in it has changed.
                return await WhyNot(act.Actor, changes, roles, cancellationToken)
                    ?? await Plan(act.Actor, changes, set, cancellationToken) switch
                    {
                        Undo.Possible plan => await Return(act.Actor, plan.Returns, roles, cancellationToken),
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

    /// <summary>What somebody may no longer do, they may no longer undo. Events are looked at one by one in <see cref="ReturnOne"/>.</summary>
    private async Task<Outcome<int>?> WhyNot(
        PersonId actor,
        List<ChangeRow> changes,
        Dictionary<CalendarId, Role> roles,
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
            .Where(change =>
                change.CalendarId is not null
                && change.Subject is not (Subject.FineClash or Subject.Answer or Subject.Vote)
                && !given.Contains(change.SubjectId)
            )
            .Select(change =>
                (
                    change.Subject is Subject.Event or Subject.Proposal
                        ? AccessRules.ToAdd(roles[change.CalendarId!.Value])
                        : AccessRules.ToCoordinate(roles[change.CalendarId!.Value])
                ).Refusal<int>("change", change.Subject is Subject.Event or Subject.Proposal ? "Edit" : "Coordinate")
            )
            .FirstOrDefault(refusal => refusal is not null);
    }

    /// <summary>The steps on the calendars of an act; also on one in the bin, whose deletion is what is to be undone.</summary>
    private async Task<Dictionary<CalendarId, Role>> Roles(
        PersonId person,
        List<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var ids = changes.Select(change => change.CalendarId).OfType<CalendarId>().Distinct().ToList();
        var standings = await db.StandingsOf(person, cancellationToken);
        var own = await db
            .Grants.Where(grant => ids.Contains(grant.CalendarId) && grant.PersonId == person)
            .ToDictionaryAsync(grant => grant.CalendarId, grant => grant.Role, cancellationToken);
        return ids.Union(standings.Keys)
            .ToDictionary(
                id => id,
                id =>
                {
                    var standing = standings.GetValueOrDefault(id, Standing.Outside).Role;
                    return own.TryGetValue(id, out var role) && role > standing ? role : standing;
                }
            );
    }

    private async Task<Outcome<int>> Return(
        PersonId actor,
        IReadOnlyList<Undo.Return> returns,
        Dictionary<CalendarId, Role> roles,
        CancellationToken cancellationToken
    )
    {
        try
        {
            var booked = new List<EventRow>();
            foreach (var chunk in returns.Chunk(Chunk))
            {
                foreach (var one in chunk)
                {
                    if (await ReturnOne(actor, one, roles, cancellationToken) is { } refusal)
                    {
                        return refusal;
                    }
                }

                booked.AddRange(db.ChangeTracker.Entries<EventRow>().Select(entry => entry.Entity));
                await db.SaveChangesAsync(cancellationToken);
                db.ChangeTracker.Clear();
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
        Dictionary<CalendarId, Role> roles,
        CancellationToken cancellationToken
    )
    {
        if (await Find(one, cancellationToken) is not { } row)
        {
            return new Outcome<int>.NotThere("change");
        }

        if (row is EventRow before && WhyNotChange(actor, before, roles) is { } refusal)
        {
            return refusal;
        }

        if (GroupOf(row) is { } group && await WhyNotKeep(actor, group, row, cancellationToken) is { } notKept)
        {
            return notKept;
        }

        if (row is GroupRow && one.To is null)
        {
            return new Outcome<int>.Refused("kept", "A group that was made cannot be taken back.");
        }

        var version = row.Version;
        if (one.To is { } state)
        {
            db.Entry(row).CurrentValues.SetValues(StoredText.Read(state, row.GetType()));
            row.Version = version;
        }
        else
        {
            row.Vanish(clock.GetCurrentInstant());
        }

        return row is EventRow after ? WhyNotChange(actor, after, roles) : null;
    }

    private static GroupId? GroupOf(IRecorded row) =>
        row switch
        {
            MemberRow member => member.GroupId,
            GuardianRow guardian => guardian.GroupId,
            GroupRow group => group.Id,
            GuestRow guest => guest.GroupId,
            _ => null,
        };

    /// <summary>Guests are any member's to name, and the rest of a group is kept by those who coordinate it.</summary>
    private async Task<Outcome<int>?> WhyNotKeep(
        PersonId actor,
        GroupId group,
        IRecorded row,
        CancellationToken cancellationToken
    )
    {
        var me = await db
            .Members.AsNoTracking()
            .FirstOrDefaultAsync(member => member.GroupId == group && member.PersonId == actor, cancellationToken);
        return MemberRules.ToKeep(me is not null, me?.Coordinates == true || row is GuestRow).GroupRefusal<int>();
    }

    private static Outcome<int>? WhyNotChange(PersonId actor, EventRow row, Dictionary<CalendarId, Role> roles) =>
        AccessRules
            .ToChange(roles.GetValueOrDefault(row.CalendarId), actor, row.ToCore())
            .Refusal<int>("change", "Edit");

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
