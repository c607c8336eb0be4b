using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting.Health;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>/health says what does not work; of mail, <see cref="Features.MailTests"/> hold it.</summary>
public class HealthTests
{
    [Fact]
    public async Task A_store_that_cannot_be_read_and_a_folder_that_cannot_be_written_are_told()
    {
        await using var mortar = await TestMortar.Start();
        using var watcher = mortar.Anonymous();
        Assert.Equal("healthy", (await watcher.Get("/health")).Is(200).Body.Text("status"));
        Assert.False(File.Exists(Path.Combine(mortar.Data, DiskCheck.ProbeName)));

        // Nobody can write a file where a folder is.
        Directory.CreateDirectory(Path.Combine(mortar.Data, DiskCheck.ProbeName));
        SqliteConnection.ClearAllPools();
        var store = Path.Combine(mortar.Data, StoreSetup.FileName);
        File.Move(store, $"{store}.away");
        Directory.CreateDirectory(store);

        var told = await World.Eventually(async () =>
            await watcher.Get("/health") is { Status: 503 } answer ? answer : null
        );

        var checks = told.Body.GetProperty("checks");
        Assert.Equal("unhealthy", checks.GetProperty("store").Text("status"));
        Assert.Contains(
            "Nothing can be written",
            checks.GetProperty("disk").Text("sentence"),
            StringComparison.Ordinal
        );
        Assert.DoesNotContain(mortar.Data, told.Text, StringComparison.Ordinal);
        Directory.Delete(store, recursive: true);
        File.Move($"{store}.away", store);
        Directory.Delete(Path.Combine(mortar.Data, DiskCheck.ProbeName));
        await World.Eventually(async () => await watcher.Get("/health") is { Status: 200 } answer ? answer : null);
    }

    [Fact]
    public async Task One_write_that_holds_the_others_up_is_told_and_they_are_written_after_it()
    {
        Assert.SkipUnless(Deep.Is, "Of the deep tests.");
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var watcher = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var turn = await mortar.Services.GetRequiredService<WriteTurn>().Enter(TestContext.Current.CancellationToken);
        var writing = ines.MakeEvent(calendar);

        await World.Eventually(async () =>
            (await watcher.Get("/health")).Is(200).Body.GetProperty("checks").GetProperty("writing").Text("status")
            == "degraded"
                ? mortar
                : null
        );
        Assert.False(writing.IsCompleted);
        turn.Dispose();

        (await ines.Get($"/api/events/{await writing}")).Is(200);
        await World.Eventually(async () =>
            (await watcher.Get("/health")).Body.Text("status") == "healthy" ? mortar : null
        );
    }
}
