using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Who is named on an event that keeps it comes out of nothing that others may ask.</summary>
public class HiddenAttendeesTests
{
    private static readonly Guid Hanne = DemoPeople.Hanne.Id.Value;
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    /// <summary>
    /// Priya reads everything of the calendar but the list; Hanne lets nobody know her time. So whatever Priya asks about
    /// Hanne's, the answer is as if the event named nobody else.
    /// </summary>
    [Fact]
    public async Task Nothing_a_reader_asks_tells_who_else_is_named()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var (id, other) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (await ines.Put($"/api/events/{id}", Body(calendar, hides: true, Priya, Hanne))).Is(200);
        (await ines.Put($"/api/events/{other}", Body(calendar, hides: true, Hanne))).Is(200);

        string[] asked =
        [
            $"/api/events/{id}",
            $"/api/events/{id}/answers",
            $"/api/events/{id}/history",
            "/api/wall?from=2026-03-18&to=2026-03-18",
            $"/api/times?from=2026-03-18&to=2026-03-18&people={Hanne}",
            "/api/clashes?from=2026-03-18&to=2026-03-18",
            $"/api/find?from=2026-03-18&to=2026-03-18&person={Hanne}",
            $"/api/calendars/{calendar.Value}/export",
            "/api/inbox",
        ];
        foreach (var path in asked)
        {
            var answer = await priya.Get(path);
            if (!path.Contains(Hanne.ToString(), StringComparison.Ordinal))
            {
                Assert.DoesNotContain(Hanne.ToString(), answer.Is(200).Text, StringComparison.Ordinal);
                Assert.DoesNotContain("Hanne", answer.Text, StringComparison.Ordinal);
            }
            else
            {
                Assert.DoesNotContain(id.ToString(), answer.Is(200).Text, StringComparison.Ordinal);
            }
        }

        Assert.Equal("free", await Presence(priya)); // as far as she sees
        Assert.Equal("busy", await Presence(ines)); // who may change it knows
        Assert.Contains(Priya.ToString(), (await priya.Get($"/api/events/{id}")).Text, StringComparison.Ordinal);
        Assert.True((await priya.Get($"/api/events/{id}")).Body.GetProperty("hidesAttendees").GetBoolean());

        // What it did before it was kept is said without the names as well.
        (await ines.Put($"/api/events/{other}", Body(calendar, hides: true, Hanne, Priya), 1)).Is(200);
        Assert.DoesNotContain("people now", (await priya.Get($"/api/events/{other}/history")).Is(200).Text);

        (await ines.Put($"/api/events/{id}", Body(calendar, hides: false, Priya, Hanne), 1)).Is(200);
        Assert.Equal("busy", await Presence(priya));
        Assert.Contains(Hanne.ToString(), (await priya.Get($"/api/events/{id}")).Text, StringComparison.Ordinal);
    }

    /// <summary>Priya named Hanne herself; what Hanne answers is no longer hers to read once she may not change it.</summary>
    [Fact]
    public async Task An_answer_is_told_to_the_organizer_only_while_they_find_the_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        await mortar.Give(calendar, DemoPeople.Hanne, Role.View);
        var id = Guid.CreateVersion7();
        (await priya.Put($"/api/events/{id}", Body(calendar, hides: true, Hanne))).Is(200);
        (await hanne.Put($"/api/events/{id}/answer", new { answer = "accepted" })).Is(204);
        Assert.Contains("Hanne Lind comes to", (await priya.Get("/api/inbox")).Is(200).Text, StringComparison.Ordinal);

        await mortar.Give(calendar, DemoPeople.Priya, Role.View);

        Assert.DoesNotContain("Hanne Lind", (await priya.Get("/api/inbox")).Is(200).Text, StringComparison.Ordinal);
    }

    /// <summary>Both take Hanne at the same time; whoever may not know that she is named finds no clash of hers.</summary>
    [Fact]
    public async Task A_clash_of_somebody_kept_secret_is_none_for_others()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (closed, open) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(closed, DemoPeople.Priya, Role.View);
        await mortar.Give(open, DemoPeople.Priya, Role.Edit);
        var (id, other) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (await ines.Put($"/api/events/{id}", Body(closed, hides: true, Hanne))).Is(200);
        (await ines.Put($"/api/events/{other}", Body(open, hides: false, Hanne))).Is(200);

        const string Path = "/api/clashes?from=2026-03-18&to=2026-03-18";
        Assert.Contains(id.ToString(), (await ines.Get(Path)).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain(id.ToString(), (await priya.Get(Path)).Is(200).Text, StringComparison.Ordinal);
    }

    private static object Body(CalendarId calendar, bool hides, params Guid[] named) =>
        new
        {
            calendarId = calendar.Value,
            title = "Glaze day",
            showAs = "busy",
            time = World.Hours("2026-03-18T09:00:00", "2026-03-18T10:00:00"),
            attendees = named,
            hidesAttendees = hides,
        };

    private static async Task<string> Presence(Browser browser)
    {
        var body = new
        {
            people = new[] { Hanne },
            places = Array.Empty<Guid>(),
            time = World.Hours("2026-03-18T09:00:00", "2026-03-18T10:00:00"),
        };
        return (await browser.Post("/api/free", body)).Is(200).Body.GetProperty("people")[0].Text("presence");
    }
}
