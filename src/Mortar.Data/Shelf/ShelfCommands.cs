using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Shelf;

/// <summary>A layer in its place on the shelf.</summary>
/// <param name="Beside">Whether it has a lane of its own.</param>
/// <param name="OffShelf">Whether it is taken off the shelf.</param>
public sealed record LaidLayer(CalendarId Calendar, bool Shown, bool Beside, bool OffShelf = false);

/// <summary>Lays the layers of one's own wall. They are nobody else's, so the change log does not tell of them.</summary>
public sealed class ShelfCommands(MortarDb db)
{
    /// <summary>Shows a layer or hides it, and gives it a look of one's own.</summary>
    public async Task<Outcome<int>> Lay(
        PersonId person,
        LaidLayer layer,
        LayerLook wished,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        if (
            AccessRules.ToSee(reader.RoleOn(layer.Calendar)) != Verdict.Granted
            && !await db.CalendarsGiving(person).ContainsAsync(layer.Calendar, cancellationToken)
        )
        {
            return new Refusal.NotThere("calendar");
        }

        var look = wished.Check();
        if (look.WhyNot is { } unfit)
        {
            return unfit;
        }

        await db.WriteUnlogged(
            async () =>
            {
                var row = await db.OwnLayer(person, layer.Calendar, cancellationToken);
                (row.Shown, row.Beside, row.OffShelf) = (layer.Shown, layer.Beside, layer.OffShelf);
                (row.Hue, row.Mark) = (look.Value.Hue, look.Value.Mark);
                row.Name = look.Value.Name.Length > 0 ? look.Value.Name : null;
            },
            cancellationToken
        );
        return 1;
    }

    /// <summary>Puts the whole shelf in order: what is shown, how, and in which sequence. Calendars one does not reach are passed over.</summary>
    public async Task Order(PersonId person, IReadOnlyCollection<LaidLayer> layers, CancellationToken cancellationToken)
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        var reached = reader
            .Standings.Keys.Union(await db.CalendarsGiving(person).ToListAsync(cancellationToken))
            .ToHashSet();
        await db.WriteUnlogged(
            async () =>
            {
                var place = 0;
                foreach (
                    var layer in layers
                        .DistinctBy(layer => layer.Calendar)
                        .Where(layer => reached.Contains(layer.Calendar))
                )
                {
                    var row = await db.OwnLayer(person, layer.Calendar, cancellationToken);
                    (row.Shown, row.Beside, row.Place) = (layer.Shown, layer.Beside, place++);
                }
            },
            cancellationToken
        );
    }
}
