using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using Microsoft.Data.Sqlite;
using Mortar.Core.Words;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>
/// Killed a thousand times each in writing, in starting, in migrating and in making the demo: nothing that was acknowledged
/// is lost, nothing is there by half, and the next start comes up. Of the deep tests, since each takes the better part of an
/// hour; the moments that once went wrong are in <see cref="StartTests"/> in every run.
/// </summary>
public sealed class KillTests(ITestOutputHelper output) : OnLeftStore(deep: true)
{
    private readonly Uri url = KillableMortar.FreeAddress();
    private readonly Random random = new(Deep.Seed);

    [Fact]
    public async Task In_writing()
    {
        using var ines = new Browser(url);
        var (calendar, files) = (default(CalendarId), new List<string>());
        var (kept, batch) = (0, new ConcurrentBag<Guid>());
        for (var round = 0; round <= Deep.Rounds; round++)
        {
            await using var mortar = KillableMortar.Start(Data, url);
            await mortar.IsUp();
            if (round == 0)
            {
                (await ines.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).Is(204);
                calendar = await ines.MakeCalendar();
            }

            // What the one before has said yes to is there.
            foreach (var id in batch)
            {
                (await ines.Get($"/api/events/{id}")).Is(200);
            }

            kept += batch.Count;
            batch.Clear();
            if (round == Deep.Rounds)
            {
                break;
            }

            var writing = Enumerable.Range(0, 2).Select(_ => Write(ines, calendar, batch)).ToList();
            if (round % 5 == 0)
            {
                files.Add(string.Create(CultureInfo.InvariantCulture, $"file-{round}"));
                writing.Add(Import(ines, calendar, files[^1]));
            }

            var enough = random.Next(1, 40);
            await World.Eventually(() => Task.FromResult(batch.Count >= enough ? mortar : null));
            await Task.Delay(random.Next(20), TestContext.Current.CancellationToken);
            await mortar.Kill();
            await Task.WhenAll(writing);
        }

        SqliteConnection.ClearAllPools();
        var whole = 0;
        foreach (var file in files)
        {
            var count = await Left.Count("Events", $"Title = '{file}'");
            Assert.True(count is 0 or 300, $"{file} is there by half: {count} of 300");
            whole += count > 0 ? 1 : 0;
        }

        Assert.True(kept > 0);
        Assert.Equal("ok", await Left.Scalar("PRAGMA integrity_check"));
        output.WriteLine(
            $"{Deep.Rounds} kills, {kept} writes that were said yes to all there; of {files.Count} imports {whole} whole and none by half"
        );
    }

    [Fact]
    public async Task In_starting()
    {
        var (events, killed, usual) = (await Left.Count("Events"), 0, await ComesUp());
        for (var round = 1; round <= Deep.Rounds; round++)
        {
            killed += await KillWithin(usual);
            if (round % 10 == 0)
            {
                await ComesUp();
                Assert.Equal(events, await Left.Count("Events"));
            }
        }

        await ComesUp();
        Assert.Equal("ok", await Left.Scalar("PRAGMA integrity_check"));
        output.WriteLine(
            $"{Deep.Rounds} starts, {killed} of them killed before they answered; each tenth came up whole"
        );
    }

    [Fact]
    public async Task In_migrating()
    {
        await Left.DowngradeTo("Initial");
        var (old, events, people) = ($"{Data}-old", await Left.Count("Events"), await Left.Count("People"));
        LeftStore.Copy(Data, old);
        try
        {
            var (killed, usual) = (0, await ComesUp());
            Directory.Delete(Data, recursive: true);
            LeftStore.Copy(old, Data);
            for (var round = 1; round <= Deep.Rounds; round++)
            {
                killed += await KillWithin(usual);
                if (round % 5 == 0)
                {
                    await ComesUp();
                    Assert.Equal((events, people), (await Left.Count("Events"), await Left.Count("People")));
                    Assert.False(File.Exists(Path.Combine(Data, StoreStart.CopyName)));
                    Assert.Equal("ok", await Left.Scalar("PRAGMA integrity_check"));
                    Directory.Delete(Data, recursive: true);
                    LeftStore.Copy(old, Data);
                }
            }

            output.WriteLine(
                $"{Deep.Rounds} starts on an older store, {killed} killed before they answered; each fifth came up with all that was in it"
            );
        }
        finally
        {
            Directory.Delete(old, recursive: true);
        }
    }

    [Fact]
    public async Task In_making_the_demo()
    {
        var tables = new[] { "Events", "People", "Calendars", "Grants", "Answers", "Proposals" };
        var whole = new List<long>();
        foreach (var table in tables)
        {
            whole.Add(await Left.Count(table));
        }

        Empty();
        var (killed, usual) = (0, await ComesUp());
        Empty();
        for (var round = 1; round <= Deep.Rounds; round++)
        {
            killed += await KillWithin(usual);
            if (round % 5 == 0)
            {
                await ComesUp();
                foreach (var (table, count) in tables.Zip(whole))
                {
                    Assert.Equal((table, count), (table, await Left.Count(table)));
                }

                Assert.False(File.Exists(Path.Combine(Data, StoreStart.UnfinishedDemo)));
                Empty();
            }
        }

        output.WriteLine(
            $"{Deep.Rounds} starts on an empty folder, {killed} killed before they answered; each fifth came up with the whole demo"
        );

        void Empty()
        {
            Directory.Delete(Data, recursive: true);
            Directory.CreateDirectory(Data);
        }
    }

    /// <summary>Starts one and kills it at some moment; 1 where it had not come up yet. One that ended by itself is a fault.</summary>
    /// <param name="usual">How long one takes to come up when nobody kills it.</param>
    private async Task<int> KillWithin(TimeSpan usual)
    {
        await using var mortar = KillableMortar.Start(Data, url);
        // Nothing is done to the store in the first fifth, in which .NET itself starts.
        await Task.Delay(usual * (0.2 + random.NextDouble()));
        Assert.False(mortar.HasEnded, mortar.Said);
        await mortar.Kill();
        return mortar.Said.Contains("Mortar is at", StringComparison.Ordinal) ? 0 : 1;
    }

    private async Task<TimeSpan> ComesUp()
    {
        var begun = Stopwatch.GetTimestamp();
        await using var mortar = KillableMortar.Start(Data, url);
        await mortar.IsUp();
        await mortar.Kill();
        return Stopwatch.GetElapsedTime(begun);
    }

    private static async Task Write(Browser ines, CalendarId calendar, ConcurrentBag<Guid> written)
    {
        try
        {
            while (true)
            {
                var id = Guid.CreateVersion7();
                if ((await ines.Put($"/api/events/{id}", World.Event(calendar))).Status == 200)
                {
                    written.Add(id);
                }
            }
        }
        catch (HttpRequestException)
        {
            // It was killed.
        }
    }

    private static async Task Import(Browser ines, CalendarId calendar, string title)
    {
        try
        {
            var path = $"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}";
            await ines.Put(path, Files.Many(title, 300));
            await ines.Post($"{path}/write", new { known = "keep" });
        }
        catch (HttpRequestException)
        {
            // It was killed.
        }
    }
}
