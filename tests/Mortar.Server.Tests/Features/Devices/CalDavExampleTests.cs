using System.Xml.Linq;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>
/// The examples of RFC 4791, request by request, on the calendar of its Appendix B, as far as that is of events; their
/// texts are from memory.
/// </summary>
public class CalDavExampleTests
{
    private const string Eastern = """
        BEGIN:VTIMEZONE
        LAST-MODIFIED:20040110T032845Z
        TZID:US/Eastern
        BEGIN:DAYLIGHT
        DTSTART:20000404T020000
        RRULE:FREQ=YEARLY;BYDAY=1SU;BYMONTH=4
        TZNAME:EDT
        TZOFFSETFROM:-0500
        TZOFFSETTO:-0400
        END:DAYLIGHT
        BEGIN:STANDARD
        DTSTART:20001026T020000
        RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10
        TZNAME:EST
        TZOFFSETFROM:-0400
        TZOFFSETTO:-0500
        END:STANDARD
        END:VTIMEZONE
        """;

    private static string Calendar(string events) =>
        $"BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Example Corp.//CalDAV Client//EN\n{Eastern}\n{events}\nEND:VCALENDAR\n";

    /// <summary>Appendix B: abcd1.ics.</summary>
    private static readonly string First = Calendar(
        """
        BEGIN:VEVENT
        DTSTAMP:20060206T001102Z
        DTSTART;TZID=US/Eastern:20060102T100000
        DURATION:PT1H
        SUMMARY:Event #1
        Description:Go Steelers!
        UID:74855313FA803DA593CD579A@example.com
        END:VEVENT
        """
    );

    /// <summary>Appendix B: abcd2.ics.</summary>
    private static readonly string Second = Calendar(
        """
        BEGIN:VEVENT
        DTSTAMP:20060206T001121Z
        DTSTART;TZID=US/Eastern:20060102T120000
        DURATION:PT1H
        RRULE:FREQ=DAILY;COUNT=5
        SUMMARY:Event #2
        UID:00959BC664CA650E933C892C@example.com
        END:VEVENT
        BEGIN:VEVENT
        DTSTAMP:20060206T001121Z
        DTSTART;TZID=US/Eastern:20060104T140000
        DURATION:PT1H
        RECURRENCE-ID;TZID=US/Eastern:20060104T120000
        SUMMARY:Event #2 bis
        UID:00959BC664CA650E933C892C@example.com
        END:VEVENT
        BEGIN:VEVENT
        DTSTAMP:20060206T001121Z
        DTSTART;TZID=US/Eastern:20060106T140000
        DURATION:PT1H
        RECURRENCE-ID;TZID=US/Eastern:20060106T120000
        SUMMARY:Event #2 bis bis
        UID:00959BC664CA650E933C892C@example.com
        END:VEVENT
        """
    );

    /// <summary>Appendix B: abcd3.ics.</summary>
    private static readonly string Third = Calendar(
        """
        BEGIN:VEVENT
        ATTENDEE;PARTSTAT=ACCEPTED;ROLE=CHAIR:mailto:cyrus@example.com
        ATTENDEE;PARTSTAT=NEEDS-ACTION:mailto:lisa@example.com
        DTSTAMP:20060206T001220Z
        DTSTART;TZID=US/Eastern:20060104T100000
        DURATION:PT1H
        LAST-MODIFIED:20060206T001330Z
        ORGANIZER:mailto:cyrus@example.com
        SEQUENCE:1
        STATUS:TENTATIVE
        SUMMARY:Event #3
        UID:DC6C50A017428C5216A2F1CD@example.com
        X-ABC-GUID:E1CX5Dr-0007ym-Hz@example.com
        END:VEVENT
        """
    );

    private sealed record World(TestMortar Mortar, Browser Ines, DavClient Client, CalendarId Id) : IAsyncDisposable
    {
        public string Path => Client.At(Id);

        public static async Task<World> Make()
        {
            var mortar = await TestMortar.Start();
            var ines = await mortar.As(DemoPeople.Ines);
            var world = new World(mortar, ines, await DavClient.Of(mortar, DemoPeople.Ines), await ines.MakeCalendar());
            foreach (var (name, text) in new[] { ("abcd1", First), ("abcd2", Second), ("abcd3", Third) })
            {
                (await world.Client.Put($"{world.Path}{name}.ics", text)).Is(201);
            }

            return world;
        }

        public async Task<IReadOnlyDictionary<string, XElement>> Query(string data, string filter) =>
            (
                await Client.Report(
                    Path,
                    $"""
                    <?xml version="1.0" encoding="utf-8" ?>
                    <C:calendar-query xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav">
                      <D:prop><D:getetag/>{data}</D:prop>
                      <C:filter><C:comp-filter name="VCALENDAR">{filter}</C:comp-filter></C:filter>
                    </C:calendar-query>
                    """
                )
            ).Each.ToDictionary(one => one.Key[Path.Length..], one => one.Value);

        public async ValueTask DisposeAsync()
        {
            Client.Dispose();
            Ines.Dispose();
            await Mortar.DisposeAsync();
        }
    }

    private static int Count(string text, string line) =>
        text.Split("\r\n").Count(one => one.StartsWith(line, StringComparison.Ordinal));

    [Fact]
    public async Task Section_7_8_1_part_of_events_by_time_range()
    {
        await using var world = await World.Make();
        var found = await world.Query(
            """
            <C:calendar-data><C:comp name="VCALENDAR"><C:prop name="VERSION"/>
              <C:comp name="VEVENT">
                <C:prop name="SUMMARY"/><C:prop name="UID"/><C:prop name="DTSTART"/><C:prop name="DTEND"/>
                <C:prop name="DURATION"/><C:prop name="RRULE"/><C:prop name="RDATE"/><C:prop name="EXRULE"/>
                <C:prop name="EXDATE"/><C:prop name="RECURRENCE-ID"/>
              </C:comp>
              <C:comp name="VTIMEZONE"/>
            </C:comp></C:calendar-data>
            """,
            """<C:comp-filter name="VEVENT"><C:time-range start="20060104T000000Z" end="20060105T000000Z"/></C:comp-filter>"""
        );

        Assert.Equal(["abcd2.ics", "abcd3.ics"], found.Keys.Order());
        var second = found["abcd2.ics"].Data();
        Assert.Equal(3, Count(second, "BEGIN:VEVENT"));
        Assert.Contains("RRULE:FREQ=DAILY;COUNT=5", second, StringComparison.Ordinal);
        Assert.Contains("BEGIN:VTIMEZONE", second, StringComparison.Ordinal);
        Assert.DoesNotContain("DTSTAMP", second, StringComparison.Ordinal);
        Assert.DoesNotContain("ATTENDEE", found["abcd3.ics"].Data(), StringComparison.Ordinal);
        Assert.Equal((await world.Client.Get($"{world.Path}abcd3.ics")).ETag, found["abcd3.ics"].ETag());
    }

    [Fact]
    public async Task Section_7_8_2_a_series_with_some_of_its_changed_dates()
    {
        await using var world = await World.Make();
        var found = await world.Query(
            """<C:calendar-data><C:limit-recurrence-set start="20060103T000000Z" end="20060105T000000Z"/></C:calendar-data>""",
            """<C:comp-filter name="VEVENT"><C:time-range start="20060103T000000Z" end="20060105T000000Z"/></C:comp-filter>"""
        );

        Assert.Equal(["abcd2.ics", "abcd3.ics"], found.Keys.Order());
        var second = found["abcd2.ics"].Data();
        Assert.Equal(2, Count(second, "BEGIN:VEVENT"));
        Assert.Contains("SUMMARY:Event #2 bis\r\n", second, StringComparison.Ordinal);
        Assert.DoesNotContain("bis bis", second, StringComparison.Ordinal);
        Assert.Contains("X-ABC-GUID", found["abcd3.ics"].Data(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Section_7_8_3_each_date_by_itself_in_utc()
    {
        await using var world = await World.Make();
        var found = await world.Query(
            """<C:calendar-data><C:expand start="20060103T000000Z" end="20060105T000000Z"/></C:calendar-data>""",
            """<C:comp-filter name="VEVENT"><C:time-range start="20060103T000000Z" end="20060105T000000Z"/></C:comp-filter>"""
        );

        Assert.Equal(["abcd2.ics", "abcd3.ics"], found.Keys.Order());
        var second = found["abcd2.ics"].Data();
        Assert.Equal(2, Count(second, "BEGIN:VEVENT"));
        foreach (
            var line in new[]
            {
                "DTSTART:20060103T170000Z",
                "RECURRENCE-ID:20060103T170000Z",
                "DTSTART:20060104T190000Z",
                "RECURRENCE-ID:20060104T170000Z",
                "SUMMARY:Event #2 bis",
            }
        )
        {
            Assert.Equal(1, Count(second, line));
        }

        Assert.DoesNotContain("RRULE:FREQ=DAILY", second, StringComparison.Ordinal);
        Assert.DoesNotContain("VTIMEZONE", second, StringComparison.Ordinal);
        Assert.Contains("DTSTART:20060104T150000Z", found["abcd3.ics"].Data(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Section_7_8_6_an_event_by_its_uid()
    {
        await using var world = await World.Make();
        var found = await world.Query(
            "<C:calendar-data/>",
            """
            <C:comp-filter name="VEVENT"><C:prop-filter name="UID">
              <C:text-match collation="i;octet">DC6C50A017428C5216A2F1CD@example.com</C:text-match>
            </C:prop-filter></C:comp-filter>
            """
        );

        Assert.Equal(["abcd3.ics"], found.Keys);
        Assert.Contains("SUMMARY:Event #3", found["abcd3.ics"].Data(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Section_7_8_7_events_that_somebody_has_not_answered()
    {
        await using var world = await World.Make();
        const string Filter = """
            <C:comp-filter name="VEVENT"><C:prop-filter name="ATTENDEE">
              <C:text-match collation="i;ascii-casemap">mailto:lisa@example.com</C:text-match>
              <C:param-filter name="PARTSTAT"><C:text-match collation="i;ascii-casemap">NEEDS-ACTION</C:text-match></C:param-filter>
            </C:prop-filter></C:comp-filter>
            """;

        Assert.Equal(["abcd3.ics"], (await world.Query("<C:calendar-data/>", Filter)).Keys);
        Assert.Empty(await world.Query("", Filter.Replace("NEEDS-ACTION", "DECLINED", StringComparison.Ordinal)));
        Assert.Equal(
            ["abcd1.ics", "abcd2.ics"],
            (
                await world.Query(
                    "",
                    """<C:comp-filter name="VEVENT"><C:prop-filter name="ATTENDEE"><C:is-not-defined/></C:prop-filter></C:comp-filter>"""
                )
            ).Keys.Order()
        );
    }

    [Fact]
    public async Task Section_7_8_8_events_alone_and_7_8_5_no_to_dos()
    {
        await using var world = await World.Make();
        Assert.Equal(
            ["abcd1.ics", "abcd2.ics", "abcd3.ics"],
            (await world.Query("<C:calendar-data/>", """<C:comp-filter name="VEVENT"/>""")).Keys.Order()
        );
        Assert.Empty(await world.Query("", """<C:comp-filter name="VTODO"/>"""));
        Assert.Equal(
            3,
            (await world.Query("", """<C:comp-filter name="VTODO"><C:is-not-defined/></C:comp-filter>""")).Count
        );
    }

    [Fact]
    public async Task Section_7_8_10_a_comparison_and_7_8_a_filter_that_there_is_not()
    {
        await using var world = await World.Make();
        (
            await world.Client.Report(
                world.Path,
                """
                <C:calendar-query xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:prop><D:getetag/></D:prop>
                <C:filter><C:comp-filter name="VCALENDAR"><C:comp-filter name="VEVENT"><C:prop-filter name="SUMMARY">
                <C:text-match collation="i;unicode-casemap">a</C:text-match></C:prop-filter></C:comp-filter></C:comp-filter></C:filter>
                </C:calendar-query>
                """
            )
        ).Misses(403, C + "supported-collation");
        (
            await world.Client.Report(
                world.Path,
                """
                <C:calendar-query xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:prop><D:getetag/></D:prop>
                <C:filter><C:comp-filter name="VEVENT"/></C:filter></C:calendar-query>
                """
            )
        ).Misses(403, C + "valid-filter");
        (await world.Client.Report(world.Path, """<D:expand-property xmlns:D="DAV:"/>""")).Misses(
            403,
            D + "supported-report"
        );
    }

    [Fact]
    public async Task Section_7_9_1_several_events_by_their_addresses()
    {
        await using var world = await World.Make();
        var each = (
            await world.Client.Report(
                world.Path,
                $"""
                <C:calendar-multiget xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav">
                  <D:prop><D:getetag/><C:calendar-data/></D:prop>
                  <D:href>{world.Path}abcd1.ics</D:href>
                  <D:href>{world.Path}mtg1.ics</D:href>
                </C:calendar-multiget>
                """
            )
        ).Each;

        var one = each[$"{world.Path}abcd1.ics"];
        Assert.Contains("SUMMARY:Event #1", one.Data(), StringComparison.Ordinal);
        Assert.Equal((await world.Client.Get($"{world.Path}abcd1.ics")).ETag, one.ETag());
        Assert.Equal((await world.Client.Get($"{world.Path}abcd1.ics")).Text, one.Data());
        Assert.Equal("HTTP/1.1 404 Not Found", each[$"{world.Path}mtg1.ics"].Status());
    }

    [Fact]
    public async Task Section_7_10_1_when_it_is_busy()
    {
        await using var world = await World.Make();
        var text = (
            await world.Client.Report(
                world.Path,
                """
                <?xml version="1.0" encoding="utf-8" ?>
                <C:free-busy-query xmlns:C="urn:ietf:params:xml:ns:caldav">
                  <C:time-range start="20060104T140000Z" end="20060105T220000Z"/>
                </C:free-busy-query>
                """
            )
        ).Is(200).Text;

        foreach (
            var line in new[]
            {
                "DTSTART:20060104T140000Z",
                "DTEND:20060105T220000Z",
                "FREEBUSY;FBTYPE=BUSY-TENTATIVE:20060104T150000Z/20060104T160000Z",
                "FREEBUSY;FBTYPE=BUSY:20060104T190000Z/20060104T200000Z",
                "FREEBUSY;FBTYPE=BUSY:20060105T170000Z/20060105T180000Z",
            }
        )
        {
            Assert.Equal(1, Count(text, line));
        }

        Assert.Equal(3, Count(text, "FREEBUSY"));
        (
            await world.Client.Report(
                world.Path,
                """<C:free-busy-query xmlns:C="urn:ietf:params:xml:ns:caldav"><C:time-range start="20060104T140000Z"/></C:free-busy-query>"""
            )
        ).Is(400);
    }

    [Fact]
    public async Task Section_5_3_2_an_event_is_put_where_there_is_none()
    {
        await using var world = await World.Make();
        const string Party = """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Example Corp.//CalDAV Client//EN
            BEGIN:VEVENT
            UID:20010712T182145Z-123401@example.com
            DTSTAMP:20060712T182145Z
            DTSTART:20060714T170000Z
            DTEND:20060715T040000Z
            SUMMARY:Bastille Day Party
            END:VEVENT
            END:VCALENDAR

            """;
        (await world.Client.Put($"{world.Path}qwue23489.ics", Party, ("If-None-Match", "*"))).Is(201);
        (await world.Client.Put($"{world.Path}qwue23489.ics", Party, ("If-None-Match", "*"))).Is(412);
        Assert.Single(await world.Ines.Bricks(world.Id, "2006-07-10", "2006-07-16"));
    }

    [Fact]
    public async Task Section_5_3_1_2_a_calendar_is_made_where_there_is_one_group_to_make_it_in()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await DavClient.Of(mortar, DemoPeople.Hanne);
        const string Body = """
            <?xml version="1.0" encoding="utf-8" ?>
            <C:mkcalendar xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:set><D:prop>
              <D:displayname>Lisa's Events</D:displayname>
              <C:calendar-description xml:lang="en">Calendar restricted to events.</C:calendar-description>
              <C:supported-calendar-component-set><C:comp name="VEVENT"/></C:supported-calendar-component-set>
            </D:prop></D:set></C:mkcalendar>
            """;
        using var web = await mortar.As(DemoPeople.Hanne);
        Assert.Equal(1, (await web.Get("/api/groups")).Is(200).Body.GetArrayLength());
        (await hanne.Send("MKCALENDAR", $"{hanne.Home}events/", Body)).Is(201);
        var found = await hanne.Find($"{hanne.Home}events/", 0, "d:displayname", "c:calendar-description");
        Assert.Equal("Lisa's Events", found.Property(D + "displayname")!.Value);
        Assert.Equal("Calendar restricted to events.", found.Property(C + "calendar-description")!.Value);
        (await hanne.Put($"{hanne.Home}events/a.ics", First)).Is(201);
        (await hanne.Send("MKCALENDAR", $"{hanne.Home}events/", Body)).Misses(403, D + "resource-must-be-null");

        // It is there also where it is off the shelf.
        var own = (await web.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Single(layer => layer.Text("name") == "Lisa's Events")
            .GetProperty("calendarId")
            .GetGuid();
        (
            await web.Put(
                $"/api/shelf/{own}",
                new
                {
                    shown = false,
                    beside = false,
                    look = (object?)null,
                    offShelf = true,
                }
            )
        ).Is(204);
        (await hanne.Send("MKCALENDAR", hanne.At(new CalendarId(own)), Body)).Misses(403, D + "resource-must-be-null");

        // By the id of a calendar that is somebody else's nothing is made, changed or told.
        using var hers = await mortar.As(DemoPeople.Ines);
        var theirs = await hers.MakeCalendar();
        var unknown = await hanne.Send("MKCALENDAR", hanne.At(theirs), Body);
        Assert.Equal(404, unknown.Status);
        Assert.DoesNotContain("Glaze tests", unknown.Text, StringComparison.Ordinal);
        Assert.Contains("Glaze tests", (await hers.Get("/api/shelf")).Text, StringComparison.Ordinal);

        // Somebody in several groups cannot say in which.
        using var ines = await DavClient.Of(mortar, DemoPeople.Ines);
        (await ines.Send("MKCALENDAR", $"{ines.Home}events/", Body)).Misses(403, D + "need-privileges");
        (await ines.Send("MKCALENDAR", $"{hanne.Home}events/", Body)).Misses(
            403,
            C + "calendar-collection-location-ok"
        );
    }
}
