using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A calendar is brought back to how it was at a moment: said first, done in one act, and undone as one.</summary>
public class MomentTests
{
    [Fact]
    public async Task What_came_went_moved_and_changed_since_is_said_and_then_brought_back_and_that_is_undone()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (moved, deleted, renamed) = (
            await ines.MakeEvent(calendar, "Moved"),
            await ines.MakeEvent(calendar, "Deleted"),
            await ines.MakeEvent(calendar, "Renamed")
        );
        await ines.MakeEvent(calendar, "Untouched");
        var before = await File(ines, calendar);
        var moment = clock.Now;
        clock.Now += Duration.FromHours(1);
        var later = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00");
        (await ines.Put($"/api/events/{moved}", World.Event(calendar, "Moved", later), 1)).Is(200);
        (await ines.Delete($"/api/events/{deleted}", 1)).Is(200);
        (await ines.Put($"/api/events/{renamed}", World.Event(calendar, "Another name"), 1)).Is(200);
        await ines.MakeEvent(calendar, "Added");
        var after = await File(ines, calendar);

        var preview = (await ines.Get($"/api/calendars/{calendar.Value}/moment?at={Text(moment)}")).Is(200).Body;
        Assert.Equal(
            ["comes: Deleted", "goes: Added", "moves: Moved", "changes: Renamed"],
            preview
                .GetProperty("fates")
                .EnumerateArray()
                .Select(fate =>
                    $"{fate.Text("fate")}: {string.Join(", ", fate.GetProperty("things").EnumerateArray().Select(one => one.Text("title")))}"
                )
        );
        Assert.Equal(after, await File(ines, calendar)); // looked at only
        var set = Guid.NewGuid();
        var back = (await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at = Text(moment) }, set)).Is(200);

        Assert.Equal(4, back.Body.GetProperty("returned").GetInt32());
        Assert.Equal(before, await File(ines, calendar));
        (await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at = Text(moment) })).IsProblem(
            409,
            "as-it-was"
        );
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal(after, await File(ines, calendar));
    }

    [Fact]
    public async Task On_the_wall_each_date_that_would_not_stay_is_said_as_it_is_and_as_it_was()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (moved, deleted) = (await ines.MakeEvent(calendar, "Moved"), await ines.MakeEvent(calendar, "Deleted"));
        await ines.MakeEvent(calendar, "Untouched");
        var moment = clock.Now;
        clock.Now += Duration.FromHours(1);
        var later = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00");
        (await ines.Put($"/api/events/{moved}", World.Event(calendar, "Moved", later), 1)).Is(200);
        (await ines.Delete($"/api/events/{deleted}", 1)).Is(200);
        await ines.MakeEvent(calendar, "Added");
        var path = $"/api/calendars/{calendar.Value}/moment/wall?at={Text(moment)}";

        var wall = (await ines.Get($"{path}&from=2026-03-09&to=2026-03-15")).Is(200).Body;

        Assert.Equal(
            [
                "comes Deleted 2026-03-12 then",
                "goes Added 2026-03-12",
                "moves Moved 2026-03-12 then",
                "moves Moved 2026-03-13",
            ],
            wall.GetProperty("dates")
                .EnumerateArray()
                .Select(one =>
                    $"{one.Text("fate")} {one.GetProperty("brick").Text("title")} {one.GetProperty("brick").GetProperty("time").Text("start")[..10]}{(one.GetProperty("isThen").GetBoolean() ? " then" : "")}"
                )
                .Order(StringComparer.Ordinal)
        );
        Assert.Empty(
            (await ines.Get($"{path}&from=2026-03-16&to=2026-03-22")).Is(200).Body.GetProperty("dates").EnumerateArray()
        );
        (await priya.Get($"{path}&from=2026-03-09&to=2026-03-15")).IsProblem(403, "not-allowed");
        (await ines.Get($"{path}&from=2026-03-15&to=2026-03-09")).IsProblem(422, "unfit");
        (await ines.Get($"{path}&from=2020-03-15&to=2026-03-09")).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task Hundreds_that_came_since_go_at_once()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Stays");
        var moment = clock.Now;
        clock.Now += Duration.FromHours(1);
        await mortar.Fill(calendar, 700);

        var preview = (await ines.Get($"/api/calendars/{calendar.Value}/moment?at={Text(moment)}")).Is(200).Body;
        var goes = Assert.Single(preview.GetProperty("fates").EnumerateArray());
        Assert.Equal((700, 100), (goes.GetProperty("count").GetInt32(), goes.GetProperty("things").GetArrayLength()));
        (await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at = Text(moment) })).Is(200);

        Assert.Equal("Stays", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_is_in_a_calendar_that_is_not_ones_own_to_take_it_from_stays_there()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, hers) = (await ines.MakeCalendar(), Guid.CreateVersion7());
        (await priya.Put($"/api/calendars/{hers}", World.Calendar("Hers"))).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (gone, own) = (await ines.MakeEvent(calendar, "Taken away"), await ines.MakeEvent(calendar, "Own"));
        var moment = clock.Now;
        clock.Now += Duration.FromHours(1);
        (await priya.Put($"/api/events/{gone}", World.Event(new CalendarId(hers), "Taken away"), 1)).Is(200);
        (await ines.Delete($"/api/events/{own}", 1)).Is(200);

        var preview = (await ines.Get($"/api/calendars/{calendar.Value}/moment?at={Text(moment)}")).Is(200);
        Assert.Equal(1, preview.Body.GetProperty("stays").GetInt32());
        Assert.DoesNotContain("Taken away", preview.Text, StringComparison.Ordinal);
        (await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at = Text(moment) })).Is(200);

        Assert.Equal("Own", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        Assert.Equal("Taken away", Assert.Single(await priya.Bricks(new CalendarId(hers))).Text("title"));
    }

    [Fact]
    public async Task A_moment_that_is_not_over_or_was_before_the_calendar_is_refused_with_the_reason()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}/moment?at=";

        Assert.Contains(
            "is over",
            Refused(await ines.Get(path + Text(clock.Now + Duration.FromDays(1)))),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "not made yet",
            Refused(await ines.Get(path + "2020-01-01T00:00:00Z")),
            StringComparison.Ordinal
        );
        Assert.Contains("not a moment", Refused(await ines.Get(path + "yesterday")), StringComparison.Ordinal);

        static string Refused(Answer answer) => answer.IsProblem(422, "unfit").Detail;
    }

    /// <summary>Drawn acts: brought back to each moment between them, the calendar is as it was then, and undone as it is.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Drawn_acts_are_brought_back_to_each_moment_between_them(int seed)
    {
        var (clock, random) = (new SetClock(), new Random(seed));
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var versions = new Dictionary<Guid, (int Version, CalendarId In)>();
        var moments = new List<(Instant At, string File)>();
        for (var step = 0; step < 14; step++)
        {
            await Step();
            moments.Add((clock.Now, await File(ines, calendar)));
            clock.Now += Duration.FromMinutes(1);
        }

        var now = moments[^1].File;
        foreach (var (at, then) in moments)
        {
            var set = Guid.NewGuid();
            var answer = await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at = Text(at) }, set);
            Assert.Equal(then, await File(ines, calendar));
            if (answer.Status == 200)
            {
                (await ines.Post($"/api/changes/{set}/undo")).Is(200);
            }
            else
            {
                answer.IsProblem(409, "as-it-was");
            }

            Assert.Equal(now, await File(ines, calendar));
            clock.Now += Duration.FromMinutes(1);
        }

        async Task Step()
        {
            var which = versions.Count == 0 ? 0 : random.Next(5);
            if (which == 0)
            {
                versions[await ines.MakeEvent(calendar, $"Tile {versions.Count}")] = (1, calendar);
                return;
            }

            var (id, (version, home)) = versions.ElementAt(random.Next(versions.Count));
            switch (which)
            {
                case 1:
                    (await ines.Delete($"/api/events/{id}", version)).Is(200);
                    versions.Remove(id);
                    break;
                case 2: // there and back
                    var to = home == calendar ? other : calendar;
                    (await ines.Put($"/api/events/{id}", World.Event(to, "Elsewhere"), version)).Is(200);
                    versions[id] = (version + 1, to);
                    break;
                default:
                    var day = random.Next(10, 20);
                    var time = World.Hours($"2026-03-{day}T09:00:00", $"2026-03-{day}T10:00:00");
                    (await ines.Put($"/api/events/{id}", World.Event(home, $"Day {day}", time), version)).Is(200);
                    versions[id] = (version + 1, home);
                    break;
            }
        }
    }

    private static string Text(Instant at) => NodaTime.Text.InstantPattern.ExtendedIso.Format(at);

    /// <summary>The calendar as a file, but for how often each was changed and when it was written.</summary>
    private static async Task<string> File(Browser ines, CalendarId calendar)
    {
        var file = (await ines.Get($"/api/calendars/{calendar.Value}/export")).Is(200).Text;
        return string.Join(
            '\n',
            file.Split("BEGIN:VEVENT")
                .Select(part =>
                    string.Join(
                        '\n',
                        part.Split("\r\n")
                            .Where(line =>
                                !line.StartsWith("SEQUENCE", StringComparison.Ordinal)
                                && !line.StartsWith("DTSTAMP", StringComparison.Ordinal)
                                && !line.StartsWith("LAST-MODIFIED", StringComparison.Ordinal)
                                && !line.StartsWith("END:VCALENDAR", StringComparison.Ordinal)
                            )
                    )
                )
                .Order(StringComparer.Ordinal)
        );
    }
}
