using System.Diagnostics;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Availability;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Reading;
using Mortar.Data.Roster;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Spreadsheets;

/// <summary>What is asked for.</summary>
/// <param name="Group">Of which group; events may be of all one sees.</param>
/// <param name="Calendars">The calendars that are wanted; <c>null</c> for all of the group, or all.</param>
internal sealed record SpreadsheetAsk(
    SpreadsheetWhat What,
    LocalDate From,
    LocalDate To,
    GroupId? Group,
    IReadOnlySet<CalendarId>? Calendars
);

/// <summary>A spreadsheet that is ready to be written.</summary>
/// <param name="Of">Of whom it is, for its name.</param>
/// <param name="Tables">Its tables; the first is what has only one.</param>
internal sealed record SpreadsheetOf(string Of, IReadOnlyList<Table> Tables);

/// <summary>Reads what goes into spreadsheets, each as its own screen would tell it.</summary>
internal sealed class SpreadsheetReading(
    MortarDb db,
    LaidReading laid,
    RosterReading rosters,
    HoursReading hours,
    AbsencesReading absences,
    ZoneClock zones
)
{
    private static readonly Refusal NoGroup = new Refusal.NotThere("group");

    public async Task<Outcome<SpreadsheetOf>> Read(
        PersonId reader,
        SpreadsheetAsk ask,
        CancellationToken cancellationToken
    )
    {
        if (ask.What == SpreadsheetWhat.Events)
        {
            return await EventsOf(reader, ask, cancellationToken);
        }

        if (ask.Group is not { } group)
        {
            return new Refusal.Unfit("group", "Say of which group.");
        }

        switch (ask.What)
        {
            case SpreadsheetWhat.Roster:
                var roster = await rosters.Read(reader, group, ask.From, ask.To, ask.Calendars, cancellationToken);
                return roster is null ? NoGroup : new SpreadsheetOf(roster.Group, [RosterRows.Of(roster)]);
            case SpreadsheetWhat.Hours:
                var worked = await hours.Read(reader, group, ask.From, ask.To, cancellationToken);
                return worked is null ? NoGroup : new SpreadsheetOf(worked.Group, HourRows.Of(worked));
            case SpreadsheetWhat.Absences or SpreadsheetWhat.AbsenceDays:
                var away = await absences.Read(reader, group, ask.From, ask.To, cancellationToken);
                return away is null ? NoGroup
                    : away.WhyNot is { } tooMany ? tooMany
                    : ask.What == SpreadsheetWhat.AbsenceDays ? new SpreadsheetOf(away.Group, [AbsenceRows.Grid(away)])
                    : new SpreadsheetOf(away.Group, [AbsenceRows.List(away), .. AbsenceRows.Months(away)]);
            case SpreadsheetWhat.Access:
                return await db.AccessOverviewOf(group, reader, zones, cancellationToken) switch
                {
                    Outcome<AccessOverview>.Done done => new SpreadsheetOf(
                        done.Value.GroupName,
                        AccessRows.Of(done.Value)
                    ),
                    Outcome<AccessOverview>.Not not => not.Why,
                    _ => throw new UnreachableException(),
                };
            default:
                throw new UnreachableException();
        }
    }

    private async Task<Outcome<SpreadsheetOf>> EventsOf(
        PersonId reader,
        SpreadsheetAsk ask,
        CancellationToken cancellationToken
    )
    {
        var groups = await db.Groups.ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        if (ask.Group is { } group && !await db.PlaceIn(group, reader).AnyAsync(cancellationToken))
        {
            return NoGroup;
        }

        return new SpreadsheetOf(
            ask.Group is { } one ? groups[one] : "Mortar",
            [new Table("Events", EventRows.Columns, Rows(reader, ask, groups, cancellationToken))]
        );
    }

    private async IAsyncEnumerable<IReadOnlyList<Cell>> Rows(
        PersonId reader,
        SpreadsheetAsk ask,
        Dictionary<GroupId, string> groups,
        [EnumeratorCancellation] CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(reader, zones, cancellationToken);
        var names = await db.People.ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        await foreach (
            var (calendar, what) in laid.Stream(
                reader,
                ask.From,
                ask.To,
                LaidReading.Wanted(ask.Group, ask.Calendars),
                cancellationToken
            )
        )
        {
            yield return EventRows.Row(
                what,
                calendar.Seen.Name,
                calendar.IsReached ? groups[calendar.Row.GroupId] : string.Empty,
                zone,
                zones,
                names
            );
        }
    }
}
