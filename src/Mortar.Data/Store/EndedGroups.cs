using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Noticeboards;

namespace Mortar.Data.Store;

/// <summary>
/// Keeps true, in the save that changes it, what follows from a group's having ended: its calendars go from the walls with it
/// and come back with it, and nothing of it is changed meanwhile. In one place, since everything about a group comes by here.
/// </summary>
internal sealed class EndedGroups
{
    /// <summary>The groups of which the act under way changes something: whether only what is of one person's time; <c>null</c> where it is the group itself.</summary>
    private readonly Dictionary<GroupId, bool?> touched = [];

    /// <summary>Has the calendars of a group follow it.</summary>
    public static async Task KeepCalendars(MortarDb db, CancellationToken cancellationToken)
    {
        foreach (
            var entry in db.ChangeTracker.Entries<GroupRow>().Where(one => one.State is EntityState.Modified).ToList()
        )
        {
            var group = entry.Entity;
            if (!IsPut(entry))
            {
                continue;
            }

            var calendars = await db
                .Calendars.Where(row => row.GroupId == group.Id && (row.DeletedAt == null || row.WithGroup))
                .ToListAsync(cancellationToken);
            foreach (var row in calendars)
            {
                var goes = GroupEnding.TakesAlong(group.State(), row.Person is not null);
                if (goes != row.WithGroup)
                {
                    (row.WithGroup, row.DeletedAt) = (goes, goes ? db.Now : null);
                }
            }
        }
    }

    /// <summary>Takes note of the groups of which something is about to be saved.</summary>
    public void TakeNote(ChangeTracker changes)
    {
        foreach (var entry in changes.Entries<IRecorded>())
        {
            if (entry.State is not (EntityState.Added or EntityState.Modified))
            {
                continue;
            }

            switch (entry.Entity)
            {
                case GroupRow group when IsPut(entry):
                    touched[group.Id] = null;
                    break;
                case CalendarRow calendar:
                    Touch(calendar.GroupId, entry.State is EntityState.Modified && calendar.Person is not null);
                    break;
                // To leave, to be taken out, to be no guardian any more: what ends does, however it is with the group.
                case MemberRow { LeftAt: not null }
                or GuardianRow { EndedAt: not null }
                or GuestRow { EndedAt: not null }
                or NoticeboardRow { EndedAt: not null }:
                    break;
                case { OfGroup: { } of }:
                    Touch(of, isSomebodysOwn: false);
                    break;
            }
        }
    }

    /// <summary>Why the act under way cannot be done; <c>null</c> where all it touched is at work.</summary>
    public async Task<Refusal?> WhyNotIn(MortarDb db, CancellationToken cancellationToken)
    {
        var ids = touched.Where(one => one.Value is not null).Select(one => one.Key).ToList();
        if (ids.Count == 0)
        {
            return null;
        }

        var rows = await db
            .Groups.AsNoTracking()
            .Where(row => ids.Contains(row.Id) && (row.RestsSince != null || row.DeletedAt != null))
            .ToListAsync(cancellationToken);
        return rows.Where(row => GroupEnding.TakesAlong(row.State(), touched[row.Id] == true))
            .Select(row => GroupEnding.WhyNotChange(row.State(), row.Name))
            .FirstOrDefault();
    }

    /// <summary>The act is over.</summary>
    public void Forget() => touched.Clear();

    /// <summary>Whether a group is made, or put into another state.</summary>
    private static bool IsPut(EntityEntry entry) =>
        entry.State is EntityState.Added
        || ((GroupRow)entry.OriginalValues.ToObject()).State() != ((GroupRow)entry.Entity).State();

    private void Touch(GroupId id, bool isSomebodysOwn)
    {
        if (!touched.TryGetValue(id, out var known) || known == true)
        {
            touched[id] = isSomebodysOwn;
        }
    }
}
