using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Keeping;
using Mortar.Server.Features.Demo;
using Mortar.Server.Features.WebCalendars;
using Mortar.Server.StandIns;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features.WebCalendars;

/// <summary>A calendar of the web is looked at, added, read by whom it is for, and keeps itself as it is there.</summary>
public class WebCalendarTests
{
    /// <summary>Addresses of the test's own: the demo has the same calendars by other ones.</summary>
    private const string Own = "?trial";

    private const string League = $"http://{WebHost.Name}/league.ics{Own}";

    [Fact]
    public async Task It_is_looked_at_added_and_read_and_nobody_changes_what_is_in_it()
    {
        await using var mortar = await TestMortar.Start();
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        host.Fixtures[2] = new LocalDate(2026, 3, 15);

        var look = (
            await ines.Post("/api/web-calendars/look", new { address = League.Replace("http", "webcal") })
        ).IsProblem(422, "unfit");
        Assert.Contains(WebHost.Name, look.Text, StringComparison.Ordinal); // it speaks no https
        var seen = (await ines.Post("/api/web-calendars/look", new { address = League })).Is(200).Body;
        Assert.Equal(
            (WebHost.Name, "Harbour league", 2, "2026-03-14", "2026-03-15", 15),
            (
                seen.Text("host"),
                seen.Text("name"),
                seen.GetProperty("events").GetInt32(),
                seen.Text("first"),
                seen.Text("last"),
                seen.GetProperty("everyMinutes").GetInt32()
            )
        );
        var calendar = await Add(ines, League, groupDefault: "view");

        var brick = (await priya.Bricks(calendar))[0];
        Assert.Equal("Match 1", brick.Text("title"));
        Assert.False(brick.GetProperty("mayChange").GetBoolean());
        var layer = await Layer(ines, calendar);
        Assert.Equal("coordinate", layer.Text("role"));
        Assert.False(layer.GetProperty("may").GetProperty("add").GetBoolean());
        Assert.True(layer.GetProperty("may").GetProperty("coordinate").GetBoolean());
        Assert.NotEqual(JsonValueKind.Null, layer.GetProperty("web").GetProperty("asOf").ValueKind);
        Assert.Equal(JsonValueKind.Null, (await Layer(ines, await ines.MakeCalendar())).GetProperty("web").ValueKind);

        // Nobody changes what is in it, whatever their step.
        var id = brick.GetProperty("eventId").GetGuid();
        var own = await ines.MakeCalendar();
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Other"), 1)).IsProblem(409, "from-the-web");
        (await ines.Put($"/api/events/{id}", World.Event(own, "Mine"), 1)).IsProblem(409, "from-the-web");
        (await ines.Delete($"/api/events/{id}", 1)).IsProblem(409, "from-the-web");
        (
            await ines.Put($"/api/events/{id}/editors", new { personIds = new[] { DemoPeople.Priya.Id.Value } }, 1)
        ).IsProblem(409, "from-the-web");
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", World.Event(calendar, "New"))).IsProblem(
            409,
            "from-the-web"
        );
        var moved = await ines.MakeEvent(own);
        (await ines.Put($"/api/events/{moved}", World.Event(calendar, "Moved"), 1)).IsProblem(409, "from-the-web");
        (
            await ines.Put($"/api/calendars/{calendar.Value}/imports/{Guid.NewGuid()}", Files.Many("Celadon", 1))
        ).IsProblem(409, "from-the-web");
        Assert.Equal(2, (await priya.Bricks(calendar)).Count);

        // Its settings are whoever's who made it, and stay those of a calendar of the web.
        var settings = World.Calendar("Matches", groupDefault: "outline", purpose: "away");
        (await ines.Put($"/api/calendars/{calendar.Value}", settings, 1)).Is(200);
        layer = await Layer(priya, calendar);
        Assert.Equal(("Matches", "events", "outline"), (layer.Text("name"), layer.Text("purpose"), layer.Text("role")));
        Assert.NotEqual(JsonValueKind.Null, layer.GetProperty("web").ValueKind);
        (await astrid.Get($"/api/calendars/{calendar.Value}/web")).IsProblem(404, "not-there");
        Assert.Contains(
            WebCalendarRules.Name,
            (await ines.Get($"/api/calendars/{calendar.Value}/history")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_is_the_same_is_not_written_what_is_gone_goes_and_what_comes_again_is_the_same_event()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        foreach (var match in Enumerable.Range(1, 5))
        {
            host.Fixtures[match] = new LocalDate(2026, 3, 9).PlusDays(match);
        }

        var calendar = await Add(ines, League);
        var before = await Events(mortar, calendar);
        Assert.Equal(5, before.Count);

        // One moves, one is called off the list.
        host.Fixtures[2] = new LocalDate(2026, 3, 10);
        host.Fixtures.Remove(5);
        await Later(mortar, clock, Duration.FromMinutes(16));
        var after = await Events(mortar, calendar);
        Assert.Equal([1, 2, 1, 1], after.Select(one => one.Version));
        Assert.Equal(before.Take(4).Select(one => one.Id), after.Select(one => one.Id));
        Assert.Equal(new LocalDate(2026, 3, 10), after[1].Start.Date);
        Assert.DoesNotContain(await ines.InBin(), one => one.GetProperty("place").Text("kind") == "event");

        // It comes again, and is who it was.
        host.Fixtures[5] = new LocalDate(2026, 3, 14);
        await Later(mortar, clock, Duration.FromMinutes(16));
        Assert.Equal(before.Select(one => one.Id), (await Events(mortar, calendar)).Select(one => one.Id));

        // Where nothing changed nothing is written, and the host sends nothing.
        var written = await Changes(mortar, calendar);
        await Later(mortar, clock, Duration.FromMinutes(16));
        Assert.Equal(written, await Changes(mortar, calendar));
        // All that a fetch changed is one act of the web, which nobody of ours takes back.
        using var later = await mortar.As(DemoPeople.Ines);
        var acts = (await later.Get($"/api/calendars/{calendar.Value}/history"))
            .Is(200)
            .Body.GetProperty("acts")
            .EnumerateArray()
            .Where(act => act.Text("actorName") == WebCalendarRules.Name)
            .ToList();
        Assert.Equal([1, 2, 5], acts.Select(act => act.GetProperty("count").GetInt32()));
        foreach (var act in acts)
        {
            var undo = $"/api/changes/{act.GetProperty("act").GetGuid()}/undo";
            (await later.Post($"{undo}?fits=true")).Is(403);
            Assert.Contains((await later.Post(undo)).Status, new[] { 403, 409 }); // or changed since
        }

        Assert.Equal(written, await Changes(mortar, calendar));
    }

    [Fact]
    public async Task Who_sees_times_only_is_not_told_who_gives_it_out_nor_what_came_instead()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await Add(ines, League);
        await mortar.Give(calendar, DemoPeople.Astrid, Role.Times);
        host.BadDay = "garbage";
        await Later(mortar, clock, Duration.FromMinutes(16));

        using var astrid = await mortar.As(DemoPeople.Astrid);
        (await astrid.Get($"/api/calendars/{calendar.Value}/web")).IsProblem(403, "not-allowed");
        var layer = (await Layer(astrid, calendar)).GetRawText();
        Assert.DoesNotContain(WebHost.Name, layer, StringComparison.Ordinal);
        Assert.DoesNotContain("DOCTYPE", layer, StringComparison.Ordinal);
    }

    [Fact]
    public async Task After_a_clock_that_was_ahead_it_is_fetched_at_once()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        clock.Now += Duration.FromDays(10);
        using var ahead = await mortar.As(DemoPeople.Ines);
        await Add(ahead, League);
        var asked = host.AskedBy(Own);

        await Later(mortar, clock, -Duration.FromDays(10));

        Assert.Equal(asked + 1, host.AskedBy(Own));
    }

    [Fact]
    public async Task Nobody_is_given_a_step_to_change_it_as_a_member()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var refused = (await ines.Put($"/api/calendars/{Guid.CreateVersion7()}/web", Wish(League, "edit"))).IsProblem(
            422,
            "unfit"
        );

        Assert.Contains("up to View", refused.Text, StringComparison.Ordinal);

        // Nor by themselves, in a group, by a link or by an invitation.
        var calendar = await Add(ines, League, groupDefault: "view");
        var access = $"/api/calendars/{calendar.Value}";
        var priya = DemoPeople.Priya.Id.Value;
        foreach (
            var given in new[]
            {
                await ines.Put($"{access}/access/{priya}", new { role = "edit" }),
                await ines.Put($"{access}/group-access/{World.StudioTeam}", new { role = "add" }),
                await ines.Put($"{access}/links/{Guid.CreateVersion7()}", new { role = "add" }),
                await ines.Put(
                    $"{access}/invitations/{Guid.CreateVersion7()}",
                    new { address = "new@example.org", role = "edit" }
                ),
            }
        )
        {
            Assert.Contains("up to View", given.IsProblem(422, "unfit").Text, StringComparison.Ordinal);
        }

        (await ines.Put($"{access}/access/{priya}", new { role = "coordinate" })).Is(204);
    }

    [Fact]
    public async Task Two_with_one_address_fetch_it_once_and_each_has_it_in_their_own_way()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        var calendars = new[] { await Add(ines, League), await Add(priya, League) };
        var asked = host.AskedBy(Own);

        host.Fixtures[1] = new LocalDate(2026, 3, 15);
        await Later(mortar, clock, Duration.FromMinutes(16));

        Assert.Equal(asked + 1, host.AskedBy(Own));
        foreach (var calendar in calendars)
        {
            Assert.Equal(new LocalDate(2026, 3, 15), Assert.Single(await Events(mortar, calendar)).Start.Date);
        }

        // For themselves alone, until they share it.
        using var later = await mortar.As(DemoPeople.Priya);
        Assert.False(await later.HasLayer(calendars[0]));
        Assert.True(await later.HasLayer(calendars[1]));
    }

    [Fact]
    public async Task Where_it_fails_what_was_there_stays_and_it_is_told_since_when_and_why()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        var calendar = await Add(ines, League, groupDefault: "view");
        var good = clock.Now;

        host.BadDay = "garbage";
        await Later(mortar, clock, Duration.FromMinutes(16));
        var since = clock.Now;
        var asked = host.AskedBy(Own);
        await Later(mortar, clock, Duration.FromMinutes(14)); // it waits
        Assert.Equal(asked, host.AskedBy(Own));
        host.BadDay = "500";
        await Later(mortar, clock, Duration.FromMinutes(2));
        Assert.Equal(asked + 1, host.AskedBy(Own));
        await Later(mortar, clock, Duration.FromMinutes(29)); // and longer
        Assert.Equal(asked + 1, host.AskedBy(Own));

        using var priya = await mortar.As(DemoPeople.Priya);
        var state = (await priya.Get($"/api/calendars/{calendar.Value}/web")).Is(200).Body;
        Assert.Equal(
            (good, since, $"“{WebHost.Name}” is in trouble itself just now."),
            (At(state, "asOf"), At(state, "failingSince"), state.Text("problem"))
        );
        Assert.Equal(since, At((await Layer(priya, calendar)).GetProperty("web"), "failingSince"));
        Assert.Equal(JsonValueKind.Null, state.GetProperty("url").ValueKind); // it may hold a secret of whoever brought it
        Assert.Single(await priya.Bricks(calendar));

        host.BadDay = null;
        (await priya.Post($"/api/calendars/{calendar.Value}/web/fetch")).Is(200);
        (await priya.Post($"/api/calendars/{calendar.Value}/web/fetch")).IsProblem(429, "too-often");
        using var later = await mortar.As(DemoPeople.Ines);
        state = (await later.Get($"/api/calendars/{calendar.Value}/web")).Is(200).Body;
        Assert.Equal(
            (clock.Now, JsonValueKind.Null, JsonValueKind.Null, League),
            (
                At(state, "asOf"),
                state.GetProperty("failingSince").ValueKind,
                state.GetProperty("problem").ValueKind,
                state.Text("url")
            )
        );
    }

    [Fact]
    public async Task Who_may_not_make_or_move_one_has_nothing_fetched_for_it()
    {
        await using var mortar = await TestMortar.Start();
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var anybody = mortar.Anonymous();
        (await anybody.Post("/api/web-calendars/look", new { address = League })).Is(401);
        (await astrid.Put($"/api/calendars/{Guid.CreateVersion7()}/web", Wish(League))).IsProblem(404, "not-there");
        Assert.Equal(0, host.AskedBy(Own));
        Assert.Equal(OfDemo, await mortar.Store(db => db.WebSources.CountAsync()));
        var calendar = await Add(ines, League, groupDefault: "view");

        (await priya.Put($"/api/calendars/{calendar.Value}/web/address", new { address = Fairs })).IsProblem(
            403,
            "not-allowed"
        );
        (await astrid.Put($"/api/calendars/{calendar.Value}/web/address", new { address = Fairs })).IsProblem(
            404,
            "not-there"
        );
        (await astrid.Post($"/api/calendars/{calendar.Value}/web/fetch")).IsProblem(404, "not-there");
        (
            await ines.Put($"/api/calendars/{calendar.Value}/web/address", new { address = "http://10.0.0.1/" })
        ).IsProblem(422, "unfit");
        Assert.All(
            await Events(mortar, calendar),
            one => Assert.StartsWith("Match", one.Title, StringComparison.Ordinal)
        );
        (await ines.Put($"/api/calendars/{calendar.Value}/web/address", new { address = Fairs })).Is(200);
        Assert.Equal(3, (await Events(mortar, calendar)).Count);
        // A calendar of ours does not become one of the web.
        var own = await ines.MakeCalendar();
        (await ines.Put($"/api/calendars/{own.Value}/web/address", new { address = Fairs })).IsProblem(
            404,
            "not-there"
        );
        (await ines.Post($"/api/calendars/{own.Value}/web/fetch")).IsProblem(404, "not-there");
        (await ines.Get($"/api/calendars/{own.Value}/web")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task One_in_the_bin_is_not_fetched_and_comes_back_with_what_came_meanwhile()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        var calendar = await Add(ines, League);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Harbour league", 1)).Is(204);
        var asked = host.AskedBy(Own);

        host.Fixtures[1] = new LocalDate(2026, 3, 15);
        await Later(mortar, clock, Duration.FromDays(2));
        Assert.Equal(asked, host.AskedBy(Own));
        using var later = await mortar.As(DemoPeople.Ines);
        (await later.BringBack(calendar)).Is(200);
        await Later(mortar, clock, Duration.Zero);

        Assert.Equal(asked + 1, host.AskedBy(Own));
        Assert.Equal(new LocalDate(2026, 3, 15), Assert.Single(await Events(mortar, calendar)).Start.Date);
    }

    [Fact]
    public async Task The_stand_ins_league_moves_by_itself_and_here()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await Add(ines, League);
        var before = await Matches();
        Assert.Equal(8, before.Count);

        await Later(mortar, clock, Duration.FromMinutes(20));

        // The one that was brought forward is back on its Sunday, and another one is on a Saturday.
        Assert.Equal(2, before.Zip(await Matches()).Count(both => both.First != both.Second));

        async Task<List<LocalDate>> Matches() =>
            [
                .. (await Events(mortar, calendar))
                    .OrderBy(one => one.Title, StringComparer.Ordinal)
                    .Select(one => one.Start.Date),
            ];
    }

    [Fact]
    public async Task The_demos_holidays_are_days_off_and_lower_nobodys_cover()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        const string Founders = "2026-03-20"; // a Friday; five are needed on Fridays, and one of six is away
        await ines.MakeEvent(
            new CalendarId(DemoPeople.Stable("calendar Away")),
            "Away",
            new
            {
                form = "days",
                first = Founders,
                last = Founders,
            }
        );

        Assert.Equal(0, await TooFew(Founders));
        Assert.Contains(
            await ines.Bricks(new CalendarId(DemoPeople.Stable("calendar Holidays")), Founders, Founders),
            brick => brick.Text("title") == "Founders’ day"
        );

        // Without them she would be the one too few; the Friday before is as it was.
        var before = await TooFew("2026-03-13");
        var team = (await ines.Get("/api/groups"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == World.StudioTeam);
        var settings = JsonNode.Parse(team.GetRawText())!.AsObject();
        settings["daysOff"] = null;
        (await ines.Put($"/api/groups/{World.StudioTeam}", settings, team.GetProperty("version").GetInt32())).Is(200);
        Assert.Equal(1, await TooFew(Founders));
        Assert.Equal(before, await TooFew("2026-03-13"));

        async Task<int> TooFew(string day) =>
            (await ines.Get($"/api/groups/{World.StudioTeam}/cover?from={day}&to={day}"))
                .Is(200)
                .Body.GetProperty("days")[0]
                .GetProperty("tooFew")
                .GetInt32();
    }

    [Fact]
    public async Task Holidays_to_be_looked_at_take_nobodys_time()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var cover = $"/api/groups/{World.StudioTeam}/cover?from=2026-03-16&to=2026-03-22";
        var before = (await ines.Get(cover)).Is(200).Text;

        var calendar = await Add(ines, $"http://{WebHost.Name}/holidays.ics{Own}", groupDefault: "view");

        Assert.Contains(
            await ines.Bricks(calendar, "2026-03-16", "2026-03-22"),
            brick => brick.Text("title") == "Founders’ day"
        );
        Assert.Equal(before, (await ines.Get(cover)).Is(200).Text);
    }

    [Fact]
    public async Task What_nobody_has_any_more_is_kept_for_an_hour()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await Add(ines, Fairs);
        (await ines.Put($"/api/calendars/{calendar.Value}/web/address", new { address = League })).Is(200);

        foreach (var (later, left) in new[] { (Duration.FromMinutes(50), 2), (Duration.FromMinutes(20), 1) })
        {
            clock.Now += later;
            await using var scope = mortar.Services.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<Sweep>().Run(Duration.FromDays(400), CancellationToken.None);
            Assert.Equal(OfDemo + left, await mortar.Store(db => db.WebSources.CountAsync()));
            Assert.Equal(OfDemo + left, await mortar.Store(db => db.WebFiles.CountAsync()));
        }
    }

    [Fact]
    public async Task A_term_is_made_like_another_with_its_calendars_of_the_web_by_whom_their_addresses_are_known()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Add(ines, Fairs, groupDefault: "view");

        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members/{DemoPeople.Priya.Id.Value}/coordinates",
                new { coordinates = true }
            )
        ).Is(204);

        // Priya reads it and does not know its address: hers is made without.
        foreach (var maker in new[] { ines, priya })
        {
            (await maker.Put($"/api/groups/{Guid.CreateVersion7()}/like/{World.StudioTeam}", new { name = "Next" })).Is(
                200
            );
            // Those that are there, and of the team's two those of which the maker knows the address.
            Assert.Equal(OfDemo + 1 + 2, await mortar.Store(db => db.WebCalendars.CountAsync()));
        }
    }

    [Fact]
    public async Task What_was_fetched_before_a_stop_is_taken_over_after_it()
    {
        await using var mortar = await TestMortar.Start();
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await Add(ines, Fairs);
        // As a stop leaves it between the fetch and the taking over.
        await mortar.Store(async db =>
            await db.Events.Where(row => row.CalendarId == calendar).ExecuteDeleteAsync()
            + await db
                .WebCalendars.Where(web => web.CalendarId == calendar)
                .ExecuteUpdateAsync(web => web.SetProperty(one => one.Applied, (string?)null))
        );
        var asked = host.AskedBy(Own);

        await mortar.Services.GetRequiredService<WebFetching>().Round(CancellationToken.None);

        Assert.Equal(3, (await Events(mortar, calendar)).Count);
        Assert.Equal(asked, host.AskedBy(Own));
    }

    [Fact]
    public async Task One_that_is_another_each_time_is_left_alone_for_a_while()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        Play(0);
        var calendar = await Add(ines, League);

        // So many events that are there for the first time are nothing to be wondered at.
        await Later(mortar, clock, Duration.FromMinutes(16));
        Play(FetchRhythm.Much);
        await Later(mortar, clock, Duration.FromMinutes(16));
        Assert.Equal(
            FetchRhythm.Much,
            (await Events(mortar, calendar)).Max(one => NumberOf(one.Uid)) - FetchRhythm.Much + 1
        );

        var written = await Changes(mortar, calendar);
        Play(2 * FetchRhythm.Much);
        await Later(mortar, clock, Duration.FromHours(3));
        Assert.Equal(written, await Changes(mortar, calendar));
        using var later = await mortar.As(DemoPeople.Ines);
        var refused = (await later.Post($"/api/calendars/{calendar.Value}/web/fetch")).IsProblem(429, "too-often");
        Assert.Contains("left alone", refused.Text, StringComparison.Ordinal);

        await Later(mortar, clock, Duration.FromHours(1));
        Assert.NotEqual(written, await Changes(mortar, calendar));

        void Play(int from)
        {
            host.Fixtures.Clear();
            for (var match = from; match < from + FetchRhythm.Much; match++)
            {
                host.Fixtures[match] = new LocalDate(2026, 3, 14);
            }
        }

        static int NumberOf(string uid) =>
            int.Parse(new string([.. uid.Where(char.IsAsciiDigit)]), CultureInfo.InvariantCulture);
    }

    /// <summary>Else anybody could have what others read left alone, by moving a large calendar of their own to its address.</summary>
    [Fact]
    public async Task What_a_calendar_lost_that_came_from_elsewhere_before_has_no_address_left_alone()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        for (var match = 0; match < FetchRhythm.Much; match++)
        {
            host.Fixtures[match] = new LocalDate(2026, 3, 14);
        }

        var large = await Add(ines, League);
        using var priya = await mortar.As(DemoPeople.Priya);
        var hers = await Add(priya, Fairs);

        (await ines.Put($"/api/calendars/{large.Value}/web/address", new { address = Fairs })).Is(200);
        // Also where it is taken over only with the next fetch, as after a stop in between.
        await mortar.Store(db =>
            db.WebCalendars.Where(web => web.CalendarId == large)
                .ExecuteUpdateAsync(web => web.SetProperty(one => one.Applied, "another"))
        );
        await Later(mortar, clock, Duration.FromDays(1));

        Assert.Null(
            await mortar.Store(db =>
                db.WebSources.Where(one => one.Address == Fairs).Select(one => one.RestsUntil).SingleAsync()
            )
        );
        clock.Now += Duration.FromMinutes(2);
        using var later = await mortar.As(DemoPeople.Priya);
        (await later.Post($"/api/calendars/{hers.Value}/web/fetch")).Is(200);
    }

    [Fact]
    public async Task Who_does_not_wait_for_it_has_it_fetched_all_the_same_and_anew_the_next_time()
    {
        await using var mortar = await TestMortar.Start();
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await Add(ines, League);
        var fetching = mortar.Services.GetRequiredService<WebFetching>();
        var source = await mortar.Store(db => db.WebSources.AsNoTracking().SingleAsync(one => one.Address == League));

        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => fetching.Fetch(source, new(canceled: true)));
        await fetching.Fetch(source, CancellationToken.None);
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        await fetching.Fetch(source, CancellationToken.None);

        Assert.Single(await Events(mortar, calendar));
    }

    [Fact]
    public async Task One_person_has_so_many_and_no_more()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var fairs = await Add(ines, Fairs);
        await mortar.Store(async db =>
        {
            var model = await db.Calendars.AsNoTracking().SingleAsync(row => row.Id == fairs);
            return await db.Write<CalendarRow>(
                Mortar.Data.Store.Act.By(DemoPeople.Ines.Id),
                async () =>
                {
                    var other = await db
                        .Groups.Where(row => row.Id != model.GroupId)
                        .Select(row => row.Id)
                        .FirstAsync();
                    // With that one and the team's holidays.
                    for (var i = 2; i < WebCalendarRules.MostOfPerson; i++)
                    {
                        var id = new CalendarId(Guid.CreateVersion7());
                        db.Calendars.Add(CalendarRow.Of(model.Settings(), id, other));
                        db.Grants.Add(
                            new GrantRow
                            {
                                Id = Guid.NewGuid(),
                                CalendarId = id,
                                PersonId = DemoPeople.Ines.Id,
                                Role = Role.Coordinate,
                            }
                        );
                    }

                    return model;
                },
                CancellationToken.None
            );
        });

        (await ines.Put($"/api/calendars/{Guid.CreateVersion7()}/web", Wish(League))).IsProblem(
            409,
            "too-many-web-calendars"
        );
        using var priya = await mortar.As(DemoPeople.Priya);
        await Add(priya, League);
    }

    [Fact]
    public async Task A_file_of_the_web_names_and_reminds_nobody_here()
    {
        await using var mortar = await TestMortar.Start();
        var host = mortar.Services.GetRequiredService<WebHost>();
        using var ines = await mortar.As(DemoPeople.Ines);
        host.Also = string.Join(
            "\r\n",
            "BEGIN:VEVENT",
            "UID:sly@web-host",
            "DTSTAMP:20260101T000000Z",
            "DTSTART:20260312T100000Z",
            "DTEND:20260312T110000Z",
            "SUMMARY:Sly",
            $"ORGANIZER:mailto:{DemoPeople.Ines.Address}",
            $"ATTENDEE:mailto:{DemoPeople.Priya.Address}",
            "BEGIN:VALARM",
            "ACTION:DISPLAY",
            "TRIGGER:-PT10M",
            "DESCRIPTION:Sly",
            "END:VALARM",
            "END:VEVENT"
        );

        var calendar = await Add(ines, League);

        var row = Assert.Single(await Events(mortar, calendar));
        Assert.Equal((null, null, WebCalendarRules.TheWeb), (row.Attendees, row.Reminder, row.AddedBy));
    }

    private const string Fairs = $"http://{WebHost.Name}/fairs.ics{Own}";

    /// <summary>The calendars of the web that the demo has.</summary>
    private const int OfDemo = 3;

    private static object Wish(string address, string groupDefault = "none") =>
        new
        {
            address,
            groupId = World.StudioTeam,
            name = "Harbour league",
            hue = "lake",
            mark = "wave",
            zone = "Europe/London",
            groupDefault,
        };

    private static async Task<CalendarId> Add(Browser browser, string address, string groupDefault = "none")
    {
        var id = new CalendarId(Guid.CreateVersion7());
        (await browser.Put($"/api/calendars/{id.Value}/web", Wish(address, groupDefault))).Is(200);
        return id;
    }

    /// <summary>Some time goes by, and what is due is fetched.</summary>
    private static async Task Later(TestMortar mortar, SetClock clock, Duration time)
    {
        clock.Now += time;
        await mortar.Services.GetRequiredService<WebFetching>().Round(CancellationToken.None);
    }

    private static Task<List<Mortar.Data.Events.EventRow>> Events(TestMortar mortar, CalendarId calendar) =>
        mortar.Store(db =>
            db.Events.AsNoTracking()
                .Where(row => row.CalendarId == calendar && row.DeletedAt == null)
                .OrderBy(row => row.Title)
                .ToListAsync()
        );

    private static Task<int> Changes(TestMortar mortar, CalendarId calendar) =>
        mortar.Store(db => db.Changes.CountAsync(change => change.CalendarId == calendar));

    private static async Task<JsonElement> Layer(Browser browser, CalendarId calendar) =>
        (await browser.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("calendarId").GetGuid() == calendar.Value);

    private static Instant At(JsonElement body, string property) =>
        NodaTime.Text.InstantPattern.ExtendedIso.Parse(body.Text(property)).Value;
}
