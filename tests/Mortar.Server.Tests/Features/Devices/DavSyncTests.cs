using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;
using static Mortar.Server.Tests.Features.Devices.DavReply;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>What a program is told of what became of a calendar (RFC 6578), and entity tags that say so.</summary>
public class DavSyncTests
{
    [Fact]
    public async Task What_is_new_changed_and_gone_is_told_and_nothing_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        foreach (var name in new[] { "a", "b", "c" })
        {
            (await phone.Put(phone.At(calendar, $"{name}.ics"), DavClient.File($"{name}@trial", name))).Is(201);
        }

        var first = await phone.Sync(phone.At(calendar));
        Assert.Equal(3, first.Each.Count);
        var tags = await phone.Tags(calendar);
        Assert.All(first.Each, one => Assert.Equal(tags[one.Key], one.Value.ETag()));
        var nothing = await phone.Sync(phone.At(calendar), first.Token);
        Assert.Empty(nothing.Each);
        Assert.Equal(first.Token, nothing.Token);

        (await phone.Put(phone.At(calendar, "a.ics"), DavClient.File("a@trial", "other"))).Is(204);
        (await phone.Delete(phone.At(calendar, "b.ics"))).Is(204);
        var made = await ines.MakeEvent(calendar, "By hand");
        var second = await phone.Sync(phone.At(calendar), first.Token);

        Assert.Equal(
            new[]
            {
                phone.At(calendar, "a.ics"),
                phone.At(calendar, "b.ics"),
                phone.At(calendar, $"m-{made:N}.ics"),
            }.Order(),
            second.Each.Keys.Order()
        );
        Assert.Equal("HTTP/1.1 404 Not Found", second.Each[phone.At(calendar, "b.ics")].Status());
        Assert.NotEqual(tags[phone.At(calendar, "a.ics")], second.Each[phone.At(calendar, "a.ics")].ETag());
        Assert.Empty((await phone.Sync(phone.At(calendar), second.Token)).Each);
        // What was there and went before anybody looked is not told of.
        (await phone.Put(phone.At(calendar, "d.ics"), DavClient.File("d@trial"))).Is(201);
        (await phone.Delete(phone.At(calendar, "d.ics"))).Is(204);
        Assert.Empty((await phone.Sync(phone.At(calendar), second.Token)).Each);
    }

    [Fact]
    public async Task A_token_holds_over_a_restart_and_not_in_another_store()
    {
        var mortar = await TestMortar.Start();
        string token,
            path;
        using (var ines = await mortar.As(DemoPeople.Ines))
        using (var phone = await DavClient.Of(mortar, DemoPeople.Ines))
        {
            var calendar = await ines.MakeCalendar();
            path = phone.At(calendar);
            await ines.MakeEvent(calendar);
            token = (await phone.Sync(path)).Token;
            await ines.MakeEvent(calendar, "Another");
        }

        await using var again = await mortar.Restart();
        using var later = await DavClient.Of(again, DemoPeople.Ines);
        Assert.Single((await later.Sync(path, token)).Each);
        foreach (
            var wrong in new[]
            {
                "urn:mortar:sync:1:2",
                "data:,whatever",
                token.Replace("sync:", "sync:9", StringComparison.Ordinal),
                string.Join(':', token.Split(':').Select((part, at) => at == 4 ? "ffffffffffff" : part)),
            }
        )
        {
            (await later.Sync(path, wrong)).Misses(403, D + "valid-sync-token");
        }
    }

    [Fact]
    public async Task What_is_cut_short_says_so_and_goes_on_where_it_stopped()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var path = phone.At(calendar);
        for (var number = 0; number < 7; number++)
        {
            (await phone.Put($"{path}{number}.ics", DavClient.File($"{number}@trial"))).Is(201);
        }

        var (told, token, rounds) = (new Dictionary<string, string>(), (string?)null, 0);
        for (var isCut = true; isCut; rounds++)
        {
            Assert.True(rounds < 10);
            var page = await phone.Sync(path, token, limit: 3);
            isCut = page.Each.TryGetValue(path, out var itself);
            if (isCut)
            {
                Assert.Equal("HTTP/1.1 507 Insufficient Storage", itself!.Status());
                Assert.NotNull(itself!.Element(D + "error")!.Element(D + "number-of-matches-within-limits"));
            }

            foreach (var one in page.Each.Where(one => one.Key != path))
            {
                told[one.Key] = one.Value.ETag()!;
            }

            token = page.Token;
            if (rounds == 0)
            {
                // Something becomes of what was told and of what was not, in between.
                (await phone.Put($"{path}0.ics", DavClient.File("0@trial", "other"))).Is(204);
                (await phone.Put($"{path}6.ics", DavClient.File("6@trial", "other"))).Is(204);
                (await phone.Put($"{path}7.ics", DavClient.File("7@trial"))).Is(201);
            }
        }

        Assert.Equal(await phone.Tags(calendar), told);
        // Changes are cut short as well.
        for (var number = 0; number < 5; number++)
        {
            (await phone.Put($"{path}{number}.ics", DavClient.File($"{number}@trial", "third"))).Is(204);
        }

        var (changed, more) = (new HashSet<string>(), true);
        for (rounds = 0; more; rounds++)
        {
            Assert.True(rounds < 10);
            var page = await phone.Sync(path, token, limit: 2);
            more = page.Each.ContainsKey(path);
            changed.UnionWith(page.Each.Keys.Where(key => key != path));
            token = page.Token;
        }

        Assert.Equal(5, changed.Count);
        (await phone.Sync(path, token, limit: 0)).Misses(403, D + "number-of-matches-within-limits");
    }

    [Fact]
    public async Task A_tag_changes_when_and_only_when_what_its_reader_sees_does()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Outline);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        using var dele = await DavClient.Of(mortar, DemoPeople.Dele);
        using var priya = await DavClient.Of(mortar, DemoPeople.Priya);
        var id = await ines.MakeEvent(calendar, "Celadon");
        var (his, hers) = (await Tag(dele), await Tag(priya));
        var (hisToken, hersToken) = (
            (await dele.Sync(dele.At(calendar))).Token,
            (await priya.Sync(priya.At(calendar))).Token
        );

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Celadon", notes: "Two tiles"), 1)).Is(200);
        Assert.Equal(his, await Tag(dele));
        Assert.NotEqual(hers, hers = await Tag(priya));
        Assert.Empty((await dele.Sync(dele.At(calendar), hisToken)).Each);
        Assert.Single((await priya.Sync(priya.At(calendar), hersToken)).Each);

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Tenmoku", notes: "Two tiles"), 2)).Is(200);
        Assert.NotEqual(his, his = await Tag(dele));
        Assert.NotEqual(hers, hers = await Tag(priya));

        // Read again, by whomever, on another day: nothing has changed.
        Assert.Equal(his, await Tag(dele));
        Assert.Equal(hers, await Tag(priya));

        async Task<string> Tag(DavClient client) => (await client.Tags(calendar)).Values.Single();
    }

    [Fact]
    public async Task Who_is_called_otherwise_is_told_where_they_are_named_and_nowhere_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        await mortar.Give(calendar, DemoPeople.Dele, Role.Outline);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        var named = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{named}",
                World.Event(calendar, "Firing", attendees: DemoPeople.Priya.Id.Value)
            )
        ).Is(200);
        var added = await priya.MakeEvent(calendar, "Unloading");
        await ines.MakeEvent(calendar, "Sweeping");
        var (before, token) = (await hers.Tags(calendar), (await hers.Sync(hers.At(calendar))).Token);
        var outline = (await his.Sync(his.At(calendar))).Token;

        (await priya.Put("/api/name", new { name = "Priya Raman-Holt" })).Is(204);

        var told = (await hers.Sync(hers.At(calendar), token)).Each;
        var after = await hers.Tags(calendar);
        Assert.Equal(
            new[] { named, added }.Select(id => hers.At(calendar, $"m-{id:N}.ics")).Order(StringComparer.Ordinal),
            told.Keys.Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            told.Keys.Order(StringComparer.Ordinal),
            after.Where(one => before[one.Key] != one.Value).Select(one => one.Key).Order(StringComparer.Ordinal)
        );
        Assert.Contains("Raman-Holt", (await hers.Get(told.Keys.First())).Is(200).Text, StringComparison.Ordinal);
        Assert.Empty((await his.Sync(his.At(calendar), outline)).Each);
        var known = (await hers.Sync(hers.At(calendar), token)).Token;
        Assert.Empty((await hers.Sync(hers.At(calendar), known)).Each);
    }

    [Fact]
    public async Task A_layer_that_is_taken_away_is_gone_and_a_step_that_changes_ends_the_token()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var dele = await DavClient.Of(mortar, DemoPeople.Dele);
        await ines.MakeEvent(calendar, "Celadon");
        var token = (await dele.Sync(dele.At(calendar))).Token;

        await mortar.Give(calendar, DemoPeople.Dele, Role.Outline);
        (await dele.Sync(dele.At(calendar), token)).Misses(403, D + "valid-sync-token");
        var outline = (await dele.Sync(dele.At(calendar))).Token;
        Assert.Empty((await dele.Sync(dele.At(calendar), outline)).Each);
        await mortar.Give(calendar, DemoPeople.Dele, Role.None);
        (await dele.Sync(dele.At(calendar), outline)).Is(404);
        Assert.DoesNotContain(dele.At(calendar), (await dele.Find(dele.Home, 1, "d:displayname")).Each.Keys);
    }

    [Fact]
    public async Task What_is_off_the_shelf_is_on_no_device()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        (await phone.Sync(phone.At(calendar))).Is(207);

        (
            await ines.Put(
                $"/api/shelf/{calendar.Value}",
                new
                {
                    shown = true,
                    beside = false,
                    look = (object?)null,
                    offShelf = true,
                }
            )
        ).Is(204);

        (await phone.Sync(phone.At(calendar))).Is(404);
        Assert.DoesNotContain(phone.At(calendar), (await phone.Find(phone.Home, 1, "d:displayname")).Each.Keys);
    }

    [Fact]
    public async Task Of_what_was_hidden_all_along_nothing_is_told_when_it_goes()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.View);
        using var hers = await DavClient.Of(mortar, DemoPeople.Ines);
        using var his = await DavClient.Of(mortar, DemoPeople.Dele);
        (
            await hers.Put(
                hers.At(calendar, "secret-glaze.ics"),
                DavClient.File("a@trial", "Secret", "CLASS:PRIVATE\nTRANSP:TRANSPARENT")
            )
        ).Is(201);
        var first = await his.Sync(his.At(calendar));
        Assert.Empty(first.Each);

        (await hers.Put(hers.At(calendar, "secret-glaze.ics"), DavClient.File("a@trial", "Other", "CLASS:PRIVATE"))).Is(
            204
        );
        (await hers.Delete(hers.At(calendar, "secret-glaze.ics"))).Is(204);

        var second = await his.Sync(his.At(calendar), first.Token);
        Assert.DoesNotContain("secret-glaze", second.Text, StringComparison.Ordinal);
        Assert.Empty(second.Each);
    }

    [Fact]
    public async Task Times_only_are_stretches_that_are_taken_and_follow_what_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Times);
        using var dele = await DavClient.Of(mortar, DemoPeople.Dele);
        await ines.MakeEvent(calendar, "Celadon");
        var first = await dele.Sync(dele.At(calendar));
        var (path, one) = Assert.Single(first.Each);
        var text = (await dele.Get(path)).Is(200).Text;
        Assert.Equal(one.ETag(), (await dele.Get(path)).ETag);
        Assert.Contains("SUMMARY:Busy", text, StringComparison.Ordinal);
        Assert.Contains("DTSTART:20260312T140000Z", text, StringComparison.Ordinal);
        Assert.DoesNotContain(
            "Celadon",
            (await dele.Find(dele.At(calendar), 1, "d:getetag")).Text,
            StringComparison.Ordinal
        );
        (await dele.Put(path, text)).Is(403);
        (await dele.Delete(path)).Is(403);

        Assert.Empty((await dele.Sync(dele.At(calendar), first.Token)).Each);
        // Another one in the same hours is told by nothing.
        await ines.MakeEvent(calendar, "At the same time");
        Assert.Empty((await dele.Sync(dele.At(calendar), first.Token)).Each);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                World.Event(calendar, "Later", World.Hours("2026-03-12T16:00:00", "2026-03-12T17:00:00"))
            )
        ).Is(200);
        (await dele.Sync(dele.At(calendar), first.Token)).Misses(403, D + "valid-sync-token");
        Assert.Equal(2, (await dele.Sync(dele.At(calendar))).Each.Count);
    }

    [Fact]
    public async Task A_token_of_a_month_ago_does_not_hold()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var phone = await DavClient.Of(mortar, DemoPeople.Ines);
        var token = (await phone.Sync(phone.At(calendar))).Token;
        clock.Now += Duration.FromDays(20);
        (await phone.Sync(phone.At(calendar), token)).Is(207);
        clock.Now += Duration.FromDays(10);
        (await phone.Sync(phone.At(calendar), token)).Misses(403, D + "valid-sync-token");
    }
}
