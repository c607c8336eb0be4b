using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Data.Noticeboards;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;
using static Mortar.Server.Tests.Features.Noticeboards.NoticeboardWorld;

namespace Mortar.Server.Tests.Features.Noticeboards;

/// <summary>Who keeps a noticeboard, what becomes of it when they lose a calendar, and its address.</summary>
public class NoticeboardKeepingTests
{
    private static async Task Coordinates(
        Browser ines,
        CalendarId calendar,
        DemoPerson who,
        string role = "coordinate"
    ) => (await ines.Put($"/api/calendars/{calendar.Value}/access/{who.Id.Value}", new { role })).Is(204);

    [Fact]
    public async Task In_the_table_of_access_the_world_has_what_it_reads_on_a_noticeboard()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (one, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await Coordinates(ines, one, DemoPeople.Priya);
        var id = await ines.MakeNoticeboard(Settings([(one, "view"), (other, "times")], "For all"), open: false);
        Assert.Null(await Row(ines));

        (await ines.Post($"/api/noticeboards/{id}/open")).Is(200);
        Assert.Equal([(one.Value, "view"), (other.Value, "times")], await Row(ines));
        // Who coordinates one of them knows of that one.
        Assert.Equal([(one.Value, "view")], await Row(priya));

        (await ines.Post($"/api/noticeboards/{id}/pause")).Is(200);
        Assert.Null(await Row(ines));

        async Task<List<(Guid, string)>?> Row(Browser browser) =>
            (await browser.Get($"/api/groups/{World.StudioTeam}/access"))
                .Is(200)
                .Body.GetProperty("noticeboards")
                .EnumerateArray()
                .Where(row => row.GetProperty("noticeboardId").GetGuid() == id)
                .Select(row =>
                {
                    Assert.Equal("For all", row.Text("title"));
                    return row.GetProperty("cells")
                        .EnumerateArray()
                        .Select(cell => (cell.GetProperty("calendarId").GetGuid(), cell.Text("role")))
                        .ToList();
                })
                .SingleOrDefault();
    }

    [Fact]
    public async Task Only_who_coordinates_all_that_is_on_it_makes_changes_and_opens_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var (one, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await Coordinates(ines, one, DemoPeople.Priya);
        await Coordinates(ines, other, DemoPeople.Priya, "edit");
        var id = Guid.NewGuid();

        (await priya.Put($"/api/noticeboards/{id}", Settings([(one, "view"), (other, "times")]))).IsProblem(
            403,
            "not-allowed"
        );
        (await priya.Put($"/api/noticeboards/{id}", Settings([(new CalendarId(Guid.NewGuid()), "times")]))).IsProblem(
            404,
            "not-there"
        );
        (await priya.Put($"/api/noticeboards/{id}", Settings([(one, "view")], group: Guid.NewGuid()))).IsProblem(
            404,
            "not-there"
        );
        (await ines.Put($"/api/noticeboards/{id}", Settings([(one, "view"), (other, "times")]))).Is(200);

        // A draft is its maker's; once it was open, whoever coordinates a calendar of it knows, and takes that one off.
        (await priya.Get($"/api/noticeboards/{id}")).IsProblem(404, "not-there");
        (await priya.Post($"/api/noticeboards/{id}/open")).IsProblem(404, "not-there");
        (await ines.Post($"/api/noticeboards/{id}/open")).Is(200);
        Assert.False((await priya.Noticeboard(id)).GetProperty("mayChange").GetBoolean());
        (await priya.Put($"/api/noticeboards/{id}", Settings([(one, "view")]), 2)).IsProblem(404, "not-there");
        (await priya.Post($"/api/noticeboards/{id}/pause")).IsProblem(404, "not-there");
        (await priya.Delete($"/api/noticeboards/{id}")).IsProblem(404, "not-there");
        (await priya.Delete($"/api/noticeboards/{id}/calendars/{other.Value}")).IsProblem(404, "not-there");
        var set = Guid.NewGuid();
        (await priya.Delete($"/api/noticeboards/{id}/calendars/{one.Value}", set: set)).Is(204);
        (await priya.Post($"/api/changes/{set}/undo")).Is(200); // it is hers to give again, whatever else is on it
        Assert.Equal(2, (await ines.Noticeboard(id)).GetProperty("settings").GetProperty("layers").GetArrayLength());
        (await priya.Delete($"/api/noticeboards/{id}/calendars/{one.Value}")).Is(204);
        var left = (await ines.Noticeboard(id)).GetProperty("settings").GetProperty("layers").EnumerateArray();
        Assert.Equal(other.Value, Assert.Single(left).GetProperty("calendarId").GetGuid());
        (await mei.Get($"/api/noticeboards/{id}")).IsProblem(404, "not-there");
        (await mei.Post($"/api/noticeboards/{id}/open")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Whose_calendar_is_taken_is_closed_at_once_told_and_opened_by_nobody_but_themselves()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await Coordinates(ines, calendar, DemoPeople.Priya);
        var id = await priya.MakeNoticeboard(Settings([(calendar, "view")], title: "Glaze days"));
        (await world.Get("/b/glaze-days")).Is(200);

        await Coordinates(ines, calendar, DemoPeople.Priya, "edit");
        (await world.Get("/b/glaze-days")).Is(404);
        await Look(mortar);
        await Coordinates(ines, calendar, DemoPeople.Priya);

        (await world.Get("/b/glaze-days")).Is(404);
        Assert.Equal("paused", (await priya.Noticeboard(id)).Text("state"));
        Assert.Contains(
            "Your noticeboard “Glaze days” is paused: by what Ines Varga changed.",
            (await priya.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
        (await priya.Post($"/api/noticeboards/{id}/open")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
    }

    [Fact]
    public async Task Who_takes_a_step_takes_that_back_whatever_else_is_on_the_noticeboard()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await Coordinates(ines, calendar, DemoPeople.Dele);
        var his = new CalendarId(DemoPeople.Stable("calendar Dele’s other work"));
        await dele.MakeNoticeboard(Settings([(calendar, "view"), (his, "times")]));
        var set = Guid.NewGuid();

        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Dele.Id.Value}",
                new { role = "edit" },
                set: set
            )
        ).Is(204);
        await Look(mortar);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        (
            await dele.Put($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}", new { role = "view" })
        ).Is(204); // he coordinates it again
        (await world.Get("/b/glaze-days")).Is(404);
    }

    [Fact]
    public async Task Who_lost_a_calendar_is_not_told_what_it_is_called_by_now()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await Coordinates(ines, calendar, DemoPeople.Priya);
        var id = await priya.MakeNoticeboard(Settings([(calendar, "view")]), open: false);
        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Secret name"), 1)).Is(200);

        var told = (await priya.Get($"/api/noticeboards/{id}")).Is(200).Text;
        Assert.DoesNotContain("Secret name", told, StringComparison.Ordinal);
        Assert.DoesNotContain(
            "Secret name",
            (await priya.Get($"/api/groups/{World.StudioTeam}/noticeboards")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Names_are_held_in_bounds()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")], address: "glaze-zero"), open: false);
        string[] names =
        [
            "glaze-one",
            "glaze-two",
            "glaze-three",
            "glaze-four",
            "glaze-five",
            "glaze-six",
            "glaze-seven",
        ];
        foreach (var (name, version) in names.Select((name, index) => (name, index + 1)))
        {
            (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")], address: name), version)).Is(200);
        }

        var kept = await mortar.Store(db =>
            db.ShortAddresses.Where(row => row.OwnerId == id).Select(row => row.Name).ToListAsync()
        );
        Assert.Equal(
            ["glaze-five", "glaze-four", "glaze-seven", "glaze-six", "glaze-three", "glaze-two"],
            kept.Order(StringComparer.Ordinal)
        );
        for (var made = 1; made < NoticeboardRules.Most; made++)
        {
            var one = await ines.MakeNoticeboard(Settings([(calendar, "view")], address: null), open: false);
            (await ines.Delete($"/api/noticeboards/{one}")).Is(204);
        }

        (
            await ines.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")], address: null))
        ).IsProblem(409, "too-many");
    }

    [Fact]
    public async Task Whose_step_ended_by_its_date_is_told_as_well()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
                new { role = "coordinate", lastDay = "2026-03-12" }
            )
        ).Is(204);
        await priya.MakeNoticeboard(Settings([(calendar, "view")], title: "Glaze days"));

        clock.Now += Duration.FromDays(2);
        await Look(mortar);

        using var later = await mortar.As(DemoPeople.Priya);
        Assert.Contains(
            "Your noticeboard “Glaze days” is paused",
            (await later.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_change_of_its_words_does_not_open_what_its_keeper_lost()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await Coordinates(ines, calendar, DemoPeople.Priya);
        var id = await priya.MakeNoticeboard(Settings([(calendar, "view")]));
        await Coordinates(ines, calendar, DemoPeople.Priya, "edit");

        var kept = (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")], words: "Come in"), 2))
            .Is(200)
            .Body;

        Assert.Equal("paused", kept.Text("state"));
        (await world.Get("/b/glaze-days")).Is(404);
    }

    [Fact]
    public async Task A_calendar_in_the_bin_closes_it_and_what_is_brought_back_opens_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")]));
        var set = Guid.NewGuid();

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1, set)).Is(204);
        (await world.Get("/b/glaze-days")).Is(404);
        await Look(mortar);
        var board = await ines.Noticeboard(id);
        Assert.Equal(("paused", 1), (board.Text("state"), board.GetProperty("lost").GetArrayLength()));

        // Taken back is what was done, and not what came of it: whoever keeps it says when it is open again.
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        (await world.Get("/b/glaze-days")).Is(404);
        (await ines.Post($"/api/noticeboards/{id}/open")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
    }

    [Fact]
    public async Task An_address_is_checked_as_it_is_typed_and_belongs_to_one()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")], address: "Glaze-Days "));
        async Task<JsonElement> Typed(Browser who, string name, Guid? of = null) =>
            (
                await who.Get(
                    $"/api/groups/{World.StudioTeam}/noticeboards/address?name={Uri.EscapeDataString(name)}&title=Glaze&noticeboardId={of ?? Guid.NewGuid()}"
                )
            )
                .Is(200)
                .Body;

        Assert.Equal("glaze-days", (await ines.Noticeboard(id)).GetProperty("settings").Text("name"));
        Assert.Equal(JsonValueKind.Null, (await Typed(dele, "glaze-fairs")).GetProperty("problem").ValueKind);
        Assert.Equal(JsonValueKind.Null, (await Typed(ines, "glaze-days", id)).GetProperty("problem").ValueKind);
        foreach (var name in new[] { "glaze-days", "glazedays", "g1aze-days" })
        {
            var typed = await Typed(dele, name);
            Assert.Equal("This address is somebody's already. Choose another.", typed.Text("problem"));
            Assert.Equal(3, typed.GetProperty("instead").GetArrayLength());
            Assert.DoesNotContain(
                "glaze-days",
                typed.GetProperty("instead").EnumerateArray().Select(one => one.GetString())
            );
            (
                await ines.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")], address: name))
            ).IsProblem(422, "unfit");
        }

        Assert.Contains("kept for Mortar", (await Typed(dele, "admin")).Text("problem"), StringComparison.Ordinal);
        (
            await ines.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")], address: "🏺"))
        ).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task An_old_address_leads_on_and_nobody_else_gets_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")]));
        var set = Guid.NewGuid();

        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")], address: "glaze-fairs"), 2, set)).Is(
            200
        );

        var led = (await world.Get("/b/glaze-days?view=month")).Is(302);
        Assert.Equal("/b/glaze-fairs?view=month", led.Headers.Location!.ToString());
        Assert.Equal("/b/glaze-fairs", (await world.Get("/b/Glaze-Fairs")).Is(302).Headers.Location!.ToString());
        (await world.Get("/b/glaze-days/glühen")).Is(404);
        (await world.Get("/b/glazefairs")).Is(404); // looks like it, and is not it
        (await ines.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")]))).IsProblem(422, "unfit");
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
        (await world.Get("/b/glaze-fairs")).Is(302);
    }

    [Fact]
    public async Task What_was_given_up_is_free_again_once_it_was_held_long_enough()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var ended = await ines.MakeNoticeboard(Settings([(calendar, "view")]));
        (await ines.Delete($"/api/noticeboards/{ended}")).Is(204);

        clock.Now += NoticeboardRules.OldAddressesLead - Duration.FromMinutes(1);
        using var then = await mortar.As(DemoPeople.Ines);
        (await then.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")]))).IsProblem(422, "unfit");
        clock.Now += Duration.FromMinutes(2);
        using var later = await mortar.As(DemoPeople.Ines);
        (await later.Put($"/api/noticeboards/{Guid.NewGuid()}", Settings([(calendar, "view")]))).Is(200);
    }

    [Fact]
    public async Task One_that_nobody_guesses_has_128_bits_and_keeps_them()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")], address: null));

        var address = (await ines.Noticeboard(id)).Text("url").Split('/')[^1];
        (
            await ines.Put(
                $"/api/noticeboards/{id}",
                Settings([(calendar, "view")], address: null, words: "Come in"),
                2
            )
        ).Is(200);

        Assert.Equal(32, address.Length);
        Assert.All(address, c => Assert.True(char.IsAsciiHexDigitLower(c)));
        Assert.Equal(address, (await ines.Noticeboard(id)).Text("url").Split('/')[^1]);
    }

    [Fact]
    public async Task A_change_is_based_on_a_version_and_sending_twice_makes_one()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.NewGuid();

        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")]))).Is(200);
        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")]))).Is(200);
        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")], words: "Come in"), 1)).Is(200);
        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")], words: "Stay out"), 1)).IsProblem(
            412,
            "stale"
        );
        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")]))).IsProblem(428, "version-needed");

        Assert.Equal("Come in", (await ines.Noticeboard(id)).GetProperty("settings").Text("words"));
    }

    [Fact]
    public async Task An_end_can_be_taken_back_as_long_as_one_may_show_all_of_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await Coordinates(ines, calendar, DemoPeople.Priya);
        var id = await priya.MakeNoticeboard(Settings([(calendar, "view")]));
        var (first, second) = (Guid.NewGuid(), Guid.NewGuid());

        (await priya.Delete($"/api/noticeboards/{id}", set: first)).Is(204);
        (await world.Get("/b/glaze-days")).Is(410);
        (await priya.Post($"/api/changes/{first}/undo")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
        (await priya.Delete($"/api/noticeboards/{id}", set: second)).Is(204);
        await Coordinates(ines, calendar, DemoPeople.Priya, "edit");

        (await priya.Post($"/api/changes/{second}/undo")).IsProblem(403, "not-allowed");
        (await world.Get("/b/glaze-days")).Is(410);
    }

    private static async Task Look(TestMortar mortar)
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<NoticeboardCommands>().PauseLost(CancellationToken.None);
    }
}
