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

var app = MortarHost.Build(args);
await MortarHost.Prepare(app, CancellationToken.None);
await app.StartAsync();
await Greeting.Print(app, CancellationToken.None);
await app.WaitForShutdownAsync();
return 0;
