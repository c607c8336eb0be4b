using Microsoft.EntityFrameworkCore;
using Mortar.Core.WebCalendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.WebCalendars;

/// <summary>The one by whom events of the web are written.</summary>
public static class TheWeb
{
    /// <summary>Adds it where it is not there yet: whoever reads a history reads there who it was.</summary>
    public static async Task MeetTheWeb(this MortarDb db, CancellationToken cancellationToken)
    {
        var known = db.People.Local.Any(person => person.Id == WebCalendarRules.TheWeb);
        if (!known && !await db.People.AnyAsync(person => person.Id == WebCalendarRules.TheWeb, cancellationToken))
        {
            db.People.Add(
                new PersonRow
                {
                    Id = WebCalendarRules.TheWeb,
                    Name = WebCalendarRules.Name,
                    Zone = "UTC",
                }
            );
        }
    }
}
