using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Places that take one booking at a time.</summary>
public class BookingTests
{
    private static async Task<CalendarId> MakeKiln(Browser ines)
    {
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Test kiln",
                    hue = "iron",
                    mark = "cone",
                    zone = "Europe/London",
                    purpose = "place",
                    groupDefault = "add",
                    oneAtATime = true,
                }
            )
        ).Is(200);
        return new CalendarId(id);
    }

    [Fact]
    public async Task Of_fifty_who_book_the_same_hour_at_once_one_gets_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var kiln = await MakeKiln(ines);
        var browsers = await Task.WhenAll(
            new[] { DemoPeople.Ines, DemoPeople.Priya, DemoPeople.Dele, DemoPeople.Tomasz }.Select(mortar.As)
        );

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(one =>
                    browsers[one % browsers.Length]
                        .Put($"/api/events/{Guid.CreateVersion7()}", World.Event(kiln, $"Firing {one}"))
                )
        );

        Assert.Equal(1, answers.Count(answer => answer.Status == 200));
        Assert.All(answers.Where(answer => answer.Status != 200), answer => answer.IsProblem(409, "taken"));
        Assert.Single(await ines.Bricks(kiln));
        Array.ForEach(browsers, one => one.Dispose());
    }

    [Fact]
    public async Task What_takes_it_is_said_as_far_as_one_may_know()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var kiln = await MakeKiln(ines);
        var open = await ines.MakeEvent(kiln, "Bisque for the fair");

        var known = (await priya.Put($"/api/events/{Guid.NewGuid()}", World.Event(kiln, "Raku"))).IsProblem(
            409,
            "taken"
        );
        Assert.Contains("“Bisque for the fair”: Thu 12 March, 14:00 to 15:30", known.Detail, StringComparison.Ordinal);

        var hidden = World.Event(kiln, "Bisque for the fair");
        (
            await ines.Put(
                $"/api/events/{open}",
                System.Text.Json.JsonSerializer.Serialize(hidden)[..^1] + ",\"private\":true}",
                1
            )
        ).Is(200);
        var unknown = (await priya.Put($"/api/events/{Guid.NewGuid()}", World.Event(kiln, "Raku"))).IsProblem(
            409,
            "taken"
        );
        Assert.DoesNotContain("Bisque", unknown.Detail, StringComparison.Ordinal);
        Assert.Contains("14:00 to 15:30", unknown.Detail, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Moving_importing_and_undoing_are_held_to_it_too()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (kiln, other) = (await MakeKiln(ines), await ines.MakeCalendar());
        var (first, deletion) = (await ines.MakeEvent(kiln, "First"), Guid.NewGuid());
        var elsewhere = await ines.MakeEvent(other, "Elsewhere");

        (await ines.Put($"/api/events/{elsewhere}", World.Event(kiln, "Elsewhere"), 1)).IsProblem(409, "taken");
        Assert.Single(await ines.Bricks(other));

        // Touching is not overlapping; into the first one's time it may not be moved.
        var after = World.Hours("2026-03-12T15:30:00", "2026-03-12T17:00:00");
        var next = await ines.MakeEvent(kiln, "After it", after);
        var into = World.Hours("2026-03-12T15:00:00", "2026-03-12T16:00:00");
        (await ines.Put($"/api/events/{next}", World.Event(kiln, "After it", into), 1)).IsProblem(409, "taken");

        (await ines.Delete($"/api/events/{first}", 1, deletion)).Is(200);
        (await ines.Put($"/api/events/{next}", World.Event(kiln, "After it", into), 1)).Is(200);
        (await ines.Post($"/api/changes/{deletion}/undo")).IsProblem(409, "taken");

        const string File = """
            BEGIN:VCALENDAR
            VERSION:2.0
            BEGIN:VEVENT
            UID:kiln-1
            DTSTAMP:20260301T000000Z
            DTSTART:20260312T153000Z
            DTEND:20260312T163000Z
            SUMMARY:From a file
            END:VEVENT
            END:VCALENDAR
            """;
        var import = Guid.NewGuid();
        (await ines.Put($"/api/calendars/{kiln.Value}/imports/{import}", System.Text.Encoding.UTF8.GetBytes(File))).Is(
            200
        );
        (await ines.Post($"/api/calendars/{kiln.Value}/imports/{import}/write", new { known = "keep" })).Is(202);
        var ended = await World.Eventually(async () =>
        {
            var answer = await ines.Get($"/api/calendars/{kiln.Value}/imports/{import}");
            return answer.Text.Contains("taken", StringComparison.OrdinalIgnoreCase) ? answer : null;
        });
        Assert.Equal(200, ended.Status);
        Assert.Equal("After it", Assert.Single(await ines.Bricks(kiln)).Text("title"));
    }

    [Fact]
    public async Task A_series_is_looked_at_on_each_of_its_dates()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var kiln = await MakeKiln(ines);
        await ines.MakeEvent(kiln, "In May", World.Hours("2026-05-07T14:00:00", "2026-05-07T15:00:00"));
        var weekly =
            System.Text.Json.JsonSerializer.Serialize(World.Event(kiln, "Each Thursday"))[..^1]
            + ",\"rule\":\"FREQ=WEEKLY\"}";

        var taken = (await ines.Put($"/api/events/{Guid.NewGuid()}", weekly)).IsProblem(409, "taken");

        Assert.Contains("“In May”: Thu 7 May", taken.Detail, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_over_does_not_keep_a_series_from_being_changed()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var kiln = await MakeKiln(ines);
        await ines.MakeEvent(kiln, "In January", World.Hours("2026-01-08T14:00:00", "2026-01-08T15:00:00"));

        var since = World.Hours("2026-01-01T14:30:00", "2026-01-01T15:30:00");
        var weekly =
            System.Text.Json.JsonSerializer.Serialize(World.Event(kiln, "Each Thursday", since))[..^1]
            + ",\"rule\":\"FREQ=WEEKLY\"}";

        (await ines.Put($"/api/events/{Guid.NewGuid()}", weekly)).Is(200);
    }

    [Fact]
    public async Task A_place_that_does_not_mind_takes_several()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        await ines.MakeEvent(calendar);

        Assert.Equal(2, (await ines.Bricks(calendar)).Count);
    }
}
