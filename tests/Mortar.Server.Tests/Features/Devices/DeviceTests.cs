using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>Keys of devices: made, shown once, used, ended.</summary>
public class DeviceTests
{
    [Fact]
    public async Task A_device_adds_an_event_that_is_on_the_wall_and_undone_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);

        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("a@trial"))).Is(201);

        var brick = Assert.Single(await dele.Bricks(calendar, "2026-03-09", "2026-03-15"));
        Assert.Equal("Kiln check", brick.Text("title"));
        var past = (await ines.Get("/api/history")).Is(200).Text;
        var set = (await mortar.Store(db => db.Changes.OrderByDescending(change => change.Sequence).FirstAsync())).Set;
        Assert.Contains("Kiln check", past, StringComparison.Ordinal);
        (await ines.Post($"/api/changes/{set.Value}/undo")).Is(200);
        Assert.Empty(await dele.Bricks(calendar, "2026-03-09", "2026-03-15"));
        (await phone.Get(phone.At(calendar, "a.ics"))).Is(404);
    }

    [Fact]
    public async Task A_program_finds_its_way_from_the_address_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);

        var moved = (await phone.Find("/.well-known/caldav", 0, "d:current-user-principal")).Is(301);
        var root = moved.Headers.Location!.OriginalString;
        var me = (await phone.Find(root, 0, "d:current-user-principal"))
            .Property(D + "current-user-principal")!
            .Element(D + "href")!
            .Value;
        var home = (await phone.Find(me, 0, "c:calendar-home-set"))
            .Property(C + "calendar-home-set")!
            .Element(D + "href")!
            .Value;
        var calendars = (await phone.Find(home, 1, "d:resourcetype", "d:displayname", "x:calendar-color"))
            .Each.Values.Where(one => one.Property(D + "resourcetype")!.Element(C + "calendar") is not null)
            .ToList();

        using var ines = await mortar.As(DemoPeople.Ines);
        var shelf = (await ines.Get("/api/shelf")).Body.EnumerateArray().Select(one => one.Text("name"));
        Assert.Equal(shelf, calendars.Select(one => one.Property(D + "displayname")!.Value));
        Assert.All(
            calendars,
            one =>
                Assert.Matches(
                    "^#[0-9A-F]{8}$",
                    one.Property(System.Xml.Linq.XName.Get("calendar-color", "http://colors.example/"))!.Value
                )
        );
    }

    [Fact]
    public async Task A_key_is_told_once_and_opens_nothing_once_it_has_ended()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var id = Guid.CreateVersion7();
        var made = (await ines.Put($"/api/devices/{id}", new { name = " My  phone ", role = "edit" })).Is(200).Body;
        var key = made.Text("key");
        Assert.Matches("^([a-z2-9]{4}-){6}[a-z2-9]{4}$", key);
        Assert.Equal($"{mortar.Url.ToString().TrimEnd('/')}/dav/", made.Text("server"));
        Assert.Contains("<svg", made.Text("qr"), StringComparison.Ordinal);
        Assert.Equal(
            System.Text.Json.JsonValueKind.Null,
            (await ines.Put($"/api/devices/{id}", new { name = "My phone", role = "edit" }))
                .Is(200)
                .Body.GetProperty("key")
                .ValueKind
        );
        // Whoever sits at somebody else's open screen does not make one unseen.
        Assert.Equal(
            1,
            await mortar.Store(db =>
                db.Mails.CountAsync(mail =>
                    mail.To == DemoPeople.Ines.Address && mail.Subject.StartsWith("A device was given a key")
                )
            )
        );
        var stored = await mortar.Store(db => db.Devices.SingleAsync(row => row.Id == id));
        Assert.DoesNotContain(key, stored.Hash, StringComparison.Ordinal);
        using var phone = new DavClient(mortar.Url, key);
        using var typed = new DavClient(mortar.Url, $" {key.ToUpperInvariant().Replace('-', ' ')} ");
        (await phone.Find("/dav/", 0, "d:current-user-principal")).Is(207);
        (await typed.Find("/dav/", 0, "d:current-user-principal")).Is(207);
        var told = Assert.Single((await ines.Get("/api/devices")).Is(200).Body.EnumerateArray());
        Assert.Equal("My phone", told.Text("name"));
        Assert.Equal("Trial/1.0", told.Text("program"));
        Assert.NotEqual(System.Text.Json.JsonValueKind.Null, told.GetProperty("seenAt").ValueKind);

        (await ines.Delete($"/api/devices/{id}")).Is(204);

        var refused = (await phone.Find("/dav/", 0, "d:current-user-principal")).Is(401);
        Assert.Contains("Basic", refused.Headers.WwwAuthenticate.ToString(), StringComparison.Ordinal);
        (await ines.Put($"/api/devices/{id}", new { name = "Again", role = "edit" })).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task A_device_is_its_owners_alone_and_named_and_stepped_as_it_should()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/devices/{id}", new { name = "Phone", role = "view" })).Is(200);

        (await dele.Put($"/api/devices/{id}", new { name = "Mine", role = "view" })).IsProblem(404, "not-there");
        (await dele.Delete($"/api/devices/{id}")).IsProblem(404, "not-there");
        Assert.Empty((await dele.Get("/api/devices")).Is(200).Body.EnumerateArray());
        foreach (var (name, role) in new[] { ("", "view"), (new string('x', 61), "view"), ("Phone", "coordinate") })
        {
            (await ines.Put($"/api/devices/{Guid.CreateVersion7()}", new { name, role })).IsProblem(422, "unfit");
        }

        for (var count = 1; count < 30; count++)
        {
            (await ines.Put($"/api/devices/{Guid.CreateVersion7()}", new { name = "Phone", role = "view" })).Is(200);
        }

        (await ines.Put($"/api/devices/{Guid.CreateVersion7()}", new { name = "Phone", role = "view" })).IsProblem(
            409,
            "too-many"
        );
    }

    [Fact]
    public async Task The_password_and_wrong_keys_open_nothing_and_guessing_is_slowed_down()
    {
        await using var mortar = await TestMortar.Start("SignInsPerMinute=5");
        using var good = await DavClient.Of(mortar, DemoPeople.Ines);
        using var password = new DavClient(mortar.Url, "kiln-street-demo");
        using var anonymous = mortar.Anonymous();

        (await anonymous.Get("/dav/")).Is(401);
        for (var tries = 0; tries < 5; tries++)
        {
            (await password.Find("/dav/", 0, "d:current-user-principal")).Is(401);
        }

        var slowed = (await password.Find("/dav/", 0, "d:current-user-principal")).Is(429);
        Assert.NotNull(slowed.Headers.RetryAfter);
        (await good.Find("/dav/", 0, "d:current-user-principal")).Is(207);
    }

    [Fact]
    public async Task The_key_of_somebody_who_left_opens_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var phone = await DavClient.Of(mortar, DemoPeople.Astrid);
        (await phone.Find(phone.Home, 1, "d:displayname")).Is(207);

        (await astrid.Post("/api/account/delete", new { password = "kiln-street-demo" })).Is(204);

        (await phone.Find(phone.Home, 1, "d:displayname")).Is(401);
    }
}
