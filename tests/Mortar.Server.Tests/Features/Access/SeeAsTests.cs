using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class SeeAsTests
{
    private const string Week = "from=2026-03-09&to=2026-03-15";

    [Theory]
    [InlineData(Role.None)]
    [InlineData(Role.Times)]
    [InlineData(Role.Outline)]
    [InlineData(Role.View)]
    [InlineData(Role.Edit)]
    public async Task Through_somebodys_eyes_one_sees_just_what_they_see(Role role)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, role);

        var seen = await As(ines, DemoPeople.Priya, calendar);

        Assert.Equal((await priya.Bricks(calendar)).Select(brick => brick.GetRawText()), seen);
        Assert.Equal(role == Role.None ? 0 : 1, seen.Count);
    }

    [Fact]
    public async Task What_one_does_not_coordinate_is_not_seen_through_anybodys_eyes()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);

        foreach (var path in new[] { $"wall?{Week}&", "shelf?" })
        {
            var hers = (await ines.Get($"/api/{path}as={DemoPeople.Priya.Id.Value}")).Is(200).Text;
            var nothing = (await tomasz.Get($"/api/{path}as={DemoPeople.Priya.Id.Value}")).Is(200).Text;

            Assert.DoesNotContain(
                DemoPeople.Stable("calendar Priya’s time").ToString(),
                hers,
                StringComparison.Ordinal
            );
            Assert.DoesNotContain(DemoPeople.Stable("calendar Rota").ToString(), nothing, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Somebody_who_is_not_there_sees_nothing_as_any_outsider()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var wall = (await ines.Get($"/api/wall?{Week}&as={Guid.NewGuid()}")).Is(200).Body;

        Assert.Empty(wall.GetProperty("bricks").EnumerateArray());
        Assert.Empty(wall.GetProperty("clashes").EnumerateArray());
    }

    private static async Task<List<string>> As(Browser browser, DemoPerson person, CalendarId calendar) =>
        [
            .. (await browser.Get($"/api/wall?{Week}&as={person.Id.Value}"))
                .Is(200)
                .Body.BricksWithTexts()
                .Where(brick => brick.GetProperty("calendarId").GetGuid() == calendar.Value)
                .Select(brick => brick.GetRawText()),
        ];
}
