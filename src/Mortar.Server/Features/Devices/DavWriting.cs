using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>GET, PUT and DELETE of events (RFC 4918, 9; RFC 4791, 5.3).</summary>
internal sealed class DavWriting(
    MortarDb db,
    DavThings things,
    DavObjects objects,
    DavTaking taking,
    EventCommands events,
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
        request.MustWrite();
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
                    await taking.Create(request, calendar, path.Name, sent);
                    request.Http.Response.StatusCode = StatusCodes.Status201Created;
                }
                else
                {
                    await taking.Change(request, calendar, known, sent);
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
        request.MustWrite();
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
            throw DavRefusals.OnlySome(request.Href);
        }

        (
            await events.Delete(Act.By(request.Reader.Owner), row.Id, key: null, Reach.Whole, row.Version, request.Stop)
        ).OrThrow(request.Http, request.Href);
        request.Http.Response.StatusCode = StatusCodes.Status204NoContent;
    }
}
