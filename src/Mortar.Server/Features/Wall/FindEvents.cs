using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/find: events by words, person, place, calendar, kind and days, over all that one may see.</summary>
internal static class FindEvents
{
    private const int Most = 200;

    private const int MostOfSeries = 3;

    /// <summary>The longest range that is looked through: five times what is asked of a wall, and read in as many parts.</summary>
    private const int LongestDays = 5 * Window.LongestDays;

    /// <param name="Hits">In order of time; of a series the next few in the range.</param>
    /// <param name="Texts">What is long on the hits, by their number in it.</param>
    /// <param name="More">Whether there are more than are told.</param>
    internal sealed record Body(IReadOnlyList<BrickBody.Event> Hits, IReadOnlyList<BrickTexts> Texts, bool More);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/find", Handle).WithName(nameof(FindEvents)).RequireRateLimiting(RateLimits.Searching);

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] string? words,
        [FromQuery] string? place,
        [FromQuery] string? kind,
        [FromQuery] PersonId? person,
        [FromQuery] CalendarId? calendar,
        Acting acting,
        WindowReader wall,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value, LongestDays) is { } refusal)
        {
            return refusal;
        }

        var search = new EventSearch(words ?? string.Empty, place ?? string.Empty, kind, person);
        var seen = await wall.See(acting.Person, cancellationToken);
        var now = clock.GetCurrentInstant().InZone(seen.Zone).LocalDateTime;
        var found = new List<VisibleEvent.Shown>();
        for (var first = from.Value; first <= to.Value; first = first.PlusDays(Window.LongestDays))
        {
            var last = LocalDate.Min(to.Value, first.PlusDays(Window.LongestDays - 1));
            var reading = await wall.Read(
                seen,
                seen.Days(first, last),
                one => calendar is null || one == calendar,
                cancellationToken
            );
            var inPart = reading.Calendars.SelectMany(reading.Visible).OfType<VisibleEvent.Shown>().Where(search.Finds);
            found.AddRange(EventSearch.NextOfEach(inPart, now, MostOfSeries));
        }

        // What lasts from one part of the range into the next is found in both.
        var (told, more) = EventSearch.Nearest(found.DistinctBy(one => (one.Id, one.Start)), now, MostOfSeries, Most);
        var table = new BrickTable(seen.Zone);
        return TypedResults.Ok(new Body([.. told.Select(table.Lay)], table.Texts, more));
    }
}
