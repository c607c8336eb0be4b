using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Keeping;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.StandIns;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What has been kept long enough goes for good, with all that hangs on it, and nothing else does.</summary>
public class SweepTests
{
    private static readonly Duration Always = Duration.FromDays(36_500);

    [Fact]
    public async Task Of_what_was_in_the_bin_for_thirty_days_nothing_is_left_in_the_store()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var (kept, gone) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var (single, other) = (await ines.MakeEvent(kept, "Thrown away"), await ines.MakeEvent(kept, "Stays"));
        await mortar.Give(kept, DemoPeople.Priya, Role.View);
        var inside = await Furnish(ines, priya, mei, mortar, gone);
        (
            await ines.Put(
                $"/api/events/{single}",
                World.Event(kept, "Thrown away, asked", attendees: DemoPeople.Priya.Id.Value),
                1
            )
        ).Is(200);
        (await priya.Put($"/api/events/{single}/answer", new { answer = "accepted" })).Is(204);
        (await ines.Delete($"/api/events/{single}", 2)).Is(200);
        (await ines.Delete($"/api/calendars/{gone.Value}?name=Glaze tests", 1)).Is(204);

        clock.Now += Duration.FromDays(30) - Duration.FromMinutes(1);
        Assert.Equal((0, 0), await Run(mortar));
        (await ines.BringBack(gone)).Is(200);
        (await priya.Get($"/api/events/{inside}")).Is(200);
        (await ines.Delete($"/api/calendars/{gone.Value}?name=Glaze tests", 3)).Is(204);
        Assert.NotEmpty(await Mentions(mortar, gone.Value, inside));

        clock.Now += Duration.FromDays(30) + Duration.FromMinutes(1);
        Assert.Equal((1, 4), await Run(mortar));

        Assert.Empty(await Mentions(mortar, gone.Value, inside, single));
        Assert.Empty(await Raw(mortar, "PRAGMA foreign_key_check"));
        using var later = await mortar.As(DemoPeople.Ines);
        Assert.Empty((await later.Get("/api/bin")).Is(200).Body.EnumerateArray());
        (await later.Get($"/api/events/{other}")).Is(200);
        Assert.Equal((0, 0), await Run(mortar));
    }

    [Fact]
    public async Task Many_go_in_pieces_and_another_writes_between()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var (gone, kept) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Fill(gone, 1_700);
        await mortar.Fill(kept, 10);
        (await ines.Delete($"/api/calendars/{gone.Value}?name=Glaze tests", 1)).Is(204);
        clock.Now += Duration.FromDays(31);

        var sweeping = Run(mortar);
        using var later = await mortar.As(DemoPeople.Ines);
        await later.MakeEvent(kept);

        Assert.Equal((1, 1_700), await sweeping);
        Assert.Equal(11, await mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == kept)));
    }

    [Fact]
    public async Task Changes_are_forgotten_when_they_are_old_and_their_numbers_are_never_given_again()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var set = Guid.NewGuid();
        var id = await ines.MakeEvent(calendar, set: set);
        var newest = await mortar.Store(db => db.Changes.MaxAsync(change => change.Sequence));

        clock.Now += Duration.FromDays(61);
        await Run(mortar, Duration.FromDays(60));

        Assert.Equal(0, await mortar.Store(db => db.Changes.CountAsync()));
        using var later = await mortar.As(DemoPeople.Ines);
        (await later.Post($"/api/changes/{set}/undo")).Is(404);
        (await later.Get($"/api/events/{id}")).Is(200);
        (await later.Get($"/api/events/{id}/history")).Is(200);
        (await later.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200);
        (await later.Put($"/api/events/{id}", World.Event(calendar, "Tenmoku"), 1)).Is(200);
        Assert.True(await mortar.Store(db => db.Changes.MinAsync(change => change.Sequence)) > newest);
        Assert.Single((await later.Get($"/api/events/{id}/history")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task Mails_sign_ins_and_reminders_have_an_end()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var invitation = new { address = "nina@example.org", role = "view" };
        (await ines.Put($"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}", invitation)).Is(204);
        await World.Eventually(() => mortar.Store(db => db.Mails.FirstOrDefaultAsync(mail => mail.SentAt != null)));
        var room = mortar.Services.GetRequiredService<PostRoom>();
        Assert.Single(room.Arrived);
        var signIns = await mortar.Store(db => db.SignIns.CountAsync());

        clock.Now += Duration.FromDays(29);
        await Run(mortar);
        room.Sweep();
        Assert.Equal(1, await mortar.Store(db => db.Mails.CountAsync()));
        Assert.Single(room.Arrived);
        Assert.Equal(signIns, await mortar.Store(db => db.SignIns.CountAsync()));

        clock.Now += Duration.FromDays(62);
        await Run(mortar);
        room.Sweep();
        Assert.Equal(0, await mortar.Store(db => db.Mails.CountAsync()));
        Assert.Equal(0, await mortar.Store(db => db.SignIns.CountAsync()));
        Assert.Empty(room.Arrived);
        Assert.Empty(Directory.EnumerateFiles(Path.Combine(mortar.Data, "post-room")));
        (await ines.Get("/api/groups")).Is(401);
    }

    /// <summary>Everything that can hang on a calendar and its events; returns the id of one event in it.</summary>
    private static async Task<Guid> Furnish(
        Browser ines,
        Browser priya,
        Browser mei,
        TestMortar mortar,
        CalendarId calendar
    )
    {
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var (id, link, given) = (await ines.MakeEvent(calendar), Guid.NewGuid(), await ines.MakeEvent(calendar));
        await ines.MakeEvent(calendar, "Twice at once");
        var asked = World.Event(calendar, "With people", attendees: DemoPeople.Priya.Id.Value);
        (await ines.Put($"/api/events/{id}", asked, 1)).Is(200);
        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted" })).Is(204);
        (await ines.Put($"/api/events/{given}", asked, 1)).Is(200);
        (await ines.Put($"/api/events/{given}/editors", new { personIds = new[] { DemoPeople.Priya.Id.Value } }, 2)).Is(
            200
        );
        var made = (
            await ines.Put($"/api/calendars/{calendar.Value}/links/{link}", new { role = "edit", name = "Door" })
        ).Is(200);
        (await mei.Post($"/api/links/{made.Body.Text("url").Split("/link/")[1]}/use")).Is(204);
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "nina@example.org", role = "view" }
            )
        ).Is(204);
        (
            await ines.Put(
                $"/api/proposals/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Which evening",
                    place = "",
                    notes = "",
                    times = new[] { 18, 19 }.Select(day => new
                    {
                        start = string.Create(CultureInfo.InvariantCulture, $"2026-03-{day}T20:00:00"),
                        end = string.Create(CultureInfo.InvariantCulture, $"2026-03-{day}T21:00:00"),
                    }),
                    personIds = new[] { DemoPeople.Priya.Id.Value },
                }
            )
        ).Is(204);
        return id;
    }

    private static async Task<(int Calendars, int Events)> Run(TestMortar mortar, Duration? history = null)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        var swept = await scope
            .ServiceProvider.GetRequiredService<Sweep>()
            .Run(history ?? Always, CancellationToken.None);
        return (swept.Calendars, swept.Events);
    }

    /// <summary>Where in the whole store one of some ids stands, in any column of any table; but for mails, which say what they were about until they are forgotten.</summary>
    private static async Task<List<string>> Mentions(TestMortar mortar, params Guid[] ids)
    {
        var found = new List<string>();
        foreach (
            var table in await Raw(
                mortar,
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name <> 'Mails'"
            )
        )
        {
            foreach (var column in await Raw(mortar, $"SELECT name FROM pragma_table_info('{table}')"))
            {
                foreach (var id in ids)
                {
                    var count = await Raw(
                        mortar,
                        $"SELECT count(*) FROM \"{table}\" WHERE CAST(\"{column}\" AS TEXT) LIKE '%{id}%'"
                    );
                    if (count[0] != "0")
                    {
                        found.Add($"{table}.{column}: {id}");
                    }
                }
            }
        }

        return found;
    }

    private static async Task<List<string>> Raw(TestMortar mortar, string sql)
    {
        await using var connection = new SqliteConnection(
            $"Data Source={Path.Combine(mortar.Data, StoreSetup.FileName)};Pooling=False"
        );
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await using var reader = await command.ExecuteReaderAsync();
        var rows = new List<string>();
        while (await reader.ReadAsync())
        {
            rows.Add(Convert.ToString(reader.GetValue(0), CultureInfo.InvariantCulture)!);
        }

        return rows;
    }
}
