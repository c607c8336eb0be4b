using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Mortar.Data.Store;

/// <summary>
/// What an operator can see from outside: counted and timed where it happens, and costing nothing where nobody looks. No
/// name, address, title or secret is ever in it.
/// </summary>
public static class Measured
{
    /// <summary>The name of the meter and of the source of traces.</summary>
    public const string Name = "Mortar";

    private static readonly Meter Meter = new(Name);

    /// <summary>Where what takes a while begins and ends.</summary>
    public static ActivitySource Source { get; } = new(Name);

    /// <summary>How long somebody stood in line to write, in seconds.</summary>
    public static Histogram<double> WriteWait { get; } =
        Meter.CreateHistogram<double>("mortar.store.write.wait", "s", "How long somebody stood in line to write.");

    /// <summary>How long one write held the store, in seconds.</summary>
    public static Histogram<double> WriteHeld { get; } =
        Meter.CreateHistogram<double>("mortar.store.write.held", "s", "How long one write held the store.");

    /// <summary>The live lines to screens that are open.</summary>
    public static UpDownCounter<int> Lines { get; } =
        Meter.CreateUpDownCounter<int>("mortar.live.lines", "{line}", "Live lines to screens that are open.");

    /// <summary>Mails, by what became of the try: <c>sent</c>, <c>not_taken</c>, <c>unfit</c>, <c>no_line</c>.</summary>
    public static Counter<int> Mails { get; } =
        Meter.CreateCounter<int>("mortar.mails", "{mail}", "Tries to send a mail, by what became of them.");

    /// <summary>Reminders that were given.</summary>
    public static Counter<int> Reminders { get; } =
        Meter.CreateCounter<int>("mortar.reminders", "{reminder}", "Reminders that were given.");

    /// <summary>How long an import took to be written, in seconds, by how it ended.</summary>
    public static Histogram<double> Imports { get; } =
        Meter.CreateHistogram<double>("mortar.imports", "s", "How long an import took to be written.");

    /// <summary>Rows that were kept long enough and have gone.</summary>
    public static Counter<int> Swept { get; } =
        Meter.CreateCounter<int>("mortar.swept", "{row}", "Rows that were kept long enough and have gone.");
}
