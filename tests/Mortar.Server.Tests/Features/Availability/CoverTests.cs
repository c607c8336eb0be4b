using System.Text.Json;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Who is there against how many are needed, for members of the group and within what they see.</summary>
public class CoverTests
{
    private static readonly string Cover = $"/api/groups/{World.StudioTeam}/cover";

    /// <summary>
    /// By hand from the demo: six in the team, five needed and six on Wednesdays. Dele is away from 9 to 11 March, Tomasz
    /// on the 17th, Mei from the 20th to the 24th. Nobody is needed at the weekend,
    /// nor on the 20th, which is a public holiday.
    /// </summary>
    [Fact]
    public async Task The_demos_days_are_those_counted_by_hand()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var days = await Days(ines, "from=2026-03-09&to=2026-03-24");

        Assert.Equal(
            [5, 5, 5, 6, 6, 0, 0, 6, 5, 6, 6, 0, 0, 0, 5, 5],
            days.Select(day => day.GetProperty("present").GetArrayLength())
        );
        Assert.Equal(
            ["2026-03-11"],
            days.Where(day => day.GetProperty("tooFew").GetInt32() > 0).Select(day => day.Text("day"))
        );
        Assert.Equal(
            [DemoPeople.Dele.Id.Value],
            days[2].GetProperty("missing").EnumerateArray().Select(who => who.GetGuid())
        );
    }

    /// <summary>
    /// By hand from the demo, by working days: Dele three (9 to 11 March), Tomasz one, Mei three of five (Friday 20th,
    /// Monday 23rd and Tuesday 24th) without the public holiday on the 20th; with the 10th and the weekend off for all Dele has two.
    /// </summary>
    [Fact]
    public async Task The_years_absences_are_those_counted_by_hand_and_days_off_cost_none()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        Assert.Equal(("3", "1", "2"), await InMarch(ines)); // Friday 20th is a public holiday

        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(
            calendar,
            "Studio closed",
            new
            {
                form = "days",
                first = "2026-03-10",
                last = "2026-03-10",
            }
        );
        var group = (await ines.Get("/api/groups"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == World.StudioTeam);
        object Settings(Guid? daysOff) =>
            new
            {
                name = group.Text("name"),
                sort = group.Text("sort"),
                zone = group.Text("zone"),
                firstDay = group.Text("firstDay"),
                daysOff,
            };
        var version = group.GetProperty("version").GetInt32();
        (await ines.Put($"/api/groups/{World.StudioTeam}", Settings(Guid.NewGuid()), version)).IsProblem(422, "unfit");
        (await ines.Put($"/api/groups/{World.StudioTeam}", Settings(calendar.Value), version)).Is(200);

        Assert.Equal(("2", "1", "3"), await InMarch(ines));
        var closed = (await Days(ines, "from=2026-03-10&to=2026-03-10"))[0];
        Assert.Equal((0, 0), (Needed(closed), closed.GetProperty("present").GetArrayLength()));

        // What a member does not see of absences is in no sum of theirs; an outsider learns nothing.
        using var hanne = await mortar.As(DemoPeople.Astrid);
        (await hanne.Get($"/api/groups/{World.StudioTeam}/absences?year=2026")).IsProblem(404, "not-there");
        (await ines.Get($"/api/groups/{World.StudioTeam}/absences?year=12")).IsProblem(422, "unfit");
    }

    /// <summary>By hand: Tomasz is away on Thursday 12 March from noon on; five of six are there all day, and half a day is counted.</summary>
    [Fact]
    public async Task A_half_day_is_told_counts_for_cover_and_in_the_year()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = DemoPeople.Stable("calendar Away"),
                    title = "",
                    showAs = "busy",
                    time = World.Hours("2026-03-12T12:00:00", "2026-03-12T17:00:00"),
                    attendees = new[] { DemoPeople.Tomasz.Id.Value },
                }
            )
        ).Is(200);

        var thursday = (await Days(ines, "from=2026-03-12&to=2026-03-12"))[0];

        Assert.Equal(
            [DemoPeople.Tomasz.Id.Value],
            thursday.GetProperty("awayAfterNoon").EnumerateArray().Select(who => who.GetGuid())
        );
        Assert.Empty(thursday.GetProperty("awayBeforeNoon").EnumerateArray());
        Assert.Equal(5, thursday.GetProperty("needs")[0].GetProperty("there").GetInt32());
        Assert.Equal(("3", "1.5", "2"), await InMarch(ines));
    }

    /// <summary>The team works from Monday to Friday: after a Friday one is back on Monday, after a Monday off for all on Tuesday.</summary>
    [Fact]
    public async Task Who_is_away_is_back_on_their_next_working_day()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var tomasz = DemoPeople.Tomasz.Id.Value;

        Assert.Equal("2026-03-30", await Back(ines, "2026-03-27", tomasz));
        Assert.Equal("2026-03-26", await Back(ines, "2026-03-25", tomasz));
        Assert.Null(await Back(ines, "2026-03-27", Guid.NewGuid()));
        using var astrid = await mortar.As(DemoPeople.Astrid);
        (await astrid.Get($"/api/groups/{World.StudioTeam}/back?last=2026-03-27&people={tomasz}")).IsProblem(
            404,
            "not-there"
        );

        static async Task<string?> Back(Browser by, string last, Guid who) =>
            (await by.Get($"/api/groups/{World.StudioTeam}/back?last={last}&people={who}"))
                .Is(200)
                .Body.GetProperty("back")
                .GetString();
    }

    private static async Task<(string Dele, string Tomasz, string Mei)> InMarch(Browser browser)
    {
        var totals = (await browser.Get($"/api/groups/{World.StudioTeam}/absences?year=2026")).Is(200).Body;
        return (Of(DemoPeople.Dele), Of(DemoPeople.Tomasz), Of(DemoPeople.Mei));

        string Of(DemoPerson person) =>
            (
                totals
                    .EnumerateArray()
                    .Single(one => one.GetProperty("personId").GetGuid() == person.Id.Value)
                    .GetProperty("halfDays")[2]
                    .GetInt32() / 2m
            ).ToString(System.Globalization.CultureInfo.InvariantCulture);
    }

    [Fact]
    public async Task What_an_absence_would_do_is_told_before_it_is_entered()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var priya = DemoPeople.Priya.Id.Value;

        var days = await Days(ines, $"from=2026-03-16&to=2026-03-18&without={priya}");

        Assert.Equal([0, 1, 1], days.Select(day => day.GetProperty("tooFew").GetInt32()));
        // A morning leaves one less before noon, an hour at the dentist's does not.
        foreach (var (until, tooFew) in new[] { ("12:00", 1), ("10:00", 0) })
        {
            var morning = $"&awayFrom=2026-03-17T09:00:00&awayTo=2026-03-17T{until}:00";
            Assert.Equal(
                tooFew,
                (await Days(ines, $"from=2026-03-17&to=2026-03-17&without={priya}{morning}"))[0]
                    .GetProperty("tooFew")
                    .GetInt32()
            );
        }

        Assert.Contains(priya, days[0].GetProperty("missing").EnumerateArray().Select(who => who.GetGuid()));
    }

    [Fact]
    public async Task An_absence_one_does_not_see_changes_no_number()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var before = (await dele.Get($"{Cover}?from=2026-03-16&to=2026-03-20")).Is(200).Text;
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Confidential",
                    description = "",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "away",
                    groupDefault = "none",
                }
            )
        ).Is(200);
        var body = new
        {
            calendarId = id,
            title = "In hospital",
            showAs = "busy",
            time = new
            {
                form = "days",
                first = "2026-03-16",
                last = "2026-03-20",
            },
            attendees = new[] { DemoPeople.Priya.Id.Value },
        };
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);

        Assert.Equal(before, (await dele.Get($"{Cover}?from=2026-03-16&to=2026-03-20")).Is(200).Text);
        Assert.NotEqual(before, (await ines.Get($"{Cover}?from=2026-03-16&to=2026-03-20")).Is(200).Text);
    }

    [Fact]
    public async Task How_many_are_needed_is_set_by_coordinators_stays_where_it_is_not_said_and_is_checked()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        static object Settings(params object[]? cover) =>
            new
            {
                name = "Studio team",
                sort = "staff",
                zone = "Europe/London",
                firstDay = "monday",
                daysOff = DemoPeople.Stable("calendar Holidays"),
                cover,
            };
        static object Need(params int[] days) =>
            new
            {
                name = "",
                people = Array.Empty<Guid>(),
                days,
            };
        var group = $"/api/groups/{World.StudioTeam}";

        (await priya.Put(group, Settings(Need(1, 1, 1, 1, 1, 1, 1)), 1)).IsProblem(403, "not-allowed");
        (await ines.Put(group, Settings(Need(1, 2)), 1)).IsProblem(422, "unfit");
        (await ines.Put(group, Settings(Need(1, 1, 1, 1, 1, -1, 0)), 1)).IsProblem(422, "unfit");
        var kept = (await ines.Put(group, Settings(null), 1)).Is(200).Body;
        Assert.Equal(5, kept.GetProperty("cover")[0].GetProperty("days")[0].GetInt32());
        (await ines.Put(group, Settings(Need(6, 0, 0, 0, 0, 0, 0)), 1)).Is(200);

        var days = await Days(priya, "from=2026-03-16&to=2026-03-17");
        Assert.Equal([6, 0], days.Select(Needed));
        (await astrid.Get($"{Cover}?from=2026-03-16&to=2026-03-17")).IsProblem(404, "not-there");
        (await ines.Get($"{Cover}?from=2026-03-17&to=2026-03-16")).Is(422);
    }

    /// <summary>
    /// By hand from the demo: Dele and Tomasz watch the kiln from 9 to 13; on the 17th Tomasz is away and Dele is there. With
    /// Dele away that morning as well nobody is; an afternoon of his changes nothing.
    /// </summary>
    [Fact]
    public async Task A_need_in_some_hours_and_of_some_people_is_counted_by_itself()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var dele = DemoPeople.Dele.Id.Value;
        const string Range = "from=2026-03-16&to=2026-03-17";

        var body = (await ines.Get($"{Cover}?{Range}")).Is(200).Body;

        Assert.Equal(
            [("", (int?)null), ("Kiln watch", 540)],
            body.GetProperty("needs")
                .EnumerateArray()
                .Select(need =>
                    (
                        need.Text("name"),
                        need.GetProperty("begins").ValueKind == JsonValueKind.Null
                            ? (int?)null
                            : need.GetProperty("begins").GetInt32()
                    )
                )
        );
        Assert.Equal([(2, 0), (1, 0)], (await Days(ines, Range)).Select(Watch));
        var morning = $"&without={dele}&awayFrom=2026-03-17T08:00:00&awayTo=2026-03-17T12:00:00";
        Assert.Equal([(2, 0), (0, 1)], (await Days(ines, Range + morning)).Select(Watch));
        var afternoon = $"&without={dele}&awayFrom=2026-03-17T13:00:00&awayTo=2026-03-17T19:00:00";
        Assert.Equal([(2, 0), (1, 0)], (await Days(ines, Range + afternoon)).Select(Watch));

        static (int There, int TooFew) Watch(JsonElement day)
        {
            var met = day.GetProperty("needs")[1];
            return (met.GetProperty("there").GetInt32(), met.GetProperty("tooFew").GetInt32());
        }
    }

    [Fact]
    public void Needs_from_before_there_could_be_several_are_still_read()
    {
        var row = new Data.Groups.GroupRow
        {
            Id = new Core.Words.GroupId(Guid.NewGuid()),
            Name = "Choir",
            Sort = Core.Groups.GroupSort.Club,
            Zone = "Europe/London",
            FirstDay = NodaTime.IsoDayOfWeek.Monday,
            Cover = "5 5 6 5 5 0 0",
        };

        Assert.Equal([5, 5, 6, 5, 5, 0, 0], Assert.Single(row.ToSettings().Cover).FromMonday);
        row.Apply(row.ToSettings());
        Assert.Equal([5, 5, 6, 5, 5, 0, 0], Assert.Single(row.ToSettings().Cover).FromMonday);
    }

    private static int Needed(JsonElement day) => day.GetProperty("needs")[0].GetProperty("needed").GetInt32();

    private static async Task<List<JsonElement>> Days(Browser browser, string range) =>
        [.. (await browser.Get($"{Cover}?{range}")).Is(200).Body.GetProperty("days").EnumerateArray()];
}
