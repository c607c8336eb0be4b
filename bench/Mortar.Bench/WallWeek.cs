using System.Globalization;
using System.Text.Json;
using BenchmarkDotNet.Attributes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Bench;

/// <summary>A week of the wall out of 100,000 events on 30 layers, beside reading the same rows and writing them as JSON.</summary>
[MemoryDiagnoser]
public class WallWeek
{
    private const int Layers = 30;

    private const int Events = 100_000;

    private const int Series = 300;

    private static readonly PersonId Person = new(new Guid(1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));

    private readonly JsonSerializerOptions json = new(JsonSerializerDefaults.Web);
    private string folder = string.Empty;
    private ServiceProvider services = null!;

    [GlobalSetup]
    public async Task Fill()
    {
        folder = Directory.CreateTempSubdirectory("mortar-bench-").FullName;
        WireJson.Configure(json);
        var collection = new ServiceCollection();
        collection.AddLogging();
        collection.AddSingleton<IClock>(SystemClock.Instance);
        collection.AddSingleton(Mix.Clock);
        collection.AddMortarData(folder);
        collection.AddScoped<WindowReader>();
        services = collection.BuildServiceProvider();
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        await db.Database.MigrateAsync();
        db.People.Add(
            new PersonRow
            {
                Id = Person,
                Name = "Ines Varga",
                Zone = "Europe/London",
            }
        );
        await db.SaveChangesAsync();
        await db.Write<bool>(
            Act.By(Person),
            async () =>
            {
                await Make(db);
                return true;
            },
            CancellationToken.None
        );
    }

    [GlobalCleanup]
    public async Task Clear()
    {
        await services.DisposeAsync();
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>All that the wall's answer takes: who may see what, the occurrences, the clashes, and the answer as JSON.</summary>
    [Benchmark]
    public async Task<int> Wall()
    {
        await using var scope = services.CreateAsyncScope();
        var reading = await scope
            .ServiceProvider.GetRequiredService<WindowReader>()
            .Read(Person, Mix.Monday, Mix.Monday.PlusDays(6), CancellationToken.None);
        var zone = reading.Window.Reader;
        var table = new BrickTable(zone);
        var bricks = (
            from calendar in reading.Calendars
            from visible in reading.Visible(calendar)
            select table.Lay(calendar.Row.Id, visible)
        ).ToList();
        var clashes = reading.Clashes().Told.Length;
        return JsonSerializer
            .SerializeToUtf8Bytes(
                new
                {
                    bricks,
                    table.Texts,
                    clashes,
                },
                json
            )
            .Length;
    }

    /// <summary>The rows that the wall reads, as they are stored, written as JSON.</summary>
    [Benchmark(Baseline = true)]
    public int Raw()
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, StoreSetup.FileName)}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText =
            "SELECT Id, CalendarId, Uid, Title, Place, Notes, ShowAs, TimeForm, Start, End, Zone, Series, Attendees, Kind, Version"
            + " FROM Events WHERE DeletedAt IS NULL AND IndexEnd >= $from AND IndexStart < $to"
            + " AND CalendarId IN (SELECT Id FROM Calendars)";
        var span = Mix.Window(7).Span;
        command.Parameters.AddWithValue("$from", (span.Start - Duration.FromHours(16)).ToUnixTimeMilliseconds());
        command.Parameters.AddWithValue("$to", (span.End + Duration.FromHours(16)).ToUnixTimeMilliseconds());
        var rows = new List<Dictionary<string, object?>>();
        using var reader = command.ExecuteReader();
        while (reader.Read())
        {
            var row = new Dictionary<string, object?>(StringComparer.Ordinal);
            for (var i = 0; i < reader.FieldCount; i++)
            {
                row[reader.GetName(i)] = reader.IsDBNull(i) ? null : reader.GetValue(i);
            }

            rows.Add(row);
        }

        return JsonSerializer.SerializeToUtf8Bytes(rows, json).Length;
    }

    private static async Task Make(MortarDb db)
    {
        var group = new GroupId(new Guid(2, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
        db.Groups.Add(
            new GroupRow
            {
                Id = group,
                Name = "Studio team",
                Sort = GroupSort.Staff,
                Zone = "Europe/London",
                FirstDay = IsoDayOfWeek.Monday,
            }
        );
        db.Members.Add(new MemberRow { GroupId = group, PersonId = Person });
        var calendars = Enumerable.Range(0, Layers).Select(number => Calendar(db, group, number)).ToList();
        await db.SaveChangesAsync();
        var draw = new Random(2026);
        for (var number = 0; number < Events; number++)
        {
            var start = new LocalDateTime(2020, 3, 2, 8, 0)
                .PlusDays(number < Series ? number % 28 : draw.Next(7 * 365))
                .PlusMinutes(15 * draw.Next(44));
            var row = new EventRow
            {
                Id = new EventId(Guid.CreateVersion7()),
                CalendarId = calendars[number % Layers],
                Uid = number.ToString(CultureInfo.InvariantCulture),
                AddedBy = Person,
            };
            row.Apply(
                EventTime.InZone(start, start.PlusHours(1), "Europe/London"),
                EventContent.Blank with
                {
                    Title = $"Session {number}",
                    Place = "Wheel room",
                    Notes = "Eight wheels, bring an apron and a towel.",
                },
                number < Series ? Core.Events.Series.By(RecurrenceRule.Of("FREQ=WEEKLY;BYDAY=TU,TH")) : null,
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

    private static CalendarId Calendar(MortarDb db, GroupId group, int number)
    {
        var id = new CalendarId(Guid.CreateVersion7());
        db.Calendars.Add(
            new CalendarRow
            {
                Id = id,
                GroupId = group,
                Name = $"Layer {number}",
                Description = string.Empty,
                Hue = Hue.Lake,
                Mark = Mark.Drop,
                Zone = "Europe/London",
                Purpose = Purpose.Events,
                GroupDefault = Role.None,
            }
        );
        db.Grants.Add(
            new GrantRow
            {
                Id = Guid.NewGuid(),
                CalendarId = id,
                PersonId = Person,
                Role = Role.Edit,
            }
        );
        return id;
    }
}
