using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;

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
    /// <returns>The backup that was made before the store was brought to this release; <c>null</c> where there was nothing to bring.</returns>
    /// <exception cref="StartRefusedException">Something is not in order.</exception>
    public static async Task<string?> Bring(
        MortarDb db,
        string directory,
        bool leavesOutLostWrites,
        CancellationToken cancellationToken
    )
    {
        var file = Path.Combine(directory, StoreSetup.FileName);
        if (File.Exists(Path.Combine(directory, Backup.UnfinishedRestore)))
        {
            throw new StartRefusedException(
                $"A backup was being put back into {directory}, and that was not finished. Do it again: ./mortar restore FILE {directory}"
            );
        }

        if (File.Exists(Path.Combine(directory, UnfinishedDemo)))
        {
            Remove(file);
        }

        TakeBackCopy(directory, file);
        var endedBadly = new FileInfo(LogOf(file)) is { Exists: true, Length: > 0 };
        if (!leavesOutLostWrites && WhyLost(directory) is { } lost)
        {
            throw new StartRefusedException(lost);
        }

        if (File.Exists(file))
        {
            await Look(db, file, endedBadly, cancellationToken);
            await Adoption.Adopt(db, cancellationToken);
        }

        return await Migrate(db, directory, cancellationToken);
    }

    /// <summary>What is said where the log file of a store in which no Mortar runs is damaged; <c>null</c> where it is not.</summary>
    internal static string? WhyLost(string directory)
    {
        var log = LogOf(Path.Combine(directory, StoreSetup.FileName));
        return LogFile.WritesLost(log) is > 0 and var lost
            ? $"The log file {log} is damaged: at least {lost} of the last writes in it could not be read. Nothing was changed. "
                + $"Copy {directory} to a safe place first. Then put back a backup, or start once with --Mortar:LeaveOutLostWrites=true to go on without those writes."
            : null;
    }

    /// <summary>Whether something was begun in a directory that the next start takes up, or a restore.</summary>
    /// <exception cref="BackupException">It was.</exception>
    internal static void ThrowWhereUnfinished(string directory)
    {
        if (
            Array.Exists(
                [CopyName, UnfinishedDemo, Backup.UnfinishedRestore],
                name => File.Exists(Path.Combine(directory, name))
            )
        )
        {
            throw new BackupException(
                $"Something was begun in {directory} that is not finished: an update, a restore, or the making of the demo. Wait for it, or start Mortar there once, and try again."
            );
        }
    }

    /// <summary>The migrations that this release knows, oldest first.</summary>
    public static IReadOnlyList<string> Steps()
    {
        using var db = new DesignTimeDb().CreateDbContext([]);
        return [.. db.Database.GetMigrations()];
    }

    private static string LogOf(string file) => $"{file}-wal";

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

    private static async Task<string?> Migrate(MortarDb db, string directory, CancellationToken cancellationToken)
    {
        var isNew = !(await db.Database.GetAppliedMigrationsAsync(cancellationToken)).Any();
        var pending = (await db.Database.GetPendingMigrationsAsync(cancellationToken)).ToList();
        if (pending.Count == 0)
        {
            return null;
        }

        // A stop in the middle of an earlier one left it locked; nobody else is here who could hold it.
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS __EFMigrationsLock", cancellationToken);
        var copy = Path.Combine(directory, CopyName);
        string? backup = null;
        if (!isNew)
        {
            // Some steps rebuild a table and cannot be one transaction: a stop between them would leave neither release.
            var making = $"{copy}.making";
            File.Delete(making);
            await db.Database.ExecuteSqlAsync($"VACUUM INTO {making}", cancellationToken);
            File.Move(making, copy);
            backup = BackupBefore(directory, copy, pending[^1], db.Now);
        }

        await db.Database.MigrateAsync(cancellationToken);
        File.Delete(copy);
        return backup;
    }

    /// <summary>The copy helps where the update is not finished; a backup helps where it was, and is not liked.</summary>
    private static string BackupBefore(string directory, string copy, string step, Instant now)
    {
        var file = Path.Combine(directory, Backup.Folder, $"before-{step}.zip");
        // Of an update to the same step that was not finished or was taken back: people may have gone on since.
        if (File.Exists(file))
        {
            File.Delete(file);
        }

        Backup.Write(directory, file, now, copy);
        return file;
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
