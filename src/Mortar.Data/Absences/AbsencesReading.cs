using Mortar.Core.Absences;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Absences;

/// <summary>Reads the absences of a group one by one, as somebody in it sees them; what they add up to is what the totals say.</summary>
public sealed class AbsencesReading(MortarDb db, TimesReader times, WindowReader windows, ZoneClock zones)
{
    /// <summary>Those of some days; <c>null</c> where the reader is not in the group.</summary>
    public async Task<GroupAbsences?> Read(
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
        var names = (await windows.See(reader, cancellationToken)).Sight.Calendars.ToDictionary(
            one => one.Row.Id,
            one => one.Row.Name
        );
        return new GroupAbsences(
            group.Row.Name,
            window,
            [
                .. known
                    .Select(one => new AbsentPerson(new PersonId(one.Who.Id), one.Name, one.Hours))
                    .OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase),
            ],
            [.. known.SelectMany(one => Seen(one).Concat(Untold(one, window)))],
            await db.DaysOffIn(group.Row, window, zones, cancellationToken)
        );

        IEnumerable<SeenAbsence> Seen(KnownParticipant one) =>
            one
                .Seen.Where(takenTime => takenTime.IsAbsence)
                .Select(takenTime => new SeenAbsence(
                    new PersonId(one.Who.Id),
                    names.GetValueOrDefault(takenTime.Occurrence.Event.CalendarId, string.Empty),
                    takenTime.Occurrence.Content.Kind,
                    takenTime.Occurrence.Content.Title,
                    takenTime.Occurrence.Content.Notes,
                    takenTime.Occurrence.SeenIn(window.Reader),
                    takenTime.Occurrence.Span,
                    takenTime.How == Taken.Tentative
                ));
    }

    /// <summary>When somebody is away as they let it be known, without by what.</summary>
    private static IEnumerable<SeenAbsence> Untold(KnownParticipant one, Window window) =>
        one.Time.UnseenAway.Select(span => new SeenAbsence(
            new PersonId(one.Who.Id),
            string.Empty,
            string.Empty,
            string.Empty,
            string.Empty,
            WholeDays(span.Start.InZone(window.Reader), span.End.InZone(window.Reader))
                ?? ZoneClock.Shown(span, window.Reader),
            span,
            Perhaps: false
        ));

    private static EventTime? WholeDays(ZonedDateTime start, ZonedDateTime end) =>
        start.TimeOfDay == LocalTime.Midnight && end.TimeOfDay == LocalTime.Midnight && start.Date < end.Date
            ? EventTime.Days(start.Date, end.Date.PlusDays(-1))
            : null;
}
