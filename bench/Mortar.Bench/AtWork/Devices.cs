using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;
using System.Xml.Linq;

namespace Mortar.Bench.AtWork;

/// <summary>
/// What calendar programs cost on thirty calendars of three thousand events: a first sync beside the export of the same
/// calendar, a sync with nothing new, one after a change, and fifty devices that ask each minute beside people who read walls.
/// </summary>
internal static class Devices
{
    private const int AtOnce = 50;
    private const int Rounds = 200;
    private static readonly XNamespace D = "DAV:";
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(20);

    /// <returns>0 where a first sync takes no more than twice the export, and one with nothing new less than 5 ms, whether something else was written or not.</returns>
    public static async Task<int> Run()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        var metrics = new Uri($"http://127.0.0.1:{((IPEndPoint)probe.LocalEndpoint).Port}/metrics");
        probe.Stop();
        await using var mortar = await RunningMortar.Start($"--Mortar:MetricsPort={metrics.Port}");
        var club = await Club.Make(mortar, []);
        Console.WriteLine($"The club is there; {mortar.PeakMemory} MB");
        var person = club.People[0];
        await person.Session();
        using var phone = await Device(mortar, person);
        var calendar = club.Calendars[0];
        var path = $"/dav/calendars/{person.Me:N}/{calendar:N}/";

        // Each time another calendar, which nobody has read yet.
        var (exported, synced) = (0, 0);
        var export = await Median(8, () => person.Get($"calendars/{club.Calendars[++exported]}/export", read: false));
        var first = await Median(
            8,
            () => FirstSync(phone, $"/dav/calendars/{person.Me:N}/{club.Calendars[++synced]:N}/")
        );
        Say("its export", export);
        Say("first sync, tags and all events", first);
        var token = await Sync(phone, path, string.Empty);
        Say("sync with nothing new, as it comes here", await Median(Rounds, () => Sync(phone, path, token)));
        var before = await InServer(metrics);
        await Median(Rounds, () => Sync(phone, path, token));
        var after = await InServer(metrics);
        var nothing = (after.Milliseconds - before.Milliseconds) / (after.Count - before.Count);
        Say("in the server, as its metrics say, on average", nothing);
        // The same where something else was written since, as on a busy day: what was kept has to be asked for anew.
        using var desk = await Device(mortar, person);
        var elsewhere = $"/dav/calendars/{person.Me:N}/{club.Calendars[20]:N}/";
        var busy = 0.0;
        for (var round = 0; round < Rounds; round++)
        {
            await desk.PutAsync(new Uri($"{elsewhere}{round}.ics", UriKind.Relative), File(10_000 + round));
            before = await InServer(metrics);
            await Sync(phone, path, token);
            after = await InServer(metrics);
            busy += after.Milliseconds - before.Milliseconds;
        }

        Say("where something else was written just before, on average", busy / Rounds);
        var change = 0;
        var changed = await Median(
            20,
            () => Sync(phone, path, token),
            async () =>
            {
                token = await Sync(phone, path, token);
                await phone.PutAsync(new Uri($"{path}{change}.ics", UriKind.Relative), File(change++));
            }
        );
        Say("sync after one change", changed);

        var alone = await Walls(club, []);
        var devices = new List<(HttpClient Phone, string Home)>();
        foreach (var one in club.People.Take(AtOnce))
        {
            await one.Session();
            devices.Add((await Device(mortar, one), $"/dav/calendars/{one.Me:N}/"));
        }

        var beside = await Walls(club, devices);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"walls, half within: {alone:0.0} ms alone, {beside:0.0} ms beside {AtOnce} devices that ask each minute ({beside / alone:0.00} times)"
            )
        );
        devices.ForEach(one => one.Item1.Dispose());
        return first <= 2 * export && nothing < 5 && busy / Rounds < 5 ? 0 : 1;
    }

    /// <summary>How long requests took so far in the server, and how many there were, of those that only calendar programs send (OpenTelemetry's http.server.request.duration).</summary>
    private static async Task<(double Milliseconds, double Count)> InServer(Uri metrics)
    {
        using var http = new HttpClient();
        var lines = (await http.GetStringAsync(metrics)).Split('\n');
        return (
            1_000 * Sum("http_server_request_duration_seconds_sum"),
            Sum("http_server_request_duration_seconds_count")
        );

        double Sum(string name) =>
            lines
                .Where(line =>
                    line.StartsWith(name, StringComparison.Ordinal)
                    && line.Contains("http_request_method=\"_OTHER\"", StringComparison.Ordinal)
                )
                .Sum(line => double.Parse(line.Split("} ")[1].Split(' ')[0], CultureInfo.InvariantCulture));
    }

    private static async Task<HttpClient> Device(RunningMortar mortar, Client person)
    {
        var made = await person.Put($"devices/{Guid.NewGuid()}", new { name = "Phone", role = "edit" });
        var key = made.Body.GetProperty("key").GetString();
        var client = new HttpClient { BaseAddress = mortar.Url };
        client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Basic",
            Convert.ToBase64String(Encoding.UTF8.GetBytes($"me:{key}"))
        );
        return client;
    }

    /// <summary>As programs do it: all tags, and then all events by their addresses.</summary>
    private static async Task FirstSync(HttpClient phone, string path)
    {
        var text = await Ask(phone, path, SyncBody(string.Empty));
        var hrefs = XElement
            .Parse(text)
            .Elements(D + "response")
            .Select(one => one.Element(D + "href")!.Value)
            .ToList();
        await Ask(
            phone,
            path,
            $"<c:calendar-multiget xmlns:c='urn:ietf:params:xml:ns:caldav' xmlns:d='DAV:'><d:prop><d:getetag/><c:calendar-data/></d:prop>{string.Concat(hrefs.Select(href => $"<d:href>{href}</d:href>"))}</c:calendar-multiget>"
        );
    }

    private static async Task<string> Sync(HttpClient phone, string path, string token) =>
        XElement.Parse(await Ask(phone, path, SyncBody(token))).Element(D + "sync-token")!.Value;

    private static string SyncBody(string token) =>
        $"<d:sync-collection xmlns:d='DAV:'><d:sync-token>{token}</d:sync-token><d:sync-level>1</d:sync-level><d:prop><d:getetag/></d:prop></d:sync-collection>";

    private static async Task<string> Ask(HttpClient phone, string path, string body, string method = "REPORT")
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path)
        {
            Content = new StringContent(body, Encoding.UTF8, "application/xml"),
        };
        request.Headers.Add("Depth", "1");
        using var response = await phone.SendAsync(request);
        return (int)response.StatusCode == 207
            ? await response.Content.ReadAsStringAsync()
            : throw new InvalidOperationException($"{(int)response.StatusCode}: {path}");
    }

    private static async Task<double> Median(int rounds, Func<Task> act, Func<Task>? before = null)
    {
        var took = new List<double>();
        for (var round = 0; round < rounds + 1; round++)
        {
            if (before is not null)
            {
                await before();
            }

            var began = Stopwatch.GetTimestamp();
            await act();
            if (round > 0)
            {
                took.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
            }
        }

        return took.Order().ElementAt(took.Count / 2);
    }

    private static void Say(string what, double took) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}: {took:0.0} ms"));

    /// <summary>Half of the walls that four people read come within so long, while devices ask what is new, each of its calendars once a minute.</summary>
    private static async Task<double> Walls(Club club, List<(HttpClient Phone, string Home)> devices)
    {
        using var stop = new CancellationTokenSource(Long);
        var asking = devices
            .Select(
                async (device, number) =>
                {
                    await Task.Delay(number * 1_000 / Math.Max(1, devices.Count / 5));
                    while (!stop.IsCancellationRequested)
                    {
                        await Ask(
                            device.Phone,
                            device.Home,
                            "<d:propfind xmlns:d='DAV:'><d:prop><d:displayname/><d:sync-token/></d:prop></d:propfind>",
                            "PROPFIND"
                        );
                        await Task.Delay(TimeSpan.FromMinutes(1), stop.Token)
                            .ContinueWith(_ => { }, TaskScheduler.Default);
                    }
                }
            )
            .ToList();
        var walls = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(async line =>
                {
                    var (random, took) = (new Random(line), new List<double>());
                    while (!stop.IsCancellationRequested)
                    {
                        var first = Club.FirstMonday.AddDays(random.Next(52) * 7);
                        var told = await club.People[60 + line]
                            .Get(
                                string.Create(
                                    CultureInfo.InvariantCulture,
                                    $"wall?from={first:yyyy-MM-dd}&to={first.AddDays(6):yyyy-MM-dd}"
                                ),
                                read: false
                            );
                        took.Add(told.Took.TotalMilliseconds);
                    }

                    return took;
                })
        );
        await Task.WhenAll(asking);
        return walls.SelectMany(took => took).Order().ElementAt(walls.Sum(took => took.Count) / 2);
    }

    private static ByteArrayContent File(int number) =>
        new(
            Encoding.UTF8.GetBytes(
                $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//bench//EN\r\nBEGIN:VEVENT\r\nUID:device-{number}\r\nDTSTAMP:20260301T080000Z\r\nDTSTART:20260312T090000Z\r\nDTEND:20260312T100000Z\r\nSUMMARY:From a device\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
            )
        )
        {
            Headers = { ContentType = new MediaTypeHeaderValue("text/calendar") },
        };
}
