using System.Collections.Concurrent;
using System.Net;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.StandIns;

/// <summary>
/// The built-in stand-in for calendars on the web: a small host on this machine alone, with fairs, holidays and a league that
/// is played, and with a bad day that can be had of it.
/// </summary>
internal sealed class WebHost : IAsyncDisposable
{
    private readonly IClock clock;
    private readonly Lazy<Task<IPEndPoint>> opened;
    private WebApplication? app;
    private readonly ConcurrentDictionary<string, int> asked = new(StringComparer.Ordinal);

    public WebHost(IClock clock)
    {
        this.clock = clock;
        opened = new Lazy<Task<IPEndPoint>>(Start);
    }

    /// <summary>The name at which calendars are fetched from it, by http.</summary>
    public const string Name = "calendars.example.org";

    /// <summary>Where it really is, as <c>http://127.0.0.1:40123</c>, which is inside; empty before it was opened.</summary>
    public string Url { get; private set; } = string.Empty;

    /// <summary>How many times it was asked for anything.</summary>
    public int Asked => asked.Values.Sum();

    /// <summary>How many times it was asked for one of its calendars, by an address with a query of its own.</summary>
    public int AskedBy(string query) =>
        asked.Where(one => one.Key.EndsWith(query, StringComparison.Ordinal)).Sum(one => one.Value);

    /// <summary>The names of the headers of the last question.</summary>
    public IReadOnlyCollection<string> Heard { get; private set; } = [];

    /// <summary>What the league's address gives out instead of its list: a bad day of <see cref="BadDays"/>; <c>null</c> for the list.</summary>
    public string? BadDay { get; set; }

    /// <summary>The fixtures of the league, by number and day; where there are none a season of its own is played, which moves by itself.</summary>
    public Dictionary<int, LocalDate> Fixtures { get; } = [];

    /// <summary>What else is in the league's list, as it stands in a file.</summary>
    public string? Also { get; set; }

    /// <summary>Opens it on a free port, once; where that is.</summary>
    public Task<IPEndPoint> Open() => opened.Value;

    private async Task<IPEndPoint> Start()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        app = builder.Build();
        app.Use(
            (context, next) =>
            {
                asked.AddOrUpdate($"{context.Request.Path}{context.Request.QueryString}", 1, (_, times) => times + 1);
                Heard = [.. context.Request.Headers.Keys];
                return next(context);
            }
        );
        app.MapGet("/fairs.ics", context => Give(context, Fairs()));
        app.MapGet("/holidays.ics", context => Give(context, Holidays()));
        app.MapGet("/league.ics", League);
        await app.StartAsync();
        Url = app.Urls.First();
        return new IPEndPoint(IPAddress.Loopback, new Uri(Url).Port);
    }

    public async ValueTask DisposeAsync()
    {
        if (app is not null)
        {
            await app.DisposeAsync();
        }
    }

    private LocalDate Today => clock.GetCurrentInstant().InUtc().Date;

    /// <summary>Weekend fairs of the region, of which only the days are known.</summary>
    private string Fairs() =>
        Calendar(
            "Craft fairs of the region",
            "P1D",
            new[] { (12, "Marlow Quay craft fair", 2), (40, "Harbour pottery market", 1), (75, "Abbey green fair", 2) }
                .Select(fair => (Day: NextSaturday(Today.PlusDays(fair.Item1)), fair.Item2, fair.Item3))
                .Select(fair => AllDay($"fair-{Day(fair.Day)}", fair.Day, fair.Item3, fair.Item2))
        );

    /// <summary>Days off for all, this year and next.</summary>
    private string Holidays() =>
        Calendar(
            "Kiln coast holidays",
            "P1D",
            Enumerable
                .Range(Today.Year, 2)
                .SelectMany(year =>
                    new[]
                    {
                        ("New Year", 1, 1),
                        ("Founders’ day", 3, 20),
                        ("Harbour day", 5, 4),
                        ("Midwinter", 12, 25),
                    }.Select(day => (Name: day.Item1, Date: new LocalDate(year, day.Item2, day.Item3)))
                )
                .Select(day => AllDay($"holiday-{Day(day.Date)}", day.Date, 1, day.Name))
        );

    private Task League(HttpContext context)
    {
        var text = Calendar(
            "Harbour league",
            "PT15M",
            [
                .. (Fixtures.Count == 0 && Also is null ? Season() : Fixtures).Select(one =>
                    AllDay($"fixture-{one.Key}", one.Value, 1, $"Match {one.Key}")
                ),
                .. Also is { } also ? [also] : Array.Empty<string>(),
            ]
        );
        return BadDay is { } day ? BadDays.Answer(context, day, Url, text) : Give(context, text);
    }

    /// <summary>A match each Sunday, of which every quarter of an hour another one is brought forward to the Saturday.</summary>
    private Dictionary<int, LocalDate> Season()
    {
        const int Matches = 8;
        var quarter = clock.GetCurrentInstant().ToUnixTimeSeconds() / (15 * 60);
        var first = Today.Previous(IsoDayOfWeek.Sunday);
        return Enumerable
            .Range(1, Matches)
            .ToDictionary(
                match => match,
                match => first.PlusWeeks(match - 1).PlusDays(quarter % Matches == match - 1 ? -1 : 0)
            );
    }

    /// <summary>Gives a text out with a tag of its version, and nothing where that is known already (RFC 9110, 13.1.2).</summary>
    private static Task Give(HttpContext context, string text)
    {
        var bytes = Encoding.UTF8.GetBytes(text);
        var tag = $"\"{Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes))[..16]}\"";
        context.Response.Headers.ETag = tag;
        if (context.Request.Headers.IfNoneMatch == tag)
        {
            context.Response.StatusCode = (int)HttpStatusCode.NotModified;
            return Task.CompletedTask;
        }

        context.Response.ContentType = "text/calendar; charset=utf-8";
        return context.Response.Body.WriteAsync(bytes).AsTask();
    }

    private static LocalDate NextSaturday(LocalDate from) => from.Next(IsoDayOfWeek.Saturday);

    private static string Calendar(string name, string refresh, IEnumerable<string> events) =>
        string.Join(
            "\r\n",
            [
                "BEGIN:VCALENDAR",
                "VERSION:2.0",
                "PRODID:-//Mortar//Stand-in//EN",
                $"NAME:{name}",
                $"REFRESH-INTERVAL;VALUE=DURATION:{refresh}",
                .. events,
                "END:VCALENDAR",
                string.Empty,
            ]
        );

    private static string AllDay(string uid, LocalDate first, int days, string title) =>
        string.Join(
            "\r\n",
            "BEGIN:VEVENT",
            $"UID:{uid}@web-host",
            "DTSTAMP:20260101T000000Z",
            $"DTSTART;VALUE=DATE:{Day(first)}",
            $"DTEND;VALUE=DATE:{Day(first.PlusDays(days))}",
            $"SUMMARY:{title}",
            "TRANSP:TRANSPARENT",
            "END:VEVENT"
        );

    private static string Day(LocalDate day) => LocalDatePattern.CreateWithInvariantCulture("yyyyMMdd").Format(day);
}
