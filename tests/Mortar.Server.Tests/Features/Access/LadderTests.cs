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
    private static readonly Func<CalendarId, object?> Binned = calendar => new
    {
        place = InBin(calendar, "calendar"),
        name = "Glaze tests",
    };

    private static object InBin(CalendarId calendar, string kind) => new { kind, calendarId = calendar.Value };

    /// <summary>
    /// Route, body, and what none, times, outline, view, add, edit and coordinate get. The one who asks is Astrid; the
    /// event is Ines's; Dele has View.
    /// </summary>
    private static readonly (string Method, string Route, Func<CalendarId, object?>? Body, int[] Expected)[] Routes =
    [
        ("GET", "calendars/{calendarId}", null, [404, 200, 200, 200, 200, 200, 200]),
        ("PUT", "calendars/{calendarId}", _ => World.Calendar("Renamed"), [404, 403, 403, 403, 403, 403, 200]),
        ("DELETE", "calendars/{calendarId}?name=Glaze tests", null, [404, 403, 403, 403, 403, 403, 204]),
        ("GET", "calendars/{calendarId}/history", null, [404, 403, 403, 200, 200, 200, 200]),
        (
            "GET",
            "calendars/{calendarId}/moment?at=2020-01-01T00:00:00Z",
            null,
            [404, 403, 403, 403, 403, 403, 422] // it was not made yet
        ),
        (
            "GET",
            "calendars/{calendarId}/moment/wall?at=2020-01-01T00:00:00Z&from=2026-03-09&to=2026-03-15",
            null,
            [404, 403, 403, 403, 403, 403, 422] // it was not made yet
        ),
        (
            "POST",
            "calendars/{calendarId}/moment",
            _ => new { at = "2020-01-01T00:00:00Z" },
            [404, 403, 403, 403, 403, 403, 422]
        ),
        // It is none of the web.
        ("GET", "calendars/{calendarId}/web", null, [404, 403, 403, 404, 404, 404, 404]),
        ("POST", "calendars/{calendarId}/web/fetch", null, [404, 403, 403, 404, 404, 404, 404]),
        (
            "PUT",
            "calendars/{calendarId}/web/address",
            _ => new { address = "http://127.0.0.1/" },
            [404, 403, 403, 403, 403, 403, 422]
        ),
        (
            "PUT",
            "calendars/{calendarId}/web",
            _ => new
            {
                address = "http://127.0.0.1/",
                groupId = World.StudioTeam,
                name = "Fairs",
                hue = "lake",
                mark = "wave",
                zone = "Europe/London",
                groupDefault = "none",
            },
            [404, 404, 404, 404, 404, 404, 404] // she is not in the group
        ),
        ("GET", "calendars/{calendarId}/access-history", null, [404, 403, 403, 403, 403, 403, 200]),
        ("GET", "calendars/{calendarId}/loss", null, [404, 403, 403, 403, 403, 403, 200]),
        // It is not in the bin.
        ("POST", "bin/bring-back", Binned, [404, 404, 404, 404, 404, 404, 404]),
        ("POST", "bin/nearest", calendar => InBin(calendar, "events"), [404, 404, 404, 404, 404, 404, 404]),
        ("POST", "bin/erase", Binned, [404, 404, 404, 404, 404, 404, 404]),
        (
            "PUT",
            "calendars/{calendarId}/links/{newId}",
            _ => new { role = "view" },
            [404, 403, 403, 403, 403, 403, 200]
        ),
        ("GET", "calendars/{calendarId}/links/{linkId}", null, [404, 404, 404, 404, 404, 404, 200]),
        (
            "GET",
            "calendars/{calendarId}/links/{linkId}/wall?from=2026-03-09&to=2026-03-15",
            null,
            [404, 404, 404, 404, 404, 404, 200]
        ),
        (
            "PUT",
            "events/{eventId}/organizer",
            _ => new { personId = DemoPeople.Ines.Id.Value },
            [404, 404, 403, 403, 403, 200, 200]
        ),
        // Who is named on it is told from View on; Astrid, who is not named, answers to nothing.
        ("GET", "events/{eventId}/answers", null, [404, 404, 404, 200, 200, 200, 200]),
        ("PUT", "events/{eventId}/answer", _ => new { answer = "accepted" }, [404, 404, 403, 403, 403, 403, 403]),
        (
            "POST",
            "events/{eventId}/ask",
            _ => new { personIds = new[] { DemoPeople.Ines.Id.Value } },
            [404, 404, 403, 403, 403, 422, 422] // nobody is named on it
        ),
        (
            "PUT",
            "proposals/{newId}",
            calendar => new
            {
                calendarId = calendar.Value,
                title = "Glaze day",
                place = "",
                notes = "",
                times = new[]
                {
                    new { start = "2026-03-16T20:00:00", end = "2026-03-16T21:00:00" },
                    new { start = "2026-03-17T20:00:00", end = "2026-03-17T21:00:00" },
                },
                personIds = new[] { DemoPeople.Ines.Id.Value },
            },
            [404, 403, 403, 403, 204, 204, 204]
        ),
        (
            "PUT",
            "events/{eventId}/editors",
            _ => new { personIds = Array.Empty<Guid>() },
            [404, 404, 403, 403, 403, 200, 200]
        ),
        // It waits for nobody to agree.
        ("PUT", "events/{eventId}/agreement", _ => new { agrees = true }, [404, 404, 403, 403, 403, 403, 409]),
        ("POST", "calendars/{calendarId}/links/{linkId}/renew", null, [404, 403, 403, 403, 403, 403, 200]),
        ("DELETE", "calendars/{calendarId}/links/{linkId}", null, [404, 403, 403, 403, 403, 403, 204]),
        ("GET", "calendars/{calendarId}/export", null, [404, 403, 403, 200, 200, 200, 200]),
        ("GET", "calendars/{calendarId}/access", null, [404, 403, 403, 403, 403, 403, 200]),
        ("GET", "calendars/{calendarId}/audience", null, [404, 403, 403, 403, 200, 200, 200]),
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
            "POST",
            "calendars/{calendarId}/invitations/read",
            _ => new { text = "mei@example.org" },
            [404, 403, 403, 403, 403, 403, 200]
        ),
        (
            "PUT",
            "calendars/{calendarId}/invitations",
            _ => new
            {
                people = new[]
                {
                    new
                    {
                        id = Guid.NewGuid(),
                        address = "nina@example.org",
                        role = "view",
                    },
                },
            },
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
        ("GET", "shelf/{calendarId}/reminder", null, [404, 200, 200, 200, 200, 200, 200]),
        (
            "PUT",
            "shelf/{calendarId}/reminder",
            _ => new { kind = "before", minutes = 60 },
            [404, 204, 204, 204, 204, 204, 204]
        ),
        // Ines did it; who may change the event may undo that.
        ("POST", "changes/{set}/undo", null, [404, 404, 404, 403, 403, 200, 200]),
    ];

    /// <summary>Every way to have, or not to have, access; and the steps that it can give.</summary>
    private static readonly Dictionary<string, Role[]> Ways = new(StringComparer.Ordinal)
    {
        ["none"] = [Role.None],
        ["pending invitation"] = [Role.None],
        ["ended"] = [Role.None],
        ["expired"] = [Role.None],
        ["deleted calendar"] = [Role.None],
        ["own"] = [.. Enum.GetValues<Role>().Where(role => role > Role.None)],
        ["group"] = [Role.Times, Role.Outline, Role.View, Role.Add, Role.Edit],
        ["default"] = [Role.Times, Role.Outline, Role.View, Role.Add, Role.Edit],
        ["link"] = [Role.Times, Role.Outline, Role.View, Role.Add, Role.Edit],
        ["guardian"] = [Role.Times, Role.Outline, Role.View],
    };

    public static TheoryData<string> All() => [.. Ways.Keys];

    /// <summary>
    /// Astrid asks for everything, by each way and at each step: what she gets is what the step gives, and nothing that
    /// the step does not show is in any answer, whatever its status.
    /// </summary>
    [Theory]
    [MemberData(nameof(All))]
    public async Task Each_way_gives_what_its_step_gives_and_no_answer_holds_more(string way)
    {
        await using var mortar = await TestMortar.Start();
        using var studio = await SecretStudio.Open(mortar);
        using var nobody = mortar.Anonymous();
        foreach (var role in Ways[way])
        {
            var secrets = await studio.Make(way, role);
            if (role == Role.Edit)
            {
                // What is looked for below is there to be found.
                foreach (
                    var path in (string[])
                        [
                            "wall?from=2026-03-09&to=2026-03-15",
                            "spreadsheets/events.csv?from=2026-03-01&to=2026-03-31",
                            "../paper/week?from=2026-03-09&to=2026-03-15&notes=true",
                        ]
                )
                {
                    var all = (await studio.Reader.Get($"/api/{path}")).Is(200).Text;
                    Assert.All(
                        ["Secret-title", "Secret-place", "Secret-notes", "Secret-private-notes"],
                        text => Assert.Contains(text, all, StringComparison.Ordinal)
                    );
                }
            }

            foreach (var path in SecretStudio.ReadingOf(secrets))
            {
                secrets.AreKept(role, path, await studio.Reader.Get($"/api/{path}"));
            }

            foreach (var (method, route, body, expected) in Routes)
            {
                var path = "/api/" + secrets.In(route);
                var version = route.Contains("{newId}", StringComparison.Ordinal) ? (int?)null : 1;

                var outsider = await nobody.Send(
                    new HttpMethod(method),
                    path,
                    body?.Invoke(secrets.Calendar),
                    version,
                    null
                );
                var answer = await studio.Reader.Send(
                    new HttpMethod(method),
                    path,
                    body?.Invoke(secrets.Calendar),
                    version,
                    null
                );

                outsider.IsProblem(401, "signed-out");
                Assert.True(
                    answer.Status == expected[(int)role],
                    $"{method} {route} by {way} at {role}: {answer.Status} {answer.Text}"
                );
                secrets.AreKept(role, $"{method} {route}", answer);
                if (answer.Status == 404)
                {
                    // What is hidden reads just like what was never there.
                    var never = await studio.Reader.Send(
                        new HttpMethod(method),
                        "/api/" + secrets.NeverThere(route),
                        body?.Invoke(new CalendarId(Guid.NewGuid())),
                        version,
                        null
                    );
                    Assert.Equal(404, never.Status);
                    Assert.Equal(never.Type, answer.Type);
                }

                if (answer.Status is 200 or 204 && method != "GET")
                {
                    secrets = await studio.Make(way, role); // what was done is done on that one
                }
            }
        }

        Assert.Empty(await studio.MailsToReader(mortar));
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
            "PUT groups/{groupId}/like/{modelId}", // by GroupLikeTests
            "GET find/known", // by FindKnownTests
            "GET account/ending", // these by EndAccountTests
            "POST account/delete",
            "GET groups/{groupId}/ending", // these by GroupEndTests
            "POST groups/{groupId}/rest",
            "POST groups/{groupId}/wake",
            "DELETE groups/{groupId}",
            "GET groups/{groupId}/members",
            "GET groups/{groupId}/access",
            "POST groups/{groupId}/people", // these by MemberTests
            "PUT groups/{groupId}/members",
            "PUT groups/{groupId}/members/{personId}",
            "PUT groups/{groupId}/members/{personId}/coordinates",
            "PUT groups/{groupId}/members/{personId}/guardians", // by GuardianTests
            "POST groups/{groupId}/members/{personId}/invite",
            "DELETE groups/{groupId}/members/{personId}",
            "GET groups/{groupId}/members/{personId}/ending", // by ConsentTests
            "GET groups/{groupId}/asked", // these by ConsentTests
            "DELETE groups/{groupId}/asked/{personId}",
            "POST memberships/{groupId}/accept",
            "POST memberships/{groupId}/decline",
            "GET guardianships",
            "DELETE guardianships/{guardianshipId}",
            "POST guardianships/{guardianshipId}/accept",
            "POST guardianships/{guardianshipId}/decline",
            "GET groups/{groupId}/guests", // these by GuestTests
            "PUT groups/{groupId}/guests/{personId}",
            "DELETE groups/{groupId}/guests/{personId}",
            "POST groups/{groupId}/guests/{personId}/claim",
            "GET joining/{token}",
            "POST joining/{token}",
            "POST joining/{token}/account",
            "GET groups/{groupId}/access-history/{personId}", // by AccessHistoryTests
            "GET bin", // these by BinTests
            "GET links/{secret}", // these by LinkTests
            "GET links/{secret}/wall",
            "POST links/{secret}/use",
            "POST links/{secret}/account", // by AccountAtLinkTests
            "PUT open-asks/{askId}", // these by OpenAskTests
            "POST open-asks/{askId}/give",
            "POST open-asks/{askId}/refuse",
            "GET addresses", // these by AddressTests
            "POST addresses",
            "POST addresses/confirm/{secret}",
            "DELETE addresses/{addressId}",
            "GET reminders", // these by ReminderTests
            "POST reminders/seen",
            "GET shelf",
            "GET zones",
            "GET wall",
            "GET times", // by TimesTests
            "GET groups/{groupId}/cover", // these by CoverTests
            "GET groups/{groupId}/absences",
            "GET groups/{groupId}/back",
            "POST gaps", // these by GapTests
            "POST free",
            "GET answering/{secret}", // these by AnswerTests
            "PUT answering/{secret}",
            "GET proposals", // these by ProposalTests
            "DELETE proposals/{proposalId}",
            "POST proposals/{proposalId}/ask-again",
            "POST proposals/{proposalId}/settle",
            "PUT proposals/{proposalId}/suits",
            "GET suits/{secret}",
            "PUT suits/{secret}",
            "GET clashes", // these by ClashTests
            "GET clashes/untold",
            "POST clashes/{key}/fine",
            "GET wall/changes", // this by WallChangesTests
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
            "GET mail-stops/{token}", // these by MailTests
            "POST mail-stops/{token}",
            "DELETE mail-stops/{token}",
            "GET post-room",
            "GET feeds", // these by FeedTests
            "PUT feeds/{feedId}",
            "POST feeds/{feedId}/renew",
            "DELETE feeds/{feedId}",
            "GET devices", // these by DeviceTests
            "PUT devices/{deviceId}",
            "DELETE devices/{deviceId}",
            // Of several calendars at once, by steps of their own: NoticeboardKeepingTests.
            "GET groups/{groupId}/noticeboards",
            "GET groups/{groupId}/noticeboards/address",
            "GET groups/{groupId}/noticeboards/open", // these by GroupAddressTests
            "GET groups/{groupId}/address",
            "GET groups/by-address/{name}",
            "POST noticeboards/trial",
            "GET noticeboards/{noticeboardId}",
            "PUT noticeboards/{noticeboardId}",
            "POST noticeboards/{noticeboardId}/open",
            "POST noticeboards/{noticeboardId}/pause",
            "DELETE noticeboards/{noticeboardId}",
            "DELETE noticeboards/{noticeboardId}/calendars/{calendarId}",
            "GET spreadsheets/{what}.{form}", // by SpreadsheetTests
            "POST password/forgotten", // these by PasswordTests
            "POST password/reset/{secret}",
            "PUT password",
            "GET sign-ins",
            "GET passkeys", // these by PasskeyTests
            "POST passkeys/question",
            "POST passkeys",
            "PUT passkeys/{passkeyId}",
            "DELETE passkeys/{passkeyId}",
            "POST session/passkey/question",
            "POST session/passkey",
            "GET second-factor", // these by SecondFactorTests
            "GET second-factor/key",
            "POST second-factor",
            "POST second-factor/off",
            "POST second-factor/codes",
            "POST session/second",
            "PUT name", // these by AddressTests
            "POST addresses/{addressId}/first",
            "DELETE sign-ins",
            "DELETE sign-ins/{signInId}",
            "GET bin/{act}/events", // by BinTests
            "POST calendars/{calendarId}/take-over", // by HandingOnTests
            "GET history", // these by HistoryTests
            "GET groups/{groupId}/history",
            "PUT archives/{archiveId}", // these by ArchiveTests
            "GET archives/{archiveId}",
            "GET archives/{archiveId}/file",
            "DELETE archives/{archiveId}",
            "POST web-calendars/look", // by WebCalendarTests
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
        : route.Contains("proposals", StringComparison.Ordinal) ? "{proposalId}"
        : route.Contains("asks", StringComparison.Ordinal) ? "{askId}"
        : "{invitationId}";

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
