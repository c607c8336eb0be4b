using Mortar.Core.Time;
using Mortar.Core.Writing;
using Mortar.Data.Devices;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using static Mortar.Server.Features.Devices.DavXml;

namespace Mortar.Server.Features.Devices;

/// <summary>MOVE and COPY of events (RFC 4918, 9.8 and 9.9).</summary>
internal sealed class DavMoving(
    DavThings things,
    DavObjects objects,
    DavTaking taking,
    ObjectCommands commands,
    ZoneClock zones
)
{
    /// <summary>Moves an event to another calendar or name, or copies it into another calendar.</summary>
    public async Task Carry(DavRequest request, bool copies)
    {
        if (await things.Find(request) is not DavThing.Event thing)
        {
            throw DavRefusals.NotAllowed(request.Href, "Only events are moved and copied.", "unbind");
        }

        request.MustWrite();
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
        var there = await objects.Named(into, path.Name, request.Stop);
        if (there is not null)
        {
            MustGo(request, there, thing.Object, path.Name);
        }

        if (into.Id == thing.Calendar.Id)
        {
            // Other devices know it by its name, and would have it twice.
            throw new DavException(
                StatusCodes.Status403Forbidden,
                C + "calendar-collection-location-ok",
                "In its calendar an event keeps its name. It can be moved and copied to another one."
            );
        }

        DavObjects.MustBeFree(path.Name);
        if (thing.Object is not { Row: { } row, IsWhole: true })
        {
            throw DavRefusals.OnlySome(request.Href);
        }

        if (copies)
        {
            var bytes = System.Text.Encoding.UTF8.GetBytes(thing.Object.Object.Text);
            if (SentObject.Read(bytes, into.Row.Zone, zones) is not SentObject.Fit sent)
            {
                throw DavRefusals.OnlySome(request.Href);
            }

            await taking.Create(request, into, path.Name, sent, there?.Row?.Id);
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
                        await taking.AlarmsOn(request, row.Id)
                    ),
                    new MovedTo(path.Name, there?.Row?.Id),
                    request.Stop
                )
            ).OrThrow(request.Http, request.Href);
        }

        request.Http.Response.StatusCode = there is null
            ? StatusCodes.Status201Created
            : StatusCodes.Status204NoContent;
        request.Http.Response.Headers.Location = DavPath.Of(request.Reader.Owner, into.Id, path.Name);
    }

    /// <summary>What has the name that an event is to have goes for it, but where the program says that it must not (RFC 4918, 10.6).</summary>
    private static void MustGo(DavRequest request, DavObject there, DavObject moved, string name)
    {
        if (there.Name == name && there.Row?.Id == moved.Row?.Id)
        {
            throw new DavException(StatusCodes.Status403Forbidden, null, "It is there already.");
        }

        if (string.Equals(request.Http.Request.Headers["Overwrite"].ToString().Trim(), "F", StringComparison.Ordinal))
        {
            throw new DavException(
                StatusCodes.Status412PreconditionFailed,
                null,
                "Another event has that name, and the program said not to replace any."
            );
        }

        if (there.Row is null)
        {
            throw DavRefusals.OnlySome(request.Href);
        }
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
}
