using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Data.Reading;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>The weeks of ribbons, kept as long as nothing in them changes.</summary>
internal sealed class KeptWeeks(ZoneClock clock) : IDisposable
{
    private readonly KeptAlike<LocalDate, RibbonWeek> kept = new(most: 50_000);

    /// <summary>One week of some layers as somebody sees them.</summary>
    public Task<RibbonWeek> Of(WindowReader wall, SeenLayers seen, Window week, CancellationToken cancellationToken) =>
        kept.Get(
            seen,
            week.First,
            [week.Span],
            async () =>
            {
                var reading = await wall.Read(seen.Seen, week, seen.Layers.Contains, cancellationToken);
                return new WorkedOut<RibbonWeek>(
                    Ribbon.Of(week, reading.Calendars.SelectMany(reading.Visible), reading.Clashes(), clock),
                    reading.IsAlikeForAll
                );
            },
            cancellationToken
        );

    public void Dispose() => kept.Dispose();
}
