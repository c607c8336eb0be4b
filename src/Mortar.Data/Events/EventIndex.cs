using System.Buffers.Binary;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Data.Store;
using NodaTime;

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
        await using var transaction = await db.Database.BeginTransactionAsync(cancellationToken);
        if (await IsOf(db, zoneVersion, cancellationToken))
        {
            return 0;
        }

        var changed = 0;
        await foreach (var row in Each(db, cancellationToken))
        {
            changed += await Refresh(db, row, clock, cancellationToken);
        }

        // A pragma takes no parameter; the number is our own.
        await db.Database.ExecuteSqlRawAsync(
            string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {Mark(zoneVersion)}"),
            cancellationToken
        );
        await transaction.CommitAsync(CancellationToken.None);
        return changed;
    }

    /// <summary>How many events are found by other instants than their rules give; those whose rules cannot be read are among them.</summary>
    /// <param name="db">The store.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<int> CountWrong(MortarDb db, ZoneClock clock, CancellationToken cancellationToken)
    {
        var wrong = 0;
        await foreach (var row in Each(db, cancellationToken))
        {
            try
            {
                wrong += Of(row, clock) == (row.IndexStart, row.IndexEnd) ? 0 : 1;
            }
            catch (Exception bad) when (bad is not OutOfMemoryException)
            {
                wrong++; // whatever stands in its columns, no event can be made of it
            }
        }

        return wrong;
    }

    /// <summary>Whether the instants in a store were computed by this release and these rules of zones.</summary>
    public static async Task<bool> IsOf(MortarDb db, string zoneVersion, CancellationToken cancellationToken) =>
        (await db.Database.SqlQueryRaw<int>("PRAGMA user_version").ToListAsync(cancellationToken))[0]
        == Mark(zoneVersion);

    private static async IAsyncEnumerable<EventRow> Each(
        MortarDb db,
        [EnumeratorCancellation] CancellationToken cancellationToken
    )
    {
        for (var (from, count) = (0, AtOnce); count == AtOnce; from += count)
        {
            var rows = await db
                .Events.AsNoTracking()
                .OrderBy(row => row.Id)
                .Skip(from)
                .Take(AtOnce)
                .ToListAsync(cancellationToken);
            count = rows.Count;
            foreach (var row in rows)
            {
                yield return row;
            }
        }
    }

    private static (Instant Start, Instant End) Of(EventRow row, ZoneClock clock)
    {
        var whole = row.ToCore();
        return (whole.FirstStart(clock), whole.LastEnd(clock) ?? EventRow.Forever);
    }

    /// <summary>Around the change log on purpose: nobody changed the event, and its version stays.</summary>
    private static async Task<int> Refresh(
        MortarDb db,
        EventRow row,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var (start, end) = Of(row, clock);
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
