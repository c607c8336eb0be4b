using System.Collections.Concurrent;
using Mortar.Core.Time;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Data.WebCalendars;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>Fetches every half a minute what is due, and brings what came into the calendars that come from it.</summary>
internal sealed class WebFetching(
    IServiceScopeFactory scopes,
    WebFetcher fetcher,
    IClock clock,
    TimeProvider time,
    IHostApplicationLifetime lifetime,
    ILogger<WebFetching> log
) : EveryHalfMinute(scopes, time, log)
{
    /// <summary>How many addresses are asked in one round.</summary>
    private const int MostInRound = 100;

    /// <summary>How many of them at a time: a slow one must not hold the others.</summary>
    private const int MostAtOnce = 8;

    private readonly IServiceScopeFactory scopes = scopes;

    /// <summary>Those being fetched: whoever asks for one of them meanwhile waits for the same.</summary>
    private readonly ConcurrentDictionary<Guid, Lazy<Task>> underway = new();

    /// <summary>Mortar ends: whatever is being fetched is let go.</summary>
    private readonly CancellationToken ending = lifetime.ApplicationStopping;

    protected override string Work => "Fetching calendars of the web";

    protected override Task Do(IServiceProvider services, CancellationToken cancellationToken) =>
        Round(cancellationToken);

    /// <summary>Fetches all that is due, and takes over what was fetched before a stop.</summary>
    public async Task Round(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        foreach (var source in await db.UnfinishedWebSources(cancellationToken))
        {
            await TakeOver(source, cancellationToken);
        }

        var due = await db.DueWebSources(clock.GetCurrentInstant(), MostInRound, cancellationToken);
        await Parallel.ForEachAsync(
            due,
            new ParallelOptions { MaxDegreeOfParallelism = MostAtOnce, CancellationToken = cancellationToken },
            async (source, stop) =>
            {
                try
                {
                    await Fetch(source, stop);
                }
                catch (Exception bad) when (bad is not OperationCanceledException)
                {
                    // One that goes wrong here must not hold the others up; it is due still.
                    log.LogError(bad, "Source {Source} could not be taken over", source.Id);
                }
            }
        );
    }

    /// <summary>Fetches one now; once, however many ask, and also where who asked does not wait for it.</summary>
    public Task Fetch(WebSourceRow source, CancellationToken cancellationToken) =>
        underway
            .GetOrAdd(source.Id, _ => new Lazy<Task>(() => Task.Run(() => OneAtATime(source), ending)))
            .Value.WaitAsync(cancellationToken);

    private async Task OneAtATime(WebSourceRow source)
    {
        try
        {
            await One(source, ending);
        }
        finally
        {
            underway.TryRemove(source.Id, out _);
        }
    }

    /// <summary>Brings what was fetched last into the calendars that have not got it.</summary>
    /// <param name="source">From where.</param>
    /// <param name="cancellationToken">Stops it.</param>
    /// <param name="before">The digest of the file before; <c>null</c> where there was none.</param>
    /// <returns>
    /// How many events of the file before are others in this one, or gone. What a calendar lost that came from somewhere else
    /// before is no fault of this address.
    /// </returns>
    public async Task<int> TakeOver(Guid source, CancellationToken cancellationToken, string? before = null)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var db = services.GetRequiredService<MortarDb>();
        var stale = await db.StaleWebCalendars(source, cancellationToken);
        if (stale.Count == 0 || await db.WebFileOf(source, cancellationToken) is not { } file)
        {
            return 0;
        }

        var bytes = WebFetcher.Unpacked(file.Packed);
        var lost = 0;
        foreach (var sameZone in stale.GroupBy(calendar => calendar.Zone))
        {
            // Days and hours that name no zone are those of the calendar.
            if (
                CalendarFile.Read(bytes, sameZone.Key, services.GetRequiredService<ZoneClock>())
                is not CalendarFileReading.Understood read
            )
            {
                continue;
            }

            var events = Events(read);
            foreach (var calendar in sameZone)
            {
                var changes = await TakeOver(calendar.Id, events, file.Digest, cancellationToken);
                if (before is not null && calendar.Applied == before)
                {
                    lost = Math.Max(lost, changes?.Lost ?? 0);
                }
            }
        }

        return lost;
    }

    private async Task<WebChanges?> TakeOver(
        CalendarId calendar,
        IReadOnlyList<EventToImport> events,
        string digest,
        CancellationToken cancellationToken
    )
    {
        await using var scope = scopes.CreateAsyncScope();
        var outcome = await scope
            .ServiceProvider.GetRequiredService<WebCalendarCommands>()
            .Apply(calendar, events, digest, cancellationToken);
        if (outcome is Outcome<WebChanges>.Done { Value: { Count: > 0 } changes })
        {
            log.LogInformation(
                "Calendar {Calendar} took over {Came} new, {Changed} changed and {Went} gone events",
                calendar.Value,
                changes.Came,
                changes.Changed,
                changes.Went
            );
            return changes;
        }

        return null;
    }

    private static List<EventToImport> Events(CalendarFileReading.Understood read) =>
        [.. read.Events.Select(one => new EventToImport(one.Uid, one.Time, one.Content, one.Series, one.Source))];

    private async Task One(WebSourceRow known, CancellationToken cancellationToken)
    {
        if (WebAddress.Check(known.Address) is not { IsFit: true, Value: { } address })
        {
            return;
        }

        var fetched = known.Digest is null
            ? await fetcher.Fetch(address, etag: null, lastModified: null, cancellationToken)
            : await fetcher.Fetch(address, known.ETag, known.LastModified, cancellationToken);
        await using (var scope = scopes.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<WebSourceCommands>()
                .TakeNote(known.Id, fetched.Came, cancellationToken);
        }

        if (fetched.Came is WebFetch.Failed failed)
        {
            // The sentence names the host, and never the address, in which a secret may be.
            log.LogWarning("Source {Source} could not be fetched: {Why}", known.Id, failed.Why);
        }

        var lost = await TakeOver(known.Id, cancellationToken, known.Digest);
        await using var after = scopes.CreateAsyncScope();
        await after.ServiceProvider.GetRequiredService<WebSourceCommands>().Rest(known.Id, lost, cancellationToken);
    }
}
