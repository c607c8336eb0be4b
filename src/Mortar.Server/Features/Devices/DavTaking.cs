using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Answers;
using Mortar.Core.Devices;
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

/// <summary>Takes an event that a program sent: what becomes of it, of the answers and alarms in it, and who is asked.</summary>
internal sealed class DavTaking(
    MortarDb db,
    DavObjects objects,
    ObjectCommands commands,
    AnswerCommands answers,
    ZoneClock zones
)
{
    /// <summary>Makes an event.</summary>
    /// <param name="request">By which it was sent.</param>
    /// <param name="calendar">Where it goes.</param>
    /// <param name="name">Under which name it is found there.</param>
    /// <param name="sent">The event.</param>
    /// <param name="replaced">What has that name, and goes for it; <c>null</c> for nothing.</param>
    public async Task Create(
        DavRequest request,
        DavCalendar calendar,
        string name,
        SentObject.Fit sent,
        EventId? replaced = null
    )
    {
        DavObjects.MustBeFree(name);
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
            replaced,
            request.Stop
        );
        if (outcome is Outcome<EventRow>.Not { Why: Refusal.AgainstRule { Type: ObjectCommands.UidConflict } why })
        {
            throw await Conflict(request, calendar, sent.Uid, why.Sentence);
        }

        var row = outcome.OrThrow(request.Http, request.Href);
        await Ask(request, act, calendar, row, before: null, taken);
    }

    /// <summary>Changes one.</summary>
    public async Task Change(DavRequest request, DavCalendar calendar, DavObject known, SentObject.Fit sent)
    {
        if (known.Row is not { } row)
        {
            throw DavRefusals.OnlySome(request.Href);
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
                : DavRefusals.OnlySome(request.Href);
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
            throw DavRefusals.OnlySome(request.Href);
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
                moved: null,
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

    /// <summary>Asks those who are newly named whether they come.</summary>
    private async Task Ask(
        DavRequest request,
        Act act,
        DavCalendar calendar,
        EventRow row,
        Event? before,
        TakenObject taken
    )
    {
        var asked = DeviceRules.ToAsk(
            request.Reader.Owner,
            calendar.OwnersRole,
            calendar.Row.Purpose,
            before,
            row.ToCore(),
            taken.NotAsked
        );
        if (asked.Count > 0)
        {
            await answers.AskPeople(act, row.Id, asked, row.Version, request.Stop);
        }
    }

    /// <summary>The alarms that its reader set on an event; <c>null</c> for none of their own.</summary>
    public async Task<string?> AlarmsOn(DavRequest request, EventId id) =>
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
                : [new XElement(D + "href", DavPath.Of(request.Reader.Owner, calendar.Id, one.Name))]
        );
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

    private static DavException Nothing() =>
        new(StatusCodes.Status403Forbidden, C + "valid-calendar-data", "Nothing can be made of this event.");
}
