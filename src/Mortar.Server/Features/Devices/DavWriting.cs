using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Answers;
using Mortar.Data.Devices;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>GET, PUT, DELETE, MOVE and COPY of events (RFC 4918, 9; RFC 4791, 5.3).</summary>
internal sealed class DavWriting(
    MortarDb db,
    DavThings things,
    DavObjects objects,
    ObjectCommands commands,
    EventCommands events,
    AnswerCommands answers,
    ZoneClock zones
)
{
    /// <summary>How often what was sent without naming a version is put on top of what somebody else wrote meanwhile.</summary>
    private const int Tries = 4;

    public async Task Get(DavRequest request)
    {
        if (await things.Find(request) is not DavThing.Event thing)
        {
            throw new DavException(
                StatusCodes.Status405MethodNotAllowed,
                null,
                "Here are calendars for calendar programs. Add a calendar account with this address there."
            );
        }

        var tag = thing.Object.Object.ETag;
        request.Http.Response.Headers.ETag = tag;
        if (request.Http.Request.Headers.IfNoneMatch.ToString().Split(',').Any(one => one.Trim() == tag))
        {
            request.Http.Response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }

        request.Http.Response.ContentType = "text/calendar; charset=utf-8";
        var bytes = System.Text.Encoding.UTF8.GetBytes(thing.Object.Object.Text);
        request.Http.Response.ContentLength = bytes.Length;
        if (HttpMethods.IsGet(request.Http.Request.Method))
        {
            await request.Http.Response.Body.WriteAsync(bytes, request.Stop);
        }
    }

    public async Task Put(DavRequest request)
    {
        if (request.Path is not DavPath.Object path)
        {
            throw new DavException(
                StatusCodes.Status405MethodNotAllowed,
                null,
                "An event is put into a calendar, under a name of its own."
            );
        }

        var calendar = await things.Calendar(request.Reader, path.Person, path.Calendar, request.Stop);
        MustWrite(request);
        var type = request.Http.Request.ContentType;
        if (type is not null && !type.StartsWith("text/calendar", StringComparison.OrdinalIgnoreCase))
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "supported-calendar-data",
                "Events are sent as text/calendar."
            );
        }

        byte[] bytes;
        try
        {
            bytes = await Bytes(request.Http, DavProperties.LargestObject);
        }
        catch (DavException)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "max-resource-size",
                "An event can have up to one megabyte, with all that hangs on it."
            );
        }

        var sent = SentObject.Read(bytes, calendar.Row.Zone, zones) switch
        {
            SentObject.Fit fit => fit.Naming(
                request.Reader.Owner,
                await things.AddressesOf(request.Reader.Owner, request.Stop)
            ),
            SentObject.Unfit unfit => throw DavRefusals.Of(unfit),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
        for (var tries = 1; ; tries++)
        {
            var known = await objects.Named(calendar, path.Name, request.Stop);
            request.MustMatch(known?.Object.ETag);
            try
            {
                if (known is null)
                {
                    await Create(request, calendar, path.Name, sent);
                    request.Http.Response.StatusCode = StatusCodes.Status201Created;
                }
                else
                {
                    await Change(request, calendar, known, sent);
                    request.Http.Response.StatusCode = StatusCodes.Status204NoContent;
                }
            }
            catch (DavException stale)
                when (stale.Status == StatusCodes.Status412PreconditionFailed && !request.NamesVersion && tries < Tries)
            {
                db.ChangeTracker.Clear();
                continue;
            }

            break;
        }

        // Told only where what is there now is to the octet what was sent (RFC 4791, 5.3.4).
        if (
            await objects.Named(calendar, path.Name, request.Stop) is { } now
            && now.Object.Text == System.Text.Encoding.UTF8.GetString(bytes)
        )
        {
            request.Http.Response.Headers.ETag = now.Object.ETag;
        }
    }

    public async Task Delete(DavRequest request)
    {
        var thing = await things.Find(request);
        MustWrite(request);
        if (thing is not DavThing.Event { Object: var one })
        {
            throw DavRefusals.NotAllowed(
                request.Href,
                "Calendars are deleted in Mortar, where everybody who has them is told.",
                "unbind"
            );
        }

        request.MustMatch(one.Object.ETag);
        if (one.Row is not { } row)
        {
            throw OnlyTimes(request);
        }

        (
            await events.Delete(Act.By(request.Reader.Owner), row.Id, key: null, Reach.Whole, row.Version, request.Stop)
        ).OrThrow(request.Http, request.Href);
        request.Http.Response.StatusCode = StatusCodes.Status204NoContent;
    }

    /// <summary>Moves an event to another calendar or name, or copies it into another calendar.</summary>
    public async Task Carry(DavRequest request, bool copies)
    {
        if (await things.Find(request) is not DavThing.Event thing)
        {
            throw DavRefusals.NotAllowed(request.Href, "Only events are moved and copied.", "unbind");
        }

        MustWrite(request);
        if (Destination(request) is not { } path)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "calendar-collection-location-ok",
                "An event goes to another of one’s own calendars here."
            );
        }

        var into = await things.Calendar(request.Reader, path.Person, path.Calendar, request.Stop);
        request.MustMatch(thing.Object.Object.ETag);
        if (await objects.Named(into, path.Name, request.Stop) is { } there)
        {
            throw there.Row?.Id == thing.Object.Row?.Id && there.Name == path.Name
                ? new DavException(StatusCodes.Status403Forbidden, null, "It is there already.")
                : new DavException(
                    StatusCodes.Status412PreconditionFailed,
                    null,
                    "Another event has that name. Delete it first, where it is to go."
                );
        }

        MustBeFree(path.Name);
        if (thing.Object is not { Row: { } row, IsWhole: true })
        {
            throw OnlyTimes(request);
        }

        if (copies)
        {
            var bytes = System.Text.Encoding.UTF8.GetBytes(thing.Object.Object.Text);
            if (SentObject.Read(bytes, into.Row.Zone, zones) is not SentObject.Fit sent)
            {
                throw OnlyTimes(request);
            }

            await Create(request, into, path.Name, sent);
        }
        else
        {
            var whole = thing.Object.Object.Event;
            (
                await commands.Change(
                    Act.By(request.Reader.Owner),
                    row.Id,
                    new ObjectWish(
                        new WholeWish(into.Id, whole.Time, whole.Content, whole.Series, row.Version),
                        row.Source,
                        await AlarmsOn(request, row.Id)
                    ),
                    path.Name,
                    request.Stop
                )
            ).OrThrow(request.Http, request.Href);
        }

        request.Http.Response.StatusCode = StatusCodes.Status201Created;
        request.Http.Response.Headers.Location = DavPath.Of(request.Reader.Owner, into.Id, path.Name);
    }

    private async Task Create(DavRequest request, DavCalendar calendar, string name, SentObject.Fit sent)
    {
        MustBeFree(name);
        if (sent.Anew(calendar.Row.Zone, zones) is not { } taken)
        {
            throw Nothing();
        }

        MustBeFew(taken.Alarms);

        var act = Act.By(request.Reader.Owner);
        var outcome = await commands.Create(
            act,
            calendar.Id,
            name,
            sent.Uid,
            new ObjectWish(
                new WholeWish(calendar.Id, taken.Time, taken.Content, taken.Series, Version: null),
                taken.Source,
                taken.Alarms?.Text
            ),
            request.Stop
        );
        if (outcome is Outcome<EventRow>.Not { Why: Refusal.AgainstRule { Type: ObjectCommands.UidConflict } why })
        {
            throw await Conflict(request, calendar, sent.Uid, why.Sentence);
        }

        var row = outcome.OrThrow(request.Http, request.Href);
        await Ask(request, act, calendar, row, before: null, taken);
    }

    private async Task Change(DavRequest request, DavCalendar calendar, DavObject known, SentObject.Fit sent)
    {
        if (known.Row is not { } row)
        {
            throw OnlyTimes(request);
        }

        var told = known.Object.Event;
        if (sent.Uid != known.Object.Uid)
        {
            throw known.IsWhole
                ? await Conflict(
                    request,
                    calendar,
                    known.Object.Uid,
                    "Under this name there is another event (UID). One of another UID gets a name of its own."
                )
                : OnlyTimes(request);
        }

        var (names, answered) = await objects.PeopleOn(calendar.Id, [told], request.Stop);
        var before = await AlarmsOn(request, row.Id);
        if (
            sent.Into(
                request.Reader.Owner,
                new EventToWrite(told, known.IsWhole ? row.Source : null),
                names,
                answered,
                before is null ? null : new OwnAlarms(before),
                calendar.Row.Zone,
                zones
            )
            is not { } taken
        )
        {
            throw Nothing();
        }

        if (taken.IsOther && !known.IsWhole)
        {
            // What is set for oneself alone (alarms, an answer) can be, also where not all of it is told.
            throw OnlyTimes(request);
        }

        if (taken.AnswersForOthers)
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "allowed-organizer-scheduling-object-change",
                "Everybody answers for themselves. Nothing of this was taken."
            );
        }

        MustBeFew(taken.Alarms);

        var act = Act.By(request.Reader.Owner);
        var written = (
            await commands.Change(
                act,
                row.Id,
                new ObjectWish(
                    taken.IsOther
                        ? new WholeWish(calendar.Id, taken.Time, taken.Content, taken.Series, row.Version)
                        : null,
                    taken.Source,
                    taken.Alarms?.Text
                ),
                name: null,
                request.Stop
            )
        ).OrThrow(request.Http, request.Href);
        foreach (var answer in taken.Answers.Where(answer => answer.Answer != Answer.NeedsAction))
        {
            (
                await answers.Answer(
                    act,
                    row.Id,
                    request.Reader.Owner,
                    new AnswerWish(written.ToCore().Series is null ? null : answer.Only, answer.Answer),
                    request.Stop
                )
            ).OrThrow(request.Http, request.Href);
        }

        if (taken.IsOther)
        {
            await Ask(request, act, calendar, written, told, taken);
        }
    }

    /// <summary>
    /// Asks those who are newly named whether they come (RFC 6638, 3.2.1), but for those whom the program asks by itself. Where
    /// that cannot be, they are named all the same, and can be asked in Mortar.
    /// </summary>
    private async Task Ask(
        DavRequest request,
        Act act,
        DavCalendar calendar,
        EventRow row,
        Event? before,
        TakenObject taken
    )
    {
        var whole = row.ToCore();
        var asked = whole
            .Named.Except(before?.Named ?? [])
            .Where(person => person != request.Reader.Owner && !taken.NotAsked.Contains(person))
            .ToList();
        if (
            asked.Count == 0
            || calendar.Row.Purpose != Purpose.Events
            || AccessRules.ToGiveAway(calendar.OwnersRole, request.Reader.Owner, whole) != Verdict.Granted
        )
        {
            return;
        }

        await answers.AskPeople(act, row.Id, asked, row.Version, request.Stop);
    }

    private async Task<string?> AlarmsOn(DavRequest request, EventId id) =>
        await db
            .OwnAlarms.Where(row => row.PersonId == request.Reader.Owner && row.EventId == id)
            .Select(row => row.Text)
            .FirstOrDefaultAsync(request.Stop);

    private async Task<DavException> Conflict(DavRequest request, DavCalendar calendar, string uid, string sentence)
    {
        var id = await db
            .Events.Where(row => row.CalendarId == calendar.Id && row.Uid == uid && row.DeletedAt == null)
            .Select(row => row.Id)
            .FirstOrDefaultAsync(request.Stop);
        var found = await objects.Of(calendar, new HashSet<EventId> { id }, request.Stop);
        return new DavException(
            StatusCodes.Status409Conflict,
            C + ObjectCommands.UidConflict,
            sentence,
            found is not [var one]
                ? []
                : [new System.Xml.Linq.XElement(D + "href", DavPath.Of(request.Reader.Owner, calendar.Id, one.Name))]
        );
    }

    private static DavPath.Object? Destination(DavRequest request)
    {
        var text = request.Http.Request.Headers["Destination"].ToString();
        var path =
            Uri.TryCreate(text, UriKind.Absolute, out var whole) && whole.Scheme is "http" or "https"
                ? whole!.Authority == request.Http.Request.Host.Value
                    ? whole.AbsolutePath
                    : string.Empty
                : text;
        return DavPath.Read(Uri.UnescapeDataString(path)) as DavPath.Object;
    }

    private static void MustWrite(DavRequest request)
    {
        if (!request.Reader.Device.Writes)
        {
            throw DavRefusals.ReadsOnly(request.Href);
        }
    }

    private static void MustBeFree(string name)
    {
        if (!DavObjects.IsFree(name))
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                M + "name-taken",
                "Names that begin like this are those of events that were made in Mortar. Choose another one."
            );
        }
    }

    private static void MustBeFew(OwnAlarms? alarms)
    {
        if (alarms is { Text.Length: > OwnAlarms.Longest })
        {
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "valid-calendar-data",
                "These are more alarms than are kept on one event."
            );
        }
    }

    private static DavException OnlyTimes(DavRequest request) =>
        DavRefusals.NotAllowed(
            request.Href,
            "Of this only some is shown to you, so it cannot be changed. A coordinator can give you a higher step."
        );

    private static DavException Nothing() =>
        new(StatusCodes.Status403Forbidden, C + "valid-calendar-data", "Nothing can be made of this event.");
}
