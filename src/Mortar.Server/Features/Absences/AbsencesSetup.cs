using Mortar.Data.Absences;

namespace Mortar.Server.Features.Absences;

/// <summary>Absences: agreed to, added up, and who is back when.</summary>
internal static class AbsencesSetup
{
    public static void AddAbsences(this IServiceCollection services) =>
        services.AddScoped<AgreementCommands>().AddScoped<AbsencesReading>();

    public static void MapAbsences(this RouteGroupBuilder api)
    {
        AgreeToEvent.Map(api);
        ReadAbsences.Map(api);
        ReadBack.Map(api);
    }
}
