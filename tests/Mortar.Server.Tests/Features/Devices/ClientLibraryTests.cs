using System.Diagnostics;
using System.Text.Json;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>The whole life of a calendar, lived by tsdav 2.3.4, a general-purpose client library that is not ours.</summary>
public class ClientLibraryTests
{
    [Fact]
    public async Task A_client_that_is_not_ours_finds_lists_creates_changes_syncs_and_deletes()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var key = await DavClient.Of(mortar, DemoPeople.Ines);
        var start = new ProcessStartInfo("node")
        {
            WorkingDirectory = Path.Combine(Repository.Root, "web"),
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        foreach (
            var argument in new[]
            {
                Path.Combine(AppContext.BaseDirectory, "life-with-tsdav.mjs"),
                mortar.Url.ToString(),
                "ines@pottery.example",
                key.Key,
                "Glaze tests",
            }
        )
        {
            start.ArgumentList.Add(argument);
        }

        using var node = Process.Start(start)!;
        var errors = node.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        var text = await node.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await node.WaitForExitAsync(TestContext.Current.CancellationToken);
        Assert.True(node.ExitCode == 0, await errors);
        using var steps = JsonDocument.Parse(text);
        var found = steps
            .RootElement.EnumerateArray()
            .ToDictionary(
                step => step.Text("step"),
                step => step.GetProperty("found").GetRawText().Replace("\"", "'", StringComparison.Ordinal)
            );

        var shelf = (await ines.Get("/api/shelf")).Body.EnumerateArray().Select(one => $"'{one.Text("name")}'");
        Assert.Equal($"[{string.Join(',', shelf)}]", found["calendars"]);
        Assert.Equal("['VEVENT']", found["components"]);
        Assert.Equal("201", found["create"]);
        Assert.Equal("412", found["create again"]);
        Assert.Equal("[['life.ics',true,'Weekly firing']]", found["list"]);
        Assert.Equal("3", found["dates"]);
        Assert.Equal("1", found["sync"]);
        Assert.Equal("204", found["change"]);
        Assert.Equal("412", found["conflict"]);
        Assert.Equal("[['life.ics',207]]", found["sync after"]); // as the library says of what has properties
        Assert.Equal("true", found["exception"]);
        Assert.Equal("204", found["delete"]);
        Assert.Equal("[['life.ics',404]]", found["sync gone"]);
        Assert.Equal("0", found["left"]);
        Assert.Empty(await ines.Bricks(calendar, "2026-03-09", "2026-04-15"));
        Assert.Contains(await ines.InBin(), one => one.ToString().Contains("Weekly firing", StringComparison.Ordinal));
    }
}
