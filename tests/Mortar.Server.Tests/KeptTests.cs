using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What is kept in memory of the store is never older than what anybody was answered.</summary>
public class KeptTests
{
    [Fact]
    public async Task Whoever_looks_after_a_change_was_answered_sees_it_however_many_look_and_write_meanwhile()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var readers = new List<Browser>();
        foreach (var person in new[] { DemoPeople.Priya, DemoPeople.Dele, DemoPeople.Tomasz })
        {
            await mortar.Give(calendar, person, Role.View);
            readers.Add(await mortar.As(person));
        }

        var all = new[] { DemoPeople.Ines, DemoPeople.Mei }.ToList();
        await mortar.Give(calendar, DemoPeople.Mei, Role.Edit);
        await Task.WhenAll(
            all.Select(async writer =>
            {
                using var browser = await mortar.As(writer);
                for (var n = 0; n < 25; n++)
                {
                    var id = await browser.MakeEvent(calendar, $"{writer.Name} {n}");
                    var walls = await Task.WhenAll(readers.Select(reader => reader.Bricks(calendar)));
                    Assert.All(
                        walls,
                        wall => Assert.Contains(wall, brick => brick.GetProperty("eventId").GetGuid() == id)
                    );
                }
            })
        );
        foreach (var reader in readers)
        {
            reader.Dispose();
        }
    }

    /// <summary>Weeks without events are nothing to read and something to keep: of them anybody can ask for any number.</summary>
    [Fact]
    public async Task What_is_kept_of_empty_weeks_is_bounded_too()
    {
        await using var mortar = await TestMortar.Start();
        var kept = mortar.Services.GetRequiredService<KeptEvents>();
        var ids = Enumerable.Range(0, 200).Select(_ => new CalendarId(Guid.NewGuid())).ToList();
        var (most, first) = (0, new LocalDate(2026, 1, 1));
        for (var n = 0; n < 40; n++)
        {
            var from = first.PlusDays(n * 400);
            await kept.Touching(
                ids,
                new Core.Time.Window(from, from.PlusDays(399), DateTimeZone.Utc),
                TestContext.Current.CancellationToken
            );
            most = Math.Max(most, kept.Count);
        }

        // Looked after once in a while, not at each reading.
        Assert.InRange(most, KeptEvents.Most / 2, KeptEvents.Most + (16 * 200 * 59));
        Assert.True(kept.Count < 40 * 200 * 57);
    }

    /// <summary>Where somebody stands is read once for a request: a command decides by how it is under the lock.</summary>
    [Fact]
    public async Task A_command_reads_anew_where_somebody_stands_and_again_once_it_has_changed_that()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Store(async db =>
        {
            Assert.Equal(Role.None, await Priyas());
            await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
            await db.Write<int>(
                Act.By(DemoPeople.Ines.Id),
                async () =>
                {
                    Assert.Equal(Role.Edit, await Priyas());
                    var grant = await db.Grants.SingleAsync(row =>
                        row.CalendarId == calendar && row.PersonId == DemoPeople.Priya.Id
                    );
                    grant.Role = Role.View;
                    await db.SaveChangesAsync();
                    Assert.Equal(Role.View, await Priyas());
                    grant.Role = Role.Outline;
                    return 1;
                },
                CancellationToken.None
            );
            Assert.Equal(Role.Outline, await Priyas());
            return 1;

            async Task<Role> Priyas() =>
                (await db.StandingOf(DemoPeople.Priya.Id, calendar, CancellationToken.None)).Role;
        });
    }

    [Fact]
    public async Task Another_clock_shows_at_once()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        var before = (await Wall(priya)).Text("zone");
        var session = (await priya.Get("/api/session")).Is(200).Body;
        var preferences = JsonObject.Create(session.GetProperty("person").GetProperty("preferences"))!;
        preferences["zone"] = "America/Halifax";

        (await priya.Put("/api/preferences", preferences)).Is(200);

        Assert.Equal("Europe/London", before);
        Assert.Equal("America/Halifax", (await Wall(priya)).Text("zone"));
    }

    [Fact]
    public async Task Writers_come_in_turn_and_who_gives_up_or_fails_holds_nobody()
    {
        using var turns = new WriteTurn();
        var first = await turns.Enter(CancellationToken.None);
        using var gaveUp = new CancellationTokenSource();
        var (second, third) = (turns.Enter(gaveUp.Token), turns.Enter(CancellationToken.None));
        await gaveUp.CancelAsync();

        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => second);
        Assert.False(third.IsCompleted);
        first.Dispose();
        first.Dispose(); // once is enough, and twice lets nobody else in
        using var mine = await third;
        Assert.False(turns.Enter(CancellationToken.None).IsCompleted);
    }

    private static async Task<JsonElement> Wall(Browser browser) =>
        (await browser.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200).Body;
}
