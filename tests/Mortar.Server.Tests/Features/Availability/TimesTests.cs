using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>When people are busy beside what one sees: told where they allow it, and only when.</summary>
public class TimesTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    [Fact]
    public async Task Busy_times_of_a_calendar_nobody_else_has_are_told_once_its_owner_allows_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await PrivateTime(priya, "Confidential talk", "2026-03-12T20:00:00", "2026-03-12T21:30:00");
        Assert.Empty(await Times(ines, Priya));

        await priya.ShowsBusy(true);

        var one = Assert.Single(await Times(ines, Priya));
        Assert.Equal(
            ["2026-03-12T20:00:00 2026-03-12T21:30:00"],
            one.GetProperty("stretches").EnumerateArray().Select(Text)
        );
        var text = (await ines.Get(Question(Priya))).Is(200).Text;
        Assert.DoesNotContain("Confidential", text, StringComparison.Ordinal);
        Assert.DoesNotContain("calendar", text, StringComparison.OrdinalIgnoreCase);

        await priya.ShowsBusy(false);
        Assert.Empty(await Times(ines, Priya));
    }

    [Fact]
    public async Task What_one_sees_anyway_is_not_told_a_second_time_and_touching_stretches_are_one()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await priya.ShowsBusy(true);
        var shared = await ines.MakeCalendar();
        var body = new
        {
            calendarId = shared.Value,
            title = "Seen",
            showAs = "busy",
            time = World.Hours("2026-03-12T20:30:00", "2026-03-12T21:00:00"),
            attendees = new[] { Priya },
        };
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);
        await PrivateTime(priya, "One", "2026-03-12T20:00:00", "2026-03-12T21:00:00");
        await PrivateTime(priya, "Two", "2026-03-12T21:00:00", "2026-03-12T22:00:00");

        var told = Assert.Single(await Times(ines, Priya)).GetProperty("stretches").EnumerateArray().Select(Text);

        Assert.Equal(["2026-03-12T20:00:00 2026-03-12T20:30:00", "2026-03-12T21:00:00 2026-03-12T22:00:00"], told);
    }

    [Fact]
    public async Task Whoever_shares_no_group_learns_nothing_and_not_that_there_is_anybody()
    {
        await using var mortar = await TestMortar.Start();
        using var mei = await mortar.As(DemoPeople.Mei);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        await astrid.ShowsBusy(true);
        var known = await mei.Get(Question(DemoPeople.Astrid.Id.Value));
        var nobody = await mei.Get(Question(Guid.NewGuid()));

        Assert.Equal((200, "[]"), (known.Status, known.Text));
        Assert.Equal(known.Text, nobody.Text);
    }

    [Fact]
    public async Task A_lower_step_is_not_raised_by_what_somebody_else_allows()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var dele = await mortar.As(DemoPeople.Dele);
        await priya.ShowsBusy(true);

        // Dele sees Ines's calendar not at all; Priya, who does not allow it to be told of Ines, is named on it.
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var body = new
        {
            calendarId = calendar.Value,
            title = "Whispered",
            showAs = "busy",
            time = World.Hours("2026-03-13T14:30:00", "2026-03-13T15:00:00"),
            attendees = new[] { Priya, DemoPeople.Mei.Id.Value },
        };
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);

        var told = await dele.Get($"{Question(Priya)}&people={DemoPeople.Mei.Id.Value}");

        var one = Assert.Single(told.Is(200).Body.EnumerateArray());
        Assert.Equal(Priya, one.GetProperty("personId").GetGuid());
        Assert.DoesNotContain("Whispered", told.Text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("from=2026-03-15&to=2026-03-09", 422)]
    [InlineData("from=soon&to=2026-03-09", 400)]
    public async Task A_range_that_cannot_be_asked_for_is_refused(string range, int status)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        (await ines.Get($"/api/times?{range}&people={Priya}")).Is(status);
    }

    private static string Text(JsonElement stretch) => $"{stretch.Text("start")} {stretch.Text("end")}";

    private static string Question(Guid person) => $"/api/times?from=2026-03-12&to=2026-03-13&people={person}";

    private static async Task<List<JsonElement>> Times(Browser browser, Guid person) =>
        [.. (await browser.Get(Question(person))).Is(200).Body.EnumerateArray()];

    private static async Task PrivateTime(Browser priya, string title, string start, string end)
    {
        var id = Guid.CreateVersion7();
        (
            await priya.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Only mine",
                    description = "",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "none",
                    takes = "person",
                    person = Priya,
                }
            )
        ).Is(200);
        await priya.MakeEvent(new CalendarId(id), title, World.Hours(start, end));
    }
}
