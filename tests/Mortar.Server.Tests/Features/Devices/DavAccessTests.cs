using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>The table of access for programs: every step, every method, with secrets that are looked for in all that is told.</summary>
public class DavAccessTests
{
    /// <summary>What each step may be told of the events, and what comes of writing by it.</summary>
    public static TheoryData<Role, string[], int, int, int> Steps { get; } =
        new()
        {
            // Told; PUT of a new event, PUT over somebody else's, DELETE of it.
            { Role.None, [], 404, 404, 404 },
            { Role.Times, [], 403, 403, 404 },
            { Role.Outline, ["Secret-title", "Secret-place"], 403, 403, 403 },
            { Role.View, ["Secret-title", "Secret-place", "Secret-notes", "Secret-x"], 403, 403, 403 },
            { Role.Add, ["Secret-title", "Secret-place", "Secret-notes", "Secret-x"], 201, 403, 403 },
            {
                Role.Edit,
                ["Secret-title", "Secret-place", "Secret-notes", "Secret-x", "Secret-private"],
                201,
                204,
                204
            },
        };

    [Theory]
    [MemberData(nameof(Steps))]
    public async Task Each_step_is_told_and_may_what_it_is_for(
        Role role,
        string[] told,
        int adds,
        int changes,
        int deletes
    )
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        var open = DavClient.File(
            "open@trial",
            "Secret-title",
            "LOCATION:Secret-place\nDESCRIPTION:Secret-notes\nX-TRIAL:Secret-x"
        );
        (await hers.Put(hers.At(calendar, "open.ics"), open)).Is(201);
        (
            await hers.Put(
                hers.At(calendar, "private.ics"),
                DavClient
                    .File("private@trial", "Secret-private", "CLASS:PRIVATE")
                    .Replace("20260312", "20260313", StringComparison.Ordinal)
            )
        ).Is(201);
        await mortar.Give(calendar, DemoPeople.Dele, role);

        var texts = new List<string>();
        foreach (var reply in await Readings(his, calendar))
        {
            texts.Add(reply.Text);
        }

        var all = string.Concat(texts);
        foreach (var secret in new[] { "Secret-title", "Secret-place", "Secret-notes", "Secret-x", "Secret-private" })
        {
            Assert.True(
                told.Contains(secret) == all.Contains(secret, StringComparison.Ordinal),
                $"{role}: {secret} in\n{all}"
            );
        }

        // What only is taken is told from Times only on, and nothing where nothing is shared.
        Assert.Equal(
            role is Role.Times or Role.Outline or Role.View or Role.Add,
            all.Contains("SUMMARY:Busy", StringComparison.Ordinal)
        );
        var privileges = (await his.Find(his.At(calendar), 0, "d:current-user-privilege-set"));
        if (role > Role.None)
        {
            var may = privileges
                .Property(D + "current-user-privilege-set")!
                .Descendants()
                .Select(one => one.Name)
                .ToHashSet();
            Assert.Equal(role >= Role.Add, may.Contains(D + "bind"));
            Assert.Equal(role >= Role.Edit, may.Contains(D + "write"));
        }

        (await his.Put(his.At(calendar, "new.ics"), DavClient.File("new@trial", "His"))).Is(adds);
        (
            await his.Put(
                his.At(calendar, "open.ics"),
                open.Replace("Secret-title", "Changed", StringComparison.Ordinal)
            )
        ).Is(changes);
        (await his.Delete(his.At(calendar, "open.ics"))).Is(deletes);
        var other = await ines.MakeCalendar();
        await mortar.Give(other, DemoPeople.Dele, Role.Edit);
        (
            await his.Send("MOVE", his.At(calendar, "private.ics"), null, null, ("Destination", his.At(other, "b.ics")))
        ).Is(role == Role.Edit ? 201 : 404);
        // From the other side: what is there for her.
        var left = (await hers.Tags(calendar)).Keys.Select(key => key[hers.At(calendar).Length..]).ToHashSet();
        Assert.Equal(adds == 201, left.Contains("new.ics"));
        Assert.Equal(deletes != 204, left.Contains("open.ics"));
        if (adds == 201)
        {
            (await his.Put(his.At(calendar, "new.ics"), DavClient.File("new@trial", "His own"))).Is(204);
            (await his.Delete(his.At(calendar, "new.ics"))).Is(204);
        }
    }

    /// <summary>All ways to read a calendar, by its own address and by those of its events.</summary>
    private static async Task<List<DavReply>> Readings(DavClient client, CalendarId calendar)
    {
        var path = client.At(calendar);
        const string Prop =
            "<d:prop xmlns:d='DAV:'><d:getetag/><c:calendar-data xmlns:c='urn:ietf:params:xml:ns:caldav'/></d:prop>";
        var replies = new List<DavReply>
        {
            await client.Find(client.Home, 1, "d:displayname", "c:calendar-description", "d:sync-token"),
            await client.Send("PROPFIND", path, null, null, ("Depth", "1")),
            await client.Send(
                "PROPFIND",
                path,
                "<d:propfind xmlns:d='DAV:'><d:propname/></d:propfind>",
                null,
                ("Depth", "1")
            ),
            await client.Report(
                path,
                $"<c:calendar-query xmlns:c='urn:ietf:params:xml:ns:caldav'>{Prop}<c:filter><c:comp-filter name='VCALENDAR'/></c:filter></c:calendar-query>"
            ),
            await client.Report(
                path,
                $"<c:calendar-query xmlns:c='urn:ietf:params:xml:ns:caldav'>{Prop}<c:filter><c:comp-filter name='VCALENDAR'><c:comp-filter name='VEVENT'><c:time-range start='20260301T000000Z' end='20260401T000000Z'/></c:comp-filter></c:comp-filter></c:filter></c:calendar-query>"
            ),
            await client.Report(
                path,
                $"<c:calendar-multiget xmlns:c='urn:ietf:params:xml:ns:caldav'>{Prop}<d:href xmlns:d='DAV:'>{path}open.ics</d:href><d:href xmlns:d='DAV:'>{path}private.ics</d:href></c:calendar-multiget>"
            ),
            await client.Report(
                path,
                $"<d:sync-collection xmlns:d='DAV:'><d:sync-token/><d:sync-level>1</d:sync-level>{Prop}</d:sync-collection>",
                0
            ),
            await client.Report(
                path,
                "<c:free-busy-query xmlns:c='urn:ietf:params:xml:ns:caldav'><c:time-range start='20260301T000000Z' end='20260401T000000Z'/></c:free-busy-query>"
            ),
            await client.Get($"{path}open.ics"),
            await client.Get($"{path}private.ics"),
        };
        // Each thing that is listed, by itself.
        foreach (
            var href in replies[1].Status == 207
                ? replies[1].Each.Keys.Where(key => key.EndsWith(".ics", StringComparison.Ordinal))
                : []
        )
        {
            replies.Add(await client.Get(href));
        }

        return replies;
    }

    [Fact]
    public async Task A_filter_on_what_is_not_shown_finds_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        (await hers.Put(hers.At(calendar, "a.ics"), DavClient.File("a@trial", "Open", "DESCRIPTION:Secret-notes"))).Is(
            201
        );
        await mortar.Give(calendar, DemoPeople.Dele, Role.Outline);
        string Query(string property, string text) =>
            $"""
                <c:calendar-query xmlns:c="urn:ietf:params:xml:ns:caldav" xmlns:d="DAV:"><d:prop><d:getetag/></d:prop><c:filter>
                <c:comp-filter name="VCALENDAR"><c:comp-filter name="VEVENT"><c:prop-filter name="{property}"><c:text-match>{text}</c:text-match>
                </c:prop-filter></c:comp-filter></c:comp-filter></c:filter></c:calendar-query>
                """;

        Assert.Empty((await his.Report(his.At(calendar), Query("DESCRIPTION", "Secret"))).Each);
        Assert.Empty((await his.Report(his.At(calendar), Query("UID", "trial"))).Each);
        Assert.Single((await his.Report(his.At(calendar), Query("SUMMARY", "OPEN"))).Each);
        Assert.Single((await hers.Report(hers.At(calendar), Query("DESCRIPTION", "secret"))).Each);
    }

    [Theory]
    [InlineData("view")]
    [InlineData("outline")]
    [InlineData("times")]
    public async Task A_key_that_reads_only_writes_nothing_and_is_told_no_more_than_its_step(string step)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var all = await DavClient.Of(mortar, DemoPeople.Ines);
        using var reads = await DavClient.Of(mortar, DemoPeople.Ines, step);
        var text = DavClient.File("a@trial", "Secret-title", "DESCRIPTION:Secret-notes\nCLASS:PRIVATE");
        (await all.Put(all.At(calendar, "a.ics"), text)).Is(201);
        (await all.Put(all.At(calendar, "b.ics"), DavClient.File("b@trial", "Secret-open"))).Is(201);

        var told = string.Concat((await Readings(reads, calendar)).Select(reply => reply.Text));
        Assert.Equal(step == "view", told.Contains("Secret-notes", StringComparison.Ordinal));
        Assert.Equal(step == "view", told.Contains("Secret-title", StringComparison.Ordinal));
        Assert.Equal(step != "times", told.Contains("Secret-open", StringComparison.Ordinal));
        (await reads.Put(reads.At(calendar, "c.ics"), DavClient.File("c@trial"))).Misses(403, D + "need-privileges");
        (await reads.Put(reads.At(calendar, "b.ics"), DavClient.File("b@trial", "Other"))).Misses(
            403,
            D + "need-privileges"
        );
        (
            await reads.Send(
                "PROPPATCH",
                reads.At(calendar),
                "<d:propertyupdate xmlns:d='DAV:'><d:set><d:prop><d:displayname>Mine</d:displayname></d:prop></d:set></d:propertyupdate>"
            )
        ).Misses(403, D + "need-privileges");
        (await reads.Send("MKCALENDAR", $"{reads.Home}new/")).Misses(403, D + "need-privileges");
        (await reads.Delete(reads.At(calendar))).Misses(403, D + "need-privileges");
        Assert.Equal(2, (await all.Tags(calendar)).Count);
    }

    [Fact]
    public async Task Other_peoples_addresses_lead_nowhere()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        (await hers.Put(hers.At(calendar, "a.ics"), DavClient.File("a@trial"))).Is(201);
        foreach (
            var path in new[]
            {
                hers.Home,
                hers.Principal,
                hers.At(calendar),
                hers.At(calendar, "a.ics"),
                his.At(calendar),
                $"{his.Home}{Guid.NewGuid():N}/",
                "/dav/principals/",
                "/dav/nothing/",
                $"{his.Home}%2e%2e/",
            }
        )
        {
            var reply = await his.Find(path, 1, "d:displayname");
            Assert.True(reply.Status is 404 or 301 or 401, $"{path}: {reply.Status} {reply.Text}");
        }

        (await his.Put(hers.At(calendar, "b.ics"), DavClient.File("b@trial"))).Is(404);
        (await his.Delete(hers.At(calendar, "a.ics"))).Is(404);
        (await his.Send("MOVE", his.At(calendar, "a.ics"), null, null, ("Destination", hers.At(calendar, "c.ics")))).Is(
            404
        );
        // A cookie is no key.
        (await ines.Get(hers.Home)).Is(401);
    }

    [Fact]
    public async Task Xml_that_wants_more_than_it_says_is_refused()
    {
        await using var mortar = await TestMortar.Start();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        foreach (
            var body in new[]
            {
                """<!DOCTYPE a [<!ENTITY b "bbbbbbbbbb"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]><d:propfind xmlns:d="DAV:"><d:prop>&c;</d:prop></d:propfind>""",
                """<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><d:propfind xmlns:d="DAV:"><d:prop>&b;</d:prop></d:propfind>""",
                """<!DOCTYPE a SYSTEM "http://127.0.0.1:1/a.dtd"><d:propfind xmlns:d="DAV:"><d:allprop/></d:propfind>""",
                $"{string.Concat(Enumerable.Repeat("<a>", 5_000))}{string.Concat(Enumerable.Repeat("</a>", 5_000))}",
                $"<d:propfind xmlns:d='DAV:'><d:prop>{string.Concat(Enumerable.Repeat("<a/>", 30_000))}</d:prop></d:propfind>",
                "<d:propfind xmlns:d='DAV:'><d:prop>",
                "{}",
            }
        )
        {
            var reply = (await phone.Send("PROPFIND", phone.Home, body, null, ("Depth", "0"))).Is(400);
            Assert.DoesNotContain("root:", reply.Text, StringComparison.Ordinal);
        }

        (await phone.Send("REPORT", phone.Home, $"<a>{new string(' ', 10 * 1024 * 1024)}</a>")).Is(413);
        (await phone.Send("PROPFIND", phone.Home, null, null, ("Depth", "infinity"))).Misses(
            403,
            D + "propfind-finite-depth"
        );
        (await phone.Send("LOCK", phone.Home)).Is(405);
        (await phone.Send("PATCH", phone.Home, "x")).Is(405);
        var options = (await phone.Send("OPTIONS", phone.Home)).Is(200);
        Assert.Contains("calendar-access", options.Headers.GetValues("DAV").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task One_letter_that_no_xml_can_have_does_not_end_what_everybody_is_told()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Add);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        (
            await his.Put(
                his.At(calendar, "a.ics"),
                DavClient.File("a@trial", "Bell \u0007 and \uFFFE", "X-TRIAL:\u0001x😀")
            )
        ).Is(201);
        (await hers.Put(hers.At(calendar, "b.ics"), DavClient.File("b@trial", "Hers"))).Is(201);

        var told = await hers.Report(
            hers.At(calendar),
            "<c:calendar-query xmlns:c='urn:ietf:params:xml:ns:caldav' xmlns:d='DAV:'><d:prop><d:getetag/><c:calendar-data/></d:prop><c:filter><c:comp-filter name='VCALENDAR'/></c:filter></c:calendar-query>"
        );
        Assert.Equal(2, told.Each.Count);
        Assert.Contains("X-TRIAL:x😀", told.Each[hers.At(calendar, "a.ics")].Data(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_one_answer_tells_is_bounded_however_it_is_asked_for()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (
            await phone.Put(
                phone.At(calendar, "abcdefgh.ics"),
                DavClient.File("a@trial", lines: $"DESCRIPTION:{new string('x', 900_000)}")
            )
        ).Is(201);
        // The same event under a hundred addresses.
        var hrefs = string.Concat(
            Enumerable
                .Range(0, 100)
                .Select(bits =>
                    $"<d:href>{phone.At(calendar)}{string.Concat("abcdefg".Select((letter, at) => ((bits >> at) & 1) == 1 ? $"%{(int)letter:x2}" : $"{letter}"))}h.ics</d:href>"
                )
        );
        (
            await phone.Report(
                phone.At(calendar),
                $"<c:calendar-multiget xmlns:c='urn:ietf:params:xml:ns:caldav' xmlns:d='DAV:'><d:prop><c:calendar-data/></d:prop>{hrefs}</c:calendar-multiget>"
            )
        ).Misses(403, D + "number-of-matches-within-limits");

        // A rule that falls on every minute, each date by itself.
        (await phone.Put(phone.At(calendar, "often.ics"), DavClient.File("b@trial", lines: "RRULE:FREQ=MINUTELY"))).Is(
            201
        );
        string Expand(string to) =>
            $"<c:calendar-query xmlns:c='urn:ietf:params:xml:ns:caldav' xmlns:d='DAV:'><d:prop><c:calendar-data><c:expand start='20260401T000000Z' end='{to}'/></c:calendar-data></d:prop><c:filter><c:comp-filter name='VCALENDAR'><c:comp-filter name='VEVENT'><c:time-range start='20260401T000000Z' end='{to}'/></c:comp-filter></c:comp-filter></c:filter></c:calendar-query>";
        (await phone.Report(phone.At(calendar), Expand("20260402T000000Z"))).Is(207);
        (await phone.Report(phone.At(calendar), Expand("20270402T000000Z"))).Misses(
            403,
            D + "number-of-matches-within-limits"
        );
        (await phone.Report(phone.At(calendar), Expand("20990402T000000Z"))).Misses(
            403,
            D + "number-of-matches-within-limits"
        );
    }

    [Fact]
    public async Task What_takes_a_place_or_an_absence_keeps_to_their_rules()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (kiln, away) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (await ines.Put($"/api/calendars/{kiln}", OneAtATime(World.Calendar("Kiln", purpose: "place")))).Is(200);
        (await ines.Put($"/api/calendars/{away}", Agreed(World.Calendar("Days away", purpose: "away")))).Is(200);
        var (place, absences) = (new CalendarId(kiln), new CalendarId(away));
        await mortar.Give(place, DemoPeople.Dele, Role.Add);
        await mortar.Give(absences, DemoPeople.Dele, Role.Add);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);

        (await hers.Put(hers.At(place, "a.ics"), DavClient.File("a@trial", "Hers"))).Is(201);
        var taken = (await his.Put(his.At(place, "b.ics"), DavClient.File("b@trial", "His"))).Is(409);
        Assert.Contains("Kiln", taken.Text, StringComparison.Ordinal);
        Assert.Single(await hers.Tags(place));

        // An absence is one's own and waits until somebody agrees: what is kept is another than what was sent, so no tag is told.
        var put = (await his.Put(his.At(absences, "c.ics"), DavClient.File("c@trial", "Away"))).Is(201);
        Assert.Null(put.ETag);
        var back = (await his.Get(his.At(absences, "c.ics"))).Is(200).Text;
        Assert.Contains("STATUS:TENTATIVE", back, StringComparison.Ordinal);
        Assert.Contains(
            DemoPeople.Dele.Id.Value.ToString(),
            back.Replace("\r\n ", "", StringComparison.Ordinal),
            StringComparison.Ordinal
        );

        static object OneAtATime(object body) => With(body, "oneAtATime");
        static object Agreed(object body) => With(body, "agreed");
        static object With(object body, string name)
        {
            var json = System.Text.Json.JsonSerializer.SerializeToNode(
                body,
                System.Text.Json.JsonSerializerOptions.Web
            )!;
            json[name] = true;
            return json;
        }
    }
}
