using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>Events that programs send, change, move and delete (RFC 4791, 5.3; RFC 4918, 9; RFC 9110, 13).</summary>
public class DavWritingTests
{
    private const string Series = """
        BEGIN:VCALENDAR
        VERSION:2.0
        PRODID:-//Trial//Trial//EN
        BEGIN:VEVENT
        UID:series@trial
        DTSTAMP:20260301T080000Z
        DTSTART;TZID=Europe/London:20260312T090000
        DTEND;TZID=Europe/London:20260312T100000
        RRULE:FREQ=WEEKLY;COUNT=6
        EXDATE;TZID=Europe/London:20260402T090000
        SUMMARY:Glazing
        X-TRIAL-SHADE:celadon;deep
        ATTACH:https://pottery.example/recipe.pdf
        END:VEVENT
        BEGIN:VEVENT
        UID:series@trial
        DTSTAMP:20260301T080000Z
        RECURRENCE-ID;TZID=Europe/London:20260319T090000
        DTSTART;TZID=Europe/London:20260319T110000
        DTEND;TZID=Europe/London:20260319T120000
        SUMMARY:Glazing\, late
        END:VEVENT
        END:VCALENDAR

        """;

    [Fact]
    public async Task A_series_with_its_exceptions_is_one_resource_and_what_is_not_known_comes_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);

        (await phone.Put(phone.At(calendar, "glazing.ics"), Series)).Is(201);

        var starts = (await ines.Bricks(calendar, "2026-03-01", "2026-04-30"))
            .Select(brick => $"{brick.GetProperty("time").Text("start")} {brick.Text("title")}")
            .ToList();
        Assert.Equal(
            [
                "2026-03-12T09:00:00 Glazing",
                "2026-03-19T11:00:00 Glazing, late",
                "2026-03-26T09:00:00 Glazing",
                "2026-04-09T09:00:00 Glazing",
                "2026-04-16T09:00:00 Glazing",
            ],
            starts
        );
        Assert.Equal([phone.At(calendar, "glazing.ics")], (await phone.Tags(calendar)).Keys);
        var back = (await phone.Get(phone.At(calendar, "glazing.ics"))).Is(200).Text;
        foreach (
            var line in Series
                .ReplaceLineEndings("\n")
                .Split('\n')
                .Where(line => !line.StartsWith("PRODID", StringComparison.Ordinal))
        )
        {
            Assert.Contains(line, back, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task One_date_deleted_or_changed_on_the_device_is_so_on_the_wall()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var path = phone.At(calendar, "glazing.ics");
        (await phone.Put(path, Series)).Is(201);
        var tag = (await phone.Get(path)).ETag!;

        (
            await phone.Put(
                path,
                Series.Replace(
                    "EXDATE;TZID=Europe/London:20260402T090000",
                    "EXDATE;TZID=Europe/London:20260402T090000,20260326T090000",
                    StringComparison.Ordinal
                ),
                ("If-Match", tag)
            )
        ).Is(204);

        Assert.DoesNotContain(
            await ines.Bricks(calendar, "2026-03-01", "2026-04-30"),
            brick => brick.GetProperty("time").Text("start").StartsWith("2026-03-26", StringComparison.Ordinal)
        );
        (await phone.Put(path, Series, ("If-Match", tag))).Is(412);
    }

    [Fact]
    public async Task A_program_that_does_not_show_a_detail_does_not_erase_it_for_others()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        using var dele = await DavClient.Of(mortar, DemoPeople.Dele);
        var path = phone.At(calendar, "a.ics");
        (
            await phone.Put(
                path,
                DavClient.File(
                    "a@trial",
                    "Firing",
                    "CLASS:PRIVATE\nCATEGORIES:Kiln,Slow\nX-TRIAL-CONE;LEVEL=6:yes\nDESCRIPTION:Bring gloves\nLOCATION:Yard"
                )
            )
        ).Is(201);

        // Another program, which knows titles and times alone.
        (await phone.Put(path, DavClient.File("a@trial", "Bisque firing", "LOCATION:Yard"))).Is(204);

        var back = (await phone.Get(path)).Is(200).Text;
        Assert.Contains("SUMMARY:Bisque firing", back, StringComparison.Ordinal);
        Assert.Contains("CLASS:PRIVATE", back, StringComparison.Ordinal);
        Assert.Contains("CATEGORIES:Kiln,Slow", back, StringComparison.Ordinal);
        Assert.Contains("X-TRIAL-CONE;LEVEL=6:yes", back, StringComparison.Ordinal);
        // What every program shows is taken away by who takes it away.
        Assert.DoesNotContain("DESCRIPTION", back, StringComparison.Ordinal);
        Assert.DoesNotContain(
            "firing",
            (await dele.Find(dele.At(calendar), 1, "d:getetag")).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Alarms_are_each_ones_own()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        var (mine, theirs) = (hers.At(calendar, "a.ics"), his.At(calendar, "a.ics"));
        const string Alarm =
            "BEGIN:VALARM\nACTION:DISPLAY\nTRIGGER:-PT30M\nDESCRIPTION:Gloves\nX-TRIAL-TONE:bell\nEND:VALARM";
        (await hers.Put(mine, DavClient.File("a@trial", "Firing", Alarm))).Is(201);
        var version = await Version();

        Assert.Contains("X-TRIAL-TONE:bell", (await hers.Get(mine)).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("VALARM", (await his.Get(theirs)).Text, StringComparison.Ordinal);

        // Whoever only reads sets one too, for themselves; nothing of the event is another by that.
        var token = (await his.Sync(his.At(calendar))).Token;
        (
            await his.Put(
                theirs,
                DavClient.File("a@trial", "Firing", Alarm.Replace("30M", "5M", StringComparison.Ordinal))
            )
        ).Is(204);
        Assert.Contains("TRIGGER:-PT5M", (await his.Get(theirs)).Text, StringComparison.Ordinal);
        Assert.Contains("TRIGGER:-PT30M", (await hers.Get(mine)).Text, StringComparison.Ordinal);
        Assert.Equal(version, await Version());
        Assert.Equal([theirs], (await his.Sync(his.At(calendar), token)).Each.Keys);
        // Nothing else is theirs to change.
        (await his.Put(theirs, DavClient.File("a@trial", "Party", Alarm))).Misses(403, D + "need-privileges");

        // A reminder of the event is everybody's, until somebody takes it off for themselves.
        var row = (await ines.Bricks(calendar, "2026-03-09", "2026-03-15")).Single();
        (
            await ines.Put(
                $"/api/events/{row.GetProperty("eventId").GetGuid()}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Firing",
                    place = "",
                    notes = "",
                    showAs = "busy",
                    time = World.Hours("2026-03-12T09:00:00", "2026-03-12T10:00:00", "UTC"),
                    attendees = Array.Empty<Guid>(),
                    reminder = 15,
                },
                version
            )
        ).Is(200);
        Assert.Contains("TRIGGER:-PT5M", (await his.Get(theirs)).Text, StringComparison.Ordinal);
        using var export = mortar.Anonymous();
        Assert.Contains(
            "TRIGGER:-PT15M",
            (await ines.Get($"/api/calendars/{calendar.Value}/export")).Text,
            StringComparison.Ordinal
        );

        Task<int> Version() =>
            mortar.Store(db => db.Events.Where(one => one.Uid == "a@trial").Select(one => one.Version).SingleAsync());
    }

    [Fact]
    public async Task An_answer_is_ones_own_and_nobody_elses()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar, attendees: [DemoPeople.Dele.Id.Value, DemoPeople.Priya.Id.Value])
            )
        ).Is(200);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        var path = (await his.Tags(calendar)).Keys.Single();
        var text = (await his.Get(path)).Is(200).Text.Replace("\r\n ", "", StringComparison.Ordinal);
        Assert.Contains(DemoPeople.Dele.Name, text, StringComparison.Ordinal);

        var yes = text.Replace(
            $":urn:uuid:{DemoPeople.Dele.Id.Value}",
            $";PARTSTAT=ACCEPTED:urn:uuid:{DemoPeople.Dele.Id.Value}",
            StringComparison.Ordinal
        );
        (await his.Put(path, yes)).Is(204);
        var answers = (await ines.Get($"/api/events/{id}/answers")).Is(200).Text;
        Assert.Contains("accepted", answers, StringComparison.Ordinal);

        // A program may name its owner by their mail address as well.
        (
            await his.Put(
                path,
                yes.Replace("ACCEPTED", "TENTATIVE", StringComparison.Ordinal)
                    .Replace(
                        $"urn:uuid:{DemoPeople.Dele.Id.Value}",
                        $"MAILTO:{DemoPeople.Dele.Address}",
                        StringComparison.Ordinal
                    )
            )
        ).Is(204);
        answers = (await ines.Get($"/api/events/{id}/answers")).Is(200).Text;
        Assert.Contains("tentative", answers, StringComparison.Ordinal);

        var forPriya = yes.Replace(
            $":urn:uuid:{DemoPeople.Priya.Id.Value}",
            $";PARTSTAT=DECLINED:urn:uuid:{DemoPeople.Priya.Id.Value}",
            StringComparison.Ordinal
        );
        (await his.Put(path, forPriya)).Misses(403, C + "allowed-organizer-scheduling-object-change");
        Assert.DoesNotContain("declined", (await ines.Get($"/api/events/{id}/answers")).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Who_is_named_finds_themselves_alone_and_answers_where_names_are_kept_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        string Person(DemoPerson one) => $"ATTENDEE;CN={one.Name}:urn:uuid:{one.Id.Value:D}";
        (
            await hers.Put(
                hers.At(calendar, "a.ics"),
                DavClient.File(
                    "a@trial",
                    "Interviews",
                    $"{Person(DemoPeople.Dele)}\n{Person(DemoPeople.Priya)}\nX-MORTAR-HIDES-ATTENDEES:TRUE"
                )
            )
        ).Is(201);
        var path = his.At(calendar, "a.ics");
        var text = (await his.Get(path)).Is(200).Text.Replace("\r\n ", "", StringComparison.Ordinal);
        Assert.DoesNotContain(DemoPeople.Priya.Id.Value.ToString("D"), text, StringComparison.Ordinal);

        (await his.Put(path, text.Replace("ATTENDEE;", "ATTENDEE;PARTSTAT=DECLINED;", StringComparison.Ordinal))).Is(
            204
        );

        var whole = (await hers.Get(hers.At(calendar, "a.ics"))).Text.Replace("\r\n ", "", StringComparison.Ordinal);
        Assert.Contains("PARTSTAT=DECLINED", whole, StringComparison.Ordinal);
        Assert.Contains(DemoPeople.Priya.Id.Value.ToString("D"), whole, StringComparison.Ordinal);
        (await his.Put(path, text.Replace("Interviews", "Party", StringComparison.Ordinal))).Misses(
            403,
            D + "need-privileges"
        );
        // Whoever was named by a device was asked by Mortar, in one act with it.
        var asked = await mortar.Store(db => db.Asked.Select(one => one.PersonId).ToListAsync());
        Assert.Contains(DemoPeople.Priya.Id, asked);
    }

    [Fact]
    public async Task Whom_a_program_asks_by_itself_mortar_does_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        var before = await mortar.Store(db => db.Asked.CountAsync());
        foreach (var agent in new[] { "CLIENT", "NONE" })
        {
            (
                await hers.Put(
                    hers.At(calendar, $"{agent}.ics"),
                    DavClient.File(
                        $"{agent}@trial",
                        "Interviews",
                        $"ATTENDEE;SCHEDULE-AGENT={agent}:urn:uuid:{DemoPeople.Priya.Id.Value:D}"
                    )
                )
            ).Is(201);
        }

        Assert.Equal(before, await mortar.Store(db => db.Asked.CountAsync()));
        Assert.All(
            await ines.Bricks(calendar, "2026-03-09", "2026-03-15"),
            brick => Assert.Contains(DemoPeople.Priya.Id.Value.ToString(), brick.ToString(), StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task What_cannot_be_taken_is_refused_by_the_precondition_that_the_standard_names()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var path = phone.At(calendar, "a.ics");
        var good = DavClient.File("a@trial");
        var second = good[
            good.IndexOf("BEGIN:VEVENT", StringComparison.Ordinal)..good.IndexOf(
                "END:VCALENDAR",
                StringComparison.Ordinal
            )
        ]
            .Replace("a@trial", "b@trial", StringComparison.Ordinal)
            .TrimEnd();
        foreach (
            var (text, condition) in new[]
            {
                (DavClient.File("a@trial", more: second), "valid-calendar-object-resource"),
                (
                    good.Replace("VERSION:2.0", "VERSION:2.0\nMETHOD:REQUEST", StringComparison.Ordinal),
                    "valid-calendar-object-resource"
                ),
                (good.Replace("UID:a@trial\n", "", StringComparison.Ordinal), "valid-calendar-object-resource"),
                ("BEGIN:VCALENDAR\nVERSION:2.0\nEND:VCALENDAR\n", "valid-calendar-object-resource"),
                (good.Replace("END:VCALENDAR", "", StringComparison.Ordinal), "valid-calendar-object-resource"),
                (good.Replace("VEVENT", "VTODO", StringComparison.Ordinal), "supported-calendar-component"),
                (
                    good.Replace("DTSTART:", "DTSTART;TZID=Atlantis/Lost:", StringComparison.Ordinal)
                        .Replace("090000Z", "090000", StringComparison.Ordinal),
                    "valid-calendar-data"
                ),
                (
                    good.Replace("DTSTART:20260312T090000Z", "DTSTART:next Tuesday", StringComparison.Ordinal),
                    "valid-calendar-data"
                ),
                (
                    good.Replace("DTSTART:20260312T090000Z", "DTSTART:25000312T090000Z", StringComparison.Ordinal),
                    "valid-calendar-data"
                ),
                (
                    DavClient.File(
                        "a@trial",
                        lines: "RRULE:FREQ=SECONDLY;BYSECOND=1,2,3;BYSETPOS=-400,7,9;BYMONTH=2;BYMONTHDAY=30"
                    ),
                    "valid-calendar-data"
                ),
                ("Hello", "supported-calendar-data"),
                ("", "supported-calendar-data"),
            }
        )
        {
            var reply = await phone.Put(path, text);
            if (reply.Status != 201)
            {
                reply.Misses(403, C + condition);
            }
            else
            {
                Assert.Contains("BYSETPOS", text, StringComparison.Ordinal);
                (await phone.Delete(path)).Is(204);
            }
        }

        (await phone.Send("PUT", path, good, "text/html")).Misses(403, C + "supported-calendar-data");
        (await phone.Put(path, DavClient.File("a@trial", lines: $"DESCRIPTION:{new string('x', 1024 * 1024)}"))).Misses(
            403,
            C + "max-resource-size"
        );
        (await phone.Put(phone.At(calendar, "m-a.ics"), good)).Is(403);
        (await phone.Put(phone.At(calendar), good)).Is(405);
        (await phone.Put("/dav/a.ics", good)).Is(405);
        Assert.Empty(await phone.Tags(calendar));
        Assert.Empty(await ines.Bricks(calendar, "2026-03-09", "2026-03-15"));
    }

    [Fact]
    public async Task One_uid_is_one_event_in_a_calendar_and_another_in_another()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("a@trial"), ("If-None-Match", "*"))).Is(201);
        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("a@trial"), ("If-None-Match", "*"))).Is(412);

        var conflict = (await phone.Put(phone.At(calendar, "b.ics"), DavClient.File("a@trial"))).Misses(
            409,
            C + "no-uid-conflict"
        );
        Assert.Equal(
            phone.At(calendar, "a.ics"),
            conflict.Xml.Element(C + "no-uid-conflict")!.Element(D + "href")!.Value
        );
        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("c@trial"))).Misses(409, C + "no-uid-conflict");
        (await phone.Put(phone.At(other, "a.ics"), DavClient.File("a@trial", "Copy"))).Is(201);
        Assert.Equal(2, (await phone.Tags(calendar)).Count + (await phone.Tags(other)).Count);
    }

    [Fact]
    public async Task Of_a_hidden_event_with_the_same_uid_nothing_is_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Add);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        (await hers.Put(hers.At(calendar, "a.ics"), DavClient.File("a@trial", "Secret glaze", "CLASS:PRIVATE"))).Is(
            201
        );

        (await his.Get(his.At(calendar, "a.ics"))).Is(404);
        (await his.Put(his.At(calendar, "his.ics"), DavClient.File("a@trial", "His own"))).Is(201);

        var back = (await his.Get(his.At(calendar, "his.ics"))).Is(200).Text;
        Assert.Contains("UID:a@trial", back, StringComparison.Ordinal);
        (await his.Put(his.At(calendar, "his.ics"), back.Replace("His own", "His", StringComparison.Ordinal))).Is(204);
        Assert.Equal(2, (await ines.Bricks(calendar, "2026-03-09", "2026-03-15")).Count);
    }

    [Fact]
    public async Task A_name_that_a_hidden_event_has_is_taken_from_nobody_and_nothing_is_told_of_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Add);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        var (mine, yours) = (hers.At(calendar, "a.ics"), his.At(calendar, "a.ics"));
        (await hers.Put(mine, DavClient.File("a@trial", "Secret glaze", "CLASS:PRIVATE"))).Is(201);
        var before = await hers.Tags(calendar);

        (await his.Put(yours, DavClient.File("b@trial", "His own"))).Is(201);

        // Each has their own under it, and who is told both has the other under a name of its own.
        Assert.Contains("His own", (await his.Get(yours)).Is(200).Text, StringComparison.Ordinal);
        Assert.Contains("Secret glaze", (await hers.Get(mine)).Is(200).Text, StringComparison.Ordinal);
        var tags = await hers.Tags(calendar);
        Assert.Equal(before[mine], tags[mine]);
        var other = Assert.Single(tags.Keys, href => href != mine);
        Assert.Contains("His own", (await hers.Get(other)).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Secret", (await his.Sync(his.At(calendar))).Text, StringComparison.Ordinal);

        // What each changes and deletes by it is theirs.
        (await his.Put(yours, DavClient.File("b@trial", "His own, later"))).Is(204);
        (await hers.Put(mine, DavClient.File("a@trial", "Secret glaze, later"))).Is(204);
        Assert.Contains("His own, later", (await hers.Get(other)).Is(200).Text, StringComparison.Ordinal);
        var token = (await hers.Sync(hers.At(calendar))).Token;
        (await hers.Delete(mine)).Is(204);
        Assert.Equal(
            "HTTP/1.1 404 Not Found",
            Assert.Single((await hers.Sync(hers.At(calendar), token)).Each).Value.Status()
        );
        Assert.Contains("His own", (await his.Get(yours)).Is(200).Text, StringComparison.Ordinal);
        Assert.Contains("His own", (await hers.Get(other)).Is(200).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_event_moves_and_is_copied_between_calendars()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (await phone.Put(phone.At(from, "a.ics"), DavClient.File("a@trial", "Firing", "X-TRIAL:kept"))).Is(201);
        var token = (await phone.Sync(phone.At(from))).Token;

        (
            await phone.Send(
                "MOVE",
                phone.At(from, "a.ics"),
                null,
                null,
                ("Destination", new Uri(mortar.Url, phone.At(to, "there.ics")).ToString())
            )
        ).Is(201);

        (await phone.Get(phone.At(from, "a.ics"))).Is(404);
        Assert.Contains(
            "X-TRIAL:kept",
            (await phone.Get(phone.At(to, "there.ics"))).Is(200).Text,
            StringComparison.Ordinal
        );
        var gone = (await phone.Sync(phone.At(from), token)).Each;
        Assert.Equal("HTTP/1.1 404 Not Found", gone[phone.At(from, "a.ics")].Status());

        (await phone.Send("COPY", phone.At(to, "there.ics"), null, null, ("Destination", phone.At(from, "b.ics")))).Is(
            201
        );
        Assert.Contains("Firing", (await phone.Get(phone.At(from, "b.ics"))).Is(200).Text, StringComparison.Ordinal);
        (await phone.Send("MOVE", phone.At(from, "b.ics"), null, null, ("Destination", phone.At(to, "c.ics")))).Is(409);
        (
            await phone.Send(
                "MOVE",
                phone.At(from, "b.ics"),
                null,
                null,
                ("Destination", "https://elsewhere.example/c.ics")
            )
        ).Is(403);
    }

    [Fact]
    public async Task What_has_the_name_goes_for_what_is_moved_or_copied_there_but_where_it_must_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(to, DemoPeople.Priya, Role.Add);
        await mortar.Give(from, DemoPeople.Priya, Role.Edit);
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (await phone.Put(phone.At(from, "a.ics"), DavClient.File("a@trial", "Firing"))).Is(201);
        (await phone.Put(phone.At(to, "b.ics"), DavClient.File("b@trial", "Unloading"))).Is(201);

        // RFC 4918, 10.6: it is T where it is not said.
        (await Carry("MOVE", phone, ("Overwrite", "F"))).Is(412);
        (await Carry("COPY", phone, ("Overwrite", "F"))).Is(412);
        Assert.Contains("Unloading", (await phone.Get(phone.At(to, "b.ics"))).Is(200).Text, StringComparison.Ordinal);

        // Whoever may add there and not change what others put there replaces nothing, and nothing is half done.
        using var hers = await DavClient.Of(mortar, DemoPeople.Priya);
        (await Carry("MOVE", hers)).Misses(403, D + "need-privileges");
        (await Carry("COPY", hers)).Misses(403, D + "need-privileges");
        Assert.Contains("Firing", (await phone.Get(phone.At(from, "a.ics"))).Is(200).Text, StringComparison.Ordinal);
        Assert.Contains("Unloading", (await phone.Get(phone.At(to, "b.ics"))).Is(200).Text, StringComparison.Ordinal);

        var token = (await phone.Sync(phone.At(to))).Token;
        (await Carry("COPY", phone)).Is(204);
        Assert.Equal(["Firing"], await Titles(to));
        Assert.Equal(["Firing"], await Titles(from));
        Assert.Equal(
            phone.At(to, "b.ics"),
            Assert.Single((await phone.Sync(phone.At(to), token)).Each, one => one.Value.Status() is null).Key
        );

        // The copy has its UID, and goes for what it is a copy of.
        (await Carry("MOVE", phone, ("Overwrite", "T"))).Is(204);
        Assert.Equal(["Firing"], await Titles(to));
        Assert.Empty(await Titles(from));
        (await phone.Get(phone.At(from, "a.ics"))).Is(404);

        // In one calendar it keeps its name: by another one other devices would have it twice.
        foreach (var method in new[] { "MOVE", "COPY" })
        {
            (
                await phone.Send(method, phone.At(to, "b.ics"), null, null, ("Destination", phone.At(to, "c.ics")))
            ).Misses(403, C + "calendar-collection-location-ok");
        }

        Assert.Equal([phone.At(to, "b.ics")], (await phone.Tags(to)).Keys);

        Task<DavReply> Carry(string method, DavClient by, params (string, string)[] also) =>
            by.Send(method, by.At(from, "a.ics"), null, null, [("Destination", by.At(to, "b.ics")), .. also]);

        async Task<IReadOnlyList<string>> Titles(CalendarId calendar) =>
            [.. (await ines.Bricks(calendar, "2026-03-09", "2026-03-15")).Select(brick => brick.Text("title"))];
    }

    [Fact]
    public async Task Deleted_on_a_device_it_is_in_the_bin_and_made_again_it_is_there_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var path = phone.At(calendar, "a.ics");
        (await phone.Put(path, DavClient.File("a@trial"))).Is(201);
        var tag = (await phone.Get(path)).ETag!;
        (await phone.Put(path, DavClient.File("a@trial", "Later"))).Is(204);

        (await phone.Delete(path, ("If-Match", tag))).Is(412);
        (await phone.Delete(path)).Is(204);
        (await phone.Delete(path)).Is(404);
        Assert.Contains(await ines.InBin(), one => one.ToString().Contains("Later", StringComparison.Ordinal));
        (await phone.Put(path, DavClient.File("a@trial", "Again"))).Is(201);
        Assert.Equal("Again", Assert.Single(await ines.Bricks(calendar, "2026-03-09", "2026-03-15")).Text("title"));
    }

    [Fact]
    public async Task Two_devices_and_the_web_change_one_series_at_once_and_nothing_is_lost_unsaid()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        using var tablet = await DavClient.Of(mortar, DemoPeople.Ines);
        var path = phone.At(calendar, "glazing.ics");
        (await phone.Put(path, Series)).Is(201);
        var tag = (await phone.Get(path)).ETag!;

        var replies = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(number =>
                    (number % 2 == 0 ? phone : tablet).Put(
                        path,
                        Series.Replace("SUMMARY:Glazing\n", $"SUMMARY:Glazing {number}\n", StringComparison.Ordinal),
                        ("If-Match", tag)
                    )
                )
        );

        Assert.Single(replies, reply => reply.Status == 204);
        Assert.Equal(5, replies.Count(reply => reply.Status == 412));
        // Without naming a version each is written on top of the other; all are in the history.
        var bare = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(number =>
                    phone.Put(path, Series.Replace("Glazing\n", $"Bare {number}\n", StringComparison.Ordinal))
                )
        );
        Assert.All(bare, reply => Assert.True(reply.Status is 204 or 412, reply.Text));
    }
}
