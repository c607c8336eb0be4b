using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Tests;

/// <summary>The store in a data directory in which no Mortar runs just now: looked at and changed from outside.</summary>
/// <param name="data">The data directory.</param>
internal sealed class LeftStore(string data)
{
    public string File => Path.Combine(data, StoreSetup.FileName);

    /// <summary>How many rows a table has, of those for which a condition holds.</summary>
    public async Task<long> Count(string table, string which = "1") =>
        (long)(await Scalar($"SELECT count(*) FROM {table} WHERE {which}"))!;

    public async Task<object?> Scalar(string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={File};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        return await command.ExecuteScalarAsync();
    }

    /// <summary>Runs it, and leaves nothing of it in the log file.</summary>
    public async Task Do(string sql)
    {
        await Scalar(sql);
        await Scalar("PRAGMA wal_checkpoint(TRUNCATE)");
    }

    /// <summary>Takes it back to what an older release had.</summary>
    /// <param name="migration">The last one that the release had.</param>
    public async Task DowngradeTo(string migration)
    {
        var options = new DbContextOptionsBuilder<MortarDb>();
        StoreSetup.Configure(options, File);
        await using (var db = new MortarDb(options.Options, SystemClock.Instance, new ChangeSignal(), new WriteTurn()))
        {
            await db.GetService<IMigrator>().MigrateAsync(migration);
            await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS __EFMigrationsLock");
        }

        SqliteConnection.ClearAllPools();
    }

    /// <summary>Copies a data directory's own files.</summary>
    public static void Copy(string from, string to)
    {
        Directory.CreateDirectory(to);
        foreach (var file in Directory.EnumerateFiles(from))
        {
            System.IO.File.Copy(file, Path.Combine(to, Path.GetFileName(file)));
        }
    }
}
