using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Text;

namespace Mortar.Bench.AtWork;

/// <summary>A club of two hundred with thirty calendars of three thousand events, all of them on everybody's wall.</summary>
/// <param name="People">Everybody, signed in, each at an address of the network of their own.</param>
/// <param name="Calendars">The calendars; everybody may add to each.</param>
internal sealed record Club(IReadOnlyList<Client> People, IReadOnlyList<Guid> Calendars)
{
    public const int Size = 200;
    private const int Layers = 30;
    private const int EventsOfEach = 3_000;

    /// <summary>The first Monday of the year that the events lie in.</summary>
    public static readonly DateTime FirstMonday = new(2026, 1, 5, 0, 0, 0, DateTimeKind.Unspecified);

    public static async Task<Club> Make(RunningMortar mortar, ConcurrentBag<Told> notes)
    {
        await using var ines = new Client(mortar.Url, notes);
        await TwoHundred.SignIn(ines, "Ines");
        var group = await TwoHundred.MakeGroup(ines, "The club");
        await ines.Put(
            $"groups/{group}/members",
            new
            {
                people = Enumerable
                    .Range(0, Size)
                    .Select(n => new
                    {
                        id = Guid.CreateVersion7(),
                        name = $"Potter {n}",
                        address = $"potter{n}@example.org",
                    }),
            }
        );
        var calendars = new List<Guid>();
        for (var n = 0; n < Layers; n++)
        {
            var calendar = await TwoHundred.MakeCalendar(ines, group, $"Plan {n}");
            await Import(ines, calendar, n);
            calendars.Add(calendar);
        }

        var people = new List<Client>();
        foreach (var several in (await TwoHundred.Invitations(ines)).Index().Chunk(4))
        {
            people.AddRange(
                await Task.WhenAll(
                    several.Select(one => TwoHundred.Join(mortar.Url, one.Item.Token, notes, AddressOf(one.Index)))
                )
            );
        }

        return new Club(people, calendars);
    }

    private static IPAddress AddressOf(int person) => new([127, 0, 1, (byte)(person + 1)]);

    private static async Task Import(Client ines, Guid calendar, int number)
    {
        var random = new Random(number);
        var file = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bench\r\n");
        for (var n = 0; n < EventsOfEach; n++)
        {
            var start = FirstMonday.AddDays(random.Next(364)).AddMinutes((7 * 60) + (random.Next(52) * 15));
            file.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:plan-{number}-{n}\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/London:{start:yyyyMMdd'T'HHmmss}\r\nDURATION:PT{30 + (random.Next(6) * 15)}M\r\nSUMMARY:Glazing of batch {n}\r\nLOCATION:Glaze room\r\nDESCRIPTION:Cone six\\, slow cool. Look at the witness cones in the morning.\r\nEND:VEVENT\r\n"
            );
        }

        var path = $"calendars/{calendar}/imports/{Guid.NewGuid()}";
        await ines.Put(path, file.Append("END:VCALENDAR\r\n").ToString());
        await ines.Post($"{path}/write", new { known = "keep" });
        while ((await ines.Get(path)).Body.GetProperty("state").GetString() == "writing")
        {
            await Task.Delay(50);
        }
    }
}
