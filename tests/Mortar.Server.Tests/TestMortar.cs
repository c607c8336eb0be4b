using System.Globalization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using Mortar.Server.Features.Reminders;
using Mortar.Server.Hosting;
using Mortar.Server.StandIns;
using NodaTime;

namespace Mortar.Server.Tests;

/// <summary>A whole Mortar of a test's own: real HTTP on a free port, a real SQLite file, on the demo studio.</summary>
internal sealed class TestMortar : IAsyncDisposable
{
    public const string Today = "2026-03-11";

    private static readonly Lazy<Task<string>> Template = new(MakeTemplate);

    private readonly WebApplication host;
    private bool leavesData;

    private TestMortar(WebApplication host, string data) => (this.host, Data) = (host, data);

    public Uri Url => new(host.Urls.First());

    public IServiceProvider Services => host.Services;

    public string Data { get; }

    /// <summary>Starts one on a copy of the furnished studio; settings as <c>Name=value</c>.</summary>
    public static async Task<TestMortar> Start(params string[] settings)
    {
        return await Run(await Left(), ["Demo=true", .. settings]);
    }

    /// <summary>Starts one on a copy of the furnished studio, on a clock that the test sets.</summary>
    public static async Task<TestMortar> StartAt(SetClock clock, params string[] settings)
    {
        return await Run(await Left(), ["Demo=true", .. settings], services => services.AddSingleton<IClock>(clock));
    }

    /// <summary>Starts one on a copy of the furnished studio, with what takes the place of a part or watches it.</summary>
    public static async Task<TestMortar> StartWith(Action<IServiceCollection> also) =>
        await Run(await Left(), ["Demo=true"], also);

    /// <summary>Starts one on an empty folder, as for real use.</summary>
    public static Task<TestMortar> StartEmpty(params string[] settings) => Run(NewFolder(), settings);

    /// <summary>Starts one on a folder that is there already.</summary>
    public static Task<TestMortar> StartOn(string data, bool demo = true, params string[] settings) =>
        Run(data, [.. demo ? ["Demo=true"] : Array.Empty<string>(), .. settings]);

    /// <summary>A browser of its own, signed in as one of the demo people.</summary>
    public async Task<Browser> As(DemoPerson person)
    {
        var browser = new Browser(Url);
        (await browser.Post($"/api/demo/session/{person.Id.Value}")).Is(StatusCodes.Status204NoContent);
        return browser;
    }

    public Browser Anonymous() => new(Url);

    /// <summary>Runs something on the store in a scope of its own.</summary>
    public async Task<T> Store<T>(Func<MortarDb, Task<T>> ask)
    {
        await using var scope = host.Services.CreateAsyncScope();
        return await ask(scope.ServiceProvider.GetRequiredService<MortarDb>());
    }

    /// <summary>
    /// What a mail says, waiting or gone out: what has gone out is kept where it arrived and not in the store, since it holds
    /// links that open something.
    /// </summary>
    public async Task<string> TextOf(MailRow mail)
    {
        if (mail.Body.Length > 0)
        {
            return mail.Body;
        }

        var id = FormattableString.Invariant($"{mail.WrittenAt.ToUnixTimeMilliseconds()}.{mail.Id}@");
        var arrived = await World.Eventually(() =>
            Task.FromResult(
                Services
                    .GetRequiredService<PostRoom>()
                    .Arrived.FirstOrDefault(one => one.MessageId.StartsWith(id, StringComparison.Ordinal))
            )
        );
        return arrived.Text.ReplaceLineEndings("\n");
    }

    /// <summary>What stands behind a path in a mail: the secret of a link.</summary>
    public async Task<string> SecretIn(MailRow mail, string path) =>
        new([.. (await TextOf(mail)).Split(path)[1].TakeWhile(char.IsAsciiLetterOrDigit)]);

    /// <summary>The newest mail to an address that has a link of a kind.</summary>
    public async Task<MailRow> MailWith(string to, string path)
    {
        foreach (
            var mail in await Store(db =>
                db.Mails.AsNoTracking().Where(mail => mail.To == to).OrderByDescending(mail => mail.Id).ToListAsync()
            )
        )
        {
            if ((await TextOf(mail)).Contains(path, StringComparison.Ordinal))
            {
                return mail;
            }
        }

        throw new Xunit.Sdk.XunitException($"There is no mail to {to} with {path}.");
    }

    /// <summary>Puts somebody on a step of a calendar, or takes it away, without any invitation.</summary>
    public Task Give(CalendarId calendar, DemoPerson person, Role role) =>
        Store(db =>
            db.Write<GrantRow>(
                Act.By(DemoPeople.Ines.Id),
                async () =>
                {
                    var grant = await db.Grants.FirstOrDefaultAsync(row =>
                        row.CalendarId == calendar && row.PersonId == person.Id
                    );
                    if (grant is null)
                    {
                        grant = new GrantRow
                        {
                            Id = Guid.NewGuid(),
                            CalendarId = calendar,
                            PersonId = person.Id,
                            Role = role,
                        };
                        db.Grants.Add(grant);
                    }

                    grant.Role = role;
                    return grant;
                },
                CancellationToken.None
            )
        );

    /// <summary>Puts many events into a calendar, spread over the days and hours of the demo's week.</summary>
    public Task Fill(CalendarId calendar, int count, Guid? set = null) =>
        Store(db =>
            db.Write<int>(
                set is { } named ? new Act(DemoPeople.Ines.Id, new ChangeSetId(named)) : Act.By(DemoPeople.Ines.Id),
                () =>
                {
                    var clock = new ZoneClock(DateTimeZoneProviders.Tzdb);
                    for (var i = 0; i < count; i++)
                    {
                        var start = new LocalDateTime(2026, 3, 9, 8, 0).PlusDays(i % 7).PlusMinutes(i * 7 % 600);
                        var row = new EventRow
                        {
                            Id = new EventId(Guid.CreateVersion7()),
                            CalendarId = calendar,
                            Uid = i.ToString(CultureInfo.InvariantCulture),
                            AddedBy = DemoPeople.Ines.Id,
                        };
                        row.Apply(
                            EventTime.InZone(start, start.PlusMinutes(20), DemoPeople.Home),
                            EventContent.Blank with
                            {
                                Title = $"Celadon {i}",
                            },
                            series: null,
                            clock
                        );
                        db.Events.Add(row);
                    }

                    return Task.FromResult<Outcome<int>>(count);
                },
                CancellationToken.None
            )
        );

    /// <summary>Adds people without accounts to the Studio team.</summary>
    public Task AddMembers(int count) =>
        Store(db =>
            db.Write<int>(
                Act.By(DemoPeople.Ines.Id),
                () =>
                {
                    for (var i = 0; i < count; i++)
                    {
                        var one = new PersonRow
                        {
                            Id = new PersonId(Guid.NewGuid()),
                            Name = $"Member {i}",
                            Zone = DemoPeople.Home,
                        };
                        db.People.Add(one);
                        db.Members.Add(new MemberRow { GroupId = new GroupId(World.StudioTeam), PersonId = one.Id });
                    }

                    return Task.FromResult<Outcome<int>>(count);
                },
                CancellationToken.None
            )
        );

    /// <summary>
    /// Ends this one and starts another on what it left; <paramref name="meanwhile"/> is done to the store while nobody
    /// runs. A copy of files in use would be torn whenever the database is tidied just then.
    /// </summary>
    public async Task<TestMortar> Restart(Func<MortarDb, Task>? meanwhile = null)
    {
        leavesData = true;
        await DisposeAsync();
        if (meanwhile is not null)
        {
            await using var stopped = Build(Data, ["Demo=true"]);
            await using var scope = stopped.Services.CreateAsyncScope();
            await meanwhile(scope.ServiceProvider.GetRequiredService<MortarDb>());
        }

        return await StartOn(Data);
    }

    public async ValueTask DisposeAsync()
    {
        await host.StopAsync();
        await host.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        if (!leavesData)
        {
            Directory.Delete(Data, recursive: true);
        }
    }

    /// <summary>A folder with the furnished studio that nobody runs; to be deleted by the test.</summary>
    public static async Task<string> Left()
    {
        var data = NewFolder();
        foreach (var file in Directory.EnumerateFiles(await Template.Value))
        {
            File.Copy(file, Path.Combine(data, Path.GetFileName(file)));
        }

        return data;
    }

    private static string NewFolder() => Directory.CreateTempSubdirectory("mortar-test-").FullName;

    private static async Task<string> MakeTemplate()
    {
        var data = NewFolder();
        await using var app = Build(data, ["Demo=true"]);
        await MortarHost.Prepare(app, CancellationToken.None);
        await app.DisposeAsync();
        await using var connection = new Microsoft.Data.Sqlite.SqliteConnection(
            $"Data Source={Path.Combine(data, StoreSetup.FileName)};Pooling=False"
        );
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
        await command.ExecuteNonQueryAsync();
        return data;
    }

    private static async Task<TestMortar> Run(string data, string[] settings, Action<IServiceCollection>? also = null)
    {
        var app = Build(data, settings, also);
        await MortarHost.Prepare(app, CancellationToken.None);
        await app.StartAsync();
        return new TestMortar(app, data);
    }

    private static WebApplication Build(string data, string[] settings, Action<IServiceCollection>? also = null)
    {
        var usual = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["Data"] = data,
            ["Today"] = Today,
            ["SignInsPerMinute"] = 100_000.ToString(CultureInfo.InvariantCulture),
            ["Web"] = Path.Combine(data, "no-web"),
        };
        foreach (var setting in settings.Select(setting => setting.Split('=', 2)))
        {
            usual[setting[0]] = setting[1];
        }

        return MortarHost.Build(
            ["--urls", "http://127.0.0.1:0", .. usual.Select(setting => $"--Mortar:{setting.Key}={setting.Value}")],
            services =>
            {
                // It would write into the mails of a test that is slow, at some moment; tests have it written when they look.
                services.Remove(services.Single(one => one.ImplementationType == typeof(NoticeSender)));
                also?.Invoke(services);
            }
        );
    }
}

/// <summary>A clock that stands until it is set on.</summary>
internal sealed class SetClock : IClock
{
    public Instant Now { get; set; } = Instant.FromUtc(2026, 3, 11, 11, 12);

    public Instant GetCurrentInstant() => Now;
}
