using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Time;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Absences;

/// <summary>Reads the days off of a group.</summary>
public static class GroupDaysOff
{
    /// <summary>The dates on which nobody of a group works, from the calendar it was given for that; told to all its members.</summary>
    public static async Task<IReadOnlySet<LocalDate>> DaysOffIn(
        this MortarDb db,
        GroupRow group,
        Window window,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (
            group.DaysOff is not { } calendar
            || !await db.Calendars.AnyAsync(
                row => row.Id == calendar && row.GroupId == group.Id && row.DeletedAt == null,
                cancellationToken
            )
        )
        {
            return new HashSet<LocalDate>();
        }

        return AbsenceCount.DaysOff(await db.EventsTouching([calendar], window, cancellationToken), window, zones);
    }
}
