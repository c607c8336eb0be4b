using System.Xml.Linq;
using Mortar.Data.Devices;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>Examples of RFC 4918, 3744, 5397 and 6578, as far as calendars have to do with them; their texts are from memory.</summary>
public class WebDavExampleTests
{
    private static readonly XNamespace R = "http://ns.example.com/boxschema/";

    [Fact]
    public async Task Rfc_4918_9_1_3_named_properties_are_found_or_not_each_by_itself()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var reply = await phone.Send(
            "PROPFIND",
            phone.At(calendar),
            """
            <?xml version="1.0" encoding="utf-8" ?>
            <D:propfind xmlns:D="DAV:"><D:prop xmlns:R="http://ns.example.com/boxschema/"><R:bigbox/><R:author/><D:displayname/></D:prop></D:propfind>
            """,
            null,
            ("Depth", "0")
        );
        var stats = reply
            .Each.Values.Single()
            .Elements(D + "propstat")
            .ToDictionary(
                stat => stat.Element(D + "status")!.Value,
                stat => stat.Element(D + "prop")!.Elements().Select(one => one.Name).ToList()
            );

        Assert.Equal([D + "displayname"], stats["HTTP/1.1 200 OK"]);
        Assert.Equal([R + "bigbox", R + "author"], stats["HTTP/1.1 404 Not Found"]);
    }

    [Fact]
    public async Task Rfc_4918_9_1_4_the_names_of_all_properties_and_9_1_5_what_all_of_them_are()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("a@trial"))).Is(201);
        var names = (
            await phone.Send(
                "PROPFIND",
                phone.At(calendar),
                """<propfind xmlns="DAV:"><propname/></propfind>""",
                null,
                ("Depth", "1")
            )
        ).Each;
        var collection = names[phone.At(calendar)].Descendants(D + "prop").Single().Elements().ToList();
        Assert.All(collection, one => Assert.True(one.IsEmpty || one.Value.Length == 0));
        Assert.Contains(C + "supported-calendar-component-set", collection.Select(one => one.Name));
        Assert.Contains(D + "getetag", names[phone.At(calendar, "a.ics")].Descendants().Select(one => one.Name));

        // Without a body it is all of them (9.1); what is not of WebDAV itself is asked for by name (RFC 4791, 5.2).
        foreach (var body in new[] { null, """<D:propfind xmlns:D="DAV:"><D:allprop/></D:propfind>""" })
        {
            var all = (await phone.Send("PROPFIND", phone.At(calendar), body, null, ("Depth", "1"))).Each;
            Assert.Equal("Glaze tests", all[phone.At(calendar)].Property(D + "displayname")!.Value);
            Assert.Null(all[phone.At(calendar)].Property(C + "supported-calendar-component-set"));
            Assert.NotNull(all[phone.At(calendar, "a.ics")].ETag());
            Assert.DoesNotContain("404", all[phone.At(calendar)].ToString(), StringComparison.Ordinal);
        }

        var included = await phone.Send(
            "PROPFIND",
            phone.At(calendar),
            """<D:propfind xmlns:D="DAV:"><D:allprop/><D:include><D:supported-report-set/></D:include></D:propfind>""",
            null,
            ("Depth", "0")
        );
        Assert.NotNull(included.Property(D + "supported-report-set"));
    }

    [Fact]
    public async Task Rfc_4918_9_2_2_properties_are_set_all_of_them_or_none()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Core.Access.Role.View);
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        using var dele = await DavClient.Of(mortar, DemoPeople.Dele);
        var path = phone.At(calendar);
        var refused = await phone.Send(
            "PROPPATCH",
            path,
            """
            <?xml version="1.0" encoding="utf-8" ?>
            <D:propertyupdate xmlns:D="DAV:" xmlns:Z="http://ns.example.com/standards/z39.50/">
              <D:set><D:prop><Z:Authors><Z:Author>Jim Whitehead</Z:Author></Z:Authors></D:prop></D:set>
              <D:set><D:prop><D:getetag>mine</D:getetag></D:prop></D:set>
            </D:propertyupdate>
            """
        );
        XNamespace z = "http://ns.example.com/standards/z39.50/";
        var stats = refused
            .Each.Values.Single()
            .Elements(D + "propstat")
            .ToDictionary(
                stat => stat.Element(D + "prop")!.Elements().Single().Name,
                stat => stat.Element(D + "status")!.Value
            );
        Assert.Equal("HTTP/1.1 424 Failed Dependency", stats[z + "Authors"]);
        Assert.Equal("HTTP/1.1 403 Forbidden", stats[D + "getetag"]);
        Assert.DoesNotContain("Whitehead", await Authors(), StringComparison.Ordinal);

        const string Set = """
            <D:propertyupdate xmlns:D="DAV:" xmlns:Z="http://ns.example.com/standards/z39.50/" xmlns:X="http://colors.example/">
              <D:set><D:prop><Z:Authors><Z:Author>Jim Whitehead</Z:Author></Z:Authors><D:displayname>My tiles</D:displayname>
              <X:calendar-color>#B01F24FF</X:calendar-color></D:prop></D:set>
            </D:propertyupdate>
            """;
        Assert.DoesNotContain("403", (await phone.Send("PROPPATCH", path, Set)).Is(207).Text, StringComparison.Ordinal);
        Assert.Contains("<Z:Author>Jim Whitehead</Z:Author>", await Authors(), StringComparison.Ordinal);

        // One's own look, on one's own wall and nobody else's.
        var layer = (await ines.Get("/api/shelf"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("calendarId").GetGuid() == calendar.Value);
        Assert.Equal(
            ("My tiles", "iron", "Glaze tests"),
            (layer.Text("name"), layer.Text("hue"), layer.GetProperty("calendar").Text("name"))
        );
        Assert.Equal("#B01F24FF", await Color());
        Assert.Equal(
            "Glaze tests",
            (await dele.Find(dele.At(calendar), 0, "d:displayname")).Property(D + "displayname")!.Value
        );
        Assert.Null(
            (
                await dele.Send(
                    "PROPFIND",
                    dele.At(calendar),
                    "<D:propfind xmlns:D='DAV:'><D:prop><Authors xmlns='http://ns.example.com/standards/z39.50/'/></D:prop></D:propfind>",
                    null,
                    ("Depth", "0")
                )
            ).Property(z + "Authors")
        );

        // Another hue on the wall is another colour here.
        (
            await ines.Put(
                $"/api/shelf/{calendar.Value}",
                new
                {
                    shown = true,
                    beside = false,
                    look = new
                    {
                        name = "",
                        hue = "teal",
                        mark = "drop",
                    },
                }
            )
        ).Is(204);
        Assert.Equal("#008080FF", await Color());

        const string Remove = """
            <D:propertyupdate xmlns:D="DAV:" xmlns:Z="http://ns.example.com/standards/z39.50/"><D:remove><D:prop><Z:Authors/></D:prop></D:remove></D:propertyupdate>
            """;
        (await phone.Send("PROPPATCH", path, Remove)).Is(207);
        Assert.DoesNotContain("Whitehead", await Authors(), StringComparison.Ordinal);
        Assert.Contains(
            "424",
            (
                await phone.Send(
                    "PROPPATCH",
                    path,
                    $"<D:propertyupdate xmlns:D='DAV:'><D:set><D:prop><D:displayname>x</D:displayname><a xmlns='urn:a'>{new string('x', 5_000)}</a></D:prop></D:set></D:propertyupdate>"
                )
            )
                .Is(207)
                .Text,
            StringComparison.Ordinal
        );

        // All or nothing also where one calendar would have too many of them.
        (
            await phone.Send(
                "PROPPATCH",
                path,
                $"<D:propertyupdate xmlns:D='DAV:'><D:set><D:prop><D:displayname>Renamed</D:displayname>{string.Concat(Enumerable.Range(0, OwnPropertyCommands.Most + 1).Select(n => $"<a{n} xmlns='urn:a'>x</a{n}>"))}</D:prop></D:set></D:propertyupdate>"
            )
        ).Is(409);
        Assert.DoesNotContain("Renamed", (await phone.Find(path, 0, "d:displayname")).Text, StringComparison.Ordinal);

        async Task<string> Authors() =>
            (
                await phone.Send(
                    "PROPFIND",
                    path,
                    "<D:propfind xmlns:D='DAV:'><D:prop><Authors xmlns='http://ns.example.com/standards/z39.50/'/></D:prop></D:propfind>",
                    null,
                    ("Depth", "0")
                )
            )
                .Is(207)
                .Text;

        async Task<string> Color() =>
            (await phone.Find(path, 0, "x:calendar-color"))
                .Property(XName.Get("calendar-color", "http://colors.example/"))!
                .Value;
    }

    [Fact]
    public async Task Rfc_3744_and_5397_who_asks_and_what_they_may()
    {
        await using var mortar = await TestMortar.Start();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var me = await phone.Find(
            phone.Principal,
            0,
            "d:resourcetype",
            "d:displayname",
            "d:principal-URL",
            "c:calendar-user-address-set",
            "d:supported-privilege-set"
        );

        Assert.NotNull(me.Property(D + "resourcetype")!.Element(D + "principal"));
        Assert.Equal(DemoPeople.Ines.Name, me.Property(D + "displayname")!.Value);
        Assert.Equal(phone.Principal, me.Property(D + "principal-URL")!.Value);
        Assert.Equal(
            [$"urn:uuid:{DemoPeople.Ines.Id.Value:D}", $"mailto:{DemoPeople.Ines.Address}"],
            me.Property(C + "calendar-user-address-set")!.Elements(D + "href").Select(one => one.Value)
        );
        // RFC 4791, 6.1.1: read-free-busy is inside read.
        Assert.Contains(
            C + "read-free-busy",
            me.Property(D + "supported-privilege-set")!
                .Descendants(D + "read")
                .Single()
                .Ancestors(D + "supported-privilege")
                .First()
                .Descendants()
                .Select(one => one.Name)
        );
    }
}
