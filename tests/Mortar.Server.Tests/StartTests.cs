using System.Net;
using System.Net.Sockets;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using NodaTime;
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
        await Left.DowngradeTo("Consent");
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
    public async Task What_was_said_to_proposed_times_before_the_words_changed_counts_and_can_be_undone()
    {
        await Left.DowngradeTo("MailRank");
        var (proposal, said, set) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var (at, later) = (
            Instant.FromUtc(2026, 3, 16, 20, 0).ToUnixTimeMilliseconds(),
            Instant.FromUtc(2026, 3, 17, 20, 0).ToUnixTimeMilliseconds()
        );
        var calendar = DemoPeople.Stable("calendar Rota");
        var row =
            $$"""{"Id":"{{said}}","ProposalId":"{{proposal}}","CalendarId":"{{calendar}}","PersonId":"{{DemoPeople.Priya.Id}}","Votes":"{{at}}/IfNeedBe {{later}}/No","Comment":"/No, really","ProposedBy":"{{DemoPeople.Ines.Id}}","Version":1}""";
        FormattableString[] lines =
        [
            $"INSERT INTO Proposals VALUES ('{Text(proposal)}', '{Text(calendar)}', '{Text(DemoPeople.Ines.Id.Value)}', 'Glaze day', '', '', '{at}/{at + 1} {later}/{later + 1}', 'Europe/London', 0, 'Open', NULL, 1)",
            $"INSERT INTO ProposalAsked VALUES ('{Text(proposal)}', '{Text(DemoPeople.Priya.Id.Value)}', NULL)",
            $"INSERT INTO Votes (Id, ProposalId, CalendarId, PersonId, Votes, Comment, ProposedBy, Version) VALUES ('{Text(said)}', '{Text(proposal)}', '{Text(calendar)}', '{Text(DemoPeople.Priya.Id.Value)}', '{at}/IfNeedBe {later}/No', '/No, really', '{Text(DemoPeople.Ines.Id.Value)}', 1)",
            $"""INSERT INTO Changes ("Set", At, Actor, Subject, SubjectId, CalendarId, "After") VALUES ('{Text(set)}', 1773226000000, '{Text(DemoPeople.Priya.Id.Value)}', 'Vote', '{Text(said)}', '{Text(calendar)}', '{row}')""",
        ];
        foreach (var line in lines)
        {
            await Left.Do(FormattableString.Invariant(line));
        }

        await using var mortar = await TestMortar.StartOn(Data);

        using var ines = await mortar.As(DemoPeople.Ines);
        Assert.Equal((1, 1), await Counted());
        Assert.Contains("/No, really", await mortar.Store(db => db.Suitings.Select(one => one.Comment).SingleAsync()));
        using var priya = await mortar.As(DemoPeople.Priya);
        (await priya.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal((0, 0), await Counted());

        async Task<(int WouldDo, int DoesNotSuit)> Counted()
        {
            var one = Assert.Single(
                (await ines.Get("/api/proposals")).Is(200).Body.GetProperty("toSettle").EnumerateArray()
            );
            var times = one.GetProperty("times");
            return (
                times[0].GetProperty("wouldDo").GetArrayLength(),
                times[1].GetProperty("doesNotSuit").GetArrayLength()
            );
        }

        static string Text(Guid id) => id.ToString().ToUpperInvariant();
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
        var answer = await MortarHost.Run(["--urls", url, $"--Mortar:Data={directory}", "--Mortar:Demo=true"], errors);

        Assert.Equal(1, answer);
        var said = errors.ToString();
        Assert.StartsWith("Mortar does not start. ", said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", said, StringComparison.Ordinal);
        return said;
    }
}
