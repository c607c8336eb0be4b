using BenchmarkDotNet.Running;
using Mortar.Bench.AtWork;

return args switch
{
    ["two-hundred"] => await TwoHundred.Run(),
    ["hidden"] => await HiddenOrNever.Run(),
    ["open-screens"] => await OpenScreens.Run(),
    ["reads"] => await Reads.Run(),
    ["mails"] => await Mails.Run(),
    ["bombs"] => await BombsOverHttp.Run(),
    ["devices"] => await Devices.Run(),
    _ => Measure(args),
};

// Ten rounds of each in one process: what the neighbours on the machine do evens out, and all of it ends within minutes.
static int Measure(string[] args)
{
    BenchmarkSwitcher
        .FromAssembly(typeof(Mortar.Bench.Mix).Assembly)
        .Run([
            .. args.Length > 0
                ? args
                : ["--filter", "*", "--launchCount", "1", "--warmupCount", "3", "--iterationCount", "10"],
            // All of Mortar is built anew for it, with its analysers.
            "--buildTimeout",
            "600",
        ]);
    return 0;
}
