using System.Text;
using System.Text.Json;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Absences that members propose and a coordinator agrees to.</summary>
public class AgreementTests
{
    private static readonly CalendarId Away = new(DemoPeople.Stable("calendar Away"));
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    [Fact]
    public async Task What_a_member_enters_waits_counts_as_perhaps_and_is_settled_by_the_coordinators_yes()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Agree(ines, true);

        var id = await Enter(priya, "2026-03-18", "2026-03-19");

        Assert.Equal("tentative", (await Brick(priya, id)).Text("showAs"));
        var waiting = Assert.Single(await Waiting(ines));
        Assert.Equal("Priya Raman", waiting.GetProperty("names")[0].GetString());
        Assert.Equal(id, waiting.GetProperty("event").GetProperty("eventId").GetGuid());
        Assert.Equal([6, 5], await Present(ines)); // perhaps is not away yet; by hand, see CoverTests
        Assert.Contains(
            $"\"perhaps\":[\"{Priya}\"]",
            (await ines.Get($"/api/groups/{World.StudioTeam}/cover?from=2026-03-18&to=2026-03-18")).Is(200).Text,
            StringComparison.Ordinal
        );
        Assert.Empty(await Waiting(priya));
        (await Answer(priya, id, 1, true)).IsProblem(403, "not-allowed");
        (await Answer(ines, id, null, true)).IsProblem(428, "version-needed");
        (await Answer(ines, id, 7, true)).Is(412);
        (await Answer(ines, id, 1, true, new string('x', 501))).IsProblem(422, "unfit");

        (await Answer(ines, id, 1, true, "Enjoy it")).Is(204);

        Assert.Equal("busy", (await Brick(priya, id)).Text("showAs"));
        Assert.Empty(await Waiting(ines));
        Assert.Contains(
            "Ines Varga agreed to “Holiday”, Wed 18 to Thu 19 March. They write: “Enjoy it”",
            await Notices(priya),
            StringComparison.Ordinal
        );
        Assert.Equal([5, 5], await Present(ines));
        (await Answer(ines, id, 2, true)).IsProblem(409, "not-waiting");
    }

    [Fact]
    public async Task A_no_takes_it_off_the_plan_tells_who_entered_it_and_can_be_undone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Agree(ines, true);
        var id = await Enter(priya, "2026-03-18", "2026-03-18");
        var set = Guid.CreateVersion7();

        (await Answer(ines, id, 1, false, "Too few on Wednesdays", set)).Is(204);

        (await priya.Get($"/api/events/{id}")).IsProblem(404, "not-there");
        Assert.Contains(
            "Ines Varga did not agree to “Holiday”, Wed 18 March; it is off the plan. They write: “Too few on Wednesdays”",
            await Notices(priya),
            StringComparison.Ordinal
        );
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal("tentative", (await Brick(priya, id)).Text("showAs"));
        Assert.Single(await Waiting(ines));
        (await Answer(ines, id, 3, true)).Is(204);
        Assert.Equal("busy", (await Brick(priya, id)).Text("showAs"));
    }

    [Fact]
    public async Task What_was_agreed_to_waits_again_once_its_days_change_and_a_note_changes_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Agree(ines, true);
        var id = await Enter(priya, "2026-03-18", "2026-03-18");
        (await Answer(ines, id, 1, true)).Is(204);

        (await priya.Put($"/api/events/{id}", Body("2026-03-18", "2026-03-18", notes: "By train"), 2)).Is(200);
        Assert.Equal("busy", (await Brick(priya, id)).Text("showAs"));
        (await priya.Put($"/api/events/{id}", Body("2026-03-18", "2026-03-20"), 3)).Is(200);
        Assert.Equal("tentative", (await Brick(priya, id)).Text("showAs"));
        Assert.Single(await Waiting(ines));

        // A coordinator's own, and what they change of others', is settled.
        (await ines.Put($"/api/events/{id}", Body("2026-03-18", "2026-03-19"), 4)).Is(200);
        Assert.Equal("busy", (await Brick(priya, id)).Text("showAs"));
        var own = await Enter(ines, "2026-03-18", "2026-03-18");
        Assert.Equal("busy", (await Brick(ines, own)).Text("showAs"));
    }

    [Fact]
    public async Task A_file_and_an_event_moved_in_wait_as_well()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Agree(ines, true);
        var elsewhere = await priya.MakeCalendar();
        var moved = await priya.MakeEvent(elsewhere, "Moved in");

        (await priya.Put($"/api/events/{moved}", World.Event(Away, "Moved in"), 1)).Is(200);

        Assert.Equal("tentative", (await Brick(priya, moved)).Text("showAs"));
        const string File = """
            BEGIN:VCALENDAR
            VERSION:2.0
            BEGIN:VEVENT
            UID:away-1
            DTSTAMP:20260301T000000Z
            DTSTART;VALUE=DATE:20260325
            SUMMARY:From a file
            END:VEVENT
            END:VCALENDAR
            """;
        var import = Guid.NewGuid();
        (await priya.Put($"/api/calendars/{Away.Value}/imports/{import}", Encoding.UTF8.GetBytes(File))).Is(200);
        (await priya.Post($"/api/calendars/{Away.Value}/imports/{import}/write", new { known = "keep" })).Is(202);
        Assert.Equal(1, (await priya.Imported(Away, import)).GetProperty("written").GetInt32());
        Assert.Equal(
            ["Moved in", "From a file"],
            (await Waiting(ines)).Select(one => one.GetProperty("event").Text("title"))
        );
    }

    [Fact]
    public async Task Without_the_setting_nothing_waits_and_with_the_step_Add_one_enters_only_ones_own()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);

        var id = await Enter(priya, "2026-03-18", "2026-03-18");
        Assert.Equal("busy", (await Brick(priya, id)).Text("showAs"));
        Assert.Empty(await Waiting(ines));

        var others = Body("2026-03-18", "2026-03-18", named: [DemoPeople.Tomasz.Id.Value]);
        (await priya.Put($"/api/events/{Guid.CreateVersion7()}", others)).IsProblem(422, "unfit");
        (await priya.Put($"/api/events/{id}", others, 1)).IsProblem(422, "unfit");
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", others)).Is(200);
    }

    /// <summary>Who loses the calendar is told nothing more of what became of their absence.</summary>
    [Fact]
    public async Task Whoever_sees_the_calendar_no_more_reads_no_answer()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Agree(ines, true);
        var id = await Enter(priya, "2026-03-18", "2026-03-18");
        (await Answer(ines, id, 1, false, "Quite secret")).Is(204);
        Assert.Contains("Quite secret", await Notices(priya), StringComparison.Ordinal);

        await Agree(ines, true, groupDefault: "none");

        Assert.DoesNotContain("Quite secret", await Notices(priya), StringComparison.Ordinal);
    }

    private static async Task Agree(Browser ines, bool agreed, string groupDefault = "add")
    {
        var layer = (await ines.Get($"/api/calendars/{Away.Value}")).Is(200).Body;
        var body = new
        {
            groupId = World.StudioTeam,
            name = "Away",
            description = "",
            hue = "ochre",
            mark = "shelf",
            zone = "Europe/London",
            purpose = "away",
            groupDefault,
            agreed,
        };
        (await ines.Put($"/api/calendars/{Away.Value}", body, layer.GetProperty("version").GetInt32())).Is(200);
    }

    private static object Body(string first, string last, string notes = "", Guid[]? named = null) =>
        new
        {
            calendarId = Away.Value,
            title = "Holiday",
            notes,
            showAs = "busy",
            time = new
            {
                form = "days",
                first,
                last,
            },
            attendees = named ?? [Priya],
        };

    private static async Task<Guid> Enter(Browser by, string first, string last)
    {
        var id = Guid.CreateVersion7();
        var own = (await by.Get("/api/session")).Body.GetProperty("person").GetProperty("id").GetGuid();
        (await by.Put($"/api/events/{id}", Body(first, last, named: [own]))).Is(200);
        return id;
    }

    private static Task<Answer> Answer(
        Browser by,
        Guid id,
        int? version,
        bool agrees,
        string? comment = null,
        Guid? set = null
    ) => by.Put($"/api/events/{id}/agreement", new { agrees, comment }, version, set);

    private static async Task<JsonElement> Brick(Browser browser, Guid id) =>
        (await browser.Get($"/api/events/{id}")).Is(200).Body;

    private static async Task<List<JsonElement>> Waiting(Browser browser) =>
        [.. (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("absences").EnumerateArray()];

    private static async Task<string> Notices(Browser browser) =>
        string.Join(
            '\n',
            (await browser.Get("/api/inbox"))
                .Is(200)
                .Body.GetProperty("notices")
                .EnumerateArray()
                .Select(one => one.Text("sentence"))
        );

    /// <summary>How many of the six are there on the 18th and the 23rd, where Mei is away.</summary>
    private static async Task<List<int>> Present(Browser browser) =>
        [
            .. (await browser.Get($"/api/groups/{World.StudioTeam}/cover?from=2026-03-18&to=2026-03-23"))
                .Is(200)
                .Body.GetProperty("days")
                .EnumerateArray()
                .Where(day => day.Text("day") is "2026-03-18" or "2026-03-23")
                .Select(day => day.GetProperty("present").GetArrayLength()),
        ];
}
