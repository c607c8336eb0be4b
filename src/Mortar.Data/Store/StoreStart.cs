using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Mortar.Data.Store;

/// <summary>
/// Looks at the store before anything is written to it, and brings it to this release. Whatever a stop in the middle of
/// starting left behind, the next start comes up from it; what is not in order is said, and the store stays as it was.
/// </summary>
public static class StoreStart
{
    /// <summary>The store as it was before it was brought to a new release; there only until that is done.</summary>
    public const string CopyName = "before-update.db";

    /// <summary>There while the demo is made: what it left half made is made anew.</summary>
    public const string UnfinishedDemo = "demo-unfinished";

    /// <summary>Brings the store in a directory to this release.</summary>
    /// <param name="db">The store.</param>
    /// <param name="directory">The data directory, held by this Mortar.</param>
    /// <param name="leavesOutLostWrites">Whether to go on without writes that a damaged log file holds.</param>
    /// <param name="cancellationToken">Stops it.</param>
    /// <exception cref="StartRefusedException">Something is not in order.</exception>
    public static async Task Bring(
        MortarDb db,
        string directory,
        bool leavesOutLostWrites,
        CancellationToken cancellationToken
    )
    {
        var file = Path.Combine(directory, StoreSetup.FileName);
        if (File.Exists(Path.Combine(directory, UnfinishedDemo)))
        {
            Remove(file);
        }

        TakeBackCopy(directory, file);
        var log = new FileInfo($"{file}-wal");
        var endedBadly = log is { Exists: true, Length: > 0 };
        if (LogFile.WritesLost(log.FullName) is > 0 and var lost && !leavesOutLostWrites)
        {
            throw new StartRefusedException(
                $"The log file {log.FullName} is damaged: at least {lost} of the last writes in it could not be read. Nothing was changed. "
                    + $"Copy {directory} to a safe place first. Then put back a backup, or start once with --Mortar:LeaveOutLostWrites=true to go on without those writes."
            );
        }

        if (File.Exists(file))
        {
            await Look(db, file, endedBadly, cancellationToken);
            await Adoption.Adopt(db, cancellationToken);
        }

        await Migrate(db, directory, cancellationToken);
    }

    private static async Task Look(MortarDb db, string file, bool endedBadly, CancellationToken cancellationToken)
    {
        // Reading through takes a second for each few hundred MB: only where the last Mortar was not stopped in order.
        var found = endedBadly
            ? await db.Database.SqlQueryRaw<string>("PRAGMA quick_check(1)").ToListAsync(cancellationToken)
            : [];
        if (found.Exists(one => one != "ok"))
        {
            throw new StartRefusedException(
                $"The store {file} is damaged ({found[0].ReplaceLineEndings(" ")}). Nothing was changed. Put back a backup."
            );
        }

        var applied = (await db.Database.GetAppliedMigrationsAsync(cancellationToken)).ToList();
        if (await Adoption.WhyNot(db, file, applied, cancellationToken) is { } older)
        {
            throw new StartRefusedException(older);
        }

        var newer = applied
            .Where(step => !Adoption.IsOld(step))
            .Except(db.Database.GetMigrations(), StringComparer.Ordinal)
            .LastOrDefault();
        if (newer is not null)
        {
            throw new StartRefusedException(
                $"The store {file} was written by a newer Mortar ({newer}), which this one does not understand. Nothing was changed. Start that newer release, or put back a backup from before it."
            );
        }
    }

    private static async Task Migrate(MortarDb db, string directory, CancellationToken cancellationToken)
    {
        var isNew = !(await db.Database.GetAppliedMigrationsAsync(cancellationToken)).Any();
        if (!(await db.Database.GetPendingMigrationsAsync(cancellationToken)).Any())
        {
            return;
        }

        // A stop in the middle of an earlier one left it locked; nobody else is here who could hold it.
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS __EFMigrationsLock", cancellationToken);
        var copy = Path.Combine(directory, CopyName);
        if (!isNew)
        {
            // Some steps rebuild a table and cannot be one transaction: a stop between them would leave neither release.
            var making = $"{copy}.making";
            File.Delete(making);
            await db.Database.ExecuteSqlAsync($"VACUUM INTO {making}", cancellationToken);
            File.Move(making, copy);
        }

        await db.Database.MigrateAsync(cancellationToken);
        File.Delete(copy);
    }

    /// <summary>Puts the store back that was copied before an update which was not finished.</summary>
    private static void TakeBackCopy(string directory, string file)
    {
        var copy = Path.Combine(directory, CopyName);
        File.Delete($"{copy}.making");
        if (File.Exists(copy))
        {
            // The log first: it belongs to the store that goes.
            File.Delete($"{file}-wal");
            File.Delete($"{file}-shm");
            File.Move(copy, file, overwrite: true);
        }
    }

    private static void Remove(string file)
    {
        SqliteConnection.ClearAllPools();
        foreach (var one in new[] { file, $"{file}-wal", $"{file}-shm" })
        {
            File.Delete(one);
        }
    }
}
