using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Server.Wire;

/// <summary>A calendar as a file.</summary>
/// <param name="Text">The file (RFC 5545).</param>
/// <param name="Count">How many events are in it, or busy times where it has no more.</param>
internal sealed record CalendarText(string Text, int Count);

/// <summary>Writes calendars as files, as far as somebody sees them.</summary>
internal sealed class CalendarFiles(MortarDb db, LaidReading laid, ZoneClock zones, IClock clock, PublicLinks links)
{
    /// <summary>How many days before and after today are told of a calendar of which only the times are seen: it has no end.</summary>
    private const int DaysBack = 365;

    private const int DaysAhead = 730;

    /// <summary>All events of a calendar that somebody may take along.</summary>
    public async Task<CalendarText> Events(
        PersonId reader,
        Role role,
        CalendarRow calendar,
        CancellationToken cancellationToken
    )
    {
        var rows = await db
            .Events.AsNoTracking()
            .Where(row => row.CalendarId == calendar.Id && row.DeletedAt == null)
            .OrderBy(row => row.IndexStart)
            .ThenBy(row => row.Uid)
            .ToListAsync(cancellationToken);
        return await Write(
            reader,
            _ => role,
            new FileHead(calendar.Name, role >= Role.View ? calendar.Description : string.Empty, calendar.Zone),
            rows,
            cancellationToken
        );
    }

    /// <summary>All that somebody put into calendars they still reach, in one file.</summary>
    public async Task<CalendarText> PutIn(
        PersonId reader,
        Func<CalendarId, Role> roleOn,
        IReadOnlyCollection<CalendarId> calendars,
        string zone,
        CancellationToken cancellationToken
    )
    {
        var rows = await db
            .Events.AsNoTracking()
            .Where(row => row.AddedBy == reader && row.DeletedAt == null && calendars.Contains(row.CalendarId))
            .OrderBy(row => row.IndexStart)
            .ThenBy(row => row.Uid)
            .ToListAsync(cancellationToken);
        return await Write(reader, roleOn, new FileHead("What I put in", string.Empty, zone), rows, cancellationToken);
    }

    private async Task<CalendarText> Write(
        PersonId reader,
        Func<CalendarId, Role> roleOn,
        FileHead head,
        List<EventRow> rows,
        CancellationToken cancellationToken
    )
    {
        var written = (
            from row in rows
            let seen = VisibleEvent.ToTake(roleOn(row.CalendarId), reader, row.ToCore())
            where seen.Event is not null
            select new EventToWrite(seen.Event!, seen.IsWhole ? row.Source : null)
        ).ToList();
        var people = written.SelectMany(one => one.Event.Named.Append(one.Event.AddedBy)).Distinct().ToList();
        var names = await db
            .People.Where(person => people.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Name, cancellationToken);
        var homes = rows.Select(row => row.CalendarId).ToHashSet();
        var answers = (
            await db.Answers.AsNoTracking().Where(row => homes.Contains(row.CalendarId)).ToListAsync(cancellationToken)
        ).ToLookup(row => row.EventId, row => row.ToCore());
        return new CalendarText(
            CalendarFileWriter.Write(head, written, names, clock.GetCurrentInstant(), zones, answers),
            written.Count
        );
    }

    /// <summary>When a calendar is busy (VFREEBUSY, RFC 5545, 3.6.4), around today.</summary>
    public async Task<CalendarText> Times(PersonId reader, CalendarRow calendar, CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var zone = zones.Zone(calendar.Zone);
        var today = now.InZone(zone).Date;
        var (first, last) = (today.PlusDays(-DaysBack), today.PlusDays(DaysAhead));
        var busy = new List<PublishedBusy>();
        await foreach (
            var (_, what) in laid.Stream(reader, first, last, row => row.Id == calendar.Id, cancellationToken)
        )
        {
            if (what is VisibleEvent.Busy taken)
            {
                busy.Add(new PublishedBusy(taken.Span, taken.Tentative));
            }
        }

        var head = new PublishedHead(
            calendar.Name,
            string.Empty,
            calendar.Hue,
            links.Week,
            links.Week,
            Duration.FromDays(1)
        );
        return new CalendarText(
            PublishedCalendar.Begin(head, now)
                + PublishedCalendar.Of(head, busy, new Window(first, last, zone).Span, now)
                + PublishedCalendar.End,
            busy.Count
        );
    }
}
