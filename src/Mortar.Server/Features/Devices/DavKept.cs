using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Devices;
using Mortar.Data.Reading;
using Mortar.Data.Store;

namespace Mortar.Server.Features.Devices;

/// <summary>
/// What every request of a device asks the store, as long as nothing was written since it was read: programs ask what is new
/// each minute, and mostly nothing is. A key that has ended was written, and opens nothing from then on.
/// </summary>
internal sealed class DavKept(ChangeSignal signal)
{
    private const int Most = 5_000;

    private readonly KeptWhile<string, DeviceRow?> keys = new(() => signal.Commits, Most);
    private readonly KeptWhile<PersonId, IReadOnlyDictionary<CalendarId, LayerRow>> layers = new(
        () => signal.Commits,
        Most
    );
    private readonly KeptWhile<(PersonId, CalendarId), NewestOf> newest = new(() => signal.Commits, Most);

    /// <summary>All that is told of the calendars that were begun with last; they can be large.</summary>
    private readonly KeptWhile<(CalendarId, PersonId, Role, string Zone), IReadOnlyList<DavObject>> events = new(
        () => signal.Commits,
        most: 2
    );

    /// <summary>The device that a key opens; <c>null</c> for none.</summary>
    public Task<DeviceRow?> Device(MortarDb db, string key, CancellationToken cancellationToken) =>
        keys.Get(DeviceKey.HashOf(key), () => db.DeviceByKey(key, cancellationToken));

    /// <summary>How somebody laid their calendars.</summary>
    public Task<IReadOnlyDictionary<CalendarId, LayerRow>> Layers(
        MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => layers.Get(person, () => db.LayersOf(person, cancellationToken));

    /// <summary>All events of a calendar as they are told to a device.</summary>
    public Task<IReadOnlyList<DavObject>> Events(DavCalendar calendar, Func<Task<IReadOnlyList<DavObject>>> read) =>
        events.Get((calendar.Id, calendar.Reader, calendar.Role, calendar.Row.Zone), read);

    /// <summary>Up to where a calendar's events are known, and the alarms that somebody set on them.</summary>
    public Task<NewestOf> Newest(
        MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) => newest.Get((person, calendar), () => db.Newest(person, calendar, cancellationToken));
}
