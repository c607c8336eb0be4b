using Microsoft.EntityFrameworkCore;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Preferences;

/// <summary>Keeps how somebody likes to see time. It is nobody else's, so the change log does not tell of it.</summary>
public sealed class PreferenceCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Puts all of one's own preferences.</summary>
    public async Task<Outcome<PersonPreferences>> Put(
        PersonId person,
        PersonPreferences given,
        CancellationToken cancellationToken
    )
    {
        var (preferences, problems) = given.Check(zones);
        if (problems.Count > 0)
        {
            return new Refusal.Unfit(problems);
        }

        var row = await db.People.SingleAsync(one => one.Id == person, cancellationToken);
        row.Apply(preferences);
        await db.SaveChangesAsync(cancellationToken);
        return preferences;
    }
}
