using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;

namespace Mortar.Bench.AtWork;

/// <summary>
/// Two hundred people at ordinary work against the limits: nobody may meet one. They are asked by mail, make their accounts
/// behind one address of the network, keep the live line open, and then do in minutes what fills an hour.
/// </summary>
internal static partial class TwoHundred
{
    private const int People = 200;
    private const int OfATeam = 20;
    private const int Rounds = 30;

    /// <returns>0 where nobody met a limit or a failure.</returns>
    public static async Task<int> Run()
    {
        var notes = new ConcurrentBag<Told>();
        await using var mortar = await RunningMortar.Start();
        await using var ines = new Client(mortar.Url, notes);
        await SignIn(ines, "Ines");
        var teams = new List<(Guid Group, Guid Calendar)>();
        for (var team = 0; team < People / OfATeam; team++)
        {
            teams.Add(await MakeTeam(ines, team));
        }

        var tokens = await Invitations(ines);
        Console.WriteLine($"{tokens.Count} people are asked; they make their accounts");
        var people = new List<Client>();
        foreach (var minute in tokens.Chunk(90))
        {
            var pause = Task.Delay(TimeSpan.FromMinutes(1));
            foreach (var several in minute.Chunk(4))
            {
                people.AddRange(await Task.WhenAll(several.Select(one => Join(mortar.Url, one.Token, notes))));
            }

            await pause;
        }

        var joined = notes.Count;
        Console.WriteLine("They work");
        await Task.WhenAll(people.Select((one, at) => Work(one, new Random(at))));
        Console.WriteLine(
            $"{people.Count} people; {joined} requests until all were in, {notes.Count - joined} at work; {mortar.PeakMemory} MB at most"
        );
        foreach (var same in notes.GroupBy(note => note.What).OrderByDescending(same => same.Count()))
        {
            var took = same.Select(note => note.Took.TotalMilliseconds).Order().ToList();
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{same.Key, -22} {took.Count, 6}  half within {took[took.Count / 2], 5:0} ms, 99 of 100 within {took[took.Count * 99 / 100], 5:0} ms, all within {took[^1], 5:0} ms"
                )
            );
        }

        var bad = notes.Where(note => note.Status >= 400).GroupBy(note => (note.What, note.Status)).ToList();
        foreach (var same in bad)
        {
            Console.WriteLine($"{same.Count()} × {same.Key.Status} for {same.Key.What}: {same.First().Text}");
        }

        foreach (var one in people)
        {
            await one.DisposeAsync();
        }

        Console.WriteLine(bad.Count == 0 ? "Nobody met a limit." : "Somebody met a limit.");
        return people.Count == People && bad.Count == 0 ? 0 : 1;
    }

    /// <summary>Signs in as one of the demo people, by the beginning of their name.</summary>
    internal static async Task SignIn(Client client, string name)
    {
        await client.Session();
        var people = (await client.Get("demo/people")).Body.EnumerateArray();
        var id = people
            .First(one => one.GetProperty("name").GetString()!.StartsWith(name, StringComparison.Ordinal))
            .GetProperty("personId")
            .GetGuid();
        await client.Post($"demo/session/{id}");
        await client.Session();
    }

    internal static async Task<Guid> MakeCalendar(
        Client ines,
        Guid group,
        string name,
        string groupDefault = "edit",
        string purpose = "events"
    )
    {
        var id = Guid.CreateVersion7();
        await ines.Put(
            $"calendars/{id}",
            new
            {
                groupId = group,
                name,
                description = string.Empty,
                hue = "lake",
                mark = "drop",
                zone = "Europe/London",
                purpose,
                groupDefault,
                oneAtATime = purpose == "place",
            }
        );
        return id;
    }

    internal static async Task<Guid> MakeGroup(Client ines, string name)
    {
        var id = Guid.CreateVersion7();
        await ines.Put(
            $"groups/{id}",
            new
            {
                name,
                sort = "staff",
                zone = "Europe/London",
                firstDay = "monday",
            }
        );
        return id;
    }

    internal static object Event(
        Guid calendar,
        string title,
        DateTime start,
        int minutes = 60,
        string? rule = null,
        Guid[]? attendees = null
    ) =>
        new
        {
            calendarId = calendar,
            title,
            place = "Glaze room",
            notes = "Bring the tiles of last month.",
            showAs = "busy",
            time = new
            {
                form = "clock",
                start = start.ToString("s", CultureInfo.InvariantCulture),
                end = start.AddMinutes(minutes).ToString("s", CultureInfo.InvariantCulture),
                zone = "Europe/London",
            },
            rule,
            attendees = attendees ?? [],
        };

    private static async Task<(Guid Group, Guid Calendar)> MakeTeam(Client ines, int team)
    {
        var group = await MakeGroup(ines, $"Team {team}");
        var calendar = await MakeCalendar(ines, group, $"Plan {team}");
        await ines.Put(
            $"groups/{group}/members",
            new
            {
                people = Enumerable
                    .Range(team * OfATeam, OfATeam)
                    .Select(n => new
                    {
                        id = Guid.CreateVersion7(),
                        name = $"Potter {n}",
                        address = $"potter{n}@example.org",
                    }),
            }
        );
        return (group, calendar);
    }

    /// <summary>The mails with a link to join, once all have gone out.</summary>
    internal static async Task<List<(string To, string Token)>> Invitations(Client ines)
    {
        while (true)
        {
            var mails = (await ines.Get("post-room")).Body.EnumerateArray();
            var tokens = mails
                .Select(mail =>
                    (
                        To: mail.GetProperty("to").GetString()!,
                        Token: Joining().Match(mail.GetProperty("text").GetString()!)
                    )
                )
                .Where(mail => mail.Token.Success && mail.To.StartsWith("potter", StringComparison.Ordinal))
                .Select(mail => (mail.To, mail.Token.Groups["token"].Value))
                .Distinct()
                .ToList();
            if (tokens.Count >= People)
            {
                return tokens;
            }

            await Task.Delay(500);
        }
    }

    internal static async Task<Client> Join(Uri url, string token, ConcurrentBag<Told> notes, IPAddress? from = null)
    {
        var one = new Client(url, notes, from);
        await one.Session();
        await one.Get($"joining/{token}");
        await one.Post(
            $"joining/{token}/account",
            new
            {
                name = "A potter",
                password = "clay keeps what you press",
                zone = "Europe/London",
            }
        );
        await one.Session();
        return one;
    }

    /// <summary>Opens the wall, looks about, plans, moves, looks for times and people; as fast as nobody does.</summary>
    private static async Task Work(Client one, Random random)
    {
        var monday = new DateTime(2026, 3, 9, 0, 0, 0, DateTimeKind.Unspecified);
        await one.Listen(() => one.Get(Wall(0)));
        await Task.WhenAll(
            new[] { "shelf", "groups", "sets", "inbox", "reminders", "ribbon?from=2026-03-09&weeks=6", Wall(0) }.Select(
                path => one.Get(path)
            )
        );
        var groups = (await one.Get("groups"))
            .Body.EnumerateArray()
            .Select(group => group.GetProperty("id").GetGuid())
            .ToList();
        var calendar = (await one.Get("shelf")).Body[0].GetProperty("calendarId").GetGuid();
        var members = (await one.Get($"groups/{groups[0]}/members"))
            .Body.EnumerateArray()
            .Select(member => member.GetProperty("personId").GetGuid())
            .ToArray();
        for (var round = 0; round < Rounds; round++)
        {
            await Task.Delay(random.Next(1_000, 5_000));
            switch (random.Next(10))
            {
                case 0:
                    var (id, set) = (Guid.CreateVersion7(), Guid.NewGuid());
                    var start = monday.AddDays(random.Next(28)).AddMinutes(540 + (random.Next(32) * 15));
                    await one.Put(
                        $"events/{id}",
                        Event(calendar, "Glazing", start, attendees: [members[random.Next(members.Length)]]),
                        set
                    );
                    await one.Put($"events/{id}", Event(calendar, "Glazing", start.AddHours(1)), version: 1, set: set);
                    if (random.Next(3) == 0)
                    {
                        await one.Post($"changes/{set}/undo");
                    }

                    break;
                case 1:
                    await one.Get("find?from=2026-03-01&to=2026-06-30&words=glaz");
                    break;
                case 2:
                    await one.Post(
                        "gaps",
                        new
                        {
                            required = members.Take(4),
                            optional = Array.Empty<Guid>(),
                            places = Array.Empty<Guid>(),
                            from = "2026-03-11",
                            to = "2026-03-24",
                            minutes = 60,
                            hours = "preferred",
                            group = groups[0],
                        }
                    );
                    break;
                case 3:
                    await one.Get("inbox");
                    break;
                default:
                    await one.Get(Wall(random.Next(8)));
                    break;
            }
        }

        string Wall(int week) =>
            string.Create(
                CultureInfo.InvariantCulture,
                $"wall?from={monday.AddDays(week * 7):yyyy-MM-dd}&to={monday.AddDays((week * 7) + 6):yyyy-MM-dd}"
            );
    }

    [GeneratedRegex("/join/(?<token>[A-Za-z0-9]+)", RegexOptions.ExplicitCapture, matchTimeoutMilliseconds: 1_000)]
    private static partial Regex Joining();
}
