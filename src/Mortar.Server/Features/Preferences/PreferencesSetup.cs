using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Data.Preferences;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Preferences;

/// <summary>PUT /api/preferences: how one likes to see time. They are told with the session.</summary>
internal static class PreferencesSetup
{
    public static void AddPreferences(this IServiceCollection services) => services.AddScoped<PreferenceCommands>();

    public static void MapPreferences(this RouteGroupBuilder api) =>
        api.MapPut("/preferences", Put).WithName("PutPreferences");

    private static Task<Results<Ok<PreferencesBody>, ProblemHttpResult>> Put(
        PreferencesBody body,
        Acting acting,
        PreferenceCommands preferences,
        CancellationToken cancellationToken
    ) =>
        preferences
            .Put(acting.Person, body.ToCore(), cancellationToken)
            .Answer(kept => Task.FromResult(PreferencesBody.Of(kept)));
}
