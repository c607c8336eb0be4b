using Mortar.Core.Words;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>
/// On a disk that is full, and on one that can only be read: what was said yes to is kept, what cannot be written is
/// refused with a sentence, and Mortar goes on by itself once there is room.
/// </summary>
public sealed class DiskTests() : OnLeftStore(deep: true)
{
    /// <summary>Room for the log of an import.</summary>
    private const long Room = 16 * 1024 * 1024;

    private const long Some = 256 * 1024;

    private readonly Uri url = KillableMortar.FreeAddress();

    [Fact]
    public async Task On_a_full_disk_nothing_is_lost_and_it_goes_on_once_there_is_room()
    {
        await using var disk = await SmallDisk.With(Data, Room);
        await using var mortar = KillableMortar.Start(disk.Path, url, disk.Inside);
        using var ines = new Browser(url);
        var calendar = await Begin(mortar, ines);
        var before = await ines.MakeEvent(calendar);

        disk.Fill(leaves: Some);
        var (kept, refused) = await WriteUntilRefused(ines, calendar);

        refused.IsProblem(507, "full");
        Assert.DoesNotContain(disk.Path, refused.Text, StringComparison.Ordinal);
        await Sees(ines, [before, .. kept]);
        (await ines.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200);
        Assert.Equal("unhealthy", await DiskIs(ines));

        disk.MakeRoom();
        kept.Add(await ines.MakeEvent(calendar));
        await World.Eventually(async () => await DiskIs(ines) != "unhealthy" ? mortar : null);
        await Sees(ines, [before, .. kept]);
    }

    [Fact]
    public async Task A_file_for_which_there_is_no_room_is_taken_in_not_at_all_and_whole_once_there_is()
    {
        await using var disk = await SmallDisk.With(Data, Room);
        await using var mortar = KillableMortar.Start(disk.Path, url, disk.Inside);
        using var ines = new Browser(url);
        var calendar = await Begin(mortar, ines);
        var file = Files.Many("Celadon", 2_000);
        var imports = $"/api/calendars/{calendar.Value}/imports";
        var import = Guid.NewGuid();

        disk.Fill();
        (await ines.Put($"{imports}/{import}", file)).IsProblem(507, "full");
        disk.MakeRoom();
        (await ines.Put($"{imports}/{import}", file)).Is(200);
        disk.Fill(leaves: Some);
        (await ines.Post($"{imports}/{import}/write", new { known = "keep" })).Is(202);

        var failed = await ines.Imported(calendar, import);

        Assert.Equal("failed", failed.Text("state"));
        Assert.Contains("is full", failed.Text("problem"), StringComparison.Ordinal);
        Assert.Empty(await ines.Bricks(calendar));
        disk.MakeRoom();
        Assert.Equal("done", (await ines.Import(calendar, file)).Text("state"));
        Assert.Equal(2_000, (await ines.Bricks(calendar)).Count);
    }

    [Fact]
    public async Task A_file_to_take_along_for_which_there_is_no_room_is_refused_and_leaves_nothing()
    {
        await using var disk = await SmallDisk.With(Data, Room);
        await using var mortar = KillableMortar.Start(disk.Path, url, disk.Inside);
        using var ines = new Browser(url);
        await Begin(mortar, ines);
        const string Spreadsheet = "/api/spreadsheets/events.csv?from=2026-01-01&to=2026-12-31";
        var archive = $"/api/archives/{Guid.NewGuid()}";

        disk.Fill();
        (await ines.Get(Spreadsheet)).IsProblem(507, "full");
        (await ines.Put(archive, new { })).Is(200);
        var state = await World.Eventually(async () =>
            (await ines.Get(archive)).Is(200).Body.Text("state") is var now && now != "making" ? now : null
        );
        Assert.Equal("failed", state);
        (await ines.Get($"{archive}/file")).IsProblem(404, "not-there");

        disk.MakeRoom();
        Assert.StartsWith("Calendar,", (await ines.Get(Spreadsheet)).Is(200).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_update_for_which_there_is_no_room_leaves_the_store_as_it_was()
    {
        await Left.DowngradeTo("Initial");
        await using var disk = await SmallDisk.With(Data, Room);
        var people = await Left.Count("People");
        disk.Fill();

        await using (var full = KillableMortar.Start(disk.Path, url, disk.Inside))
        {
            var said = await full.Tells();
            IsWhyNot(said, $"The disk under {disk.Path} is full");
        }

        disk.MakeRoom();
        await using var mortar = KillableMortar.Start(disk.Path, url, disk.Inside);
        await mortar.IsUp();
        Assert.True(people > 0);
        await mortar.Kill();
        disk.CopyTo(Data);
        Assert.Equal(people, await Left.Count("People"));
        Assert.Equal("ok", await Left.Scalar("PRAGMA integrity_check"));
    }

    [Fact]
    public async Task Killed_on_a_full_disk_it_comes_up_or_says_why_not_and_has_all_that_was_said_yes_to()
    {
        await using var disk = await SmallDisk.With(Data, Room);
        using var ines = new Browser(url);
        List<Guid> kept;
        await using (var mortar = KillableMortar.Start(disk.Path, url, disk.Inside))
        {
            var calendar = await Begin(mortar, ines);
            disk.Fill(leaves: Some);
            (kept, _) = await WriteUntilRefused(ines, calendar);
            await mortar.Kill();
        }

        disk.Fill();
        await using (var full = KillableMortar.Start(disk.Path, url, disk.Inside))
        {
            var said = await full.Tells();
            if (full.HasEnded)
            {
                IsWhyNot(said, $"The disk under {disk.Path} is full");
            }
            else
            {
                await Sees(ines, kept);
                Assert.Equal("unhealthy", await DiskIs(ines));
            }
        }

        disk.MakeRoom();
        await using var again = KillableMortar.Start(disk.Path, url, disk.Inside);
        await again.IsUp();
        Assert.NotEmpty(kept);
        await Sees(ines, kept);
    }

    [Fact]
    public async Task On_a_disk_that_can_only_be_read_it_says_so_and_leaves_everything_as_it_was()
    {
        await using var disk = await SmallDisk.With(Data, Room);
        var store = Path.Combine(disk.FromOutside, StoreSetup.FileName);
        var before = await File.ReadAllBytesAsync(store, TestContext.Current.CancellationToken);
        await disk.Mount(writable: false);

        await using (var mortar = KillableMortar.Start(disk.Path, url, disk.Inside))
        {
            var said = await mortar.Tells();
            IsWhyNot(said, $"{disk.Path} can only be read.");
        }

        Assert.Equal(before, await File.ReadAllBytesAsync(store, TestContext.Current.CancellationToken));
        await disk.Mount(writable: true);
        await using var again = KillableMortar.Start(disk.Path, url, disk.Inside);
        await again.IsUp();
    }

    private static async Task<CalendarId> Begin(KillableMortar mortar, Browser ines)
    {
        await mortar.IsUp();
        (await ines.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).Is(204);
        return await ines.MakeCalendar();
    }

    /// <summary>Writes until it is refused for the first time, which on a full disk it soon is.</summary>
    private static async Task<(List<Guid> Kept, Answer Refused)> WriteUntilRefused(Browser ines, CalendarId calendar)
    {
        var kept = new List<Guid>();
        while (kept.Count < 10_000)
        {
            var id = Guid.CreateVersion7();
            var answer = await ines.Put($"/api/events/{id}", World.Event(calendar));
            if (answer.Status != 200)
            {
                // What was refused is not there by half.
                (await ines.Get($"/api/events/{id}")).Is(404);
                return (kept, answer);
            }

            kept.Add(id);
        }

        throw new Xunit.Sdk.XunitException("The disk is not full.");
    }

    private static async Task Sees(Browser ines, IEnumerable<Guid> events)
    {
        foreach (var id in events)
        {
            (await ines.Get($"/api/events/{id}")).Is(200);
        }
    }

    private static async Task<string> DiskIs(Browser ines) =>
        (await ines.Get("/health")).Body.GetProperty("checks").GetProperty("disk").Text("status");

    private static void IsWhyNot(string said, string sentence) =>
        Assert.True(said.StartsWith($"Mortar does not start. {sentence}", StringComparison.Ordinal), said);
}
