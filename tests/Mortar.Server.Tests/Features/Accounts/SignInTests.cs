using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Mortar.Server.Features.Demo;
using Mortar.Server.Live;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A sign-in is more than a cookie: it has an end, and what hangs on it ends with it.</summary>
public class SignInTests
{
    [Fact]
    public async Task Signed_out_the_cookie_is_worth_nothing_and_the_live_line_is_cut()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var elsewhere = await mortar.As(DemoPeople.Ines);
        var cookies = ines.Cookies.GetCookieHeader(mortar.Url);
        await using var line = Line(mortar, cookies);
        var cut = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        line.Closed += _ =>
        {
            cut.TrySetResult();
            return Task.CompletedTask;
        };
        await line.StartAsync(TestContext.Current.CancellationToken);
        Assert.Equal(200, await Status(mortar, cookies));

        (await ines.Delete("/api/session")).Is(204);

        await cut.Task.WaitAsync(TimeSpan.FromMinutes(1), TestContext.Current.CancellationToken);
        Assert.Equal(401, await Status(mortar, cookies));
        await Assert.ThrowsAnyAsync<Exception>(async () =>
        {
            await using var again = Line(mortar, cookies);
            await again.StartAsync(TestContext.Current.CancellationToken);
        });
        (await elsewhere.Get("/api/groups")).Is(200); // another device stays signed in
    }

    [Fact]
    public async Task What_ends_all_sign_ins_of_an_account_ends_them_at_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        (await ines.Get("/api/groups")).Is(200);

        await mortar.Store(async db =>
        {
            (await db.Users.SingleAsync(account => account.Id == DemoPeople.Ines.Id.Value)).SecurityStamp = "another";
            return await db.SaveChangesAsync();
        });

        (await ines.Get("/api/groups")).IsProblem(401, "signed-out");
    }

    [Fact]
    public async Task A_sign_in_ends_by_itself_thirty_days_after_it_was_used_last()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);

        clock.Now += Duration.FromDays(29);
        (await ines.Get("/api/session")).Is(200);
        clock.Now += Duration.FromDays(29);
        (await ines.Get("/api/groups")).Is(200);
        clock.Now += Duration.FromDays(2);

        (await ines.Get("/api/groups")).IsProblem(401, "signed-out");
    }

    [Fact]
    public async Task The_lines_of_one_person_are_bounded()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var cookies = ines.Cookies.GetCookieHeader(mortar.Url);
        var lines = new List<HubConnection>();
        for (var i = 0; i < LiveConnections.MostOfOne; i++)
        {
            var line = Line(mortar, cookies);
            await line.StartAsync(TestContext.Current.CancellationToken);
            lines.Add(line);
        }

        await using var oneTooMany = Line(mortar, cookies);
        var cut = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        oneTooMany.Closed += _ =>
        {
            cut.TrySetResult();
            return Task.CompletedTask;
        };
        await oneTooMany.StartAsync(TestContext.Current.CancellationToken);
        await cut.Task.WaitAsync(TimeSpan.FromMinutes(1), TestContext.Current.CancellationToken);

        await using var another = Line(mortar, priya.Cookies.GetCookieHeader(mortar.Url));
        await another.StartAsync(TestContext.Current.CancellationToken);
        Assert.Equal(HubConnectionState.Connected, another.State);
        foreach (var line in lines)
        {
            await line.DisposeAsync();
        }
    }

    private static HubConnection Line(TestMortar mortar, string cookies) =>
        new HubConnectionBuilder()
            .WithUrl(new Uri(mortar.Url, "/live"), options => options.Headers.Add("Cookie", cookies))
            .Build();

    private static async Task<int> Status(TestMortar mortar, string cookies)
    {
        using var client = new HttpClient();
        client.DefaultRequestHeaders.Add("Cookie", cookies);
        return (int)
            (
                await client.GetAsync(new Uri(mortar.Url, "/api/groups"), TestContext.Current.CancellationToken)
            ).StatusCode;
    }
}
