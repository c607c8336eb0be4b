using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Preferences;

/// <summary>PUT /api/preferences: how one likes to see time. They are told with the session.</summary>
internal static class PreferencesSetup
{
    public static void MapPreferences(this RouteGroupBuilder api) =>
        api.MapPut("/preferences", Put).WithName("PutPreferences");

    private static async Task<Results<Ok<PreferencesBody>, ProblemHttpResult>> Put(
        PreferencesBody body,
        Acting acting,
        MortarDb db,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var preferences = body.ToCore();
        if (preferences.Check(clock).WhyNot.Problem() is { } unfit)
        {
            return unfit;
        }

        var row = await db.People.SingleAsync(person => person.Id == acting.Person, cancellationToken);
        row.Apply(preferences);
        await db.SaveChangesAsync(cancellationToken);
        return TypedResults.Ok(PreferencesBody.Of(preferences));
    }
}
