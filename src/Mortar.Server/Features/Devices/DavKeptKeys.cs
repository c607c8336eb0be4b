using System.Collections.Concurrent;
using Mortar.Data.Devices;
using Mortar.Data.Store;

namespace Mortar.Server.Features.Devices;

/// <summary>
/// Whose keys came lately, as long as nothing was written since they were looked for: programs ask what is new each minute,
/// and mostly nothing is. One that has ended was written, and opens nothing from then on.
/// </summary>
internal sealed class DavKeptKeys(ChangeSignal signal)
{
    private const int Most = 5_000;

    private readonly ConcurrentDictionary<string, (DeviceRow Device, long Commits)> known = new();

    /// <summary>The device that a key opens; <c>null</c> for none.</summary>
    public async Task<DeviceRow?> Of(MortarDb db, string key, CancellationToken cancellationToken)
    {
        var hash = DeviceKey.HashOf(key);
        // Counted before it is looked for: what is written meanwhile has it looked for again.
        var commits = signal.Commits;
        if (known.TryGetValue(hash, out var kept) && kept.Commits == commits)
        {
            return kept.Device;
        }

        var device = await db.DeviceByKey(key, cancellationToken);
        if (device is not null)
        {
            if (known.Count >= Most)
            {
                known.Clear();
            }

            known[hash] = (device, commits);
        }

        return device;
    }
}
