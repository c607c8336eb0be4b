using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.WebCalendars;

/// <summary>What taking a file over changed in a calendar, in events.</summary>
public sealed record WebChanges(int Came, int Changed, int Went)
{
    public int Count => Came + Changed + Went;

    /// <summary>How many of those that were there are not any more as they were.</summary>
    public int Lost => Changed + Went;
}

/// <summary>Makes calendars whose events come from the web, and keeps these as they are there.</summary>
public sealed class WebCalendarCommands(
    MortarDb db,
    CalendarCommands calendars,
    WebSourceCommands sources,
    ZoneClock zones
)
{
    private const int Chunk = 500;

    /// <summary>Makes one, which is empty until what was fetched is taken over (<see cref="Apply"/>).</summary>
    public Task<Outcome<CalendarRow>> Create(
        Act act,
        CalendarId id,
        GroupId groupId,
        CalendarSettings given,
        WebAddress address,
        WebFetch.File file,
        CancellationToken cancellationToken
    ) =>
        calendars.Create(
            act,
            id,
            groupId,
            given with
            {
                FromWeb = true,
            },
            cancellationToken,
            besides: async () =>
            {
                // Of an id that another calendar has, nothing is told.
                if (await db.Calendars.AnyAsync(row => row.Id == id, cancellationToken))
                {
                    return new Refusal.NotThere("calendar");
                }

                var there = db.Calendars.Where(row => row.FromWeb && row.DeletedAt == null);
                var ofGroup = await there.CountAsync(row => row.GroupId == groupId, cancellationToken);
                var ofPerson = await there.CountAsync(
                    row =>
                        db.Grants.Any(grant =>
                            grant.CalendarId == row.Id && grant.PersonId == act.Actor && grant.Role == Role.Coordinate
                        ),
                    cancellationToken
                );
                if (WebCalendarRules.WhyNotMore(ofGroup, ofPerson) is { } tooMany)
                {
                    return tooMany;
                }

                await db.MeetTheWeb(cancellationToken);
                var source = await sources.Found(address.Value, file, cancellationToken);
                db.WebCalendars.Add(new WebCalendarRow { CalendarId = id, SourceId = source.Id });
                return null;
            }
        );

    /// <summary>Has one come from another address from now on.</summary>
    public Task<Outcome<CalendarRow>> Move(
        Act act,
        CalendarId id,
        WebAddress address,
        WebFetch.File file,
        CancellationToken cancellationToken
    ) =>
        db.Write<CalendarRow>(
            act,
            async () =>
            {
                if (await db.WhyNotCoordinate(act.Actor, id, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (await db.WebCalendars.FindAsync([id], cancellationToken) is not { } web)
                {
                    return new Refusal.NotThere("calendar");
                }

                web.SourceId = (await sources.Found(address.Value, file, cancellationToken)).Id;
                return await db.Calendars.SingleAsync(row => row.Id == id, cancellationToken);
            },
            cancellationToken
        );

    /// <summary>
    /// Makes a calendar's events those of a file, compared by UID and each with all its dates: what is the same is not
    /// written, what is not in the file goes to where nobody brings it back from, and what comes again is the same event.
    /// </summary>
    /// <param name="id">The calendar.</param>
    /// <param name="events">The events of the file, UIDs distinct, read on the calendar's clock.</param>
    /// <param name="digest">The file's.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public async Task<Outcome<WebChanges>> Apply(
        CalendarId id,
        IReadOnlyList<EventToImport> events,
        string digest,
        CancellationToken cancellationToken
    )
    {
        var act = Act.By(WebCalendarRules.TheWeb);
        var outcome =
            (await Difference(db, id, events, cancellationToken)).Count < Aside.Worth
                ? await db.Write(act, () => Make(db, id, events, cancellationToken), cancellationToken)
                : await db.WriteAside(act, id, aside => Make(aside, id, events, cancellationToken), cancellationToken);
        if (outcome is Outcome<WebChanges>.Done)
        {
            await db.WriteUnlogged(
                async () =>
                {
                    if (await db.WebCalendars.FindAsync([id], cancellationToken) is { } web)
                    {
                        web.Applied = digest;
                    }
                },
                cancellationToken
            );
        }

        return outcome;
    }

    private sealed record Changed(EventRow? Row, EventToImport? Then);

    private static async Task<List<Changed>> Difference(
        MortarDb things,
        CalendarId id,
        IReadOnlyList<EventToImport> events,
        CancellationToken cancellationToken
    )
    {
        // Of those in the bin and those that are there, the latter.
        var rows = (
            await things
                .Events.AsNoTracking()
                .Where(row => row.CalendarId == id && row.AddedBy == WebCalendarRules.TheWeb)
                .ToListAsync(cancellationToken)
        )
            .OrderBy(row => row.DeletedAt is null)
            .GroupBy(row => row.Uid, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.Last(), StringComparer.Ordinal);
        var changed = new List<Changed>();
        foreach (var one in events.Select(OfTheWeb))
        {
            if (!rows.Remove(one.Uid, out var row) || row.DeletedAt is not null || !IsSame(row, one))
            {
                changed.Add(new Changed(row, one));
            }
        }

        changed.AddRange(rows.Values.Where(row => row.DeletedAt is null).Select(row => new Changed(row, null)));
        return changed;
    }

    private async Task<Outcome<WebChanges>> Make(
        MortarDb things,
        CalendarId id,
        IReadOnlyList<EventToImport> events,
        CancellationToken cancellationToken
    )
    {
        if (
            !await db.Calendars.AnyAsync(row => row.Id == id && row.FromWeb && row.DeletedAt == null, cancellationToken)
        )
        {
            return new Refusal.NotThere("calendar");
        }

        var difference = await Difference(things, id, events, cancellationToken);
        for (var done = 0; done < difference.Count; done += Chunk)
        {
            foreach (var one in difference.Skip(done).Take(Chunk))
            {
                Write(things, id, one);
            }

            await things.SaveChangesAsync(cancellationToken);
            things.ChangeTracker.Clear();
        }

        return new WebChanges(
            difference.Count(one => one is { Row: null or { DeletedAt: not null }, Then: not null }),
            difference.Count(one => one is { Row.DeletedAt: null, Then: not null }),
            difference.Count(one => one.Then is null)
        );
    }

    private void Write(MortarDb things, CalendarId id, Changed one)
    {
        if (one.Row is not { } row)
        {
            row = new EventRow
            {
                Id = new EventId(Guid.CreateVersion7()),
                CalendarId = id,
                Uid = one.Then!.Uid,
                AddedBy = WebCalendarRules.TheWeb,
            };
            Take(row, one.Then);
            things.Events.Add(row);
            return;
        }

        things.Events.Attach(row);
        if (one.Then is { } then)
        {
            Take(row, then);
            row.DeletedAt = null;
        }
        else
        {
            row.DeletedAt = db.Now;
        }
    }

    private void Take(EventRow row, EventToImport then)
    {
        row.Source = then.Source;
        row.Apply(then.Time, then.Content, then.Series, zones);
    }

    /// <summary>What a file says of people and of bells is nobody's here: it names nobody and reminds nobody.</summary>
    private static EventToImport OfTheWeb(EventToImport one) =>
        one.WithContents(
            (_, content) => content with { Attendees = Attendees.None, HidesAttendees = false, Reminder = null }
        );

    private static bool IsSame(EventRow row, EventToImport one)
    {
        var now = row.ToCore();
        return now.Time == one.Time && now.Content == one.Content && Equals(now.Series, one.Series);
    }
}
