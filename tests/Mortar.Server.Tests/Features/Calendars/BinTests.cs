using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Deleting a calendar for everybody, and bringing it back.</summary>
public class BinTests
{
    [Fact]
    public async Task Deleting_needs_the_name_and_says_before_what_goes_from_whom()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        await ines.MakeEvent(calendar, "Tenmoku");
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);

        var loss = (await ines.Get($"/api/calendars/{calendar.Value}/loss")).Is(200).Body;
        Assert.Equal((2, 2), (loss.GetProperty("events").GetInt32(), loss.GetProperty("people").GetInt32()));
        var without = (await ines.Delete($"/api/calendars/{calendar.Value}", 1)).IsProblem(422, "unfit");
        Assert.Contains("Glaze tests", without.Detail, StringComparison.Ordinal);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze", 1)).IsProblem(422, "unfit");
        Assert.True(await ines.HasLayer(calendar));

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=glaze%20tests", 1)).Is(204);
        Assert.False(await ines.HasLayer(calendar));
    }

    [Fact]
    public async Task It_comes_back_whole_with_its_access_by_who_coordinated_it_and_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var eventId = await ines.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);

        var binned = Assert.Single((await ines.Get("/api/bin")).Is(200).Body.EnumerateArray());
        Assert.Equal(("Glaze tests", DemoPeople.Ines.Name), (binned.Text("name"), binned.Text("deletedBy")));
        Assert.Empty((await priya.Get("/api/bin")).Is(200).Body.EnumerateArray());
        (await priya.Get($"/api/events/{eventId}")).Is(404);
        (await priya.Post($"/api/bin/{calendar.Value}/bring-back")).IsProblem(404, "not-there");
        (await ines.Post($"/api/bin/{calendar.Value}/bring-back")).Is(204);

        (await priya.Get($"/api/events/{eventId}")).Is(200);
        Assert.Empty((await ines.Get("/api/bin")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task After_thirty_days_it_is_gone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
        await mortar.Store(async db =>
        {
            var deleted = await db
                .Calendars.Where(row => row.Id == calendar)
                .Select(row => row.DeletedAt)
                .SingleAsync();
            return await db
                .Calendars.Where(row => row.Id == calendar)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.DeletedAt, deleted - Duration.FromDays(30)));
        });

        Assert.Empty((await ines.Get("/api/bin")).Is(200).Body.EnumerateArray());
        (await ines.Post($"/api/bin/{calendar.Value}/bring-back")).IsProblem(404, "not-there");
    }
}
