using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/ribbon: how full each of some weeks is, and where it clashes, over some of one's layers.</summary>
internal static class ReadRibbon
{
    private const int MostWeeks = 56;

    /// <param name="First">The first day of the week.</param>
    /// <param name="Minutes">How many minutes of it are taken, overlapping ones once.</param>
    internal sealed record Week(LocalDate First, int Minutes, int Clashes);

    public static void Map(RouteGroupBuilder api) => api.MapGet("/ribbon", Handle).WithName(nameof(ReadRibbon));

    private static async Task<Results<Ok<IReadOnlyList<Week>>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] int weeks,
        [FromQuery] Guid[]? calendars,
        Acting acting,
        WallReader wall,
        CancellationToken cancellationToken
    )
    {
        if (weeks is < 1 or > MostWeeks || from.Value.Year is < 1 or > 9_990)
        {
            return Problems.Unfit([new FieldProblem("weeks", $"Ask for 1 to {MostWeeks} weeks.")]);
        }

        var last = from.Value.PlusDays((weeks * 7) - 1);
        if (Ranges.WhyNot(from.Value, last) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, last, cancellationToken);
        if (calendars is { Length: > 0 })
        {
            reading = reading with
            {
                Calendars = [.. reading.Calendars.Where(one => calendars.Contains(one.Row.Id.Value))],
            };
        }

        var taken = reading.Calendars.SelectMany(reading.Visible).SelectMany(one => Taken(one, reading));
        return TypedResults.Ok<IReadOnlyList<Week>>([
            .. Ribbon
                .Of(from.Value, weeks, reading.Window.Reader, taken, reading.Clashes().Told)
                .Select(week => new Week(week.First, (int)week.Busy.TotalMinutes, week.Clashes)),
        ]);
    }

    /// <summary>What takes hours: whole days tell nothing of how full a week is.</summary>
    private static IEnumerable<Interval> Taken(VisibleEvent visible, WallReading reading) =>
        visible switch
        {
            VisibleEvent.Busy busy => [busy.Span],
            VisibleEvent.Shown
            {
                ShowAs: not ShowAs.Free,
                Cancelled: false,
                Agreed: not Core.Time.EventTime.AllDay
            } shown => [reading.Clock.Span(shown.Agreed, reading.Window.Reader)],
            _ => [],
        };
}
