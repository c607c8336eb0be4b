using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Devices;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Devices;

/// <summary>A device that asks, and for whom.</summary>
/// <param name="Row">The device.</param>
internal sealed record DavReader(DeviceRow Row)
{
    /// <summary>Whose it is.</summary>
    public PersonId Owner => Row.Owner;

    /// <summary>What it may.</summary>
    public Device Device { get; } = Row.ToCore();
}

/// <summary>A calendar on the shelf of a device's owner.</summary>
/// <param name="Row">The calendar.</param>
/// <param name="OwnersRole">The step that its owner has on it.</param>
/// <param name="Role">The step at which the device reads it.</param>
/// <param name="Reader">As whom.</param>
/// <param name="Seen">What of its settings that shows.</param>
/// <param name="Layer">How it lies on its owner's wall; <c>null</c> where they never laid it.</param>
/// <param name="Place">Its place on the shelf, from 0.</param>
/// <param name="Zone">Its owner's clock.</param>
internal sealed record DavCalendar(
    CalendarRow Row,
    Role OwnersRole,
    Role Role,
    PersonId Reader,
    VisibleCalendar Seen,
    LayerRow? Layer,
    int Place,
    DateTimeZone Zone
)
{
    public CalendarId Id => Row.Id;

    public string Name => Layer?.Name ?? Seen.Name;

    public Hue Hue => Layer?.Hue ?? Seen.Hue;
}

/// <summary>Finds the calendars that a device is told of: the layers on its owner's shelf.</summary>
internal sealed class DavShelf(MortarDb db, WindowReader windows, DavKept kept)
{
    /// <summary>All of them, in the order of the shelf.</summary>
    public async Task<IReadOnlyList<DavCalendar>> All(DavReader reader, CancellationToken cancellationToken)
    {
        var seen = await windows.See(reader.Owner, cancellationToken);
        var layers = await kept.Layers(db, reader.Owner, cancellationToken);
        var homes = seen.Sight.Calendars.Select(one => one.Row.GroupId).ToHashSet();
        var groups = await db
            .Groups.Where(row => homes.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        return
        [
            .. seen
                .Sight.Calendars.Where(one => layers.GetValueOrDefault(one.Row.Id)?.OffShelf != true)
                .OrderBy(one => layers.GetValueOrDefault(one.Row.Id)?.Place ?? int.MaxValue)
                .ThenBy(one => groups[one.Row.GroupId], StringComparer.Ordinal)
                .ThenBy(one => one.Row.Name, StringComparer.Ordinal)
                .ThenBy(one => one.Row.Id.Value)
                .Select((one, place) => Of(reader, one, layers.GetValueOrDefault(one.Row.Id), place, seen.Zone))
                .OfType<DavCalendar>(),
        ];
    }

    /// <summary>One of them; <c>null</c> where it is none.</summary>
    public async Task<DavCalendar?> One(DavReader reader, CalendarId id, CancellationToken cancellationToken)
    {
        var seen = await windows.See(reader.Owner, cancellationToken);
        if (seen.Sight.Calendars.FirstOrDefault(one => one.Row.Id == id) is not { } calendar)
        {
            return null;
        }

        var layer = (await kept.Layers(db, reader.Owner, cancellationToken)).GetValueOrDefault(id);
        return layer?.OffShelf == true ? null : Of(reader, calendar, layer, place: 0, seen.Zone);
    }

    /// <summary>Whether a calendar is there for its owner, on the shelf or off it.</summary>
    public async Task<bool> Reaches(DavReader reader, CalendarId id, CancellationToken cancellationToken) =>
        (await windows.See(reader.Owner, cancellationToken)).Sight.Has(id);

    private static DavCalendar? Of(DavReader reader, SeenCalendar one, LayerRow? layer, int place, DateTimeZone zone)
    {
        var role = reader.Device.On(one.Role);
        // Whoever is shown as nobody is given nothing by itself.
        return
            VisibleCalendar.Through(
                role,
                one.Row.Settings(),
                givesEvents: one.Role == Role.None && reader.Device.ReadsAs(reader.Owner) == reader.Owner
            )
                is { } visible
            ? new DavCalendar(one.Row, one.Role, role, reader.Device.ReadsAs(reader.Owner), visible, layer, place, zone)
            : null;
    }
}
