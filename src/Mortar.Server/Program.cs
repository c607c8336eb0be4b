using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Server.Hosting;
using NodaTime;

if (args is ["expand", .. var question])
{
    return ExpandCommand.Run(
        question,
        new ZoneClock(new KnownZones(DateTimeZoneProviders.Tzdb)),
        Console.Out,
        Console.Error
    );
}

if (StoreCommands.Knows(args))
{
    return await StoreCommands.Run(
        args,
        new ZoneClock(new KnownZones(DateTimeZoneProviders.Tzdb)),
        new KnownZones(DateTimeZoneProviders.Tzdb).VersionId,
        Console.Out,
        Console.Error
    );
}

return await MortarHost.Run(args, Console.Error);
