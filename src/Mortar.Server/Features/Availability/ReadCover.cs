using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Availability;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>
/// GET /api/groups/{groupId}/cover: day by day who is there and who is away, against how many are needed; for members, as
/// far as they see absences. With <c>without</c> as it would be were these people away as well: all the time, or from
/// <c>awayFrom</c> to <c>awayTo</c> on the reader's clock.
/// </summary>
internal static class ReadCover
{
    /// <param name="Needs">What the group needs, in its order.</param>
    internal sealed record Body(IReadOnlyList<NeedBody> Needs, IReadOnlyList<DayBody> Days);

    /// <param name="Name">Empty for the group as a whole.</param>
    /// <param name="Begins">In minutes of the day; <c>null</c> for whole days.</param>
    internal sealed record NeedBody(string Name, int? Begins, int? Ends);

    /// <param name="Present">Those of the group who are there in their usual hours of that day.</param>
    /// <param name="Missing">Those who would be and are away.</param>
    /// <param name="AwayBeforeNoon">Those of the present who are away for the first half of the day.</param>
    /// <param name="AwayAfterNoon">Those of the present who are away for the second.</param>
    /// <param name="Perhaps">Those of the present who would be away if what is only proposed were agreed to.</param>
    /// <param name="Needs">How each need is met, in the order of the needs.</param>
    /// <param name="TooFew">How many too few for the need that is met worst; 0 where there are enough for each.</param>
    internal sealed record DayBody(
        LocalDate Day,
        IReadOnlyList<Guid> Present,
        IReadOnlyList<Guid> Missing,
        IReadOnlyList<Guid> AwayBeforeNoon,
        IReadOnlyList<Guid> AwayAfterNoon,
        IReadOnlyList<Guid> Perhaps,
        IReadOnlyList<MetBody> Needs,
        int TooFew
    );

    /// <param name="There">How many of those who count are there: of a whole day, in the half in which fewer are.</param>
    /// <param name="TooFew">How many too few; 0 where there are enough.</param>
    internal sealed record MetBody(int Needed, int There, int TooFew);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/cover", Handle).WithName(nameof(ReadCover));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        GroupId groupId,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] Guid[]? without,
        [FromQuery] LocalTimeQuery? awayFrom,
        [FromQuery] LocalTimeQuery? awayTo,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await CountedGroup.Read(groupId, acting.Person, db, cancellationToken) is not { } group)
        {
            return Problems.NotThere("group");
        }

        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        // Days are the group's, whoever looks at them.
        var window = new Window(from.Value, to.Value, zones.Zone(group.Row.Zone));
        var reader = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var alsoAway =
            awayFrom is { Value: var start } && awayTo is { Value: var end } && start < end
                ? new Interval(ZoneClock.At(start, reader), ZoneClock.At(end, reader))
                : window.Span;
        var people = await group.People(
            acting.Person,
            window,
            new Without((without ?? []).ToHashSet(), alsoAway),
            times,
            cancellationToken
        );
        var daysOff = await db.DaysOffIn(group.Row, window, zones, cancellationToken);
        var needs = group.Row.ToSettings().Cover;
        var met = needs.Select(need => Cover.Every(window, need, people, daysOff).ToList()).ToList();
        return TypedResults.Ok(
            new Body(
                [.. needs.Select(need => new NeedBody(need.Name, Begins(need.Part), Ends(need.Part)))],
                [
                    .. Cover
                        .Every(window, [DayPart.Whole], people, daysOff)
                        .Select((day, at) => Day(day, [.. met.Select(need => need[at])])),
                ]
            )
        );
    }

    private static DayBody Day(CoverDay day, IReadOnlyList<CoverDay> needs) =>
        new(
            day.Day,
            [.. day.Present.Select(one => one.Value)],
            [.. day.Missing.Select(one => one.Value)],
            [.. day.AwayBeforeNoon.Select(one => one.Value)],
            [.. day.AwayAfterNoon.Select(one => one.Value)],
            [.. day.Perhaps.Select(one => one.Value)],
            [.. needs.Select(one => new MetBody(one.Needed, one.There, one.TooFew))],
            Cover.TooFew(needs)
        );

    private static int? Begins(DayPart part) => part.IsWhole ? null : Minutes(part.Begins);

    private static int? Ends(DayPart part) => part.Ends is { } ends ? Minutes(ends) : null;

    private static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;
}
