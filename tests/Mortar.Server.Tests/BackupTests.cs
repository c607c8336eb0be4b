using System.IO.Compression;
using System.Text;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Data.Keeping;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>All that is kept in one file and back, and a store looked through, as whoever keeps the machine does it.</summary>
public sealed class BackupTests() : OnLeftStore(deep: false)
{
    private string Elsewhere { get; } = Directory.CreateTempSubdirectory("mortar-test-").FullName;

    private string Place(string name) => Path.Combine(Elsewhere, name);

    [Fact]
    public async Task What_was_acknowledged_before_a_backup_began_is_in_it_and_what_is_put_back_is_in_order()
    {
        var mortar = await TestMortar.StartOn(Data);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (written, enough) = (new List<Guid>(), false);
        var writing = Task.Run(
            async () =>
            {
                while (!Volatile.Read(ref enough))
                {
                    var id = await ines.MakeEvent(calendar);
                    lock (written)
                    {
                        written.Add(id);
                    }
                }
            },
            TestContext.Current.CancellationToken
        );
        await World.Eventually(() =>
        {
            lock (written)
            {
                return Task.FromResult(written.Count > 5 ? mortar : null);
            }
        });
        Guid[] before;
        lock (written)
        {
            before = [.. written];
        }

        Assert.Equal((0, ""), await Errors("backup", Data, Place("copy.zip")));
        Volatile.Write(ref enough, true);
        await writing;
        Assert.True(written.Count > before.Length, "nothing was written meanwhile");
        var cookies = ines.Cookies.GetAllCookies();
        await mortar.DisposeAsync();

        Assert.Equal((0, ""), await Errors("restore", Place("copy.zip"), Place("back")));
        Assert.EndsWith("is in order.\n", await Said(0, "check", Place("back")), StringComparison.Ordinal);
        await using var back = await TestMortar.StartOn(Place("back"));
        // The keys came along: whoever was signed in still is.
        using var again = new Browser(back.Url);
        again.Cookies.Add(cookies);
        foreach (var id in before)
        {
            (await again.Get($"/api/events/{id}")).Is(200);
        }
    }

    [Fact]
    public async Task What_went_for_good_is_in_no_backup_that_is_made_later()
    {
        const string Title = "Xanthorrhoea glaze";
        await using (var mortar = await TestMortar.StartOn(Data))
        {
            using var ines = await mortar.As(DemoPeople.Ines);
            var calendar = await ines.MakeCalendar();
            var one = await ines.MakeEvent(calendar, Title);
            Assert.Equal((0, ""), await Errors("backup", Data, Place("while-there.zip")));
            (await ines.Delete($"/api/events/{one}", version: 1)).Is(200);
            await mortar.Store(async db =>
            {
                await db.Database.ExecuteSqlRawAsync("UPDATE Events SET DeletedAt = 0 WHERE DeletedAt IS NOT NULL");
                return await new Sweep(db).Run(Duration.FromDays(60), TestContext.Current.CancellationToken);
            });
            Assert.Equal((0, ""), await Errors("backup", Data, Place("after.zip")));
        }

        Assert.Contains(Title, StoreIn(Place("while-there.zip")), StringComparison.Ordinal);
        Assert.DoesNotContain(Title, StoreIn(Place("after.zip")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_backup_is_its_owners_alone_written_over_nothing_and_not_kept_where_it_would_be_lost_too()
    {
        await Said(0, "backup", Data, Place("one.zip"));
        var before = await File.ReadAllBytesAsync(Place("one.zip"), TestContext.Current.CancellationToken);

        Assert.Contains(
            "is there already",
            (await Errors("backup", Data, Place("one.zip"))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "Name a place outside",
            (await Errors("backup", Data, Path.Combine(Data, "two.zip"))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "There is no store",
            (await Errors("backup", Place("nowhere"), Place("three.zip"))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains("./mortar backup DIR FILE", (await Errors("backup", Data)).Text, StringComparison.Ordinal);

        Assert.Equal(before, await File.ReadAllBytesAsync(Place("one.zip"), TestContext.Current.CancellationToken));
        Assert.Equal([Place("one.zip")], Directory.GetFileSystemEntries(Elsewhere));
        if (!OperatingSystem.IsWindows())
        {
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Place("one.zip")));
        }
    }

    [Fact]
    public async Task A_backup_is_not_put_over_anything()
    {
        await Said(0, "backup", Data, Place("one.zip"));
        Directory.CreateDirectory(Place("full"));
        await File.WriteAllTextAsync(Place("full/mine.txt"), "mine", TestContext.Current.CancellationToken);

        Assert.Contains(
            "not empty",
            (await Errors("restore", Place("one.zip"), Place("full"))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains("not empty", (await Errors("restore", Place("one.zip"), Data)).Text, StringComparison.Ordinal);
        Assert.Contains(
            "There is no file",
            (await Errors("restore", Place("two.zip"), Place("new"))).Text,
            StringComparison.Ordinal
        );

        Assert.Equal([Place("full/mine.txt")], Directory.GetFileSystemEntries(Place("full")));
        Assert.False(Directory.Exists(Place("new")));
    }

    public static TheoryData<string, string> Spoilt =>
        new()
        {
            { "text", "is no backup of Mortar's" },
            { "cut", "cut short" },
            { "other zip", "is no backup of Mortar's" },
            { "changed", "is damaged" },
            { "another file", "does not hold the files that it lists" },
            { "file out of it", "is damaged: ../keys/evil.xml" },
            { "newer form", "made by a newer Mortar" },
            { "newer store", "made by a newer Mortar (99991231235959_Later)" },
        };

    [Theory]
    [MemberData(nameof(Spoilt))]
    public async Task What_is_no_whole_backup_is_refused_before_anything_is_written(string how, string sentence)
    {
        if (how == "newer store")
        {
            await Left.Do("INSERT INTO __EFMigrationsHistory VALUES ('99991231235959_Later', '99.0')");
        }

        var file = Place("one.zip");
        await Said(0, "backup", Data, file);
        var bytes = await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken);
        switch (how)
        {
            case "text":
                await File.WriteAllTextAsync(file, "glaze", TestContext.Current.CancellationToken);
                break;
            case "cut":
                await File.WriteAllBytesAsync(file, bytes[..(bytes.Length / 2)], TestContext.Current.CancellationToken);
                break;
            case "changed":
                bytes[bytes.Length / 3] ^= 0xff;
                await File.WriteAllBytesAsync(file, bytes, TestContext.Current.CancellationToken);
                break;
            case "other zip":
                Change(file, archive => archive.GetEntry("mortar-backup.json")!.Delete());
                break;
            case "another file":
                Change(file, archive => archive.CreateEntry("keys/evil.xml"));
                break;
            case "file out of it":
                Change(
                    file,
                    archive =>
                    {
                        archive.CreateEntry("../keys/evil.xml");
                        Rewrite(
                            archive,
                            list =>
                                list.Replace(
                                    "\"Sums\":{",
                                    "\"Sums\":{\"../keys/evil.xml\":\"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855\",",
                                    StringComparison.Ordinal
                                )
                        );
                    }
                );
                break;
            case "newer form":
                Change(
                    file,
                    archive =>
                        Rewrite(archive, list => list.Replace("\"Form\":1", "\"Form\":2", StringComparison.Ordinal))
                );
                break;
        }

        var said = await Errors("restore", file, Place("back"));

        Assert.Equal(1, said.Code);
        Assert.Contains(sentence, said.Text, StringComparison.Ordinal);
        Assert.False(Directory.Exists(Place("back")));
        Assert.False(Directory.Exists(Place("keys")));
    }

    [Fact]
    public async Task A_restore_that_was_stopped_is_no_store_and_can_be_done_again()
    {
        await Said(0, "backup", Data, Place("one.zip"));
        var back = Place("back");
        Directory.CreateDirectory(back);
        await File.WriteAllTextAsync(
            Path.Combine(back, Backup.UnfinishedRestore),
            "",
            TestContext.Current.CancellationToken
        );
        await File.WriteAllTextAsync(
            Path.Combine(back, StoreSetup.FileName),
            "half",
            TestContext.Current.CancellationToken
        );

        await using var refused = new StringWriter();
        Assert.Equal(1, await MortarHost.Run(["--urls", "http://127.0.0.1:0", $"--Mortar:Data={back}"], refused));
        Assert.Contains($"./mortar restore FILE {back}", refused.ToString(), StringComparison.Ordinal);

        Assert.Equal((0, ""), await Errors("restore", Place("one.zip"), back));
        await using var mortar = await TestMortar.StartOn(back);
        using var ines = await mortar.As(DemoPeople.Ines);
        (await ines.Get("/api/groups")).Is(200);
    }

    /// <summary>What is done to a store, and what is said of it.</summary>
    public static TheoryData<string, string> Faults =>
        new()
        {
            {
                "UPDATE Events SET IndexStart = IndexStart + 1 WHERE Id = (SELECT min(Id) FROM Events)",
                "1 events are found at other times"
            },
            {
                "UPDATE Events SET Zone = 'Nowhere/Atall' WHERE Id = (SELECT min(Id) FROM Events WHERE Zone IS NOT NULL)",
                "1 events are found at other times"
            },
            {
                "PRAGMA foreign_keys = OFF; UPDATE Events SET AddedBy = Id WHERE Id = (SELECT min(Id) FROM Events)",
                "1 rows refer to what is not there: from Events to People"
            },
            {
                "INSERT INTO Answers SELECT Id, Id, Id, AddedBy, '', 'yes', '', '', NULL, NULL, 0, 0, NULL, '', 1 FROM Events LIMIT 1",
                "1 answers are kept with another calendar"
            },
            { "UPDATE ShortAddresses SET OwnerId = X'00' WHERE HeldUntil IS NULL", "short addresses lead nowhere" },
            {
                "UPDATE Calendars SET WithGroup = 1 WHERE Id = (SELECT min(Id) FROM Calendars)",
                "went with a group that is at work"
            },
            {
                "INSERT INTO Given (PersonId, EventId) SELECT (SELECT min(Id) FROM People), min(Id) FROM Events WHERE GivenTo IS NULL AND Editors IS NULL",
                "1 people are given an event that does not name them"
            },
            {
                "UPDATE Events SET DeletedAt = 1 WHERE Id = (SELECT min(Id) FROM Events)",
                "1 events are deleted without the act"
            },
            { "PRAGMA user_version = 5", "computed by another release" },
            {
                "INSERT INTO __EFMigrationsHistory VALUES ('99991231235959_Later', '99.0')",
                "written by another Mortar"
            },
        };

    [Theory]
    [MemberData(nameof(Faults))]
    public async Task A_store_is_looked_through_and_what_is_wrong_is_said(string done, string sentence)
    {
        Assert.EndsWith("is in order.\n", await Said(0, "check", Data), StringComparison.Ordinal);
        await Left.Do(done);
        var before = await File.ReadAllBytesAsync(Left.File, TestContext.Current.CancellationToken);

        var said = await Said(1, "check", Data);

        Assert.Contains(sentence, said, StringComparison.Ordinal);
        Assert.EndsWith("is not in order: see the line above.\n", said, StringComparison.Ordinal);
        Assert.Equal(before, await File.ReadAllBytesAsync(Left.File, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_damaged_file_is_said_and_no_backup_is_made_of_it()
    {
        await using (var file = new FileStream(Left.File, FileMode.Open))
        {
            file.Position = file.Length / 2;
            await file.WriteAsync(
                Enumerable.Repeat((byte)0x5a, 64 * 1024).ToArray(),
                TestContext.Current.CancellationToken
            );
        }

        Assert.Contains("NOT IN ORDER  the file of the store", await Said(1, "check", Data), StringComparison.Ordinal);
        Assert.Contains(
            "no backup was made",
            (await Errors("backup", Data, Place("one.zip"))).Text,
            StringComparison.Ordinal
        );
        Assert.Empty(Directory.GetFileSystemEntries(Elsewhere));
    }

    [Fact]
    public async Task Before_an_update_a_backup_is_made_and_named_and_it_is_of_the_store_as_it_was()
    {
        var steps = StoreStart.Steps();
        await Left.DowngradeTo(steps[^2]);
        // One of an earlier try, from before people went on.
        Directory.CreateDirectory(Path.Combine(Data, Backup.Folder));
        await File.WriteAllTextAsync(
            Path.Combine(Data, Backup.Folder, $"before-{steps[^1]}.zip"),
            "old",
            TestContext.Current.CancellationToken
        );
        var url = KillableMortar.FreeAddress();
        string said;
        await using (var mortar = KillableMortar.Start(Data, url))
        {
            await mortar.IsUp();
            said = await mortar.Tells();
        }

        var file = Path.Combine(Data, Backup.Folder, $"before-{steps[^1]}.zip");
        Assert.Contains($"As it was before: {file}", said, StringComparison.Ordinal);
        Assert.Equal((0, ""), await Errors("restore", file, Place("back")));
        Assert.Equal(
            steps[^2],
            await new LeftStore(Place("back")).Scalar("SELECT max(MigrationId) FROM __EFMigrationsHistory")
        );
    }

    [Fact]
    public async Task One_is_made_a_day_and_kept_for_as_many_days_as_are_said_and_health_tells_where_none_can_be()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartOn(Data, demo: true, "BackupDays=2", $"BackupsTo={Elsewhere}");
        var options = mortar.Services.GetRequiredService<MortarOptions>();
        var daily = new DailyBackups(
            options,
            clock,
            TimeProvider.System,
            Microsoft.Extensions.Logging.Abstractions.NullLogger<DailyBackups>.Instance
        );
        for (var day = 0; day < 4; day++)
        {
            daily.Make();
            daily.Make(); // twice on a day makes one
            clock.Now += Duration.FromDays(1);
        }

        Assert.Equal(
            ["mortar-2026-03-13.zip", "mortar-2026-03-14.zip"],
            Directory.GetFiles(Elsewhere).Select(Path.GetFileName).Order(StringComparer.Ordinal)
        );
        Assert.Equal((0, ""), await Errors("restore", Place("mortar-2026-03-14.zip"), Place("back")));
        Assert.Null(daily.FailingSince);

        // Where they go there is a file now.
        Directory.Delete(Elsewhere, recursive: true);
        await File.WriteAllTextAsync(Elsewhere, "in the way", TestContext.Current.CancellationToken);
        Assert.ThrowsAny<IOException>(() => mortar.Services.GetRequiredService<DailyBackups>().Make());
        using var watcher = mortar.Anonymous();
        var told = (await watcher.Get("/health")).Is(200).Body.GetProperty("checks").GetProperty("backup");
        Assert.Equal("degraded", told.Text("status"));
        Assert.Contains("cannot be made, since 2026-03-11", told.Text("sentence"), StringComparison.Ordinal);
    }

    public override ValueTask DisposeAsync()
    {
        SqliteConnection.ClearAllPools();
        if (Directory.Exists(Elsewhere))
        {
            Directory.Delete(Elsewhere, recursive: true);
        }

        File.Delete(Elsewhere);
        return base.DisposeAsync();
    }

    private static async Task<(int Code, string Output, string Text)> Run(string[] arguments)
    {
        var zones = new KnownZones(DateTimeZoneProviders.Tzdb);
        using var output = new StringWriter { NewLine = "\n" };
        using var errors = new StringWriter { NewLine = "\n" };
        Assert.True(StoreCommands.Knows(arguments));
        var code = await StoreCommands.Run(arguments, new ZoneClock(zones), zones.VersionId, output, errors);
        return (code, output.ToString(), errors.ToString());
    }

    private static async Task<(int Code, string Text)> Errors(params string[] arguments)
    {
        var (code, _, text) = await Run(arguments);
        return (code, text);
    }

    private static async Task<string> Said(int code, params string[] arguments)
    {
        var ran = await Run(arguments);
        Assert.True(code == ran.Code, ran.Output + ran.Text);
        return ran.Output;
    }

    private static string StoreIn(string file)
    {
        using var archive = ZipFile.OpenRead(file);
        using var stream = archive.GetEntry(StoreSetup.FileName)!.Open();
        using var all = new MemoryStream();
        stream.CopyTo(all);
        return Encoding.UTF8.GetString(all.ToArray());
    }

    private static void Change(string file, Action<ZipArchive> how)
    {
        using var archive = ZipFile.Open(file, ZipArchiveMode.Update);
        how(archive);
    }

    private static void Rewrite(ZipArchive archive, Func<string, string> how)
    {
        var entry = archive.GetEntry("mortar-backup.json")!;
        string list;
        using (var reader = new StreamReader(entry.Open()))
        {
            list = how(reader.ReadToEnd());
        }

        entry.Delete();
        using var writer = new StreamWriter(archive.CreateEntry("mortar-backup.json").Open());
        writer.Write(list);
    }
}
