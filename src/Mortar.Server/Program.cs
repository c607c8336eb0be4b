using Mortar.Server.Hosting;

var app = MortarHost.Build(args);
await MortarHost.Prepare(app, CancellationToken.None);
await app.StartAsync();
await Greeting.Print(app, CancellationToken.None);
await app.WaitForShutdownAsync();
