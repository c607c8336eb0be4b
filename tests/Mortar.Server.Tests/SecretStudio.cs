using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Calendars of Ines's whose every text is a secret of its own, and Astrid who comes to them by some way.</summary>
internal sealed class SecretStudio : IDisposable
{
    private readonly TestMortar mortar;
    private readonly Browser ines;
    private readonly Browser mei;
    private readonly Guid home = Guid.NewGuid();
    private readonly Guid together = Guid.NewGuid();
    private readonly Guid ward = Guid.NewGuid();
    private readonly Guid potter = Guid.NewGuid();
    private readonly Guid pupil = Guid.NewGuid();
    private CalendarId last;

    private SecretStudio(TestMortar mortar, Browser ines, Browser mei, Browser reader) =>
        (this.mortar, this.ines, this.mei, Reader) = (mortar, ines, mei, reader);

    /// <summary>Astrid, signed in.</summary>
    public Browser Reader { get; }

    public static async Task<SecretStudio> Open(TestMortar mortar)
    {
        var studio = new SecretStudio(
            mortar,
            await mortar.As(DemoPeople.Ines),
            await mortar.As(DemoPeople.Mei),
            await mortar.As(DemoPeople.Astrid)
        );
        await studio.MakeGroup(
            studio.home,
            "Glaze circle",
            new { id = studio.ward, name = "Ward" },
            new { id = studio.potter, name = "Secret-potter" }
        );
        await studio.MakeGroup(
            studio.together,
            "With Astrid",
            new { id = DemoPeople.Astrid.Id.Value, name = "Astrid" },
            new { id = studio.pupil, name = "Secret-potter" }
        );
        return studio;
    }

    /// <summary>A calendar with an open and a private event, and whatever routes are about, which Astrid reaches by a way at a step.</summary>
    public async Task<Secrets> Make(string way, Role role)
    {
        var step = role.ToString().ToLowerInvariant();
        var group = way == "default" ? together : home;
        // How many mails somebody has written is another test's, and here it is hundreds.
        await mortar.Store(db =>
            db.Mails.ExecuteUpdateAsync(set => set.SetProperty(mail => mail.CausedBy, (Guid?)null))
        );
        await Forget();
        var secrets = new Secrets(new CalendarId(Guid.CreateVersion7()), together, way == "default" ? pupil : potter);
        last = secrets.Calendar;
        var path = $"/api/calendars/{secrets.Calendar.Value}";
        (
            await ines.Put(
                path,
                new
                {
                    groupId = group,
                    name = "Glaze tests",
                    description = "Secret-description",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = way == "default" ? step : "none",
                    kinds = new[] { new { name = "Secret-kind", tint = "deep" } },
                }
            )
        ).Is(200);
        (
            await ines.Put(
                $"/api/events/{secrets.Event}",
                EventBody(secrets, "Secret-title", isPrivate: false),
                set: secrets.Set
            )
        ).Is(200);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                EventBody(secrets, "Secret-private", isPrivate: true)
            )
        ).Is(200);
        await mortar.Give(secrets.Calendar, DemoPeople.Dele, Role.View);
        (await ines.Put($"{path}/imports/{secrets.Import}", "BEGIN:VCALENDAR\nEND:VCALENDAR\n"u8.ToArray())).Is(200);
        (
            await ines.Put(
                $"{path}/invitations/{secrets.Invitation}",
                new { address = "nina@example.org", role = "view" }
            )
        ).Is(204);
        (await ines.Put($"{path}/links/{secrets.Link}", new { role = "outline" })).Is(200);
        await Ask(secrets);
        await Lead(way, role, step, path, secrets);
        return secrets;
    }

    /// <summary>Mei asks for View. Written as it is kept: asking over HTTP takes an eighth of a second, so that its time tells nothing.</summary>
    private Task<Outcome<AskRow>> Ask(Secrets secrets) =>
        mortar.Store(db =>
            db.Write<AskRow>(
                Act.By(DemoPeople.Mei.Id),
                () =>
                {
                    var row = new AskRow
                    {
                        Id = new AskId(secrets.Ask),
                        CalendarId = secrets.Calendar,
                        PersonId = DemoPeople.Mei.Id,
                        Role = Role.View,
                        Note = string.Empty,
                        State = AskState.Waiting,
                        AskedAt = Instant.FromUtc(2026, 3, 11, 9, 0),
                    };
                    db.Asks.Add(row);
                    return Task.FromResult<Outcome<AskRow>>(row);
                },
                CancellationToken.None
            )
        );

    /// <summary>Nobody comes to the calendar before any more, so that the hundredth costs no more than the first.</summary>
    private Task<int> Forget() =>
        mortar.Store(async db =>
        {
            await db.Layers.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
            await db.LinkHolders.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
            await db.GroupGrants.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
            await db.Asks.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
            await db.Invitations.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
            await db
                .Calendars.Where(row => row.Id == last)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.GroupDefault, Role.None));
            return await db.Grants.Where(row => row.CalendarId == last).ExecuteDeleteAsync();
        });

    /// <summary>Mails to Astrid that hold a secret.</summary>
    public async Task<List<string>> MailsToReader(TestMortar mortar)
    {
        var mails = await mortar.Store(db =>
            db.Mails.AsNoTracking().Where(mail => mail.To == DemoPeople.Astrid.Address).ToListAsync()
        );
        var texts = await Task.WhenAll(mails.Select(mortar.TextOf));
        return [.. texts.Where(text => text.Contains("Secret-", StringComparison.Ordinal))];
    }

    /// <summary>What somebody reads without naming a calendar, and by naming one in the address.</summary>
    public static IEnumerable<string> ReadingOf(Secrets secrets) =>
        [
            "shelf",
            "groups",
            "sets",
            "inbox",
            "bin",
            "history",
            $"calendars/{secrets.Calendar.Value}/history",
            "wall?from=2026-03-09&to=2026-03-15",
            $"wall?from=2026-03-09&to=2026-03-15&as={DemoPeople.Ines.Id.Value}",
            $"shelf?as={DemoPeople.Ines.Id.Value}",
            $"wall?from=2026-03-09&to=2026-03-15&atRest={World.StudioTeam}",
            $"shelf?atRest={World.StudioTeam}",
            "find/known?words=Glaze",
            "ribbon?from=2026-03-09&weeks=4",
            "find?from=2026-03-01&to=2026-03-31",
            "find?from=2026-03-01&to=2026-03-31&words=Secret",
            "find?from=2026-03-01&to=2026-03-31&kind=Secret-kind",
            $"events/{secrets.Event}/history",
            "spreadsheets/events.csv?from=2026-03-01&to=2026-03-31",
            $"spreadsheets/events.csv?from=2026-03-01&to=2026-03-31&calendars={secrets.Calendar.Value}",
            "../paper/agenda?from=2026-03-09&to=2026-03-15&notes=true",
            "../paper/week?from=2026-03-09&to=2026-03-15&notes=true",
            "../paper/month?from=2026-03-01&to=2026-03-31&people=true&places=true&notes=true",
            "../paper/day?from=2026-03-12&to=2026-03-12",
        ];

    public void Dispose()
    {
        ines.Dispose();
        mei.Dispose();
        Reader.Dispose();
    }

    private async Task Lead(string way, Role role, string step, string path, Secrets secrets)
    {
        var (calendar, astrid) = (secrets.Calendar, DemoPeople.Astrid);
        switch (way)
        {
            case "own":
                await mortar.Give(calendar, astrid, role);
                break;
            case "group":
                (await ines.Put($"{path}/group-access/{together}", new { role = step })).Is(204);
                break;
            case "link":
                var url = (await ines.Put($"{path}/links/{Guid.NewGuid()}", new { role = step }))
                    .Is(200)
                    .Body.Text("url");
                (await Reader.Post($"/api/links/{url.Split("/link/")[1]}/use")).Is(204);
                break;
            case "guardian":
                (await ines.Put($"{path}/access/{ward}", new { role = step })).Is(204);
                (
                    await ines.Put(
                        $"/api/groups/{home}/members/{ward}/guardians",
                        new { guardians = new[] { astrid.Id.Value } }
                    )
                ).Is(204);
                await Reader.SayYesToGuardians();
                break;
            case "pending invitation":
                (
                    await ines.Put(
                        $"{path}/invitations/{Guid.NewGuid()}",
                        new { address = astrid.Address, role = "edit" }
                    )
                ).Is(204);
                break;
            case "ended":
                await mortar.Give(calendar, astrid, Role.Coordinate);
                await mortar.Give(calendar, astrid, Role.None);
                break;
            case "expired":
                await mortar.Give(calendar, astrid, Role.Coordinate);
                await mortar.Store(db =>
                    db.Grants.Where(row => row.CalendarId == calendar && row.PersonId == astrid.Id)
                        .ExecuteUpdateAsync(set =>
                            set.SetProperty(row => row.EndsAt, Instant.FromUtc(2026, 3, 1, 0, 0))
                        )
                );
                break;
            case "deleted calendar":
                await mortar.Give(calendar, astrid, Role.Edit);
                (await ines.Delete($"{path}?name=Glaze tests", 1)).Is(204);
                break;
        }

        if (role == Role.Coordinate)
        {
            // Something to be ended; at a lower step it would give Astrid another way.
            (await ines.Put($"{path}/group-access/{together}", new { role = "times" })).Is(204);
        }
    }

    private async Task MakeGroup(Guid id, string name, params object[] people)
    {
        (
            await ines.Put(
                $"/api/groups/{id}",
                new
                {
                    name,
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (await ines.Put($"/api/groups/{id}/members", new { people })).Is(200);
        foreach (var browser in new[] { Reader, mei })
        {
            await browser.Post($"/api/memberships/{id}/accept"); // whoever of them is asked
        }
    }

    private static object EventBody(Secrets secrets, string title, bool isPrivate) =>
        new
        {
            calendarId = secrets.Calendar.Value,
            title,
            place = isPrivate ? "Secret-private-place" : "Secret-place",
            notes = isPrivate ? "Secret-private-notes" : "Secret-notes",
            kind = "Secret-kind",
            attendees = isPrivate ? [] : new[] { secrets.Named },
            @private = isPrivate,
            showAs = "busy",
            time = World.Hours(),
        };
}

/// <summary>One such calendar and all that routes are about.</summary>
/// <param name="Named">Who is named on its open event.</param>
internal sealed record Secrets(CalendarId Calendar, Guid Group, Guid Named)
{
    public Guid Event { get; } = Guid.CreateVersion7();

    public Guid Set { get; } = Guid.NewGuid();

    public Guid Import { get; } = Guid.NewGuid();

    public Guid Invitation { get; } = Guid.NewGuid();

    public Guid Link { get; } = Guid.NewGuid();

    public Guid Ask { get; } = Guid.NewGuid();

    /// <summary>A route with these in it.</summary>
    public string In(string route) => Fill(route, ("calendarId", Calendar.Value), ("eventId", Event));

    /// <summary>The same route about what was never there.</summary>
    public string NeverThere(string route) => Fill(route, ("calendarId", Guid.NewGuid()), ("eventId", Guid.NewGuid()));

    /// <summary>Asserts that an answer holds nothing that a step does not show.</summary>
    public void AreKept(Role role, string asked, Answer answer)
    {
        string[] forbidden =
        [
            .. role < Role.Edit ? new[] { "Secret-private" } : [],
            .. role < Role.View ? new[] { "Secret-notes", "Secret-kind", "Secret-potter", Named.ToString() } : [],
            .. role < Role.Outline
                ? new[] { "Secret-title", "Secret-place", "Secret-description", Event.ToString() }
                : [],
        ];
        foreach (var text in forbidden)
        {
            Assert.False(
                answer.Text.Contains(text, StringComparison.OrdinalIgnoreCase)
                    || answer.Headers.ToString().Contains(text, StringComparison.OrdinalIgnoreCase),
                $"“{text}” at {role} in {asked}: {answer.Text}"
            );
        }
    }

    private string Fill(string route, params (string Name, Guid Id)[] ids)
    {
        (string Name, Guid Id)[] all =
        [
            .. ids,
            ("importId", Import),
            ("invitationId", Invitation),
            ("linkId", Link),
            ("askId", Ask),
            ("groupId", Group),
            ("personId", DemoPeople.Dele.Id.Value),
            ("set", Set),
            ("newId", Guid.NewGuid()),
        ];
        return all.Aggregate(
            route,
            (text, one) => text.Replace($"{{{one.Name}}}", one.Id.ToString(), StringComparison.Ordinal)
        );
    }
}
