using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class EventTests
{
    [Fact]
    public async Task A_creation_sent_twice_is_done_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();

        var first = (await ines.Put($"/api/events/{id}", World.Event(calendar))).Is(200);
        var again = (await ines.Put($"/api/events/{id}", World.Event(calendar))).Is(200);

        Assert.Equal(first.Text, again.Text);
        Assert.Single(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task Of_two_who_change_the_same_the_second_is_shown_what_is_there_and_overwrites_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var id = await ines.MakeEvent(calendar);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Ines was first"), 1)).Is(200);

        var stale = await priya.Put($"/api/events/{id}", World.Event(calendar, "Priya was second"), 1);

        stale.IsProblem(412, "stale");
        Assert.Equal("Ines was first", stale.Body.GetProperty("current").Text("title"));
        Assert.Equal(2, stale.Body.GetProperty("current").GetProperty("version").GetInt32());
        Assert.Equal("Ines was first", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        (await priya.Delete($"/api/events/{id}", 1)).IsProblem(412, "stale");
    }

    [Fact]
    public async Task A_change_without_a_version_is_refused()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Two"), 1)).Is(200);

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Three"))).IsProblem(428, "version-needed");
        (await ines.Delete($"/api/events/{id}")).IsProblem(428, "version-needed");
    }

    [Fact]
    public async Task Texts_are_kept_as_text_without_control_characters()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        await ines.MakeEvent(calendar, "<script>alert(1)</script>\u0000\u0007\u202E\nend");

        Assert.Equal("<script>alert(1)</script> end", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_cannot_be_is_named_by_field_and_nothing_is_written()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var bad = World.Event(
            calendar,
            new string('t', 10_000),
            World.Hours("2026-03-12T14:00:00", "2026-03-12T13:00:00")
        );

        var answer = await ines.Put($"/api/events/{Guid.NewGuid()}", bad);

        answer.IsProblem(422, "unfit");
        Assert.Equal(
            ["title", "time.end"],
            answer.Body.GetProperty("fields").EnumerateObject().Select(field => field.Name)
        );
        Assert.Empty(await ines.Bricks(calendar));
    }

    [Theory]
    [InlineData("{")]
    [InlineData("null")]
    [InlineData("""{"title":"no calendar"}""")]
    [InlineData(
        """{"calendarId":"x","title":"","place":"","notes":"","showAs":"busy","time":{"form":"days","first":"2026-03-12","last":"2026-03-12"}}"""
    )]
    [InlineData(
        """{"calendarId":"3cc5c838-17b3-22ec-2eb4-e1edc08fb79f","title":"","showAs":"sometimes","time":{"form":"days","first":"2026-03-12","last":"2026-03-12"}}"""
    )]
    [InlineData(
        """{"calendarId":"3cc5c838-17b3-22ec-2eb4-e1edc08fb79f","title":"","showAs":"busy","time":{"form":"days","first":"2026-02-30","last":"2026-03-12"}}"""
    )]
    public async Task A_body_that_cannot_be_read_is_a_problem_and_not_a_crash(string body)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        (await ines.Put($"/api/events/{Guid.NewGuid()}", body)).IsProblem(400, "unreadable");
    }

    [Fact]
    public async Task An_event_moves_to_another_calendar_one_may_add_to_and_to_no_other()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(from, DemoPeople.Priya, Role.Edit);
        var id = await ines.MakeEvent(from);

        (await priya.Put($"/api/events/{id}", World.Event(to), 1)).IsProblem(404, "not-there");
        (await ines.Put($"/api/events/{id}", World.Event(to), 1)).Is(200);

        Assert.Empty(await ines.Bricks(from));
        Assert.Single(await ines.Bricks(to));
        Assert.Empty(await priya.Bricks(to));
    }

    [Fact]
    public async Task Each_sees_an_event_on_their_own_clock_and_it_stays_on_its_own()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Mei, Role.Edit);
        var id = await ines.MakeEvent(calendar);

        var seen = Assert.Single(await mei.Bricks(calendar));
        (
            await mei.Put(
                $"/api/events/{id}",
                World.Event(
                    calendar,
                    time: World.Hours("2026-03-12T12:00:00", "2026-03-12T13:00:00", "America/Halifax")
                ),
                1
            )
        ).Is(200);

        Assert.Equal("2026-03-12T11:00:00", seen.GetProperty("time").Text("start"));
        Assert.Equal("Europe/London", seen.Text("zone"));
        Assert.Equal("2026-03-12T14:00:00", seen.GetProperty("agreed").Text("start"));
        var moved = Assert.Single(await ines.Bricks(calendar)).GetProperty("time");
        Assert.Equal(("2026-03-12T15:00:00", "Europe/London"), (moved.Text("start"), moved.Text("zone")));
    }

    [Fact]
    public async Task One_date_of_a_series_is_moved_or_left_out_and_the_others_stay()
    {
        await using var mortar = await TestMortar.Start();
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = new Core.Words.CalendarId(DemoPeople.Stable("calendar Thursday throwing"));
        var brick = Assert.Single(await tomasz.Bricks(calendar));
        var (id, only) = (brick.GetProperty("eventId").GetGuid(), brick.Text("only"));

        (
            await tomasz.Put(
                $"/api/events/{id}?only={only}",
                World.Event(calendar, "On a Friday", World.Hours("2026-03-13T18:00:00", "2026-03-13T20:00:00")),
                1
            )
        ).Is(200);
        (await tomasz.Delete($"/api/events/{id}?only=2026-03-19T19:00:00", 2)).Is(200);

        var all = await tomasz.Bricks(calendar, "2026-03-02", "2026-03-29");
        Assert.Equal(
            ["2026-03-05T19:00:00", "2026-03-13T18:00:00"],
            all.Select(one => one.GetProperty("time").Text("start")).Order().Take(2)
        );
        Assert.Equal("On a Friday", all.Single(one => one.Text("only") == only).Text("title"));
        Assert.DoesNotContain(all, one => one.Text("only") == "2026-03-19T19:00:00");
    }

    [Fact]
    public async Task A_whole_series_is_moved_and_what_was_left_out_stays_left_out()
    {
        await using var mortar = await TestMortar.Start();
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = new Core.Words.CalendarId(DemoPeople.Stable("calendar Thursday throwing"));
        var brick = Assert.Single(await tomasz.Bricks(calendar));
        var id = brick.GetProperty("eventId").GetGuid();
        var before = (await tomasz.Bricks(calendar, "2026-02-01", "2026-06-30")).Count;

        (
            await tomasz.Put(
                $"/api/events/{id}",
                World.Event(calendar, "Friday throwing", World.Hours("2026-02-20T18:00:00", "2026-02-20T20:00:00")),
                1
            )
        ).Is(200);

        var all = await tomasz.Bricks(calendar, "2026-02-01", "2026-06-30");
        Assert.Equal(before, all.Count);
        Assert.All(
            all,
            one => Assert.EndsWith("T18:00:00", one.GetProperty("time").Text("start"), StringComparison.Ordinal)
        );
        Assert.Contains(all, one => one.GetProperty("time").Text("start") == "2026-03-13T18:00:00");
    }

    [Fact]
    public async Task A_date_on_which_the_series_does_not_fall_is_not_there_to_be_changed()
    {
        await using var mortar = await TestMortar.Start();
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = new Core.Words.CalendarId(DemoPeople.Stable("calendar Thursday throwing"));
        var id = Assert.Single(await tomasz.Bricks(calendar)).GetProperty("eventId").GetGuid();

        (await tomasz.Put($"/api/events/{id}?only=2026-03-13T19:00:00", World.Event(calendar), 1)).IsProblem(
            404,
            "not-there"
        );
        (await tomasz.Delete($"/api/events/{id}?only=2026-03-13T19:00:00", 1)).IsProblem(404, "not-there");
    }

    [Theory]
    [InlineData("from=2026-03-15&to=2026-03-09", 422)]
    [InlineData("from=2026-01-01&to=2028-03-09", 422)]
    [InlineData("from=soon&to=2026-03-09", 400)]
    [InlineData("from=2026-03-09", 400)]
    public async Task A_wall_that_cannot_be_asked_for_is_refused(string query, int status)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        (await ines.Get($"/api/wall?{query}")).Is(status);
    }

    [Fact]
    public async Task An_event_is_handed_to_somebody_who_can_then_change_it_and_to_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);
        var to = new { personId = DemoPeople.Priya.Id.Value };
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var refused = (await ines.Put($"/api/events/{id}/organizer", to, 1)).IsProblem(422, "unfit");
        Assert.Contains("needs the step Add", refused.Detail, StringComparison.Ordinal);

        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        (await priya.Put($"/api/events/{id}", World.Event(calendar, "Hers"), 1)).IsProblem(403, "not-allowed");
        (await ines.Put($"/api/events/{id}/organizer", to)).Is(428);
        var handed = (await ines.Put($"/api/events/{id}/organizer", to, 1)).Is(200).Body;

        Assert.Equal(DemoPeople.Priya.Id.Value, handed.GetProperty("organizer").GetGuid());
        (await priya.Put($"/api/events/{id}", World.Event(calendar, "Hers"), 2)).Is(200);
        Assert.Contains(
            "handed it to another organizer",
            (await ines.Get($"/api/events/{id}/history")).Is(200).Text,
            StringComparison.Ordinal
        );
    }
}
