using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using BenchmarkDotNet.Attributes;
using Microsoft.AspNetCore.Builder;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Bench;

/// <summary>
/// Gaps, clashes and cover of 200 people out of 100,000 events: asked over HTTP, beside Core alone on the same events in
/// memory (from the events to the answer: occurrences, whose time they take, busy time, and what is asked).
/// </summary>
[MemoryDiagnoser]
public class Coordinating
{
    private const int People = 200;

    private const int Layers = 30;

    private const int Events = 100_000;

    private static readonly GroupId Group = new(new Guid(3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));

    private static readonly Window Weeks = Mix.Window(28);

    private static readonly CoverNeed Need = CoverNeed.OnWorkingDays(People / 2);

    private static readonly HttpClient Client = new(new HttpClientHandler { CookieContainer = new CookieContainer() });

    private readonly List<PersonId> people =
    [
        DemoPeople.Ines.Id,
        .. Enumerable
            .Range(1, People - 1)
            .Select(number => new PersonId(new Guid(number, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0))),
    ];
    private string? token;
    private string folder = string.Empty;
    private WebApplication app = null!;
    private IReadOnlyList<CountedCalendar> calendars = [];
    private Dictionary<PersonId, DateTimeZone> zones = [];
    private UsualHours hours = null!;

    [GlobalSetup]
    public async Task Fill()
    {
        folder = Directory.CreateTempSubdirectory("mortar-bench-").FullName;
        app = MortarHost.Build([
            "--urls",
            "http://127.0.0.1:0",
            $"--Mortar:Data={folder}",
            "--Mortar:Today=2026-03-09",
            "--Mortar:Demo=true",
            $"--Mortar:Web={Path.Combine(folder, "no-web")}",
            "--Logging:LogLevel:Default=Warning",
        ]);
        await MortarHost.Prepare(app, CancellationToken.None);
        await using (var scope = app.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
            await db.Write<bool>(
                Act.By(DemoPeople.Ines.Id),
                async () =>
                {
                    await Make(db);
                    return true;
                },
                CancellationToken.None
            );
        }

        await app.StartAsync();
        Client.BaseAddress = new Uri(app.Urls.First());
        await Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}", null);
        token = null; // that of somebody signed in is another
        await ReadForCore();
        if (CoverAlone() != await CoverOverHttp())
        {
            throw new InvalidOperationException("The two sides do not count the same cover.");
        }
    }

    [GlobalCleanup]
    public async Task Clear()
    {
        await app.StopAsync();
        await app.DisposeAsync();
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    [Benchmark]
    public async Task<int> GapsOverHttp()
    {
        using var answer = await Post(
            "/api/gaps",
            new
            {
                required = people.Take(8).Select(one => one.Value),
                optional = people.Skip(8).Select(one => one.Value),
                places = Array.Empty<Guid>(),
                from = "2026-03-09",
                to = "2026-04-05",
                minutes = 60,
                hours = "kept",
                group = Group.Value,
            }
        );
        return answer.RootElement.GetProperty("gaps").GetArrayLength();
    }

    [Benchmark]
    public int GapsAlone()
    {
        var takenTimes = Claimed();
        return Gaps.Find(
            new GapQuestion(
                [
                    .. people.Select(
                        (one, number) =>
                            new Invitee(
                                Participant.Of(one),
                                number < 8 ? Core.Availability.Need.Required : Core.Availability.Need.Optional,
                                Busy(takenTimes, one),
                                hours
                            )
                    ),
                ],
                Weeks.Span,
                Duration.FromHours(1)
            )
            {
                Hours = HoursWish.Kept,
            }
        ).Length;
    }

    [Benchmark]
    public async Task<int> ClashesOverHttp() =>
        (await Client.GetFromJsonAsync<JsonElement>("/api/clashes?from=2026-03-09&to=2026-04-05"))
            .GetProperty("clashes")
            .GetArrayLength();

    [Benchmark]
    public int ClashesAlone() => Clashes.Among(TakenTimes.In(calendars, Weeks, zones, Mix.Clock)).Told.Length;

    [Benchmark]
    public async Task<int> CoverOverHttp() =>
        (await Client.GetFromJsonAsync<JsonElement>($"/api/groups/{Group.Value}/cover?from=2026-03-09&to=2026-04-05"))
            .GetProperty("days")
            .EnumerateArray()
            .Sum(day => day.GetProperty("missing").GetArrayLength());

    [Benchmark]
    public int CoverAlone()
    {
        var takenTimes = Claimed();
        return Cover
            .Every(Weeks, Need, people.Select(one => new CoverPerson(one, Busy(takenTimes, one), hours)))
            .Sum(day => day.Missing.Length);
    }

    private ILookup<Participant, TakenTime> Claimed() =>
        TakenTimes.In(calendars, Weeks, zones, Mix.Clock).ToLookup(takenTime => takenTime.Who);

    private static BusyTime Busy(ILookup<Participant, TakenTime> takenTimes, PersonId person) =>
        BusyTime.Of(
            Weeks.Span,
            takenTimes[Participant.Of(person)].Select(takenTime => (takenTime.Occurrence.Span, takenTime.How))
        );

    private async Task<JsonDocument> Post(string path, object? body)
    {
        token ??= await Token();
        using var request = new HttpRequestMessage(HttpMethod.Post, path)
        {
            Content = body is null ? null : JsonContent.Create(body),
        };
        request.Headers.Add("X-Antiforgery", token);
        using var response = await Client.SendAsync(request);
        response.EnsureSuccessStatusCode();
        var text = await response.Content.ReadAsStringAsync();
        return JsonDocument.Parse(text.Length > 0 ? text : "{}");
    }

    private static async Task<string?> Token()
    {
        using var session = JsonDocument.Parse(await Client.GetStringAsync("/api/session"));
        return session.RootElement.GetProperty("antiforgeryToken").GetString();
    }

    private async Task ReadForCore()
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var rows = db.Calendars.Where(row => row.GroupId == Group).ToList();
        var counted = new List<CountedCalendar>();
        foreach (var row in rows)
        {
            var events = await db.EventsTouching([row.Id], Weeks, CancellationToken.None);
            counted.Add(
                new CountedCalendar(row.Id, row.Purpose, row.Takes, [.. people], [.. events.Select(CountedEvent.Of)])
            );
        }

        calendars = counted;
        var london = DateTimeZoneProviders.Tzdb[DemoPeople.Home];
        zones = people.ToDictionary(one => one, _ => london);
        var preferences = PersonPreferences.In(DemoPeople.Home);
        hours = UsualHours.On(
            london,
            new DayHours(preferences.DayBegins, preferences.DayEnds),
            SortRules.WeekOf(GroupSort.Staff)
        );
    }

    /// <summary>A group of 200, 30 calendars of which the last holds absences, and 100,000 events over seven years with one to three people named.</summary>
    private async Task Make(MortarDb db)
    {
        var group = new GroupRow
        {
            Id = Group,
            Name = "Large studio",
            Sort = GroupSort.Staff,
            Zone = DemoPeople.Home,
            FirstDay = IsoDayOfWeek.Monday,
        };
        group.Apply(group.ToSettings() with { Cover = [Need] });
        db.Groups.Add(group);
        foreach (var one in people)
        {
            if (one != DemoPeople.Ines.Id)
            {
                db.People.Add(
                    new PersonRow
                    {
                        Id = one,
                        Name = $"Member {one.Value}",
                        Zone = DemoPeople.Home,
                    }
                );
            }

            db.Members.Add(new MemberRow { GroupId = Group, PersonId = one });
        }

        var layers = Enumerable.Range(0, Layers).Select(number => Calendar(db, number)).ToList();
        await db.SaveChangesAsync();
        var draw = new Random(2026);
        for (var number = 0; number < Events; number++)
        {
            var isAway = number % Layers == Layers - 1;
            var day = new LocalDate(2020, 3, 2).PlusDays(draw.Next(7 * 365));
            var start = day.At(new LocalTime(8, 0)).PlusMinutes(15 * draw.Next(44));
            var row = new EventRow
            {
                Id = new EventId(Guid.CreateVersion7()),
                CalendarId = layers[number % Layers],
                Uid = number.ToString(CultureInfo.InvariantCulture),
                AddedBy = DemoPeople.Ines.Id,
            };
            row.Apply(
                isAway
                    ? EventTime.Days(day, day.PlusDays(draw.Next(5)))
                    : EventTime.InZone(start, start.PlusHours(1), DemoPeople.Home),
                EventContent.Blank with
                {
                    Title = $"Session {number}",
                    Attendees = Attendees.Of(
                        Enumerable.Range(0, isAway ? 1 : 1 + draw.Next(3)).Select(_ => people[draw.Next(People)])
                    ),
                },
                series: null,
                Mix.Clock
            );
            db.Events.Add(row);
            if (number % 1_000 == 999)
            {
                await db.SaveChangesAsync();
                db.ChangeTracker.Clear();
            }
        }
    }

    private static CalendarId Calendar(MortarDb db, int number)
    {
        var id = new CalendarId(Guid.CreateVersion7());
        db.Calendars.Add(
            new CalendarRow
            {
                Id = id,
                GroupId = Group,
                Name = $"Layer {number}",
                Description = string.Empty,
                Hue = Hue.Lake,
                Mark = Mark.Drop,
                Zone = DemoPeople.Home,
                Purpose = number == Layers - 1 ? Purpose.Away : Purpose.Events,
                GroupDefault = Role.None,
            }
        );
        db.Grants.Add(
            new GrantRow
            {
                Id = Guid.NewGuid(),
                CalendarId = id,
                PersonId = DemoPeople.Ines.Id,
                Role = Role.Edit,
            }
        );
        return id;
    }
}
