using System.Net;
using System.Net.Sockets;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.WebCalendars;
using Mortar.Data.WebCalendars;
using Mortar.Server.Features.WebCalendars;
using Mortar.Server.StandIns;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features.WebCalendars;

/// <summary>A calendar is fetched from the public web and from nowhere else, whatever is written, resolved or answered.</summary>
public class WebFetcherTests
{
    private const string NotFound = "is not found on the public web";

    /// <summary>Spellings of this machine and of what is inside, which resolvers and parsers of addresses have been known to take.</summary>
    [Theory]
    [InlineData("http://127.0.0.1/")]
    [InlineData("http://localhost/")]
    [InlineData("http://LOCALHOST./")]
    [InlineData("http://2130706433/")]
    [InlineData("http://0x7f000001/")]
    [InlineData("http://0x7f.0x0.0x0.0x1/")]
    [InlineData("http://0177.0.0.1/")]
    [InlineData("http://017700000001/")]
    [InlineData("http://127.1/")]
    [InlineData("http://0/")]
    [InlineData("http://0.0.0.0/")]
    [InlineData("http://[::]/")]
    [InlineData("http://[::1]/")]
    [InlineData("http://[0:0:0:0:0:0:0:1]/")]
    [InlineData("http://[::ffff:127.0.0.1]/")]
    [InlineData("http://[::ffff:7f00:1]/")]
    [InlineData("http://[::127.0.0.1]/")]
    [InlineData("http://[64:ff9b::7f00:1]/")]
    [InlineData("http://[2002:7f00:1::]/")]
    [InlineData("http://[fe80::1%25lo]/")]
    [InlineData("http://[fe80::1%251]/")]
    [InlineData("http://10.0.0.1/")]
    [InlineData("http://192.168.1.1/")]
    [InlineData("http://172.16.0.1/")]
    [InlineData("http://100.64.0.1/")]
    [InlineData("http://169.254.169.254/latest/meta-data/")]
    [InlineData("http://\u2460\u2461\u2466.0.0.1/")] // digits in circles
    [InlineData("http://127\u30020\u30020\u30021/")] // ideographic full stops
    [InlineData("http://1.1.1.1:22/")] // a port that is not of the web
    [InlineData("http://nothing.invalid/")] // said of a name that is not known as of one that is inside
    public async Task What_is_inside_is_not_found(string written)
    {
        using var fetcher = Fetcher(new WebNames(), new WebInside(new()));
        var check = WebAddress.Check(written);
        if (check.Value is { } address)
        {
            Assert.Contains(NotFound, await WhyNot(fetcher, address), StringComparison.Ordinal);
        }
        else
        {
            Assert.Contains("is not an address", Assert.Single(check.Problems).Sentence, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task All_that_a_name_means_is_checked_before_any_of_it_is_called()
    {
        await using var host = await Host();
        foreach (var means in new[] { new[] { "1.1.1.1", "127.0.0.1" }, ["127.0.0.1", "1.1.1.1"], ["::1"], [] })
        {
            var names = new Liar(_ => means);
            using var fetcher = Fetcher(names, new WebInside(new()));

            Assert.Contains(
                NotFound,
                await WhyNot(fetcher, At("http://liar.example/fairs.ics")),
                StringComparison.Ordinal
            );
            Assert.Equal(1, names.Asked);
        }

        Assert.Equal(0, host.Asked);
    }

    [Fact]
    public async Task A_name_that_means_something_else_a_moment_later_is_asked_once()
    {
        await using var host = await Host();
        var port = new Uri(host.Url).Port;
        // Only the port is allowed to it, so that its answers can be told apart.
        var names = new Liar(asked => asked == 1 ? ["127.0.0.1"] : ["10.0.0.1"]);
        using var fetcher = Fetcher(names, new WebInside(new() { WebInside = $"liar.example:{port}" }));

        var fetched = await Fetch(fetcher, At($"http://liar.example:{port}/fairs.ics"), null, null);

        Assert.IsType<WebFetch.File>(fetched.Came);
        Assert.Equal(1, names.Asked);
    }

    [Fact]
    public async Task Whoever_runs_it_names_what_inside_may_be_fetched_from_and_nothing_else_is()
    {
        await using var host = await Host();
        var port = new Uri(host.Url).Port;
        using var fetcher = Fetcher(new WebNames(), new WebInside(new() { WebInside = $"10.9.9.9, 127.0.0.1:{port}" }));

        Assert.IsType<WebFetch.File>((await Fetch(fetcher, At($"{host.Url}/fairs.ics"), null, null)).Came);
        Assert.Contains(NotFound, await WhyNot(fetcher, At("http://127.0.0.1/fairs.ics")), StringComparison.Ordinal);
        Assert.Contains(
            NotFound,
            await WhyNot(fetcher, At($"http://localhost:{port}/fairs.ics")),
            StringComparison.Ordinal
        );
    }

    /// <summary>What came of a bad day of the host, in words.</summary>
    [Theory]
    [InlineData("inside", "leads on to where no calendar can be fetched from")]
    [InlineData("round", "leads on to where no calendar can be fetched from")]
    [InlineData("garbage", "This is not a calendar file")]
    [InlineData("empty", "The file is empty")]
    [InlineData("huge", "is larger than 10 MB")]
    [InlineData("bomb", "is larger than 10 MB")]
    [InlineData("twice", "cannot be read")]
    [InlineData("torn", "cannot be read")]
    [InlineData("cut", "does not answer")]
    [InlineData("401", "does not give it out to everybody")]
    [InlineData("404", "There is no calendar any more")]
    [InlineData("500", "in trouble itself")]
    [InlineData("503", "asks to be left alone")]
    [InlineData("418", "answers 418")]
    public async Task A_bad_day_is_told_in_words(string day, string sentence)
    {
        var (host, inside) = await HostInside();
        await using var end = host;
        host.BadDay = day;
        using var fetcher = Fetcher(new WebNames(), inside);

        Assert.Contains(sentence, await WhyNot(fetcher, League), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_is_slow_is_waited_for_so_long_and_no_longer()
    {
        var (host, inside) = await HostInside();
        await using var end = host;
        host.BadDay = "slow";
        var time = new QuickTime();
        using var fetcher = Fetcher(new WebNames(), inside, time);

        Assert.Contains("took too long", await WhyNot(fetcher, League), StringComparison.Ordinal);
        Assert.Equal([WebFetcher.Patience], time.Waited);
    }

    [Fact]
    public async Task What_moved_is_followed_and_what_is_known_is_not_given_again()
    {
        var (host, inside) = await HostInside();
        await using var end = host;
        using var fetcher = Fetcher(new WebNames(), inside);
        host.BadDay = "moved";
        var moved = await Fetch(fetcher, League, null, null);
        Assert.Equal("Craft fairs of the region", moved.Reading?.Name);

        host.BadDay = null;
        host.Fixtures[1] = new LocalDate(2026, 3, 14);
        var file = Assert.IsType<WebFetch.File>((await Fetch(fetcher, League, null, null)).Came);
        Assert.Equal(Duration.FromMinutes(15), file.Every);
        Assert.IsType<WebFetch.Same>((await Fetch(fetcher, League, file.ETag, file.LastModified)).Came);
        host.BadDay = "packed";
        var packed = Assert.IsType<WebFetch.File>((await Fetch(fetcher, League, null, null)).Came);
        Assert.Equal(file.Digest, packed.Digest);
        Assert.Contains(
            "Match 1",
            System.Text.Encoding.UTF8.GetString(WebFetcher.Unpacked(packed.Packed)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Nothing_of_us_is_told_but_that_it_is_us()
    {
        var (host, inside) = await HostInside();
        await using var end = host;
        using var fetcher = Fetcher(new WebNames(), inside);

        await Fetch(fetcher, League, "\"3f\"", null);

        Assert.Equal(
            ["Accept", "Accept-Encoding", "Host", "If-None-Match", "User-Agent"],
            host.Heard.Order(StringComparer.Ordinal)
        );
    }

    private static readonly WebAddress League = At($"http://{WebHost.Name}/league.ics");

    private static WebAddress At(string written) => WebAddress.Check(written).Value!;

    private static WebFetcher Fetcher(IWebNames names, WebInside inside, TimeProvider? time = null) =>
        new(
            new WebLine(names, inside),
            new Mortar.Core.Time.ZoneClock(DateTimeZoneProviders.Tzdb),
            SystemClock.Instance,
            time ?? TimeProvider.System
        );

    /// <summary>
    /// Whatever bytes a host sends, in place of an answer or in the middle of one, come to a file or to why there is none in
    /// words; nothing is thrown, and nothing that is no calendar is kept. The seeds are drawn, no source.
    /// </summary>
    [Fact]
    public async Task Whatever_a_host_sends_comes_to_a_file_or_to_why_there_is_none()
    {
        var random = new Random(20_261_201);
        var good = Encoding.UTF8.GetBytes(
            "HTTP/1.1 200 OK\r\nContent-Type: text/calendar\r\nETag: \"a\"\r\nLast-Modified: Wed, 11 Mar 2026 09:00:00 GMT\r\nConnection: close\r\n\r\n"
                + "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//trial//EN\r\nREFRESH-INTERVAL;VALUE=DURATION:PT1H\r\nBEGIN:VEVENT\r\nUID:a@trial\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/London:20260312T100000\r\nDURATION:PT1H\r\nRRULE:FREQ=WEEKLY;COUNT=9\r\nSUMMARY:Firing\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        );
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        using var fetcher = Fetcher(new WebNames(), new WebInside(new() { WebInside = $"127.0.0.1:{port}" }));
        var (files, failures) = (0, 0);
        for (var round = 0; round < 400; round++)
        {
            var sent = round == 0 ? good : Spoilt(good, random);
            var fetching = Fetch(fetcher, At($"http://127.0.0.1:{port}/a.ics"), null, null);
            using (var caller = await listener.AcceptSocketAsync(TestContext.Current.CancellationToken))
            {
                // All that is asked, or the answer is thrown away with it.
                var asked = new byte[4_096];
                for (var count = 0; !asked.AsSpan(0, count).EndsWith("\r\n\r\n"u8); )
                {
                    count += await caller.ReceiveAsync(asked.AsMemory(count), TestContext.Current.CancellationToken);
                }

                await caller.SendAsync(sent, TestContext.Current.CancellationToken);
                caller.Shutdown(SocketShutdown.Send);
            }

            switch ((await fetching).Came)
            {
                case WebFetch.File:
                    files++;
                    break;
                case WebFetch.Failed failed:
                    failures++;
                    Assert.Contains("127.0.0.1", failed.Why, StringComparison.Ordinal);
                    break;
                default:
                    Assert.Fail($"Nothing was known of it before: {Encoding.Latin1.GetString(sent)}");
                    break;
            }
        }

        Assert.True(files > 20 && failures > 20, $"{files} files and {failures} failures");
    }

    /// <summary>Some bytes of it are others, are missing, or stand there twice.</summary>
    private static byte[] Spoilt(byte[] good, Random random)
    {
        var bytes = good.ToList();
        for (var times = random.Next(1, 6); times > 0; times--)
        {
            var at = random.Next(bytes.Count);
            var length = Math.Min(random.Next(1, 40), bytes.Count - at);
            switch (random.Next(4))
            {
                case 0:
                    bytes[at] = (byte)random.Next(256);
                    break;
                case 1:
                    bytes.RemoveRange(at, Math.Min(length, bytes.Count - 1));
                    break;
                case 2:
                    bytes.InsertRange(at, bytes.GetRange(at, length));
                    break;
                default:
                    var other = new byte[length];
                    random.NextBytes(other);
                    bytes.InsertRange(at, other);
                    break;
            }
        }

        return [.. bytes];
    }

    private static async Task<string> WhyNot(WebFetcher fetcher, WebAddress address) =>
        Assert.IsType<WebFetch.Failed>((await Fetch(fetcher, address, null, null)).Came).Why;

    private static Task<Fetched> Fetch(WebFetcher fetcher, WebAddress address, string? etag, string? lastModified) =>
        fetcher.Fetch(address, etag, lastModified, CancellationToken.None);

    private static async Task<WebHost> Host() => (await HostInside()).Host;

    private static async Task<(WebHost Host, WebInside Inside)> HostInside()
    {
        var inside = new WebInside(new());
        var host = new WebHost(SystemClock.Instance);
        await host.Open();
        inside.Lead(WebHost.Name, host.Open);
        return (host, inside);
    }

    /// <summary>A resolver that says what it likes.</summary>
    private sealed class Liar(Func<int, string[]> says) : IWebNames
    {
        public int Asked { get; private set; }

        public Task<IPAddress[]> Find(string host, CancellationToken cancellationToken) =>
            Task.FromResult<IPAddress[]>([.. says(++Asked).Select(IPAddress.Parse)]);
    }

    /// <summary>A time in which every wait is over at once, and kept.</summary>
    private sealed class QuickTime : TimeProvider
    {
        public List<TimeSpan> Waited { get; } = [];

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            if (dueTime > TimeSpan.Zero)
            {
                Waited.Add(dueTime);
            }

            return System.CreateTimer(
                callback,
                state,
                dueTime > TimeSpan.Zero ? TimeSpan.FromMilliseconds(200) : dueTime,
                period
            );
        }
    }
}
