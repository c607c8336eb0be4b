using System.Net;
using System.Net.Sockets;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Starting on whatever the last stop left: it comes up, or says in a sentence why not and leaves the store as it was.</summary>
public sealed class StartTests() : OnLeftStore(deep: false)
{
    private string Store => Left.File;

    [Fact]
    public async Task Two_do_not_run_on_one_directory_and_the_next_one_does()
    {
        await using (var first = await TestMortar.Start())
        {
            Assert.Contains("Another Mortar is running", await WhyNot(first.Data), StringComparison.Ordinal);
            using var ines = await first.As(DemoPeople.Ines);
            (await ines.Get("/api/groups")).Is(200);

            await using var again = await first.Restart();
            Assert.True(await again.Store(db => db.Users.AnyAsync()));
        }
    }

    [Fact]
    public async Task A_store_of_a_newer_release_is_not_written_to()
    {
        await Left.Do("INSERT INTO __EFMigrationsHistory VALUES ('99991231235959_Later', '99.0')");
        var before = await File.ReadAllBytesAsync(Store, TestContext.Current.CancellationToken);

        var sentence = await WhyNot(Data);

        Assert.Contains("written by a newer Mortar (99991231235959_Later)", sentence, StringComparison.Ordinal);
        Assert.Equal(before, await File.ReadAllBytesAsync(Store, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_damaged_log_file_is_told_and_left_as_it_was_until_somebody_says_to_go_on_without_it()
    {
        await LeaveWrites(25, damage: log => log[log.Length / 2] ^= 0xff);
        var before = await File.ReadAllBytesAsync($"{Store}-wal", TestContext.Current.CancellationToken);

        var sentence = await WhyNot(Data);

        Assert.Matches("damaged: at least 1[0-9] of the last writes", sentence);
        Assert.Equal(before, await File.ReadAllBytesAsync($"{Store}-wal", TestContext.Current.CancellationToken));
        await using var anyway = await TestMortar.StartOn(Data, demo: true, "LeaveOutLostWrites=true");
        Assert.InRange(await Written(anyway), 5, 20);
    }

    [Theory]
    [InlineData(0, 25)] // whole
    [InlineData(100, 24)] // the last write cut short, as by a power cut
    public async Task A_log_file_that_a_stop_left_is_taken_in(int cut, int kept)
    {
        await LeaveWrites(25, cut: cut);

        await using var mortar = await TestMortar.StartOn(Data);

        Assert.Equal(kept, await Written(mortar));
    }

    [Fact]
    public async Task A_damaged_head_of_the_log_file_is_told_as_well()
    {
        await LeaveWrites(5, damage: log => log[17] ^= 0xff);

        Assert.Contains("damaged", await WhyNot(Data), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_demo_that_was_stopped_while_it_was_made_is_made_anew()
    {
        var whole = await Left.Count("Events");
        await Left.Do("PRAGMA foreign_keys = OFF; DELETE FROM Events; DELETE FROM Calendars");
        await File.WriteAllTextAsync(
            Path.Combine(Data, StoreStart.UnfinishedDemo),
            string.Empty,
            TestContext.Current.CancellationToken
        );

        await using var mortar = await TestMortar.StartOn(Data);

        Assert.True(whole > 10);
        Assert.Equal(whole, await mortar.Store(db => db.Events.LongCountAsync()));
        Assert.False(File.Exists(Path.Combine(Data, StoreStart.UnfinishedDemo)));
    }

    [Fact]
    public async Task A_stop_in_the_middle_of_an_update_is_taken_up_by_the_next_start()
    {
        var copy = Path.Combine(Data, StoreStart.CopyName);
        await Left.DowngradeTo("Initial");
        await Left.Do(
            """
            CREATE TABLE __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL);
            INSERT INTO __EFMigrationsLock VALUES (1, '2026-11-28')
            """
        );
        await Left.Do($"VACUUM INTO '{copy}'"); // as an update makes it: a file that is not in WAL
        SqliteConnection.ClearAllPools();
        await Left.Do("DROP TABLE Layers"); // half of one step

        await using var mortar = await TestMortar.StartOn(Data);

        Assert.Equal(0, await mortar.Store(db => db.Layers.CountAsync(layer => layer.Beside)));
        Assert.Empty(await mortar.Store(db => db.Database.GetPendingMigrationsAsync()));
        Assert.False(File.Exists(copy));
    }

    [Fact]
    public async Task Whom_an_event_was_given_before_the_word_changed_is_still_given_it_also_by_the_log()
    {
        await Left.DowngradeTo("Initial");
        var priya = DemoPeople.Priya.Id.Value.ToString("N");
        await Left.Do(
            $"UPDATE Events SET Guests = '{priya}' WHERE Id = (SELECT Id FROM Events WHERE Title = 'Bisque firing' LIMIT 1)"
        );
        await Left.Do(
            $"""
            UPDATE Changes SET "After" = json_set("After", '$.Guests', '{priya}')
            WHERE Subject = 'Event' AND SubjectId = (SELECT Id FROM Events WHERE Guests = '{priya}')
            """
        );

        await using var mortar = await TestMortar.StartOn(Data);

        var (row, log) = await mortar.Store(async db =>
        {
            var given = await db.Events.SingleAsync(one => one.GivenTo == priya);
            return (given, await db.Changes.Where(one => one.SubjectId == given.Id.Value).ToListAsync());
        });
        Assert.Equal("Bisque firing", row.Title);
        Assert.All(log, one => Assert.DoesNotContain("\"Guests\"", one.After, StringComparison.Ordinal));
        Assert.All(
            log,
            one => Assert.Equal([DemoPeople.Priya.Id], Mortar.Data.Changes.ChangeRow.GivenOfEvent(one.After))
        );
    }

    /// <summary>The steps that led to the first release, and the last of them.</summary>
    private const string FirstStep = "20261125010135_FirstRelease",
        LastStep = "20261129031048_Suitings";

    [Fact]
    public async Task A_store_that_has_taken_all_steps_before_they_became_one_is_adopted()
    {
        await Left.DowngradeTo("Initial");
        var events = await Left.Count("Events");
        await MadeBySteps(FirstStep, LastStep);

        await using var mortar = await TestMortar.StartOn(Data);

        Assert.Equal(events, await mortar.Store(db => db.Events.LongCountAsync()));
        var applied = await mortar.Store(db => db.Database.GetAppliedMigrationsAsync());
        Assert.Equal(await mortar.Store(db => Task.FromResult(db.Database.GetMigrations())), applied);
        using var ines = await mortar.As(DemoPeople.Ines);
        (await ines.Get("/api/groups")).Is(200);
    }

    [Theory]
    [InlineData("an earlier step", "20261128194949_MailRank")]
    [InlineData("a secret that was kept as it is", LastStep)]
    [InlineData("a rule in its first form", LastStep)]
    public async Task A_store_from_before_the_first_release_is_not_read_and_left_as_it_was(string why, string last)
    {
        await Left.DowngradeTo("Initial");
        await MadeBySteps(FirstStep, last);
        if (why.StartsWith("a rule", StringComparison.Ordinal))
        {
            await Left.Do($"UPDATE Events SET Series = '{{\"Rule\":\"FREQ=WEEKLY\"}}' WHERE Series IS NOT NULL");
        }

        if (why.StartsWith("a secret", StringComparison.Ordinal))
        {
            await Left.Do(
                """
                INSERT INTO Invitations (Id, CalendarId, Address, Role, Message, State, InvitedBy, SentAt, LinkHash, InReturn, Version)
                SELECT '0', c.Id, 'wren@example.org', 'View', '', 'Waiting', p.Id, 0, '0123456789abcdef01234567', 0, 1
                FROM Calendars c, People p LIMIT 1
                """
            );
        }

        var before = await File.ReadAllBytesAsync(Store, TestContext.Current.CancellationToken);

        var sentence = await WhyNot(Data);

        Assert.Contains("begun by a Mortar from before the first release", sentence, StringComparison.Ordinal);
        Assert.Contains("Start on an empty directory", sentence, StringComparison.Ordinal);
        Assert.Equal(before, await File.ReadAllBytesAsync(Store, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task What_is_no_store_is_told()
    {
        await File.WriteAllTextAsync(Store, new string('x', 10_000), TestContext.Current.CancellationToken);

        Assert.Contains("is damaged", await WhyNot(Data), StringComparison.Ordinal);
        Assert.StartsWith("xxx", await File.ReadAllTextAsync(Store, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_damaged_store_is_told_where_the_last_one_was_not_stopped_in_order()
    {
        await LeaveWrites(1);
        var bytes = await File.ReadAllBytesAsync(Store, TestContext.Current.CancellationToken);
        Array.Clear(bytes, bytes.Length / 2, 20_000);
        await File.WriteAllBytesAsync(Store, bytes, TestContext.Current.CancellationToken);

        Assert.Contains("is damaged", await WhyNot(Data), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_taken_port_and_a_file_for_a_directory_are_told()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;

        Assert.Contains("on that port", await WhyNot(Data, $"http://127.0.0.1:{port}"), StringComparison.Ordinal);
        Assert.Contains("is a file", await WhyNot(Store), StringComparison.Ordinal);
    }

    private async Task MadeBySteps(params string[] steps)
    {
        await Left.Do("DELETE FROM __EFMigrationsHistory");
        foreach (var step in steps)
        {
            await Left.Do($"INSERT INTO __EFMigrationsHistory VALUES ('{step}', '10.0.0')");
        }
    }

    /// <summary>Leaves a log with some writes beside the store, as a process leaves it that was killed.</summary>
    private async Task LeaveWrites(int count, int cut = 0, Action<byte[]>? damage = null)
    {
        byte[] store;
        byte[] log;
        await using (var connection = new SqliteConnection($"Data Source={Store};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA journal_mode=WAL; PRAGMA wal_autocheckpoint=0";
            await command.ExecuteNonQueryAsync();
            for (var n = 0; n < count; n++)
            {
                command.CommandText = $"UPDATE People SET SeenChanges = {n + 1_000_001}";
                await command.ExecuteNonQueryAsync();
            }

            (store, log) = (await File.ReadAllBytesAsync(Store), await File.ReadAllBytesAsync($"{Store}-wal"));
        }

        damage?.Invoke(log);
        await File.WriteAllBytesAsync(Store, store);
        await File.WriteAllBytesAsync($"{Store}-wal", log[..^cut]);
        File.Delete($"{Store}-shm");
    }

    private static async Task<long> Written(TestMortar mortar) =>
        await mortar.Store(db => db.People.MaxAsync(person => person.SeenChanges)) - 1_000_000;

    private static async Task<string> WhyNot(string directory, string url = "http://127.0.0.1:0")
    {
        await using var errors = new StringWriter();
        var answer = await MortarHost
            .Run(["--urls", url, $"--Mortar:Data={directory}", "--Mortar:Demo=true"], errors)
            .WaitAsync(TimeSpan.FromMinutes(1)); // one that starts after all would run for ever

        Assert.Equal(1, answer);
        var said = errors.ToString();
        Assert.StartsWith("Mortar does not start. ", said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", said, StringComparison.Ordinal);
        return said;
    }
}
