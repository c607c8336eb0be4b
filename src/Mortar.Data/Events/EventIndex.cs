using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Data.Store;

namespace Mortar.Data.Events;

/// <summary>Keeps the instants by which events are found true to the zone database and to how series are computed.</summary>
/// <remarks>
/// The local times are the truth; the instants follow from them. When a release brings another zone database, or
/// computes rules that the one before only kept, they are computed anew, once, before anybody is served.
/// </remarks>
public static class EventIndex
{
    /// <summary>To be raised when <see cref="SeriesExpansion.LastEnd"/> or <see cref="SeriesExpansion.FirstStart"/> answer otherwise than before.</summary>
    private const int Release = 2;

    private const int AtOnce = 1_000;

    /// <summary>Computes the instants of all events anew where they were computed by something else.</summary>
    /// <param name="db">The store.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="zoneVersion">The version of the zone database.</param>
    /// <param name="cancellationToken">Stops it; nothing is half-written.</param>
    /// <returns>How many events were found to have others.</returns>
    public static async Task<int> Refresh(
        MortarDb db,
        ZoneClock clock,
        string zoneVersion,
        CancellationToken cancellationToken
    )
    {
        var wanted = Mark(zoneVersion);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellationToken);
        var marks = await db.Database.SqlQueryRaw<int>("PRAGMA user_version").ToListAsync(cancellationToken);
        if (marks[0] == wanted)
        {
            return 0;
        }

        var changed = 0;
        for (var from = 0; ; from += AtOnce)
        {
            var rows = await db
                .Events.AsNoTracking()
                .OrderBy(row => row.Id)
                .Skip(from)
                .Take(AtOnce)
                .ToListAsync(cancellationToken);
            foreach (var row in rows)
            {
                changed += await Refresh(db, row, clock, cancellationToken);
            }

            if (rows.Count < AtOnce)
            {
                break;
            }
        }

        // A pragma takes no parameter; the number is our own.
        await db.Database.ExecuteSqlRawAsync(
            string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {wanted}"),
            cancellationToken
        );
        await transaction.CommitAsync(CancellationToken.None);
        return changed;
    }

    /// <summary>Around the change log on purpose: nobody changed the event, and its version stays.</summary>
    private static async Task<int> Refresh(
        MortarDb db,
        EventRow row,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var whole = row.ToCore();
        var start = whole.FirstStart(clock);
        var end = whole.LastEnd(clock) ?? EventRow.Forever;
        return start == row.IndexStart && end == row.IndexEnd
            ? 0
            : await db
                .Events.Where(one => one.Id == row.Id)
                .ExecuteUpdateAsync(
                    set => set.SetProperty(one => one.IndexStart, start).SetProperty(one => one.IndexEnd, end),
                    cancellationToken
                );
    }

    /// <summary>A number above 0 for what the instants are computed by.</summary>
    private static int Mark(string zoneVersion)
    {
        var hash = SHA256.HashData(
            Encoding.UTF8.GetBytes(string.Create(CultureInfo.InvariantCulture, $"{Release} {zoneVersion}"))
        );
        return (BinaryPrimitives.ReadInt32BigEndian(hash) & int.MaxValue) | 1;
    }
}
