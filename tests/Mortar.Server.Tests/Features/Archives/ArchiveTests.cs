using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Archives;

/// <summary>Everything at once: made aside, fetched by its owner alone, and with no more in it than the steps show.</summary>
public class ArchiveTests
{
    private static async Task<string> Made(Browser browser, Guid? group = null)
    {
        var path = $"/api/archives/{Guid.CreateVersion7()}";
        (await browser.Put(path, new { groupId = group })).Is(200);
        var state = await World.Eventually(async () =>
            (await browser.Get(path)).Is(200).Body.Text("state") is var now && now != "making" ? now : null
        );
        Assert.Equal("done", state);
        return path;
    }

    private static async Task<Dictionary<string, string>> Opened(Browser browser, string path)
    {
        using var zip = new ZipArchive(new MemoryStream(await browser.GetBytes($"{path}/file")));
        var texts = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var entry in zip.Entries)
        {
            using var bytes = new MemoryStream();
            await using (var stream = await entry.OpenAsync())
            {
                await stream.CopyToAsync(bytes);
            }

            texts[entry.FullName] = entry.FullName.EndsWith(".xlsx", StringComparison.Ordinal)
                ? await Unpacked(bytes)
                : Encoding.UTF8.GetString(bytes.ToArray());
        }

        return texts;
    }

    private static async Task<string> Unpacked(MemoryStream bytes)
    {
        using var book = new ZipArchive(bytes);
        var text = new StringBuilder();
        foreach (var entry in book.Entries)
        {
            using var reader = new StreamReader(await entry.OpenAsync());
            text.Append(await reader.ReadToEndAsync());
        }

        return text.ToString();
    }

    [Fact]
    public async Task All_that_is_ones_own_is_in_it_and_nothing_of_that_in_one_of_a_group()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        await priya.MakeEvent(calendar, "Hers to take");
        await ines.MakeEvent(calendar, "Not hers");
        // What was put into what is closed to her by now is the calendar's.
        var closed = await ines.MakeCalendar();
        await mortar.Give(closed, DemoPeople.Priya, Role.Add);
        await priya.MakeEvent(closed, "Left behind");
        await mortar.Give(closed, DemoPeople.Priya, Role.None);

        var all = await Opened(priya, await Made(priya));

        using var account = JsonDocument.Parse(all["mine/account.json"]);
        Assert.Equal(
            (DemoPeople.Priya.Name, DemoPeople.Priya.Address, "Europe/London"),
            (
                account.RootElement.Text("name"),
                account.RootElement.GetProperty("addresses")[0].GetString(),
                account.RootElement.GetProperty("preferences").Text("zone")
            )
        );
        Assert.Contains("Glaze tests,Studio team,Add,given to me,", all["mine/access.csv"], StringComparison.Ordinal);
        Assert.Contains("as every member", all["mine/access.csv"], StringComparison.Ordinal);
        Assert.Contains("SUMMARY:Hers to take", all["mine/what I put in.ics"], StringComparison.Ordinal);
        Assert.DoesNotContain("Not hers", all["mine/what I put in.ics"], StringComparison.Ordinal);
        Assert.Contains("Hers to take,added it", all["mine/what I did.csv"], StringComparison.Ordinal);
        Assert.All(all.Values, text => Assert.DoesNotContain("Left behind", text, StringComparison.Ordinal));
        Assert.All(
            all.Keys.Where(name => name.StartsWith("mine/", StringComparison.Ordinal)),
            name =>
                Assert.Contains(Uri.EscapeDataString(name.Split('/')[1]), all["index.html"], StringComparison.Ordinal)
        );
        Assert.DoesNotContain(
            await Opened(priya, await Made(priya, World.StudioTeam)),
            file => file.Key.StartsWith("mine/", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task It_has_a_file_for_each_calendar_a_table_where_one_coordinates_and_a_page_that_leads_to_all()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendars = (await ines.Get("/api/shelf")).Is(200).Body.GetArrayLength();

        var all = await Opened(ines, await Made(ines));
        var team = await Opened(ines, await Made(ines, World.StudioTeam));

        Assert.Equal(calendars, all.Keys.Count(name => name.StartsWith("calendars/", StringComparison.Ordinal)));
        Assert.All(
            all.Where(file => file.Key.EndsWith(".ics", StringComparison.Ordinal)),
            file => Assert.NotNull(Ical.Net.Calendar.Load(file.Value))
        );
        Assert.Contains("Team meeting", all["calendars/Studio-team/Rota.ics"], StringComparison.Ordinal);
        Assert.Contains(DemoPeople.Tomasz.Name, all["who has what/Studio-team.xlsx"], StringComparison.Ordinal);
        Assert.All(
            all.Keys.Where(name => name != "index.html"),
            name =>
                Assert.Contains(
                    $"href=\"{string.Join('/', name.Split('/').Select(Uri.EscapeDataString))}\"",
                    all["index.html"],
                    StringComparison.Ordinal
                )
        );
        Assert.All(
            team.Keys.Where(name => name.StartsWith("calendars/", StringComparison.Ordinal)),
            name => Assert.StartsWith("calendars/Studio-team/", name, StringComparison.Ordinal)
        );
        // Of what shows its times only there are busy times and nothing else.
        Assert.Contains("BEGIN:VFREEBUSY", team["calendars/Studio-team/Hanne-s-time.ics"], StringComparison.Ordinal);
        Assert.DoesNotContain("BEGIN:VEVENT", team["calendars/Studio-team/Hanne-s-time.ics"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task Each_step_keeps_what_it_does_not_show()
    {
        await using var mortar = await TestMortar.Start();
        using var studio = await SecretStudio.Open(mortar);
        foreach (var role in Enum.GetValues<Role>())
        {
            var secrets = await studio.Make("own", role);
            var files = await Opened(studio.Reader, await Made(studio.Reader));
            foreach (var (name, text) in files)
            {
                secrets.AreKept(role, name, new Answer(200, text, new HttpResponseMessage().Headers));
            }

            if (role >= Role.View)
            {
                Assert.Contains(files.Values, text => text.Contains("Secret-notes", StringComparison.Ordinal));
            }
        }
    }

    [Fact]
    public async Task Nobody_else_finds_it_and_it_ends_with_what_its_owner_may_see()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var nobody = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var path = await Made(priya);
        Assert.Contains("calendars/Studio-team/Glaze-tests.ics", (await Opened(priya, path)).Keys);

        (await ines.Get(path)).IsProblem(404, "not-there");
        (await ines.Get($"{path}/file")).IsProblem(404, "not-there");
        (await ines.Delete(path)).IsProblem(404, "not-there");
        (await nobody.Get($"{path}/file")).IsProblem(401, "signed-out");

        await mortar.Give(calendar, DemoPeople.Priya, Role.None);
        (await priya.Get($"{path}/file")).IsProblem(409, "archive-outdated");
        (await priya.Get($"{path}/file")).IsProblem(404, "not-there");
        Assert.Empty(Directory.GetFiles(Path.Combine(mortar.Data, "giving")));
    }

    [Fact]
    public async Task What_was_taken_back_from_its_owner_since_is_not_given_out_and_what_went_on_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var id = await ines.MakeEvent(calendar, "Secret-title");
        var changes = 0;
        async Task Change(object body) => (await ines.Put($"/api/events/{id}", body, version: ++changes)).Is(200);

        // Others write on, in it and elsewhere.
        var path = await Made(priya);
        await Change(World.Event(calendar, "Secret-title, later"));
        await ines.MakeEvent(calendar, "Another");
        await ines.MakeEvent(await ines.MakeCalendar());
        // Who is in a group of somebody else's is no matter of this one; anybody can have one and change it all day.
        using var hanne = await mortar.As(DemoPeople.Hanne);
        (
            await hanne.Put(
                $"/api/groups/{Guid.NewGuid()}",
                new
                {
                    name = "Parcels",
                    sort = "club",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        Assert.Contains("Secret-title", (await Opened(priya, path))["calendars/Studio-team/Glaze-tests.ics"]);

        path = await Made(priya);
        await Change(
            new
            {
                calendarId = calendar.Value,
                title = "Secret-title",
                place = "",
                notes = "",
                showAs = "busy",
                time = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00"),
                @private = true,
                attendees = Array.Empty<Guid>(),
            }
        );
        (await priya.Get($"{path}/file")).IsProblem(409, "archive-outdated");

        path = await Made(priya);
        (await ines.Delete($"/api/events/{id}", version: ++changes)).Is(200);
        (await priya.Get($"{path}/file")).IsProblem(409, "archive-outdated");

        // Who has what is told to whoever coordinates.
        await mortar.Give(calendar, DemoPeople.Priya, Role.Coordinate);
        path = await Made(priya);
        Assert.Contains("who has what/Studio-team.xlsx", (await Opened(priya, path)).Keys);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await priya.Get($"{path}/file")).IsProblem(409, "archive-outdated");
    }

    [Fact]
    public async Task A_new_one_takes_the_place_of_the_old_and_what_is_stopped_leaves_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);

        var first = await Made(ines);
        var second = await Made(ines);
        (await ines.Get(first)).IsProblem(404, "not-there");
        Assert.Single(Directory.GetFiles(Path.Combine(mortar.Data, "giving")));
        (await ines.Delete(second)).Is(204);
        (await ines.Get(second)).IsProblem(404, "not-there");
        Assert.Empty(Directory.GetFiles(Path.Combine(mortar.Data, "giving")));

        (await astrid.Put($"/api/archives/{Guid.CreateVersion7()}", new { groupId = World.StudioTeam })).IsProblem(
            404,
            "not-there"
        );
    }
}
