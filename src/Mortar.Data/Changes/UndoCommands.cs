using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Changes;

/// <summary>Takes an act back by reading the log: every thing it touched returns to its state before.</summary>
public sealed class UndoCommands(MortarDb db, IClock clock)
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
                var latest = await db
                    .Changes.Where(change =>
                        db.Changes.Where(mine => mine.Set == set)
                            .Select(mine => mine.SubjectId)
                            .Contains(change.SubjectId)
                    )
                    .GroupBy(change => change.SubjectId)
                    .Select(all => new { all.Key, Last = all.Max(change => change.Sequence) })
                    .ToDictionaryAsync(all => all.Key, all => all.Last, cancellationToken);
                if (
                    Core.Changes.Undo.Plan([.. changes.Select(change => change.ToCore())], act.Actor, latest)
                    is not Undo.Possible plan
                )
                {
                    return Refusal(
                        Core.Changes.Undo.Plan([.. changes.Select(change => change.ToCore())], act.Actor, latest)
                    );
                }

                return await WhyNot(act, changes, cancellationToken) ?? await Return(plan.Returns, cancellationToken);
            },
            cancellationToken
        );

    private static Outcome<int> Refusal(Undo undo) =>
        undo is Undo.Refused { Type: not "not-found" } refused
            ? new Outcome<int>.Refused(refused.Type, refused.Sentence)
            : new Outcome<int>.NotThere("change");

    /// <summary>What somebody may no longer do, they may no longer undo.</summary>
    private async Task<Outcome<int>?> WhyNot(Act act, List<ChangeRow> changes, CancellationToken cancellationToken)
    {
        foreach (
            var ofOne in changes
                .Where(change => change.CalendarId is not null)
                .GroupBy(change => change.CalendarId!.Value)
        )
        {
            var role = await RoleWithBin(act.Actor, ofOne.Key, cancellationToken);
            var verdict = ofOne.All(change => change.Subject == Subject.Event)
                ? AccessRules.ToAdd(role)
                : AccessRules.ToCoordinate(role);
            if (verdict.Refusal<int>("change", "Edit") is { } refusal)
            {
                return refusal;
            }
        }

        return null;
    }

    /// <summary>The step on a calendar that may be in the bin, whose deletion is what is to be undone.</summary>
    private async Task<Role> RoleWithBin(PersonId person, CalendarId calendar, CancellationToken cancellationToken)
    {
        var own = await db
            .Grants.Where(grant => grant.CalendarId == calendar && grant.PersonId == person)
            .Select(grant => grant.Role)
            .FirstOrDefaultAsync(cancellationToken);
        var standing = (await db.StandingOf(person, calendar, cancellationToken)).Role;
        return own > standing ? own : standing;
    }

    private async Task<Outcome<int>> Return(IReadOnlyList<Undo.Return> returns, CancellationToken cancellationToken)
    {
        foreach (var chunk in returns.Chunk(Chunk))
        {
            foreach (var one in chunk)
            {
                if (await Find(one, cancellationToken) is not { } row)
                {
                    return new Outcome<int>.NotThere("change");
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

                if (row is EventRow { DeletedAt: null } back && await IsTaken(back, cancellationToken))
                {
                    return new Outcome<int>.Refused(
                        "already-there",
                        "A copy of this event was added in the meantime. Delete the copy first."
                    );
                }
            }

            await db.SaveChangesAsync(cancellationToken);
            db.ChangeTracker.Clear();
        }

        return new Outcome<int>.Done(returns.Count);
    }

    private Task<bool> IsTaken(EventRow back, CancellationToken cancellationToken) =>
        db.Events.AnyAsync(
            row =>
                row.CalendarId == back.CalendarId && row.Uid == back.Uid && row.DeletedAt == null && row.Id != back.Id,
            cancellationToken
        );

    private async Task<IRecorded?> Find(Undo.Return one, CancellationToken cancellationToken) =>
        one.Subject switch
        {
            Subject.Event => await db.Events.FindAsync([new EventId(one.SubjectId)], cancellationToken),
            Subject.Calendar => await db.Calendars.FindAsync([new CalendarId(one.SubjectId)], cancellationToken),
            Subject.Grant => await db.Grants.FindAsync([one.SubjectId], cancellationToken),
            Subject.Invitation => await db.Invitations.FindAsync([new InvitationId(one.SubjectId)], cancellationToken),
            _ => null,
        };
}
