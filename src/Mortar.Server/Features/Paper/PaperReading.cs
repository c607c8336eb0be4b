using System.Diagnostics;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Paper;
using Mortar.Core.Roster;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Reading;
using Mortar.Data.Roster;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Paper;

/// <summary>What is to be printed.</summary>
/// <param name="Group">Of which group; days may be of all one sees.</param>
/// <param name="Calendars">The calendars that are wanted; <c>null</c> for all of the group, or all.</param>
internal sealed record PaperAsk(
    PaperWhat What,
    LocalDate From,
    LocalDate To,
    GroupId? Group,
    IReadOnlySet<CalendarId>? Calendars,
    PaperWish Wish
);

/// <summary>Reads what goes on sheets.</summary>
internal sealed class PaperReading(
    MortarDb db,
    LaidReading laid,
    RosterReading rosters,
    AbsencesReading absences,
    ZoneClock zones,
    IClock clock
)
{
    private static readonly Refusal NoGroup = new Refusal.NotThere("group");

    public async Task<Outcome<PaperOut>> Read(PersonId reader, PaperAsk ask, CancellationToken cancellationToken)
    {
        var me = await db.People.AsNoTracking().SingleAsync(row => row.Id == reader, cancellationToken);
        var now = clock.GetCurrentInstant().InZone(zones.Zone(me.Zone));
        var group = ask.Group is { } asked
            ? await db
                .Groups.AsNoTracking()
                .FirstOrDefaultAsync(
                    row =>
                        row.Id == asked
                        && row.DeletedAt == null
                        && db.Members.Any(member => member.GroupId == asked && member.PersonId == reader),
                    cancellationToken
                )
            : null;
        if (
            group is null
            && (ask.Group is not null || ask.What is PaperWhat.Roster or PaperWhat.Absences or PaperWhat.Access)
        )
        {
            return NoGroup;
        }

        var title = ask.Wish.Title.Length > 0 ? ask.Wish.Title : group?.Name ?? me.Name;
        switch (ask.What)
        {
            case PaperWhat.Roster:
                var roster = await rosters.Read(reader, group!.Id, ask.From, ask.To, ask.Calendars, cancellationToken);
                return roster is null
                    ? NoGroup
                    : Out(
                        [.. PaperPlan.Roster(roster, await Names(cancellationToken), ask.Wish)],
                        roster.Calendars,
                        me.Zone
                    );
            case PaperWhat.Absences:
                var away = await absences.Read(reader, group!.Id, ask.From, ask.To, cancellationToken);
                return away is null ? NoGroup
                    : away.WhyNot is { } tooMany ? tooMany
                    : Out([.. PaperTables.Absences(away)], new Dictionary<CalendarId, VisibleCalendar>(), group.Zone);
            case PaperWhat.Access:
                return await db.AccessOverviewOf(group!.Id, reader, zones, cancellationToken) switch
                {
                    Outcome<AccessOverview>.Done done => Out(
                        [.. PaperTables.Access(done.Value, now.ToString("d MMMM uuuu", CultureInfo.InvariantCulture))],
                        new Dictionary<CalendarId, VisibleCalendar>(),
                        zone: null
                    ),
                    Outcome<AccessOverview>.Not not => not.Why,
                    _ => throw new UnreachableException(),
                };
            default:
                return await Days();
        }

        async Task<Outcome<PaperOut>> Days()
        {
            var names = await Names(cancellationToken);
            if (ask.What != PaperWhat.Month)
            {
                var (days, seen) = await Seen(ask.From, ask.To, names);
                return Out(
                    ask.What == PaperWhat.Week
                        ? [.. PaperPlan.Week(days, ask.Wish)]
                        : [PaperPlan.Agenda(days, ask.Wish)],
                    seen,
                    me.Zone
                );
            }

            var firstDay = group?.FirstDay ?? IsoDayOfWeek.Monday;
            var sheets = new List<PaperSheet>();
            var all = new Dictionary<CalendarId, VisibleCalendar>();
            for (var month = ask.From.ToYearMonth(); month <= ask.To.ToYearMonth(); month = month.PlusMonths(1))
            {
                var (from, to) = PaperPlan.WeeksOf(month, firstDay);
                var (days, seen) = await Seen(from, to, names);
                sheets.Add(PaperPlan.Month(days, month, ask.Wish));
                foreach (var (id, calendar) in seen)
                {
                    all[id] = calendar;
                }
            }

            return Out(sheets, all, me.Zone);
        }

        async Task<(PaperDays Days, IReadOnlyDictionary<CalendarId, VisibleCalendar> Calendars)> Seen(
            LocalDate from,
            LocalDate to,
            IReadOnlyDictionary<PersonId, string> names
        )
        {
            var (window, calendars, lying) = await laid.Read(
                reader,
                from,
                to,
                LaidReading.Wanted(ask.Group, ask.Calendars),
                cancellationToken
            );
            var seen = calendars.ToDictionary(one => one.Key, one => one.Value.Seen);
            return (
                new PaperDays(
                    window,
                    [
                        .. lying
                            .Where(one => seen.ContainsKey(one.Calendar))
                            .Select(one => RosterEntry.Of(one.Calendar, one.What, window.Reader)),
                    ],
                    names,
                    seen.Where(one => one.Value.Purpose == Purpose.Away).Select(one => one.Key).ToHashSet()
                ),
                seen
            );
        }

        Outcome<PaperOut> Out(
            IReadOnlyList<PaperSheet> sheets,
            IReadOnlyDictionary<CalendarId, VisibleCalendar> calendars,
            string? zone
        ) =>
            PaperOut.WhyNot(sheets) is { } tooMany
                ? tooMany
                : new PaperOut(
                    title,
                    [.. sheets],
                    PaperPlan.Legend(sheets, calendars),
                    (zone is null ? string.Empty : $"Times of {zone}. ")
                        + $"As {me.Name} sees it on {now.ToString("ddd d MMMM uuuu, HH:mm", CultureInfo.InvariantCulture)}."
                );
    }

    private async Task<IReadOnlyDictionary<PersonId, string>> Names(CancellationToken cancellationToken) =>
        await db.People.ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
}
