using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Mortar.Server.Live;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class LiveTests
{
    [Fact]
    public async Task A_change_is_told_to_those_who_see_the_calendar_and_to_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        await using var hers = await Line.Open(mortar, priya);
        await using var his = await Line.Open(mortar, tomasz);

        var id = await ines.MakeEvent(calendar);
        await hers.Hears($"wall {calendar.Value}");

        // What he hears of later has him heard all that was told before it.
        var classes = new Core.Words.CalendarId(DemoPeople.Stable("calendar Classes"));
        await tomasz.MakeEvent(classes);
        await his.Hears($"wall {classes.Value}");

        Assert.DoesNotContain($"wall {calendar.Value}", his.Heard);
        Assert.DoesNotContain(hers.Heard, told => told.Contains(id.ToString(), StringComparison.Ordinal));
    }

    [Fact]
    public async Task Given_access_is_told_to_the_one_it_is_given_to()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        await using var his = await Line.Open(mortar, tomasz);

        await mortar.Give(calendar, DemoPeople.Tomasz, Role.View);

        await his.Hears("shelf");
        await his.Hears("inbox");
    }

    [Fact]
    public async Task An_event_moved_away_is_told_to_those_who_saw_it_where_it_was()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var id = await ines.MakeEvent(from);
        await mortar.Give(from, DemoPeople.Priya, Role.View);
        await using var hers = await Line.Open(mortar, priya);
        (await ines.Put($"/api/events/{id}", World.Event(to), 1)).Is(200);

        await hers.Hears($"wall {from.Value}");

        Assert.DoesNotContain($"wall {to.Value}", hers.Heard);
        Assert.Empty(await priya.Bricks(from));
    }

    [Fact]
    public async Task Ended_access_is_told_to_the_one_it_was_taken_from()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        await using var hers = await Line.Open(mortar, priya);

        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);

        await hers.Hears("shelf");
        Assert.Empty(await priya.Bricks(calendar));
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Renamed"), 1)).Is(200);
        (await ines.Put($"/api/events/{Guid.NewGuid()}", World.Event(calendar))).Is(200);
        var own = new Core.Words.CalendarId(DemoPeople.Stable("calendar Priya’s time"));
        await priya.MakeEvent(own);
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain($"wall {calendar.Value}", hers.Heard.SkipWhile(told => told != "shelf"));
    }

    [Fact]
    public async Task Nobody_listens_who_is_not_signed_in()
    {
        await using var mortar = await TestMortar.Start();

        await Assert.ThrowsAsync<HttpRequestException>(() => Line.Open(mortar, mortar.Anonymous()));
    }

    [Fact]
    public async Task Who_is_given_one_event_hears_of_it_and_not_that_anything_else_happens_in_its_calendar()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, own) = (await ines.MakeCalendar(), await priya.MakeCalendar());
        var id = Guid.CreateVersion7();
        var priyas = DemoPeople.Priya.Id.Value;
        object Body(string title) =>
            new
            {
                calendarId = calendar.Value,
                title,
                showAs = "busy",
                time = World.Hours(),
                attendees = new[] { priyas },
            };
        (await ines.Put($"/api/events/{id}", Body("Hers too"))).Is(200);
        (await ines.Put($"/api/events/{id}/editors", new { personIds = new[] { priyas } }, 1)).Is(200);
        await using var hers = await Line.Open(mortar, priya);

        var set = Guid.CreateVersion7();
        await ines.MakeEvent(calendar, "Not hers", set: set);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        await priya.MakeEvent(own); // told after all that was done before
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain($"wall {calendar.Value}", hers.Heard);

        (await ines.Put($"/api/events/{id}", Body("Hers, later"), 2)).Is(200);
        await hers.Hears($"wall {calendar.Value}");
    }

    [Fact]
    public async Task Who_sees_times_only_is_told_when_the_times_change_and_of_nothing_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var (calendar, own) = (await ines.MakeCalendar(), await priya.MakeCalendar());
        var id = await ines.MakeEvent(calendar, "Kiln talk");
        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        await mortar.Give(calendar, DemoPeople.Tomasz, Role.View);
        await using var hers = await Line.Open(mortar, priya);
        await using var his = await Line.Open(mortar, tomasz);

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Kiln talk, with slides"), 1)).Is(200);
        await his.Hears($"wall {calendar.Value}");
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        await priya.MakeEvent(own); // told after all that was done before
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain(hers.Heard, told => told.Contains(calendar.Value.ToString(), StringComparison.Ordinal));
        Assert.DoesNotContain($"access {calendar.Value}", his.Heard);

        (await ines.Delete($"/api/events/{id}", 2)).Is(200);
        await hers.Hears($"wall {calendar.Value}");
    }

    [Fact]
    public async Task Who_is_invited_asked_and_answers_is_told_to_those_who_see_it_and_not_to_every_reader()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, own) = (await ines.MakeCalendar(), await priya.MakeCalendar());
        var id = Guid.CreateVersion7();
        object Body(bool hides) =>
            new
            {
                calendarId = calendar.Value,
                title = "Kiln talk",
                showAs = "busy",
                time = World.Hours(),
                attendees = new[] { DemoPeople.Tomasz.Id.Value },
                hidesAttendees = hides,
            };
        (await ines.Put($"/api/events/{id}", Body(hides: true))).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await mortar.Give(calendar, DemoPeople.Tomasz, Role.View);
        await mortar.Give(calendar, DemoPeople.Dele, Role.Coordinate);
        await using var hers = await Line.Open(mortar, priya);
        await using var his = await Line.Open(mortar, dele);

        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "nina@example.org", role = "view" }
            )
        ).Is(204);
        await his.Hears($"access {calendar.Value}");
        (await tomasz.Put($"/api/events/{id}/answer", new { answer = "accepted", comment = "" })).Is(204);
        await his.Hears($"wall {calendar.Value}"); // he sees the list of who is named
        await priya.MakeEvent(own); // told after all that was done before
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain(hers.Heard, told => told.Contains(calendar.Value.ToString(), StringComparison.Ordinal));
        Assert.DoesNotContain("inbox", hers.Heard);

        (await ines.Put($"/api/events/{id}", Body(hides: false), 1)).Is(200);
        await hers.Hears($"wall {calendar.Value}");
        hers.Heard.Clear();
        (await tomasz.Put($"/api/events/{id}/answer", new { answer = "declined", comment = "" })).Is(204);
        await hers.Hears($"wall {calendar.Value}");
    }

    [Fact]
    public async Task A_coordinator_whose_grant_has_ended_is_told_of_no_request()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var (calendar, own) = (await ines.MakeCalendar(), await priya.MakeCalendar());
        await mortar.Give(calendar, DemoPeople.Priya, Role.Coordinate);
        await mortar.Give(calendar, DemoPeople.Tomasz, Role.Times);
        await mortar.Store(db =>
            db.Grants.Where(row => row.CalendarId == calendar && row.PersonId == DemoPeople.Priya.Id)
                .ExecuteUpdateAsync(row =>
                    row.SetProperty(one => one.EndsAt, NodaTime.Instant.FromUtc(2026, 3, 1, 0, 0))
                )
        );
        await using var hers = await Line.Open(mortar, priya);
        await using var mine = await Line.Open(mortar, ines);

        (await tomasz.Put($"/api/calendars/{calendar.Value}/asks/{Guid.CreateVersion7()}", new { role = "view" })).Is(
            204
        );

        await mine.Hears("inbox");
        await priya.MakeEvent(own); // told after all that was done before
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain("inbox", hers.Heard);
    }

    [Fact]
    public async Task Who_came_by_a_link_is_told_what_becomes_of_it_and_not_that_others_come()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, own) = (await ines.MakeCalendar(), await mei.MakeCalendar());
        var link = $"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}";
        var made = (await ines.Put(link, new { role = "view", name = "Door" })).Is(200).Body;
        var secret = made.Text("url").Split("/link/")[1];
        (await mei.Post($"/api/links/{secret}/use")).Is(204);
        await using var hers = await Line.Open(mortar, mei);

        (await dele.Post($"/api/links/{secret}/use")).Is(204);
        await mei.MakeEvent(own); // told after all that was done before
        await hers.Hears($"wall {own.Value}");
        Assert.DoesNotContain("shelf", hers.Heard);

        (await ines.Put(link, new { role = "times", name = "Door" })).Is(200);
        await hers.Hears("shelf");
    }

    [Fact]
    public async Task A_change_that_nobody_understands_is_passed_over_and_what_comes_after_it_is_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await using var hers = await Line.Open(mortar, ines);
        await mortar.Store(db =>
            db.Database.ExecuteSqlAsync(
                $"INSERT INTO Changes (\"Set\", At, Actor, Subject, SubjectId, After) SELECT \"Set\", At, Actor, 'Member', SubjectId, '{{}}' FROM Changes LIMIT 1"
            )
        );

        await ines.MakeEvent(calendar);

        await hers.Hears("wall"); // everybody asks anew
        await ines.MakeEvent(calendar);
        await hers.Hears($"wall {calendar.Value}");
    }

    /// <summary>The live line as a browser has it.</summary>
    private sealed class Line(HubConnection connection) : IAsyncDisposable
    {
        private readonly Channel<string> told = Channel.CreateUnbounded<string>();

        public List<string> Heard { get; } = [];

        /// <summary>
        /// Opens it and waits until all is told that was done before, so that what is heard from here on is what comes after.
        /// </summary>
        public static async Task<Line> Open(TestMortar mortar, Browser browser)
        {
            var line = new Line(
                new HubConnectionBuilder()
                    .WithUrl(new Uri(mortar.Url, "/live"), options => options.Cookies = browser.Cookies)
                    .Build()
            );
            await line.Start();
            var own = await browser.MakeCalendar();
            await line.Hears($"wall {own.Value}");
            line.Heard.Clear();
            await browser.MakeEvent(own); // what else its making told comes before this
            await line.Hears($"wall {own.Value}");
            line.Heard.Clear();
            return line;
        }

        /// <summary>Waits until it is told; ten seconds at most.</summary>
        public async Task Hears(string expected)
        {
            using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(10));
            while (!Heard.Contains(expected))
            {
                Heard.Add(await told.Reader.ReadAsync(limit.Token));
            }
        }

        public ValueTask DisposeAsync() => connection.DisposeAsync();

        private Task Start()
        {
            connection.On<string, Guid?, Guid[]>(
                LiveTopics.Changed,
                (topic, calendar, sets) =>
                {
                    foreach (var set in sets)
                    {
                        told.Writer.TryWrite($"{topic} by {set}");
                    }

                    told.Writer.TryWrite(calendar is null ? topic : $"{topic} {calendar}");
                }
            );
            return connection.StartAsync();
        }
    }
}
