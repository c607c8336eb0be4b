using BenchmarkDotNet.Running;

BenchmarkSwitcher
    .FromAssembly(typeof(Program).Assembly)
    .Run(args.Length > 0 ? args : ["--filter", "*", "--job", "short"]);
