using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What collides, whose it is to resolve, and what was marked as fine.</summary>
public class ClashTests
{
    private const string Week = "from=2026-03-16&to=2026-03-20";

    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    /// <summary>By hand from the demo's week of 9 March: Priya unloads the kiln 13:30 to 14:30 and tests glazes 14:00 to 15:30.</summary>
    [Fact]
    public async Task The_demos_week_has_the_one_clash_that_was_worked_out_by_hand()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var one = Assert.Single(await Clashes(ines, "from=2026-03-12&to=2026-03-12"));

        Assert.Equal(("2026-03-12T14:00:00", "2026-03-12T14:30:00"), (one.Text("start"), one.Text("end")));
        Assert.Equal([Priya], one.GetProperty("people").EnumerateArray().Select(who => who.GetGuid()));
        Assert.True(one.GetProperty("hard").GetBoolean());
        Assert.Equal(
            ["Glaze testing", "Unload"],
            new[] { one.GetProperty("first").Text("title"), one.GetProperty("second").Text("title") }.Order()
        );
    }

    [Fact]
    public async Task A_clash_marked_as_fine_is_gone_for_all_until_one_of_the_two_changes()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var (first, _) = (await Named(ines, calendar, 10, 12), await Named(ines, calendar, 11, 13));
        var key = Assert.Single(await Clashes(ines, Week)).Text("key");
        var set = Guid.CreateVersion7();

        // It takes her, so she sees it; but she may change neither.
        Assert.False(Assert.Single(await Clashes(priya, Week)).GetProperty("mayMark").GetBoolean());
        (await priya.Post($"/api/clashes/{key}/fine?{Week}")).IsProblem(403, "not-allowed");
        (await ines.Post($"/api/clashes/{key}/fine?{Week}", set: set)).Is(204);

        Assert.Empty(await Clashes(ines, Week));
        Assert.Empty(await Clashes(priya, Week));
        Assert.Empty(await OfPriya(ines, $"/api/wall?{Week}"));
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Single(await Clashes(ines, Week));
        (await ines.Post($"/api/clashes/{key}/fine?{Week}")).Is(204);
        Assert.Empty(await Clashes(ines, Week));

        (await ines.Put($"/api/events/{first}", Body(calendar, 10.5, 12), 1)).Is(200);
        Assert.Empty(await Clashes(ines, Week)); // what they share is the same as before
        (await ines.Put($"/api/events/{first}", Body(calendar, 10, 11.5), 2)).Is(200);
        Assert.NotEqual(key, Assert.Single(await Clashes(ines, Week)).Text("key"));
    }

    [Fact]
    public async Task A_clash_with_what_one_does_not_see_whole_is_not_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (open, closed) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(open, DemoPeople.Dele, Role.Edit);
        await mortar.Give(closed, DemoPeople.Dele, Role.Outline);
        await Named(ines, open, 10, 12);
        await Named(ines, closed, 11, 13);
        var key = Assert.Single(await Clashes(ines, Week)).Text("key");

        Assert.Empty(await Clashes(dele, Week));
        var there = await dele.Post($"/api/clashes/{key}/fine?{Week}");
        var never = await dele.Post($"/api/clashes/{new string('0', 64)}/fine?{Week}");
        there.IsProblem(404, "not-there");
        Assert.Equal(never.Detail, there.Detail);
    }

    [Fact]
    public async Task What_collides_for_others_is_no_ones_to_resolve_who_only_reads()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        await Named(ines, calendar, 10, 12);
        await Named(ines, calendar, 11, 13);

        Assert.Empty(await Clashes(dele, Week));
        Assert.Single(await OfPriya(dele, $"/api/wall?{Week}"));
    }

    [Fact]
    public async Task A_clash_that_somebody_elses_change_made_says_so_until_it_was_seen()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (first, _) = (await Named(ines, calendar, 10, 12), await Named(ines, calendar, 14, 15));
        (await ines.Put($"/api/events/{first}", Body(calendar, 10, 14.5), 1)).Is(200);

        Assert.Equal(JsonValueKind.Null, Since(Assert.Single(await Clashes(ines, Week))).ValueKind); // her own doing
        var told = Since(Assert.Single(await Clashes(priya, Week)));
        Assert.Equal(("Ines Varga", true), (told.Text("by"), told.GetProperty("unseen").GetBoolean()));

        (await priya.Post("/api/inbox/seen")).Is(204);
        Assert.False(Since(Assert.Single(await Clashes(priya, Week))).GetProperty("unseen").GetBoolean());
        (await priya.Put($"/api/events/{first}", Body(calendar, 10, 14.75), 2)).Is(200);
        Assert.Equal(JsonValueKind.Null, Since(Assert.Single(await Clashes(priya, Week))).ValueKind);
        var hers = Since(Assert.Single(await Clashes(ines, Week)));
        Assert.Equal(("Priya Raman", true), (hers.Text("by"), hers.GetProperty("unseen").GetBoolean()));

        static JsonElement Since(JsonElement clash) => clash.GetProperty("since");
    }

    /// <summary>Only some changes are read at once, the latest first: it is looked further back until it is found.</summary>
    [Fact]
    public async Task Who_made_a_clash_is_told_however_often_its_event_was_called_something_else_since()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (first, _) = (await Named(priya, calendar, 10, 12), await Named(priya, calendar, 14, 15));
        (await ines.Put($"/api/events/{first}", Body(calendar, 10, 14.5), 1)).Is(200);
        for (var version = 2; version < 27; version++)
        {
            (await priya.Put($"/api/events/{first}", Body(calendar, 10, 14.5, title: $"Name {version}"), version)).Is(
                200
            );
        }

        var told = Assert.Single(await Clashes(priya, Week)).GetProperty("since");

        Assert.Equal("Ines Varga", told.Text("by"));
    }

    [Fact]
    public async Task A_series_that_collides_is_told_date_by_date()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", Body(calendar, 10, 12, "FREQ=DAILY;COUNT=3"))).Is(200);
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", Body(calendar, 11, 12, "FREQ=DAILY;COUNT=2"))).Is(200);

        var found = await Clashes(ines, Week);

        Assert.Equal(["2026-03-16T11:00:00", "2026-03-17T11:00:00"], found.Select(one => one.Text("start")));
        (await ines.Post($"/api/clashes/{found[0].Text("key")}/fine?{Week}")).Is(204);
        Assert.Equal("2026-03-17T11:00:00", Assert.Single(await Clashes(ines, Week)).Text("start"));
    }

    /// <summary>Those that take Priya: the demo has one of Tomasz in that week as well.</summary>
    private static Task<List<JsonElement>> Clashes(Browser browser, string range) =>
        OfPriya(browser, $"/api/clashes?{range}");

    private static async Task<List<JsonElement>> OfPriya(Browser browser, string question) =>
        [
            .. (await browser.Get(question))
                .Is(200)
                .Body.GetProperty("clashes")
                .EnumerateArray()
                .Where(one => one.GetProperty("people").EnumerateArray().Any(who => who.GetGuid() == Priya)),
        ];

    [Fact]
    public async Task What_collides_with_what_is_not_told_is_said_to_who_may_change_it_and_to_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, own) = (await ines.MakeCalendar(), await priya.MakeCalendar());
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        var shift = await Named(ines, calendar, 10, 12);
        await Named(priya, own, 11, 13);
        Assert.Empty(await Untold(ines)); // she keeps her time to herself

        await priya.ShowsBusy(true);

        Assert.Empty(await Clashes(ines, Week)); // of what is told nothing collides
        var one = Assert.Single(await Untold(ines));

        Assert.Equal(
            (shift, Priya),
            (one.GetProperty("event").GetProperty("eventId").GetGuid(), one.GetProperty("person").GetGuid())
        );
        Assert.Equal(
            ("2026-03-16T11:00:00", "2026-03-16T12:00:00", true),
            (one.Text("start"), one.Text("end"), one.GetProperty("hard").GetBoolean())
        );
        var text = (await ines.Get($"/api/clashes/untold?{Week}")).Text;
        Assert.DoesNotContain("From 11", text, StringComparison.Ordinal);
        Assert.DoesNotContain(own.Value.ToString(), text, StringComparison.Ordinal);
        Assert.Empty(await Untold(dele));
        Assert.Empty(await Untold(priya)); // she sees both, and so it is a clash as any

        // It is fine, until one of the two changes.
        var key = one.Text("key");
        (await dele.Post($"/api/clashes/{key}/fine?{Week}")).IsProblem(404, "not-there");
        (await ines.Post($"/api/clashes/{key}/fine?{Week}")).Is(204);
        Assert.Empty(await Untold(ines));
        (await ines.Put($"/api/events/{shift}", Body(calendar, 10, 11.5), 1)).Is(200);
        Assert.Single(await Untold(ines));

        await priya.ShowsBusy(false);
        Assert.Empty(await Untold(ines));
    }

    private static async Task<List<JsonElement>> Untold(Browser browser) =>
        [.. (await browser.Get($"/api/clashes/untold?{Week}")).Is(200).Body.GetProperty("clashes").EnumerateArray()];

    private static async Task<Guid> Named(Browser ines, CalendarId calendar, double from, double to)
    {
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Body(calendar, from, to))).Is(200);
        return id;
    }

    private static object Body(
        CalendarId calendar,
        double from,
        double to,
        string? rule = null,
        string? title = null
    ) =>
        new
        {
            calendarId = calendar.Value,
            title = title ?? $"From {from}",
            showAs = "busy",
            time = World.Hours(At(from), At(to)),
            attendees = new[] { Priya },
            rule,
        };

    private static string At(double hour) => $"2026-03-16T{(int)hour:00}:{(int)(hour % 1 * 60):00}:00";
}
