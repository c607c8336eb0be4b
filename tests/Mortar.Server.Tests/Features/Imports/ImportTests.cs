using System.Diagnostics;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class ImportTests
{
    private static byte[] Studio => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Samples", "studio.ics"));

    [Fact]
    public async Task Before_anything_is_written_one_sees_what_is_in_the_file()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var troubled = File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Samples", "troubled.ics"));

        var seen = (await ines.Put($"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}", troubled)).Is(200).Body;

        Assert.Equal(
            (7, 2, 0, 0),
            (
                seen.GetProperty("events").GetInt32(),
                seen.GetProperty("series").GetInt32(),
                seen.GetProperty("same").GetInt32(),
                seen.GetProperty("different").GetInt32()
            )
        );
        Assert.Equal(("2026-03-12", "2026-03-20"), (seen.Text("first"), seen.Text("last")));
        Assert.Equal(7, seen.GetProperty("leftOut").GetInt32());
        Assert.Contains(
            seen.GetProperty("findings").EnumerateArray(),
            finding => finding.Text("why") == "it ends before it starts" && finding.GetProperty("line").GetInt32() == 7
        );
        Assert.Empty(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task Who_has_which_shift_leaves_with_the_file_and_comes_back_and_nobody_else_does()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        var (id, priya) = (Guid.CreateVersion7(), DemoPeople.Priya.Id.Value);
        var shift = new
        {
            calendarId = calendar.Value,
            title = "Late shift",
            showAs = "busy",
            time = World.Hours(),
            attendees = new[] { priya },
            hidesAttendees = true,
        };
        (await ines.Put($"/api/events/{id}", shift)).Is(200);
        (await ines.Put($"/api/calendars/{calendar.Value}/access/{DemoPeople.Dele.Id.Value}", new { role = "add" })).Is(
            204
        );
        (
            await ines.Send(
                HttpMethod.Put,
                $"/api/events/{id}/organizer",
                new { personId = DemoPeople.Dele.Id.Value },
                1,
                null
            )
        ).Is(200);

        var file = (await ines.Get($"/api/calendars/{calendar.Value}/export")).Is(200).Text;

        Assert.Contains("ATTENDEE;CN=Priya Raman:", file, StringComparison.Ordinal);
        Assert.DoesNotContain("@example.org", file, StringComparison.Ordinal);
        var same = (
            await ines.Put($"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}", Encoding.UTF8.GetBytes(file))
        )
            .Is(200)
            .Body;
        Assert.Equal((1, 0), (same.GetProperty("same").GetInt32(), same.GetProperty("different").GetInt32()));

        // Into another calendar of the group: the same people, organized by who could organize there.
        var other = await ines.MakeCalendar();
        await ines.Import(other, Encoding.UTF8.GetBytes(file));
        var back = Assert.Single(await ines.Bricks(other));
        Assert.Equal([priya], back.GetProperty("attendees").EnumerateArray().Select(one => one.GetGuid()));
        Assert.True(back.GetProperty("hidesAttendees").GetBoolean());
        Assert.Equal(DemoPeople.Ines.Id.Value, back.GetProperty("organizer").GetGuid());
        (await ines.Delete($"/api/events/{id}", version: 2)).Is(200);
        await ines.Import(calendar, Encoding.UTF8.GetBytes(file));
        Assert.Equal(
            DemoPeople.Dele.Id.Value,
            Assert.Single(await ines.Bricks(calendar)).GetProperty("organizer").GetGuid()
        );

        // In a group of strangers it names nobody.
        var (attic, days) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (
            await astrid.Put(
                $"/api/groups/{attic}",
                new
                {
                    name = "Attic",
                    sort = "family",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (await astrid.Put($"/api/calendars/{days}", World.Calendar("Attic days", group: attic))).Is(200);
        await astrid.Import(new CalendarId(days), Encoding.UTF8.GetBytes(file));
        var theirs = Assert.Single(await astrid.Bricks(new CalendarId(days)));
        Assert.Empty(theirs.GetProperty("attendees").EnumerateArray());
        Assert.Equal(DemoPeople.Astrid.Id.Value, theirs.GetProperty("organizer").GetGuid());
    }

    [Fact]
    public async Task What_is_there_already_is_known_by_its_uid_and_kept_or_updated_as_wished()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.Import(calendar, Files.One("As it was"));
        var import = Guid.NewGuid();

        var same = (await ines.Put($"/api/calendars/{calendar.Value}/imports/{import}", Files.One("As it was")))
            .Is(200)
            .Body;
        var different = (await ines.Put($"/api/calendars/{calendar.Value}/imports/{import}", Files.One("As it is")))
            .Is(200)
            .Body;
        var kept = await ines.Import(calendar, Files.One("As it is"));
        Assert.Equal("As it was", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        var updated = await ines.Import(calendar, Files.One("As it is"), "update");

        Assert.Equal((1, 0), (same.GetProperty("same").GetInt32(), same.GetProperty("different").GetInt32()));
        Assert.Equal((0, 1), (different.GetProperty("same").GetInt32(), different.GetProperty("different").GetInt32()));
        Assert.Equal((0, 1), (kept.GetProperty("written").GetInt32(), updated.GetProperty("written").GetInt32()));
        Assert.Equal("As it is", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_goes_in_comes_out_and_reads_back_the_same()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (first, second) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await ines.Import(first, Studio);

        var export = (await ines.Get($"/api/calendars/{first.Value}/export")).Is(200).Text;
        await ines.Import(second, Encoding.UTF8.GetBytes(export));
        var again = (await ines.Get($"/api/calendars/{second.Value}/export")).Is(200).Text;

        Assert.Contains("X-KILN-SHELF;X-ROW=2:upper", export, StringComparison.Ordinal);
        Assert.Equal(export, again);
    }

    [Theory]
    [InlineData("", "The file is empty.")]
    [InlineData("hello", "This is not a calendar file")]
    [InlineData("\u0000\u0001\u0002", "This is not a calendar file")]
    public async Task A_file_that_is_none_is_refused_with_the_way_out(string text, string sentence)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put(
            $"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}",
            Encoding.UTF8.GetBytes(text)
        );

        Assert.StartsWith(sentence, answer.IsProblem(422, "not-a-calendar").Detail, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_file_of_30_MB_is_refused_with_the_limit_and_the_way_out()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put(
            $"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}",
            new byte[30 * 1024 * 1024]
        );

        Assert.Contains("larger than 20 MB", answer.IsProblem(413, "file-too-large").Detail, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Twenty_thousand_events_go_in_with_progress_and_a_week_of_them_is_shown()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var import = Guid.NewGuid();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/imports/{import}",
                Encoding.UTF8.GetBytes(Files.Days(20_000))
            )
        ).Is(200);
        (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" })).Is(202);

        var dealt = new HashSet<int>();
        var done = await World.Eventually(async () =>
        {
            var now = (await ines.Get($"/api/calendars/{calendar.Value}/imports/{import}")).Is(200).Body;
            dealt.Add(now.GetProperty("dealt").GetInt32());
            return now.Text("state") == "writing" ? null : new { now };
        });

        Assert.Equal(20_000, done.now.GetProperty("written").GetInt32());
        Assert.Contains(dealt, one => one is > 0 and < 20_000);
        Assert.Equal(49, (await ines.Bricks(calendar)).Count); // 7 days, 20,000 events over 3,000 days: the first 2,000 days have 7
    }

    [Fact]
    public async Task A_stopped_import_has_written_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var import = Guid.NewGuid();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/imports/{import}",
                Encoding.UTF8.GetBytes(Files.Days(20_000))
            )
        ).Is(200);
        (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" })).Is(202);

        (await ines.Delete($"/api/calendars/{calendar.Value}/imports/{import}")).Is(204);

        Assert.Equal("stopped", (await ines.Imported(calendar, import)).Text("state"));
        Assert.Equal(0, await mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar)));
        Assert.Equal(
            0,
            await mortar.Store(db =>
                db.Changes.CountAsync(row => row.CalendarId == calendar && row.Subject == Core.Changes.Subject.Event)
            )
        );
    }

    [Fact]
    public async Task An_import_is_written_once_however_often_it_is_ordered()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var import = Guid.NewGuid();
        (await ines.Put($"/api/calendars/{calendar.Value}/imports/{import}", Files.One("Once"))).Is(200);
        (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" })).Is(202);

        (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" })).IsProblem(
            409,
            "import-under-way"
        );

        Assert.Equal(1, (await ines.Imported(calendar, import)).GetProperty("written").GetInt32());
    }

    [Fact]
    public async Task A_server_killed_during_an_import_has_all_of_it_or_none_after_the_restart()
    {
        var data = Directory.CreateTempSubdirectory("mortar-killed-").FullName;
        using var process = Start(data, out var url);
        CalendarId calendar;
        using (var ines = new Browser(url))
        {
            await World.Eventually(async () => await IsUp(ines) ? ines : null);
            (await ines.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).Is(204);
            calendar = await ines.MakeCalendar();
            var import = Guid.NewGuid();
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/imports/{import}",
                    Encoding.UTF8.GetBytes(Files.Days(20_000))
                )
            ).Is(200);
            (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" })).Is(
                202
            );
            await World.Eventually(async () =>
                (await ines.Get($"/api/calendars/{calendar.Value}/imports/{import}"))
                    .Body.GetProperty("dealt")
                    .GetInt32() > 2_000
                    ? ines
                    : null
            );
            process.Kill(); // SIGKILL: nothing is cleaned up
            await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        }

        await using var mortar = await TestMortar.StartOn(data);

        var there = await mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar));
        var logged = await mortar.Store(db =>
            db.Changes.CountAsync(row => row.CalendarId == calendar && row.Subject == Core.Changes.Subject.Event)
        );
        Assert.True(there is 0 or 20_000, $"{there} are there.");
        Assert.Equal(there, logged);
        using var again = await mortar.As(DemoPeople.Ines);
        Assert.Equal(
            1,
            (await again.Import(calendar, Files.One("After the restart", "after@example.org")))
                .GetProperty("written")
                .GetInt32()
        );
    }

    private static Process Start(string data, out Uri url)
    {
        using var probe = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        probe.Start();
        url = new Uri($"http://127.0.0.1:{((System.Net.IPEndPoint)probe.LocalEndpoint).Port}");
        probe.Stop();
        var server = typeof(MortarHost).Assembly.Location;
        var start = new ProcessStartInfo(
            "dotnet",
            [
                server,
                "--urls",
                url.ToString(),
                $"--Mortar:Data={data}",
                "--Mortar:Demo=true",
                $"--Mortar:Today={TestMortar.Today}",
            ]
        )
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        return Process.Start(start)!;
    }

    private static async Task<bool> IsUp(Browser browser)
    {
        try
        {
            return (await browser.Get("/health")).Status == 200;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }
}
