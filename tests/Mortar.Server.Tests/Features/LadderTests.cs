using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Every route of a calendar and its events, against every step of the ladder and the outsider.</summary>
public class LadderTests
{
    private static readonly Guid Other = DemoPeople.Dele.Id.Value;

    /// <summary>
    /// Route, body, and what none, times, outline, view, add, edit and coordinate get. The one who asks is Priya; the
    /// event is Ines's; Dele has View.
    /// </summary>
    private static readonly (string Method, string Route, Func<CalendarId, object?>? Body, int[] Expected)[] Routes =
    [
        ("GET", "calendars/{calendarId}", null, [404, 200, 200, 200, 200, 200, 200]),
        ("PUT", "calendars/{calendarId}", _ => World.Calendar("Renamed"), [404, 403, 403, 403, 403, 403, 200]),
        ("DELETE", "calendars/{calendarId}?name=Glaze tests", null, [404, 403, 403, 403, 403, 403, 204]),
        ("GET", "calendars/{calendarId}/access-history", null, [404, 403, 403, 403, 403, 403, 200]),
        ("GET", "calendars/{calendarId}/loss", null, [404, 403, 403, 403, 403, 403, 200]),
        ("POST", "bin/{calendarId}/bring-back", null, [404, 404, 404, 404, 404, 404, 404]), // it is not in the bin
        (
            "PUT",
            "calendars/{calendarId}/links/{newId}",
            _ => new { role = "view" },
            [404, 403, 403, 403, 403, 403, 200]
        ),
        ("POST", "calendars/{calendarId}/links/{linkId}/renew", null, [404, 403, 403, 403, 403, 403, 200]),
        ("DELETE", "calendars/{calendarId}/links/{linkId}", null, [404, 403, 403, 403, 403, 403, 204]),
        ("GET", "calendars/{calendarId}/export", null, [404, 403, 403, 200, 200, 200, 200]),
        ("GET", "calendars/{calendarId}/access", null, [404, 403, 403, 403, 403, 403, 200]),
        (
            "PUT",
            "calendars/{calendarId}/access/{personId}",
            _ => new { role = "edit" },
            [404, 403, 403, 403, 403, 403, 204]
        ),
        ("DELETE", "calendars/{calendarId}/access/{personId}", null, [404, 403, 403, 403, 403, 403, 204]),
        (
            "PUT",
            "calendars/{calendarId}/group-access/{groupId}",
            _ => new { role = "edit" },
            [404, 403, 403, 403, 403, 403, 204]
        ),
        ("DELETE", "calendars/{calendarId}/group-access/{groupId}", null, [404, 403, 403, 403, 403, 403, 204]),
        // Asking is open to everybody, and tells an outsider nothing; one who has as much is told so.
        (
            "PUT",
            "calendars/{calendarId}/asks/{newId}",
            _ => new { role = "edit" },
            [204, 204, 204, 204, 204, 409, 409]
        ),
        ("DELETE", "asks/{askId}", null, [404, 404, 404, 404, 404, 404, 404]), // Mei's to take back
        ("POST", "asks/{askId}/grant", _ => new { role = "view" }, [404, 404, 404, 404, 404, 404, 204]),
        ("POST", "asks/{askId}/refuse", null, [404, 404, 404, 404, 404, 404, 204]),
        (
            "POST",
            "calendars/{calendarId}/invitations/meaning",
            _ => new { addresses = new[] { "mei@example.org" }, role = "view" },
            [404, 403, 403, 403, 403, 403, 200]
        ),
        (
            "PUT",
            "calendars/{calendarId}/invitations/{newId}",
            _ => new { address = "mei@example.org", role = "view" },
            [404, 403, 403, 403, 403, 403, 204]
        ),
        (
            "POST",
            "calendars/{calendarId}/invitations/{invitationId}/send-again",
            null,
            [404, 403, 403, 403, 403, 403, 204]
        ),
        ("DELETE", "calendars/{calendarId}/invitations/{invitationId}", null, [404, 403, 403, 403, 403, 403, 204]),
        (
            "PUT",
            "calendars/{calendarId}/imports/{newId}",
            _ => System.Text.Encoding.UTF8.GetBytes("BEGIN:VCALENDAR\nEND:VCALENDAR\n"),
            [404, 403, 403, 403, 200, 200, 200]
        ),
        ("GET", "calendars/{calendarId}/imports/{importId}", null, [404, 403, 403, 403, 404, 404, 404]), // Ines's import is there for nobody else
        (
            "POST",
            "calendars/{calendarId}/imports/{importId}/write",
            _ => new { known = "keep" },
            [404, 403, 403, 403, 404, 404, 404]
        ),
        ("DELETE", "calendars/{calendarId}/imports/{importId}", null, [404, 403, 403, 403, 404, 404, 404]),
        ("GET", "events/{eventId}", null, [404, 404, 200, 200, 200, 200, 200]),
        ("PUT", "events/{eventId}", calendar => World.Event(calendar, "Changed"), [404, 404, 403, 403, 403, 200, 200]),
        ("DELETE", "events/{eventId}", null, [404, 404, 403, 403, 403, 200, 200]),
        ("PUT", "events/{newId}", calendar => World.Event(calendar, "New"), [404, 403, 403, 403, 200, 200, 200]),
        (
            "POST",
            "events/{eventId}/preview",
            calendar => new { only = "2026-03-11T09:00:00", @event = World.Event(calendar, "Changed") },
            [404, 404, 403, 403, 403, 200, 200]
        ),
        ("GET", "events/{eventId}/history", null, [404, 404, 403, 200, 200, 200, 200]),
        (
            "PUT",
            "shelf/{calendarId}",
            _ => new
            {
                shown = false,
                beside = false,
                look = (object?)null,
            },
            [404, 204, 204, 204, 204, 204, 204]
        ),
        ("POST", "changes/{set}/undo", null, [404, 404, 404, 404, 404, 404, 404]), // what Ines did is hers to undo
    ];

    public static TheoryData<string, string> All() => [.. Routes.Select(route => (route.Method, route.Route))];

    [Theory]
    [MemberData(nameof(All))]
    public async Task Each_step_gets_what_it_may_and_not_more(string method, string route)
    {
        var (_, _, body, expected) = Routes.Single(one => one.Method == method && one.Route == route);
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var nobody = mortar.Anonymous();
        foreach (var role in Enum.GetValues<Role>().Order())
        {
            var calendar = await ines.MakeCalendar();
            var (set, importId, invitationId) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
            var (askId, linkId) = (Guid.NewGuid(), Guid.NewGuid());
            var eventId = await ines.MakeEvent(calendar, set: set);
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/imports/{importId}",
                    System.Text.Encoding.UTF8.GetBytes("BEGIN:VCALENDAR\nEND:VCALENDAR\n")
                )
            ).Is(200);
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/invitations/{invitationId}",
                    new { address = "nina@example.org", role = "view" }
                )
            ).Is(204);
            (
                await ines.Put(
                    $"/api/calendars/{calendar.Value}/group-access/{World.StudioTeam}",
                    new { role = "times" },
                    null
                )
            ).Is(204);
            (await ines.Put($"/api/calendars/{calendar.Value}/links/{linkId}", new { role = "outline" })).Is(200);
            (await mei.Put($"/api/calendars/{calendar.Value}/asks/{askId}", new { role = "view" })).Is(204);
            if (role < Role.Times)
            {
                // Priya is in the team: an outsider has no way at all.
                (await ines.Delete($"/api/calendars/{calendar.Value}/group-access/{World.StudioTeam}")).Is(204);
            }

            await mortar.Give(calendar, DemoPeople.Dele, Role.View);
            await mortar.Give(calendar, DemoPeople.Priya, role);
            var path =
                "/api/"
                + route
                    .Replace("{calendarId}", calendar.Value.ToString(), StringComparison.Ordinal)
                    .Replace("{eventId}", eventId.ToString(), StringComparison.Ordinal)
                    .Replace("{importId}", importId.ToString(), StringComparison.Ordinal)
                    .Replace("{invitationId}", invitationId.ToString(), StringComparison.Ordinal)
                    .Replace("{linkId}", linkId.ToString(), StringComparison.Ordinal)
                    .Replace("{askId}", askId.ToString(), StringComparison.Ordinal)
                    .Replace("{groupId}", World.StudioTeam.ToString(), StringComparison.Ordinal)
                    .Replace("{personId}", Other.ToString(), StringComparison.Ordinal)
                    .Replace("{set}", set.ToString(), StringComparison.Ordinal)
                    .Replace("{newId}", Guid.NewGuid().ToString(), StringComparison.Ordinal);
            var version = route.Contains("{newId}", StringComparison.Ordinal) ? (int?)null : 1;

            var outsider = await nobody.Send(new HttpMethod(method), path, body?.Invoke(calendar), version, null);
            var answer = await priya.Send(new HttpMethod(method), path, body?.Invoke(calendar), version, null);

            outsider.IsProblem(401, "signed-out");
            Assert.True(
                answer.Status == expected[(int)role],
                $"{method} {route} at {role}: {answer.Status} {answer.Text}"
            );
            if (answer.Status == 404)
            {
                // What is hidden reads just like what was never there.
                var never = await priya.Send(
                    new HttpMethod(method),
                    path.Replace(calendar.Value.ToString(), Guid.NewGuid().ToString(), StringComparison.Ordinal)
                        .Replace(eventId.ToString(), Guid.NewGuid().ToString(), StringComparison.Ordinal),
                    body?.Invoke(new CalendarId(Guid.NewGuid())),
                    version,
                    null
                );
                Assert.Equal(404, never.Status);
                Assert.True(never.Type == answer.Type);
            }
        }
    }

    [Fact]
    public async Task Every_route_of_the_api_is_in_a_table()
    {
        await using var mortar = await TestMortar.Start();
        string[] aboutOneself =
        [
            "GET session",
            "POST session",
            "DELETE session",
            "POST first-account",
            "GET groups",
            "PUT groups/{groupId}",
            "GET groups/{groupId}/members",
            "GET groups/{groupId}/access",
            "POST groups/{groupId}/people", // these by MemberTests
            "PUT groups/{groupId}/members",
            "PUT groups/{groupId}/members/{personId}",
            "PUT groups/{groupId}/members/{personId}/coordinates",
            "PUT groups/{groupId}/members/{personId}/guardians", // by GuardianTests
            "POST groups/{groupId}/members/{personId}/invite",
            "DELETE groups/{groupId}/members/{personId}",
            "GET joining/{token}",
            "POST joining/{token}",
            "POST joining/{token}/account",
            "GET groups/{groupId}/access-history/{personId}", // by AccessHistoryTests
            "GET bin", // these by BinTests
            "GET links/{secret}", // these by LinkTests
            "GET links/{secret}/wall",
            "POST links/{secret}/use",
            "GET addresses", // these by AddressTests
            "POST addresses",
            "POST addresses/confirm/{secret}",
            "DELETE addresses/{addressId}",
            "GET shelf",
            "GET zones",
            "GET wall",
            "GET ribbon",
            "GET find",
            "POST rules/preview",
            "PUT preferences",
            "PUT shelf",
            "GET sets",
            "PUT sets/{setId}",
            "DELETE sets/{setId}",
            "GET inbox",
            "POST inbox/seen",
            "GET post-room",
            "GET demo/people",
            "POST demo/session/{personId}",
            "POST invitations/{invitationId}/accept",
            "POST invitations/{invitationId}/decline",
            "GET invitation-links/{token}",
            "POST invitation-links/{token}/account",
        ];
        var tested = Routes
            .Select(route =>
                $"{route.Method} {route.Route.Split('?')[0]}".Replace(
                    "{newId}",
                    Named(route.Route),
                    StringComparison.Ordinal
                )
            )
            .Concat(aboutOneself)
            .ToHashSet(StringComparer.Ordinal);

        var routes =
            from endpoint in mortar.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
            let text = endpoint.RoutePattern.RawText ?? string.Empty
            where text.StartsWith("/api/", StringComparison.Ordinal) && !text.Contains('*', StringComparison.Ordinal)
            from method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? []
            select $"{method} {text["/api/".Length..].TrimEnd('/').Replace(":guid", string.Empty, StringComparison.Ordinal)}";

        Assert.Empty(routes.Except(tested));
    }

    private static string Named(string route) =>
        route.StartsWith("events", StringComparison.Ordinal) ? "{eventId}"
        : route.Contains("imports", StringComparison.Ordinal) ? "{importId}"
        : route.Contains("links", StringComparison.Ordinal) ? "{linkId}"
        : route.Contains("asks", StringComparison.Ordinal) ? "{askId}"
        : "{invitationId}";

    [Theory]
    [InlineData(Role.None)]
    [InlineData(Role.Times)]
    [InlineData(Role.Outline)]
    public async Task What_a_step_does_not_show_never_leaves_the_server(Role role)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var eventId = await ines.MakeEvent(calendar, "Secret celadon");
        await mortar.Give(calendar, DemoPeople.Priya, role);
        string[] paths =
        [
            "shelf",
            "wall?from=2026-03-09&to=2026-03-15",
            "ribbon?from=2026-03-09&weeks=4",
            "find?from=2026-03-01&to=2026-03-31",
            $"find?from=2026-03-01&to=2026-03-31&words={World.Secret}",
            $"events/{eventId}/history",
            "sets",
            "inbox",
            $"calendars/{calendar.Value}",
            $"calendars/{calendar.Value}/export",
            $"calendars/{calendar.Value}/access",
            $"events/{eventId}",
        ];

        foreach (var path in paths)
        {
            var text = (await priya.Get($"/api/{path}")).Text;

            Assert.DoesNotContain(World.Secret, text, StringComparison.Ordinal);
            if (role < Role.Outline)
            {
                Assert.DoesNotContain("Secret celadon", text, StringComparison.Ordinal);
                Assert.DoesNotContain("Every tile", text, StringComparison.Ordinal);
                Assert.DoesNotContain(eventId.ToString(), text, StringComparison.Ordinal);
            }
        }
    }

    [Fact]
    public async Task With_the_step_add_one_changes_what_one_added_and_nothing_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        var (hers, other) = (await priya.MakeEvent(calendar, "Hers"), await ines.MakeEvent(calendar, "Ines's"));

        (await priya.Put($"/api/events/{hers}", World.Event(calendar, "Hers, changed"), 1)).Is(200);
        (await priya.Put($"/api/events/{other}", World.Event(calendar, "Taken over"), 1)).IsProblem(403, "not-allowed");
        (await priya.Delete($"/api/events/{other}", 1)).IsProblem(403, "not-allowed");
        (await priya.Delete($"/api/events/{hers}", 2)).Is(200);

        Assert.Equal("Ines's", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }
}
