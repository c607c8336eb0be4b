using BenchmarkDotNet.Running;

// Ten rounds of each in one process: what the neighbours on the machine do evens out, and all of it ends within minutes.
BenchmarkSwitcher
    .FromAssembly(typeof(Mortar.Bench.Mix).Assembly)
    .Run(
        args.Length > 0 ? args : ["--filter", "*", "--launchCount", "1", "--warmupCount", "3", "--iterationCount", "10"]
    );
