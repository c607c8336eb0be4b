using System.Collections.Immutable;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.WebCalendars;
using Mortar.Server.StandIns;
using NodaTime;
using static Mortar.Server.Features.Demo.DemoPeople;

namespace Mortar.Server.Features.Demo;

/// <content>How a group, a calendar and an event are put into the store, by a line each.</content>
internal sealed partial class DemoStudio
{
    private GroupId Group(
        string name,
        GroupSort sort,
        DemoPerson coordinator,
        IReadOnlyList<DemoPerson> members,
        ImmutableArray<CoverNeed>? cover = null
    )
    {
        var id = new GroupId(Stable(name));
        var row = new GroupRow
        {
            Id = id,
            Name = name,
            Sort = sort,
            Zone = Home,
            FirstDay = IsoDayOfWeek.Monday,
        };
        row.Apply(row.ToSettings() with { Cover = CoverNeed.Check(cover ?? []).Value });
        db.Groups.Add(row);
        db.Members.Add(
            new MemberRow
            {
                GroupId = id,
                PersonId = coordinator.Id,
                Coordinates = true,
            }
        );
        joining.AddRange(members.Select(person => (id, person)));
        return id;
    }

    private CalendarId Calendar(
        GroupId group,
        string name,
        string description,
        Hue hue,
        Mark mark,
        Purpose purpose,
        Role groupDefault,
        IReadOnlyList<(DemoPerson Person, Role Role)> grants,
        string zone = Home,
        WhoseTime takes = WhoseTime.Named,
        DemoPerson? person = null,
        IReadOnlyList<Kind>? kinds = null
    )
    {
        var id = new CalendarId(Stable($"calendar {name}"));
        var row = new CalendarRow
        {
            Id = id,
            GroupId = group,
            Name = name,
            Description = description,
            Hue = hue,
            Mark = mark,
            Zone = zone,
            Purpose = purpose,
            GroupDefault = groupDefault,
        };
        row.Apply(row.Settings() with { Takes = takes, Person = person?.Id, Kinds = kinds ?? [] });
        db.Calendars.Add(row);
        db.Grants.AddRange(
            grants.Select(grant => new GrantRow
            {
                Id = Stable($"{name} {grant.Person.Name}"),
                CalendarId = id,
                PersonId = grant.Person.Id,
                Role = grant.Role,
            })
        );
        return id;
    }

    /// <summary>A calendar whose events come from the small host that ships with Mortar; they are not there yet.</summary>
    private async Task<CalendarId> FromWeb(
        GroupId group,
        string name,
        string file,
        Hue hue,
        Mark mark,
        DemoPerson coordinator
    )
    {
        var id = Calendar(
            group,
            name,
            string.Empty,
            hue,
            mark,
            Purpose.Events,
            Role.View,
            [(coordinator, Role.Coordinate)],
            takes: WhoseTime.Nobody
        );
        var row = db.Calendars.Local.Single(one => one.Id == id);
        row.Apply(row.Settings() with { FromWeb = true });
        await db.MeetTheWeb(CancellationToken.None);
        var source = new WebSourceRow
        {
            Id = Stable($"source {file}"),
            Address = $"http://{WebHost.Name}/{file}",
            DueAt = clock.GetCurrentInstant(),
        };
        db.WebSources.Add(source);
        db.WebCalendars.Add(new WebCalendarRow { CalendarId = id, SourceId = source.Id });
        return id;
    }

    private void Once(
        CalendarId calendar,
        DemoPerson by,
        string title,
        int day,
        int hour,
        int minute,
        double hours,
        string place = "",
        string notes = "",
        ShowAs showAs = ShowAs.Busy,
        string kind = "",
        params DemoPerson[] who
    ) =>
        Put(
            calendar,
            by,
            At(day, hour, minute, hours, by.Zone),
            Said(title, place, notes, kind, who) with
            {
                ShowAs = showAs,
            },
            series: null
        );

    /// <summary>A series that began six weeks ago.</summary>
    private void Weekly(
        CalendarId calendar,
        DemoPerson by,
        string title,
        int day,
        int hour,
        int minute,
        double hours,
        string weekdays,
        string place = "",
        string notes = "",
        string kind = "",
        params DemoPerson[] who
    ) =>
        Put(
            calendar,
            by,
            At(day - 42, hour, minute, hours, by.Zone),
            Said(title, place, notes, kind, who),
            Series.By(RecurrenceRule.Of($"FREQ=WEEKLY;BYDAY={weekdays}"))
        );

    private void Days(
        CalendarId calendar,
        DemoPerson by,
        string title,
        int first,
        int last,
        string notes = "",
        params DemoPerson[] who
    ) =>
        Put(
            calendar,
            by,
            EventTime.Days(Monday.PlusDays(first), Monday.PlusDays(last)),
            Said(title, string.Empty, notes, string.Empty, who),
            series: null
        );

    /// <summary>Days whose hours nobody knows yet.</summary>
    private void ToBeSet(CalendarId calendar, DemoPerson by, string title, int first, int last, string kind) =>
        Put(
            calendar,
            by,
            EventTime.DaysToBeSet(Monday.PlusDays(first), Monday.PlusDays(last)),
            Said(title, string.Empty, string.Empty, kind, []),
            series: null
        );

    private static EventContent Said(
        string title,
        string place,
        string notes,
        string kind,
        IReadOnlyList<DemoPerson> who
    ) =>
        EventContent.Blank with
        {
            Title = title,
            Place = place,
            Notes = notes,
            Kind = kind,
            Attendees = Attendees.Of(who.Select(person => person.Id)),
        };

    private EventTime At(int day, int hour, int minute, double hours, string zone)
    {
        var start = Monday.PlusDays(day) + new LocalTime(hour, minute);
        return EventTime.InZone(start, start.PlusMinutes((long)(hours * 60)), zone);
    }

    private void Put(CalendarId calendar, DemoPerson by, EventTime time, EventContent content, Series? series)
    {
        var id = new EventId(Stable($"{calendar.Value} {content.Title} {time.LocalStart}"));
        var row = new EventRow
        {
            Id = id,
            CalendarId = calendar,
            Uid = $"{id.Value}@mortar",
            AddedBy = by.Id,
        };
        row.Apply(time, content, series, zones);
        db.Events.Add(row);
    }
}
