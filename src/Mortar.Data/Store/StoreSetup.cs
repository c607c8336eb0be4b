using System.Data.Common;
using System.Runtime.CompilerServices;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Data.Reading;
using SQLitePCL;

namespace Mortar.Data.Store;

/// <summary>Opens the SQLite file, with every pragma and its reason in one place.</summary>
public static class StoreSetup
{
    /// <summary>The name of the database file inside the data directory.</summary>
    public const string FileName = "mortar.db";

    /// <summary>Registers <see cref="MortarDb"/> on the file in <paramref name="directory"/>.</summary>
    public static IServiceCollection AddMortarData(this IServiceCollection services, string directory) =>
        services
            .AddSingleton<ChangeSignal>()
            .AddSingleton<WriteTurn>()
            .AddSingleton<StoreLock>()
            .AddSingleton<LogTail>()
            .AddSingleton<KeptEvents>()
            .AddSingleton<KeptFine>()
            .AddSingleton<Sights>()
            .AddSingleton<KeptPeople>()
            .AddDbContext<MortarDb>(options => Configure(options, Path.Combine(directory, FileName)));

    internal static void Configure(
        DbContextOptionsBuilder options,
        string file,
        SqliteOpenMode mode = SqliteOpenMode.ReadWriteCreate
    ) =>
        options
            .UseSqlite(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    Mode = mode,
                    ForeignKeys = true,
                    // Bounds the wait for another writer; the longest holds the lock for half a second (docs/benchmarks.md).
                    DefaultTimeout = 20,
                }.ConnectionString,
                // Lists of hundreds of ids go in as one value: a parameter for each costs more than the query itself.
                sqlite => sqlite.UseParameterizedCollectionMode(ParameterTranslationMode.Parameter)
            )
            // Thrown as well, and told once by whoever catches it: a trace for each beside that is read by nobody.
            .ConfigureWarnings(warnings =>
                warnings.Ignore(
                    CoreEventId.QueryIterationFailed,
                    CoreEventId.SaveChangesFailed,
                    RelationalEventId.CommandError,
                    RelationalEventId.ConnectionError,
                    RelationalEventId.TransactionError
                )
            )
            .AddInterceptors(Pragmas.Kept);

    /// <summary>A file of one act (<see cref="Store.Aside"/>), thrown away after it: nothing of it has to outlive a crash.</summary>
    internal static DbContextOptions<MortarDb> Aside(string file) =>
        new DbContextOptionsBuilder<MortarDb>()
            .UseSqlite(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    ForeignKeys = false,
                    Pooling = false,
                }.ConnectionString,
                sqlite => sqlite.UseParameterizedCollectionMode(ParameterTranslationMode.Parameter)
            )
            .AddInterceptors(Pragmas.Aside)
            .Options;

    /// <summary>
    /// What a connection is told when it is first opened. There is one of each kind: options are made for every request, and
    /// a memory of its own with each would tell connections again and be kept as long as they are.
    /// </summary>
    private sealed class Pragmas(string pragmas) : DbConnectionInterceptor
    {
        /// <summary>
        /// WAL: readers go on while somebody writes. NORMAL: a power cut may cost the last commits but never the file.
        /// busy_timeout: SQLite waits for a lock by itself, which is finer than the driver's polling.
        /// journal_size_limit: what an import made of the log is given back to the disk.
        /// </summary>
        public static readonly Pragmas Kept = new(
            "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA busy_timeout=15000; PRAGMA journal_size_limit=4194304;"
        );

        public static readonly Pragmas Aside = new("PRAGMA journal_mode=MEMORY; PRAGMA synchronous=OFF;");

        /// <summary>Connections are lent out again and again; one that was told keeps them.</summary>
        private readonly ConditionalWeakTable<sqlite3, object> told = [];

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            if (IsNew(connection))
            {
                using var command = connection.CreateCommand();
                command.CommandText = pragmas;
                command.ExecuteNonQuery();
            }
        }

        public override async Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            if (IsNew(connection))
            {
                await using var command = connection.CreateCommand();
                command.CommandText = pragmas;
                await command.ExecuteNonQueryAsync(cancellationToken);
            }
        }

        /// <summary>
        /// EF looks whether there is a store by a connection that can only read: that one cannot bring a file to WAL, which the copy
        /// that an unfinished update is taken back from is not in.
        /// </summary>
        private bool IsNew(DbConnection connection) =>
            connection is SqliteConnection { Handle: { } handle }
            && new SqliteConnectionStringBuilder(connection.ConnectionString).Mode != SqliteOpenMode.ReadOnly
            && told.TryAdd(handle, pragmas);
    }
}
