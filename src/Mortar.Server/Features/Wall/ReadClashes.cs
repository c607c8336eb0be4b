using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Data.Availability;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/clashes: what collides in some days and is one's own to resolve. POST /api/clashes/{key}/fine: it is fine as it is.</summary>
internal static class ReadClashes
{
    private const int Most = 100;

    /// <param name="Clashes">The soonest first.</param>
    /// <param name="More">Whether there are more than are told.</param>
    internal sealed record Body(IReadOnlyList<ClashBody> Clashes, bool More);

    /// <param name="Key">What names this time of it; another as soon as anything of it changes.</param>
    /// <param name="Start">When what they share begins, on the reader's clock.</param>
    /// <param name="People">Who is taken twice.</param>
    /// <param name="Places">The calendars of the places that are.</param>
    /// <param name="Hard">Whether both are settled.</param>
    /// <param name="MayMark">Whether the reader may mark it as fine: who may change one of the two.</param>
    internal sealed record ClashBody(
        string Key,
        BrickBody.Event First,
        BrickBody.Event Second,
        LocalDateTime Start,
        LocalDateTime End,
        IReadOnlyList<Guid> People,
        IReadOnlyList<Guid> Places,
        bool Hard,
        bool MayMark
    );

    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/clashes", Handle).WithName(nameof(ReadClashes));
        api.MapPost("/clashes/{key}/fine", MarkFine).WithName("MarkClashFine");
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        WallReader wall,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var found = Mine(reading).Take(Most + 1).ToList();
        return TypedResults.Ok(
            new Body([.. found.Take(Most).Select(one => Of(one.Clash, one.Time, reading))], found.Count > Most)
        );
    }

    /// <param name="key">What names it.</param>
    /// <param name="from">A range in which it lies.</param>
    /// <param name="to">Its last day.</param>
    private static async Task<Results<NoContent, ProblemHttpResult>> MarkFine(
        string key,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        WallReader wall,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var (clash, time) = Mine(reading).FirstOrDefault(one => one.Clash.KeyOf(one.Time) == key);
        return clash is null ? Problems.NotThere("clash")
            : !MayMark(clash, reading) ? Verdict.Denied.Refusal("Edit")!
            : await db.MarkFine(acting.Act, key, clash.First.CalendarId, time.Span.End, cancellationToken).Answer();
    }

    private static IEnumerable<(Clash Clash, ClashTime Time)> Mine(WallReading reading) =>
        from clash in reading.Clashes()
        where clash.Concerns(reading.Person, reading.RoleOn)
        from time in clash.Times
        orderby time.Span.Start
        select (clash, time);

    private static bool MayMark(Clash clash, WallReading reading) =>
        new[] { clash.First, clash.Second }.Any(one =>
            AccessRules.ToChange(reading.RoleOn(one.CalendarId), reading.Person, one) == Verdict.Granted
        );

    private static ClashBody Of(Clash clash, ClashTime time, WallReading reading)
    {
        var zone = reading.Window.Reader;
        return new ClashBody(
            clash.KeyOf(time),
            Brick(clash.First, time.FirstStart),
            Brick(clash.Second, time.SecondStart),
            time.Span.Start.InZone(zone).LocalDateTime,
            time.Span.End.InZone(zone).LocalDateTime,
            [.. clash.Who.Where(who => !who.IsPlace).Select(who => who.Id)],
            [.. clash.Who.Where(who => who.IsPlace).Select(who => who.Id)],
            clash.Severity == Severity.Hard,
            MayMark(clash, reading)
        );

        // A clash is made of what the reader sees whole, so each of its events shows.
        BrickBody.Event Brick(Event whole, LocalDateTime? only) =>
            BrickBody.Of(
                VisibleEvent.Show(
                    reading.RoleOn(whole.CalendarId),
                    reading.Person,
                    whole.OccurrenceAt(only, reading.Clock, zone)
                        ?? throw new InvalidOperationException("What clashes takes place."),
                    zone
                ) ?? throw new InvalidOperationException("What clashes is seen."),
                zone
            );
    }
}
