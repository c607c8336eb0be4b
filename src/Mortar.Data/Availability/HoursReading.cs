using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>Reads what takes the time of a group's members on its calendars, to be added up.</summary>
public sealed class HoursReading(MortarDb db, TimesReader times, WindowReader windows, ZoneClock zones)
{
    /// <summary>That of some days; <c>null</c> where the reader is not in the group.</summary>
    public async Task<GroupHours?> Read(
        PersonId reader,
        GroupId groupId,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    )
    {
        if (await CountedGroup.Read(groupId, reader, db, cancellationToken) is not { } group)
        {
            return null;
        }

        var window = new Window(from, to, zones.Zone(group.Row.Zone));
        var known = await group.Known(reader, window, times, cancellationToken);
        var names = (await windows.See(reader, cancellationToken))
            .Sight.Calendars.Where(one => one.Row.GroupId == groupId)
            .ToDictionary(one => one.Row.Id, one => one.Row.Name);
        return new GroupHours(
            group.Row.Name,
            window,
            group.Row.FirstDay,
            [
                .. known
                    .Select(one => (new PersonId(one.Who.Id), one.Name))
                    .OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase),
            ],
            [
                .. from one in known
                from takenTime in one.Seen
                where !takenTime.IsAbsence && names.ContainsKey(takenTime.Occurrence.Event.CalendarId)
                select new CountedTime(
                    new PersonId(one.Who.Id),
                    names[takenTime.Occurrence.Event.CalendarId],
                    takenTime.Occurrence.Content.Kind,
                    takenTime.Occurrence.Span,
                    takenTime.Occurrence.Time is EventTime.AllDay,
                    takenTime.How == Taken.Tentative
                ),
            ]
        );
    }
}
