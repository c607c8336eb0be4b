using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>How often the requests that people make most ask the store: a question for each row, or the same one twice, shows here first.</summary>
public class SqlCommandsTests
{
    private static readonly string Week = "from=2026-03-09&to=2026-03-15";

    /// <summary>
    /// Each is asked once before it is counted: what is kept for all has been read then, but for one look at the log where
    /// something was written meanwhile by itself.
    /// </summary>
    [Fact]
    public async Task What_people_ask_most_asks_the_store_no_oftener_than_it_has_to()
    {
        var counter = new SqlCounter();
        await using var mortar = await TestMortar.StartWith(counter.Watch);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);
        var gaps = new
        {
            required = new[] { DemoPeople.Ines.Id.Value, DemoPeople.Priya.Id.Value },
            optional = Array.Empty<Guid>(),
            places = Array.Empty<Guid>(),
            from = "2026-03-09",
            to = "2026-03-15",
            minutes = 60,
            hours = "kept",
            group = World.StudioTeam,
        };
        var version = 1;
        var requests = new (string Name, int Most, Func<Task<Answer>> Send)[]
        {
            ("session", 2, () => ines.Get("/api/session")),
            ("shelf", 4, () => ines.Get("/api/shelf")),
            ("groups", 1, () => ines.Get("/api/groups")),
            ("members", 4, () => ines.Get($"/api/groups/{World.StudioTeam}/members")),
            ("wall", 1, () => ines.Get($"/api/wall?{Week}")),
            ("ribbon", 1, () => ines.Get("/api/ribbon?from=2026-01-05&weeks=26")),
            ("clashes", 3, () => ines.Get($"/api/clashes?{Week}")),
            ("find", 1, () => ines.Get("/api/find?from=2026-03-01&to=2026-03-31&words=glaz")),
            ("event", 4, () => ines.Get($"/api/events/{id}")),
            ("answers", 6, () => ines.Get($"/api/events/{id}/answers")),
            ("inbox", 24, () => ines.Get("/api/inbox")),
            ("proposals", 5, () => ines.Get("/api/proposals")),
            ("reminders", 5, () => ines.Get("/api/reminders")),
            ("times", 8, () => ines.Get($"/api/times?people={DemoPeople.Priya.Id.Value}&{Week}")),
            ("gaps", 14, () => ines.Post("/api/gaps", gaps)),
            ("cover", 14, () => ines.Get($"/api/groups/{World.StudioTeam}/cover?{Week}")),
            (
                "saving an event",
                5,
                () => ines.Put($"/api/events/{id}", World.Event(calendar, $"Celadon {version}"), version++)
            ),
        };
        var tooMany = new List<string>();
        foreach (var (name, most, send) in requests)
        {
            (await send()).Is(200);
            counter.Take();
            (await send()).Is(200);
            var asked = counter.Take();
            if (asked.Count > most)
            {
                tooMany.Add($"{name} asked {asked.Count} times, {most} at most:\n{string.Join("\n;\n", asked)}");
            }
        }

        Assert.True(tooMany.Count == 0, string.Join("\n\n", tooMany));
    }

    /// <summary>What takes longer where something is hidden tells that it is there.</summary>
    [Fact]
    public async Task What_is_hidden_is_looked_for_by_as_many_questions_as_what_never_was()
    {
        var counter = new SqlCounter();
        await using var mortar = await TestMortar.StartWith(counter.Watch);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var hidden = await ines.MakeEvent(calendar);
        var (never, nowhere) = (Guid.CreateVersion7(), new CalendarId(Guid.CreateVersion7()));
        var people = new[] { DemoPeople.Tomasz.Id.Value, DemoPeople.Dele.Id.Value };

        await Alike(
            () => priya.Put($"/api/events/{Guid.CreateVersion7()}", World.Event(calendar, attendees: people)),
            () => priya.Put($"/api/events/{Guid.CreateVersion7()}", World.Event(nowhere, attendees: people))
        );
        await Alike(
            () => priya.Put($"/api/events/{hidden}", World.Event(calendar, attendees: people), 1),
            () => priya.Put($"/api/events/{never}", World.Event(nowhere, attendees: people), 1)
        );
        await Alike(() => priya.Delete($"/api/events/{hidden}", 1), () => priya.Delete($"/api/events/{never}", 1));
        await Alike(() => priya.Get($"/api/events/{hidden}"), () => priya.Get($"/api/events/{never}"));
        await Alike(
            () => priya.Post($"/api/events/{hidden}/preview", Preview(calendar)),
            () => priya.Post($"/api/events/{never}/preview", Preview(nowhere))
        );

        async Task Alike(Func<Task<Answer>> ofHidden, Func<Task<Answer>> ofNever)
        {
            await ofNever(); // what is kept of who asks has been read then
            counter.Take();
            (await ofHidden()).IsProblem(404, "not-there");
            var one = counter.Take();
            (await ofNever()).IsProblem(404, "not-there");
            Assert.Equal(one, counter.Take());
        }

        object Preview(CalendarId into) =>
            new { only = "2026-03-12T14:00:00", @event = World.Event(into, attendees: people) };
    }

    [Fact]
    public async Task An_inbox_is_read_by_as_many_questions_however_much_is_in_it()
    {
        var counter = new SqlCounter();
        await using var mortar = await TestMortar.StartWith(counter.Watch);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await Happens();
        var (before, few) = await Inbox();
        for (var i = 0; i < 3; i++)
        {
            await Happens();
        }

        var (after, many) = await Inbox();

        // Of each three more: that Priya comes, which times suit her, and that she accepted a step.
        Assert.Equal(before + 9, after);
        Assert.True(many.Count <= few.Count, string.Join("\n;\n", many));

        async Task<(int Notices, IReadOnlyList<string> Asked)> Inbox()
        {
            (await ines.Get("/api/inbox")).Is(200);
            counter.Take();
            var notices = (await ines.Get("/api/inbox")).Is(200).Body.GetProperty("notices").GetArrayLength();
            (await ines.Get("/api/proposals")).Is(200);
            (await priya.Get("/api/proposals")).Is(200);
            return (notices, counter.Take());
        }

        async Task Happens()
        {
            var id = Guid.CreateVersion7();
            (await ines.Put($"/api/events/{id}", World.Event(calendar, attendees: DemoPeople.Priya.Id.Value))).Is(200);
            (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted", comment = "" })).Is(204);
            var proposal = Guid.CreateVersion7();
            var times = new[] { "2026-03-16T20:00:00", "2026-03-17T20:00:00" };
            (
                await ines.Put(
                    $"/api/proposals/{proposal}",
                    new
                    {
                        calendarId = calendar.Value,
                        title = "Glaze day",
                        place = "",
                        notes = "",
                        times = times.Select(start => new
                        {
                            start,
                            end = start.Replace("20:", "21:", StringComparison.Ordinal),
                        }),
                        personIds = new[] { DemoPeople.Priya.Id.Value, DemoPeople.Tomasz.Id.Value },
                    }
                )
            ).Is(204);
            (
                await priya.Put(
                    $"/api/proposals/{proposal}/suits",
                    new { said = new[] { new { at = "2026-03-16T20:00:00Z", suits = "suits" } }, comment = "" }
                )
            ).Is(204);
            var another = await ines.MakeCalendar();
            (
                await ines.Put(
                    $"/api/calendars/{another.Value}/invitations/{Guid.CreateVersion7()}",
                    new
                    {
                        address = DemoPeople.Priya.Address,
                        role = "view",
                        message = "",
                    }
                )
            ).Is(204);
            var invitation = (await priya.Get("/api/inbox")).Is(200).Body.GetProperty("invitations")[0];
            (await priya.Post($"/api/invitations/{invitation.Text("id")}/accept")).Is(204);
        }
    }
}
