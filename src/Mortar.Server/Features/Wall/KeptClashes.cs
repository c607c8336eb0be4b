using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Data.Reading;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>What collides with an event that was changed: each open screen asks for it, and they see the same.</summary>
internal sealed class KeptClashes : IDisposable
{
    private readonly KeptAlike<(EventId, LocalDate, LocalDate), ClashesFound> kept = new(most: 5_000);

    /// <summary>What collides with one event within a window.</summary>
    /// <param name="wall">Reads it.</param>
    /// <param name="seen">Who asks.</param>
    /// <param name="window">The window.</param>
    /// <param name="about">The event.</param>
    /// <param name="dates">When it takes place.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public Task<ClashesFound> With(
        WindowReader wall,
        SeenLayers seen,
        Window window,
        EventId about,
        IReadOnlyCollection<Interval> dates,
        CancellationToken cancellationToken
    ) =>
        kept.Get(
            seen,
            (about, window.First, window.Last),
            dates,
            async () =>
            {
                // Only what takes place beside it can collide with it.
                var beside = await wall.Read(seen.Seen, window, dates, seen.Layers.Contains, cancellationToken);
                return new WorkedOut<ClashesFound>(
                    beside.Clashes(about: new HashSet<EventId> { about }),
                    beside.IsAlikeForAll
                );
            },
            cancellationToken
        );

    public void Dispose() => kept.Dispose();
}
