using Microsoft.AspNetCore.Http.Json;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Options;
using Mortar.Core.Letters;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Data.Events;
using Mortar.Data.Keeping;
using Mortar.Data.Store;
using Mortar.Server.Features.Absences;
using Mortar.Server.Features.Access;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Features.Answers;
using Mortar.Server.Features.Archives;
using Mortar.Server.Features.Availability;
using Mortar.Server.Features.Binned;
using Mortar.Server.Features.Calendars;
using Mortar.Server.Features.Demo;
using Mortar.Server.Features.Devices;
using Mortar.Server.Features.Events;
using Mortar.Server.Features.Feeds;
using Mortar.Server.Features.Groups;
using Mortar.Server.Features.History;
using Mortar.Server.Features.Imports;
using Mortar.Server.Features.Inbox;
using Mortar.Server.Features.Links;
using Mortar.Server.Features.Noticeboards;
using Mortar.Server.Features.Paper;
using Mortar.Server.Features.PostRoom;
using Mortar.Server.Features.Preferences;
using Mortar.Server.Features.Proposals;
using Mortar.Server.Features.Reminders;
using Mortar.Server.Features.Shelf;
using Mortar.Server.Features.Spreadsheets;
using Mortar.Server.Features.Undo;
using Mortar.Server.Features.Wall;
using Mortar.Server.Features.WebCalendars;
using Mortar.Server.Hosting.Health;
using Mortar.Server.Hosting.Telemetry;
using Mortar.Server.Live;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Puts Mortar together: a table of contents.</summary>
internal static class MortarHost
{
    /// <param name="args">The command line.</param>
    /// <param name="also">What takes the place of a part, as a clock that can be set.</param>
    public static WebApplication Build(string[] args, Action<IServiceCollection>? also = null)
    {
        // Settings lie beside the program, wherever it is started from.
        var builder = WebApplication.CreateBuilder(
            new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory }
        );
        builder
            .Services.AddOptions<MortarOptions>()
            .BindConfiguration(MortarOptions.Section)
            .ValidateDataAnnotations()
            .ValidateOnStart();
        var options =
            builder.Configuration.GetSection(MortarOptions.Section).Get<MortarOptions>() ?? new MortarOptions();
        var data = Path.GetFullPath(options.Data.Length > 0 ? options.Data : ".");
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);

        builder.Services.AddSingleton(services => services.GetRequiredService<IOptions<MortarOptions>>().Value);
        builder.Services.AddSingleton(options.ToClock());
        builder.Services.AddSingleton<IDateTimeZoneProvider>(new KnownZones(DateTimeZoneProviders.Tzdb));
        builder.Services.AddSingleton<ZoneClock>();
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddSingleton(services => new PublicLinks(PublicUrl(services)));
        builder.Services.AddExceptionHandler<StoreProblems>();
        builder.Services.AddProblemDetails(problems => problems.CustomizeProblemDetails = Problems.Explain);
        builder.Services.PostConfigure<JsonOptions>(json => WireJson.Configure(json.SerializerOptions));
        builder.Services.AddOpenApi(ApiDocument.Configure);
        builder.Services.AddHealth();
        builder.Services.AddTelemetry(options);
        builder.Services.AddMortarData(data);
        builder.Services.AddRateLimits(options);

        builder.Services.AddAccounts(options);
        builder.Services.AddGroups();
        builder.Services.AddCalendars();
        builder.Services.AddBin();
        builder.Services.AddShelf();
        builder.Services.AddAccess();
        builder.Services.AddLinks();
        builder.Services.AddNoticeboards();
        builder.Services.AddFeeds();
        builder.Services.AddDevices();
        builder.Services.AddSpreadsheets();
        builder.Services.AddPaper();
        builder.Services.AddArchives();
        builder.Services.AddScoped<CalendarFiles>();
        builder.Services.AddSingleton<ToldSince>().AddSingleton<KeptAnswers>().AddSingleton<FilesToGive>();
        builder.Services.AddEvents();
        builder.Services.AddScoped<EventView>();
        builder.Services.AddWall();
        builder.Services.AddAvailability();
        builder.Services.AddAbsences();
        builder.Services.AddPreferences();
        builder.Services.AddAnswers();
        builder.Services.AddProposals();
        builder.Services.AddReminders();
        builder.Services.AddImports();
        builder.Services.AddWebCalendars(options);
        builder.Services.AddUndo();
        builder.Services.AddHistory();
        builder.Services.AddInbox();
        builder.Services.AddPostRoom(options);
        builder.Services.AddDemo();
        builder.Services.AddScoped<Sweep>().AddHostedService<Sweeper>();
        builder
            .Services.AddSingleton<DailyBackups>()
            .AddHostedService(services => services.GetRequiredService<DailyBackups>());
        builder.Services.AddLive();

        // Why it does not start is said once, in a sentence (WhyNotStart); what ends of itself because of that is no news.
        var listens = false;
        builder.Logging.AddFilter(
            "Microsoft.Extensions.Hosting.Internal.Host",
            level => listens && level >= LogLevel.Warning
        );
        also?.Invoke(builder.Services);
        var app = builder.Build();
        app.Lifetime.ApplicationStarted.Register(() => listens = true);
        app.UseProxies(options);
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseNoticeboards();
        app.UseFeeds();
        app.UseDevices();
        app.UsePaper();
        app.UseSecurityHeaders(SecurityHeaders.Policy());
        var web = Path.GetFullPath(options.Web);
        var files = Directory.Exists(web) ? new PhysicalFileProvider(web) : null;
        if (files is not null)
        {
            app.UseWebFiles(files);
        }

        app.UseNoStore();
        app.UseAnswerSizes();
        app.UseOwnOriginForLive(options);
        app.UseRouting();
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseRateLimits();
        app.UseBodySizes();

        var api = app.MapGroup("/api")
            .RequireAuthorization()
            .AddEndpointFilter<RefusalFilter>()
            .AddEndpointFilter<AntiforgeryFilter>();
        api.MapAccounts();
        api.MapPreferences();
        api.MapGroups();
        api.MapShelf();
        api.MapSets();
        api.MapCalendars();
        api.MapBin();
        api.MapAccess();
        api.MapLinks();
        api.MapNoticeboards();
        api.MapFeeds();
        api.MapDevices();
        api.MapSpreadsheets();
        api.MapArchives();
        api.MapEvents();
        api.MapWall();
        api.MapAvailability();
        api.MapAbsences();
        api.MapAnswers();
        api.MapProposals();
        api.MapReminders();
        api.MapImports();
        api.MapWebCalendars();
        api.MapUndo();
        api.MapHistory();
        api.MapInbox();
        api.MapPostRoom();
        api.MapDemo();
        api.MapFallback(() => Problems.NotThere("page")).AllowAnonymous();
        StopMail.Map(app);
        app.MapLive();
        app.MapOpenApi();
        app.MapHealth();
        if (files is not null)
        {
            app.MapFallbackToFile(
                "index.html",
                new StaticFileOptions { FileProvider = files, OnPrepareResponse = WebFiles.PreparePage }
            );
        }

        return app;
    }

    /// <summary>Runs a Mortar until it is stopped.</summary>
    /// <returns>What the process answers: 0, and 1 where it could not start.</returns>
    public static async Task<int> Run(string[] args, TextWriter errors)
    {
        var data = string.Empty;
        try
        {
            await using var app = Build(args);
            data = Path.GetFullPath(app.Services.GetRequiredService<MortarOptions>().Data);
            if (await Prepare(app, CancellationToken.None) is { } backup)
            {
                Console.WriteLine($"  The store was brought to this release. As it was before: {backup}");
            }

            await app.StartAsync();
            await Greeting.Print(app, CancellationToken.None);
            await app.WaitForShutdownAsync();

            // The last connection that closes brings the log into the store: the next start finds one that was stopped in order.
            SqliteConnection.ClearAllPools();
            return 0;
        }
        catch (Exception bad) when (WhyNotStart.Sentence(bad, data) is { } sentence)
        {
            await errors.WriteLineAsync($"Mortar does not start. {sentence}");
            return 1;
        }
    }

    /// <summary>Brings the store to this release and, at the demo, furnishes it.</summary>
    /// <returns>The backup from before that, where there was something to bring.</returns>
    public static async Task<string?> Prepare(WebApplication app, CancellationToken cancellationToken)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var options = scope.ServiceProvider.GetRequiredService<MortarOptions>();
        var data = Path.GetFullPath(options.Data);
        Directory.CreateDirectory(data);
        InFront.KeepToOwner(data);
        app.Services.GetRequiredService<StoreLock>().Hold(data);
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        Aside.Clear(db);
        var backup = await StoreStart.Bring(db, data, options.LeaveOutLostWrites, cancellationToken);
        await EventIndex.Refresh(
            db,
            scope.ServiceProvider.GetRequiredService<ZoneClock>(),
            scope.ServiceProvider.GetRequiredService<IDateTimeZoneProvider>().VersionId,
            cancellationToken
        );
        if (options.Demo)
        {
            var unfinished = Path.Combine(data, StoreStart.UnfinishedDemo);
            await scope
                .ServiceProvider.GetRequiredService<DemoStudio>()
                .Furnish(
                    () => File.WriteAllText(unfinished, string.Empty),
                    () => app.Services.GetRequiredService<WebFetching>().Round(cancellationToken),
                    cancellationToken
                );
            File.Delete(unfinished);
        }

        return backup;
    }

    /// <summary>The address people use, as configured or as listened on.</summary>
    internal static string PublicUrl(IServiceProvider services)
    {
        var configured = services.GetRequiredService<MortarOptions>().PublicUrl.TrimEnd('/');
        return configured.Length > 0
            ? configured
            : services
                .GetRequiredService<Microsoft.AspNetCore.Hosting.Server.IServer>()
                .Features.Get<Microsoft.AspNetCore.Hosting.Server.Features.IServerAddressesFeature>()
                ?.Addresses.FirstOrDefault()
                ?? "http://localhost";
    }
}
