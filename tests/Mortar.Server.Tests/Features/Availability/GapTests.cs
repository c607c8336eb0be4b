using System.Globalization;
using System.Text.Json;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Gaps and "who is free then", within what the one who asks may know.</summary>
public class GapTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;
    private static readonly Guid Ines = DemoPeople.Ines.Id.Value;
    private static readonly Guid Hanne = DemoPeople.Hanne.Id.Value;
    private static readonly Guid Tomasz = DemoPeople.Tomasz.Id.Value;
    private static readonly Guid Dele = DemoPeople.Dele.Id.Value;
    private static readonly Guid Kiln = DemoPeople.Stable("calendar Big kiln");

    /// <summary>
    /// Worked out by hand from the demo's Thursday, 12 March: Ines minds the desk 13:00 to 16:30; Priya unloads 13:30 to
    /// 14:30 and tests glazes 14:00 to 15:30; both keep hours from 8 to 19.
    /// </summary>
    [Fact]
    public async Task Gaps_of_the_demos_thursday_are_those_worked_out_by_hand()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var answer = await Ask(ines, [Ines, Priya], "2026-03-12", "2026-03-12");

        Assert.Equal(["08:00-13:00", "16:30-19:00"], answer.GetProperty("gaps").EnumerateArray().Select(Hours));
        Assert.Equal(
            [(Ines, "whole"), (Priya, "seen")],
            answer
                .GetProperty("people")
                .EnumerateArray()
                .Select(one => (one.GetProperty("id").GetGuid(), one.Text("knowledge")))
        );
    }

    [Fact]
    public async Task A_place_and_one_of_several_count_and_what_is_oclock_elsewhere_is_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        // By hand: the kiln is taken 13:30 to 14:30. Dele works elsewhere until noon and watches it from 17:00. Mei, whose
        // eight o'clock is eleven here that week, minds her shop 14:00 to 16:00. Tomasz is free all day.
        var answer = await Answer(
            ines,
            new
            {
                required = Array.Empty<Guid>(),
                optional = Array.Empty<Guid>(),
                places = new[] { Kiln },
                from = "2026-03-12",
                to = "2026-03-12",
                minutes = 60,
                hours = "kept",
                group = World.StudioTeam,
                any = new { count = 2, among = new[] { Dele, Tomasz, DemoPeople.Mei.Id.Value } },
            }
        );

        var gaps = answer.GetProperty("gaps").EnumerateArray().ToList();
        Assert.Equal(["11:00-13:30", "14:30-17:00", "16:00-19:00"], gaps.Select(Hours).Order());
        var first = gaps.Single(gap => Hours(gap) == "11:00-13:30");
        Assert.Equal(
            new[] { Tomasz, DemoPeople.Mei.Id.Value }.Order(),
            first.GetProperty("any").EnumerateArray().Select(one => one.GetGuid()).Order()
        );
        Assert.Equal([Dele], first.GetProperty("unnamed").EnumerateArray().Select(one => one.GetGuid()));
        var halifax = Assert.Single(first.GetProperty("elsewhere").EnumerateArray());
        Assert.Equal(("America/Halifax", "2026-03-12T08:00:00"), (halifax.Text("zone"), halifax.Text("start")));
    }

    [Fact]
    public async Task Where_there_is_no_gap_it_says_who_is_in_the_way_and_what_would_make_room()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var answer = await Ask(ines, [Ines, Priya], "2026-03-12", "2026-03-12", minutes: 360);

        Assert.Empty(answer.GetProperty("gaps").EnumerateArray());
        var why = answer.GetProperty("why");
        Assert.Equal("2026-03-12T08:00:00", why.Text("longestStart"));
        Assert.Equal("2026-03-12T13:00:00", why.Text("longestEnd"));
        Assert.Equal(
            [(Ines, 210), (Priya, 120)],
            why.GetProperty("obstacles")
                .EnumerateArray()
                .Select(one => (one.GetProperty("id").GetGuid(), one.GetProperty("minutes").GetInt32()))
        );
    }

    /// <summary>
    /// By hand: forty calendars have an hour of Priya's each, so that from Monday to Friday she is taken from 8 to 16; on
    /// Wednesday she minds the desk from 13 to 17 as well, which collides with three of them.
    /// </summary>
    [Fact]
    public async Task Somebody_in_forty_calendars_is_taken_by_all_of_them()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        for (var i = 0; i < 40; i++)
        {
            var (day, hour) = (16 + (i % 5), 8 + (i / 5));
            var body = new
            {
                calendarId = (await ines.MakeCalendar()).Value,
                title = $"Tile {i}",
                showAs = "busy",
                time = World.Hours($"2026-03-{day}T{hour:D2}:00:00", $"2026-03-{day}T{hour + 1:D2}:00:00"),
                attendees = new[] { Priya },
            };
            (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);
        }

        var gaps = (await Ask(ines, [Priya], "2026-03-16", "2026-03-20")).GetProperty("gaps").EnumerateArray();

        Assert.Equal(
            ["16 16:00-19:00", "17 16:00-19:00", "18 17:00-19:00", "19 16:00-19:00", "20 16:00-19:00"],
            gaps.Select(gap => $"{gap.Text("start")[8..10]} {Hours(gap)}").Order()
        );
        var clashes = (await ines.Get("/api/clashes?from=2026-03-16&to=2026-03-20")).Is(200).Body;
        Assert.Equal(
            3,
            clashes
                .GetProperty("clashes")
                .EnumerateArray()
                .Count(one => one.GetProperty("people").EnumerateArray().Any(who => who.GetGuid() == Priya))
        );
    }

    [Fact]
    public async Task Three_hundred_more_members_are_asked_and_counted()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        await mortar.AddMembers(300);
        var all = (await ines.Get($"/api/groups/{World.StudioTeam}/members"))
            .Is(200)
            .Body.EnumerateArray()
            .Select(one => one.GetProperty("personId").GetGuid())
            .ToList();
        Assert.Equal(306, all.Count);

        var answer = await Answer(
            ines,
            new
            {
                required = new[] { Ines },
                optional = all.Where(one => one != Ines).ToArray(),
                places = Array.Empty<Guid>(),
                from = "2026-03-12",
                to = "2026-03-12",
                minutes = 60,
                hours = "kept",
                group = World.StudioTeam,
            }
        );

        var best = answer.GetProperty("gaps")[0];
        Assert.True(best.GetProperty("missing").GetArrayLength() < 6, best.ToString());
        var cover = (await ines.Get($"/api/groups/{World.StudioTeam}/cover?from=2026-03-16&to=2026-03-17")).Is(200);
        Assert.Equal(
            [306, 305], // Tomasz is away on the 17th
            cover.Body.GetProperty("days").EnumerateArray().Select(day => day.GetProperty("present").GetArrayLength())
        );
    }

    [Fact]
    public async Task What_one_may_not_see_changes_no_answer()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var gapsBefore = (await Ask(dele, [Priya, Dele], "2026-03-16", "2026-03-16")).GetRawText();
        var freeBefore = (await Free(dele, [Priya, Hanne], "2026-03-16T10:00:00", "2026-03-16T11:00:00")).GetRawText();

        // Priya does not let her time be told, and Dele has no step on the calendar she is named on.
        var calendar = await ines.MakeCalendar();
        var body = new
        {
            calendarId = calendar.Value,
            title = "Whispered",
            showAs = "busy",
            time = World.Hours("2026-03-16T10:00:00", "2026-03-16T12:00:00"),
            attendees = new[] { Priya },
        };
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);

        Assert.Equal(gapsBefore, (await Ask(dele, [Priya, Dele], "2026-03-16", "2026-03-16")).GetRawText());
        var freeAfter = await Free(dele, [Priya, Hanne], "2026-03-16T10:00:00", "2026-03-16T11:00:00");
        Assert.Equal(freeBefore, freeAfter.GetRawText());

        // The coordinator of that calendar does see it.
        var seen = await Free(ines, [Priya], "2026-03-16T10:00:00", "2026-03-16T11:00:00");
        var one = Assert.Single(seen.GetProperty("people").EnumerateArray());
        Assert.Equal(("busy", "Whispered"), (one.Text("presence"), one.GetProperty("by")[0].GetString()));
    }

    [Fact]
    public async Task With_times_only_one_learns_that_and_not_by_what_they_are_taken()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        // Hanne shares the times of her own calendar: hanging a show, Thursday 9 to 11.
        var answer = await Free(ines, [Hanne], "2026-03-12T10:00:00", "2026-03-12T10:30:00");

        var hanne = Assert.Single(answer.GetProperty("people").EnumerateArray());
        Assert.Equal("busy", hanne.Text("presence"));
        Assert.DoesNotContain("Hanging", answer.GetRawText(), StringComparison.Ordinal);
        Assert.Equal("2026-03-12T08:30:00", hanne.Text("earlier"));
        Assert.Equal("2026-03-12T11:00:00", hanne.Text("later"));
    }

    [Fact]
    public async Task Whoever_shares_no_group_is_left_out_like_one_who_was_never_there()
    {
        await using var mortar = await TestMortar.Start();
        using var mei = await mortar.As(DemoPeople.Mei);
        var stranger = await Ask(
            mei,
            [DemoPeople.Astrid.Id.Value, DemoPeople.Mei.Id.Value],
            "2026-03-16",
            "2026-03-16"
        );
        var nobody = await Ask(mei, [Guid.NewGuid(), DemoPeople.Mei.Id.Value], "2026-03-16", "2026-03-16");

        Assert.Equal(nobody.GetRawText(), stranger.GetRawText());
    }

    [Fact]
    public async Task The_event_that_is_being_written_does_not_stand_in_its_own_way()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        var body = new
        {
            calendarId = calendar.Value,
            title = "Its own",
            showAs = "busy",
            time = World.Hours("2026-03-16T20:00:00", "2026-03-16T21:00:00"),
            attendees = new[] { Ines },
        };
        (await ines.Put($"/api/events/{id}", body)).Is(200);

        async Task<string> State(Guid? except) =>
            (await Free(ines, [Ines], "2026-03-16T20:00:00", "2026-03-16T21:00:00", except))
                .GetProperty("people")[0]
                .Text("presence");

        Assert.Equal("busy", await State(null));
        Assert.Equal("outsideHours", await State(id));
    }

    [Theory]
    [InlineData(
        """{"required":[],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-12","minutes":60,"hours":"kept"}""",
        422
    )]
    [InlineData(
        """{"required":["00000000-0000-0000-0000-000000000001"],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-12","minutes":0,"hours":"kept"}""",
        422
    )]
    [InlineData(
        """{"required":["00000000-0000-0000-0000-000000000001"],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-01","minutes":60,"hours":"kept"}""",
        422
    )]
    [InlineData(
        """{"required":["00000000-0000-0000-0000-000000000001"],"optional":[],"places":[],"from":"2025-03-01","to":"2025-03-02","minutes":60,"hours":"kept"}""",
        422
    )]
    [InlineData(
        """{"required":["00000000-0000-0000-0000-000000000001"],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-12","minutes":60,"hours":"kept","before":9999}""",
        422
    )]
    [InlineData(
        """{"required":[],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-12","minutes":60,"hours":"kept","any":{"count":2,"among":["00000000-0000-0000-0000-000000000001"]}}""",
        422
    )]
    [InlineData("""{"required":"everybody"}""", 400)]
    public async Task A_question_that_cannot_be_answered_says_why(string body, int status)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var refused = (await ines.Post("/api/gaps", body)).Is(status);

        Assert.NotEmpty(refused.Detail);
    }

    [Fact]
    public async Task A_time_that_is_none_is_refused()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var time = World.Hours("2026-03-12T15:00:00", "2026-03-12T14:00:00");
        (
            await ines.Post(
                "/api/free",
                new
                {
                    people = new[] { Ines },
                    places = Array.Empty<Guid>(),
                    time,
                }
            )
        ).IsProblem(422, "unfit");
        (
            await ines.Post(
                "/api/free",
                new
                {
                    people = Array.Empty<Guid>(),
                    places = Array.Empty<Guid>(),
                    time = World.Hours(),
                }
            )
        ).IsProblem(422, "unfit");
    }

    /// <summary>
    /// What the roster's last row shows, on drawn events of four people in two calendars, against the plain definition
    /// looked at for every quarter of an hour.
    /// </summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Gaps_of_drawn_weeks_are_where_every_quarter_of_an_hour_says_so(int seed)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        Guid[] four = [Ines, Priya, Tomasz, Dele];
        var draw = new Random(seed);
        CalendarId[] calendars = [await ines.MakeCalendar(), await ines.MakeCalendar()];
        var taken = new HashSet<(int Day, int Quarter)>();
        for (var i = 0; i < 40; i++)
        {
            // A week in July in which the demo has nothing but its weekly events, which are looked up below.
            var (day, from, length) = (draw.Next(5), draw.Next(32, 72), draw.Next(1, 9));
            var named = four.Where(_ => draw.Next(3) == 0).ToList();
            var body = new
            {
                calendarId = calendars[i % 2].Value,
                title = $"Drawn {i}",
                showAs = draw.Next(5) == 0 ? "free" : "busy",
                time = World.Hours(At(day, from), At(day, from + length)),
                attendees = named,
            };
            (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);
        }

        var wall = (await ines.Get("/api/wall?from=2026-07-13&to=2026-07-17")).Is(200).Body;
        foreach (var brick in wall.BricksWithTexts())
        {
            // Calendars that take one person's time name nobody on their events: of these four only Priya and Dele have one, in other weeks.
            if (
                brick.Text("form") == "event"
                && brick.Text("showAs") != "free"
                && brick.GetProperty("attendees").EnumerateArray().Any(who => four.Contains(who.GetGuid()))
                && brick.GetProperty("time").Text("form") == "clock"
            )
            {
                var (day, from) = Place(brick.GetProperty("time").Text("start"));
                var (_, to) = Place(brick.GetProperty("time").Text("end"));
                taken.UnionWith(Enumerable.Range(from, to - from).Select(quarter => (day, quarter)));
            }
        }

        // Dele's other work is on no layer of hers; he lets it be known: Thursdays and Fridays from 8 to 12.
        taken.UnionWith(from day in new[] { 3, 4 } from quarter in Enumerable.Range(32, 16) select (day, quarter));

        var gaps = (await Ask(ines, four, "2026-07-13", "2026-07-17")).GetProperty("gaps").EnumerateArray().ToList();

        for (var day = 0; day < 5; day++)
        {
            for (var from = 32; from + 4 <= 76; from++)
            {
                var fits = Enumerable.Range(from, 4).All(quarter => !taken.Contains((day, quarter)));
                var (start, end) = (At(day, from), At(day, from + 4));
                Assert.Equal(
                    fits,
                    gaps.Exists(gap =>
                        string.CompareOrdinal(gap.Text("start"), start) <= 0
                        && string.CompareOrdinal(end, gap.Text("end")) <= 0
                    )
                );
            }
        }

        static string At(int day, int quarter) => $"2026-07-{13 + day}T{quarter / 4:00}:{quarter % 4 * 15:00}:00";

        static (int Day, int Quarter) Place(string local) =>
            (
                int.Parse(local[8..10], CultureInfo.InvariantCulture) - 13,
                (int.Parse(local[11..13], CultureInfo.InvariantCulture) * 4)
                    + (int.Parse(local[14..16], CultureInfo.InvariantCulture) / 15)
            );
    }

    private static string Hours(JsonElement gap) => $"{gap.Text("start")[11..16]}-{gap.Text("end")[11..16]}";

    private static Task<JsonElement> Ask(Browser browser, Guid[] required, string from, string to, int minutes = 60) =>
        Answer(
            browser,
            new
            {
                required,
                optional = Array.Empty<Guid>(),
                places = Array.Empty<Guid>(),
                from,
                to,
                minutes,
                hours = "kept",
                group = World.StudioTeam,
            }
        );

    [Fact]
    public async Task Offers_are_in_usual_hours_and_not_over_also_for_a_place_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var kiln = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{kiln}", World.Calendar("Night kiln", purpose: "place"))).Is(200);
        await ines.MakeEvent(new CalendarId(kiln), "Firing", World.Hours("2026-03-12T08:00:00", "2026-03-12T23:00:00"));
        var body = new
        {
            people = Array.Empty<Guid>(),
            places = new[] { kiln },
            time = World.Hours("2026-03-12T14:00:00", "2026-03-12T15:00:00"),
            group = World.StudioTeam,
        };

        var free = (await ines.Post("/api/free", body)).Is(200).Body;

        // It is free at 23:00 and at night; her hours are 8 to 19, and Thursday's are taken.
        var offered = free.GetProperty("people")[0];
        Assert.Equal(("2026-03-11T18:00:00", "2026-03-13T08:00:00"), (offered.Text("earlier"), offered.Text("later")));
        Assert.Equal("2026-03-13T08:00:00", free.Text("later"));
        var gaps = await Answer(
            ines,
            new
            {
                required = Array.Empty<Guid>(),
                optional = Array.Empty<Guid>(),
                places = new[] { kiln },
                from = "2026-03-12",
                to = "2026-03-13",
                minutes = 60,
                hours = "kept",
                group = World.StudioTeam,
            }
        );
        Assert.Equal("2026-03-13T08:00:00", gaps.GetProperty("gaps")[0].Text("suggested"));
    }

    private static async Task<JsonElement> Answer(Browser browser, object question) =>
        (await browser.Post("/api/gaps", question)).Is(200).Body;

    private static async Task<JsonElement> Free(
        Browser browser,
        Guid[] people,
        string start,
        string end,
        Guid? except = null
    ) => (
            await browser.Post(
                "/api/free",
                new
                {
                    people,
                    places = Array.Empty<Guid>(),
                    time = World.Hours(start, end),
                    except,
                    group = World.StudioTeam,
                }
            )
        ).Is(200).Body;
}
