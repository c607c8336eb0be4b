using Mortar.Data.Availability;

namespace Mortar.Server.Features.Availability;

/// <summary>When people and places are taken and free, as far as one may know.</summary>
internal static class AvailabilitySetup
{
    public static void AddAvailability(this IServiceCollection services) =>
        services.AddScoped<TimesReader>().AddScoped<HoursReading>();

    public static void MapAvailability(this RouteGroupBuilder api)
    {
        ReadTimes.Map(api);
        FindGaps.Map(api);
        AskFree.Map(api);
        ReadCover.Map(api);
    }
}
