using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

public class StoreTests
{
    [Fact]
    public async Task A_range_is_read_by_the_index_and_no_table_is_scanned()
    {
        await using var mortar = await TestMortar.Start();
        var window = new Window(new LocalDate(2026, 3, 9), new LocalDate(2026, 3, 15), DateTimeZone.Utc);

        var plan = await mortar.Store(async db =>
        {
            var sql = db.RowsTouching([new CalendarId(DemoPeople.Stable("calendar Rota"))], window).ToQueryString();
            await db.Database.OpenConnectionAsync();
            await using var command = db.Database.GetDbConnection().CreateCommand();
            var lines = sql.Split('\n');
            command.CommandText = string.Join(
                    '\n',
                    lines.Where(line => !line.StartsWith(".param", StringComparison.Ordinal))
                )
                .Insert(0, "EXPLAIN QUERY PLAN ");
            foreach (
                var parameter in lines
                    .Where(line => line.StartsWith(".param set", StringComparison.Ordinal))
                    .Select(line => line.Split(' ', 4))
            )
            {
                var given = command.CreateParameter();
                (given.ParameterName, given.Value) = (parameter[2], parameter[3].Trim('\''));
                command.Parameters.Add(given);
            }

            var steps = new List<string>();
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                steps.Add(reader.GetString(3));
            }

            return steps;
        });

        Assert.Contains(
            plan,
            step => step.Contains("USING INDEX IX_Events_Range (CalendarId=? AND IndexEnd>?)", StringComparison.Ordinal)
        );
        Assert.DoesNotContain(
            plan,
            step =>
                step.StartsWith("SCAN Events", StringComparison.Ordinal)
                || step.StartsWith("SCAN \"Events\"", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task The_log_file_is_small_again_after_a_large_write()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var store = Path.Combine(mortar.Data, StoreSetup.FileName);
        var log = new FileInfo($"{store}-wal");
        // The log goes with the last connection, which other tests may close.
        await using var open = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={store};Pooling=False");
        await open.OpenAsync(TestContext.Current.CancellationToken);
        await using (var look = open.CreateCommand())
        {
            look.CommandText = "SELECT COUNT(*) FROM People";
            await look.ExecuteScalarAsync(TestContext.Current.CancellationToken);
        }

        await mortar.Fill(calendar, 8_000);
        log.Refresh();
        var large = log.Length;
        await ines.MakeEvent(calendar);
        log.Refresh();

        Assert.True(large > 6 * 1024 * 1024, $"{large} bytes are not large.");
        Assert.True(log.Length <= 4 * 1024 * 1024, $"{log.Length} bytes are left.");
    }

    /// <summary>What is told again is remembered again, for as long as the connection lives: once a request, for ever.</summary>
    [Fact]
    public async Task A_connection_is_told_how_to_work_once_by_however_many_it_is_used()
    {
        await using var mortar = await TestMortar.Start();
        for (var i = 0; i < 50; i++)
        {
            var (first, _) = await mortar.Store(db => Wait(db, "PRAGMA busy_timeout=1234"));
            var (second, wait) = await mortar.Store(db => Wait(db, "PRAGMA busy_timeout"));

            // Which is lent out is up to the pool, which other tests may empty.
            if (ReferenceEquals(first, second))
            {
                Assert.Equal(1234, wait);
                return;
            }
        }

        Assert.Fail("No connection was lent out again.");

        static async Task<(object Handle, long Wait)> Wait(MortarDb db, string pragma)
        {
            await db.Database.OpenConnectionAsync();
            var connection = (Microsoft.Data.Sqlite.SqliteConnection)db.Database.GetDbConnection();
            await using var command = connection.CreateCommand();
            command.CommandText = pragma;
            return (connection.Handle!, (long)(await command.ExecuteScalarAsync())!);
        }
    }

    [Fact]
    public async Task A_recorded_row_is_changed_only_by_somebody_and_never_erased()
    {
        await using var mortar = await TestMortar.Start();

        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            mortar.Store(async db =>
            {
                (await db.Events.FirstAsync()).Title = "By nobody";
                return await db.SaveChangesAsync();
            })
        );
        await Assert.ThrowsAsync<NotSupportedException>(() =>
            mortar.Store(db =>
                db.Write<int>(
                    Act.By(DemoPeople.Ines.Id),
                    async () =>
                    {
                        db.Events.Remove(await db.Events.FirstAsync());
                        return 1;
                    },
                    CancellationToken.None
                )
            )
        );
    }

    [Fact]
    public async Task The_instants_of_events_are_computed_anew_for_another_zone_database()
    {
        await using var mortar = await TestMortar.Start();
        var clock = new ZoneClock(DateTimeZoneProviders.Tzdb);
        var version = DateTimeZoneProviders.Tzdb.VersionId;

        var (wrong, same, other, again) = await mortar.Store(async db =>
        {
            var spoiled = await db
                .Events.Where(row => row.Series != null)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.IndexEnd, row => row.IndexStart));
            return (
                spoiled,
                await EventIndex.Refresh(db, clock, version, CancellationToken.None),
                await EventIndex.Refresh(db, clock, "another", CancellationToken.None),
                await EventIndex.Refresh(db, clock, "another", CancellationToken.None)
            );
        });

        Assert.True(wrong > 5, "The demo has series.");
        Assert.Equal((0, wrong, 0), (same, other, again));
        Assert.True(await mortar.Store(db => db.Events.AllAsync(row => row.Version == 1)), "Nobody changed an event.");
    }

    [Fact]
    public async Task The_model_has_no_change_that_a_migration_does_not_carry()
    {
        await using var mortar = await TestMortar.Start();

        Assert.False(await mortar.Store(db => Task.FromResult(db.Database.HasPendingModelChanges())));
    }

    [Fact]
    public async Task The_file_keeps_its_own_rules()
    {
        await using var mortar = await TestMortar.Start();
        string[] breaches =
        [
            "UPDATE Calendars SET Name = ''",
            "UPDATE Events SET Zone = NULL WHERE TimeForm = 'Timed'",
            "UPDATE Events SET End = '1999-01-01T00:00:00'",
            "INSERT INTO Members (GroupId, PersonId, Coordinates) VALUES ('x', 'y', 0)",
        ];

        foreach (var breach in breaches)
        {
            await Assert.ThrowsAsync<Microsoft.Data.Sqlite.SqliteException>(() =>
                mortar.Store(db => db.Database.ExecuteSqlRawAsync(breach))
            );
        }
    }
}
