using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Data.WebCalendars;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using Mortar.Server.StandIns;
using NodaTime;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>/api/web-calendars and /api/calendars/{id}/web: looking at a calendar of the web, making one of ours from it, fetching it now.</summary>
internal static class WebCalendarsSetup
{
    private const int MostFindings = 100;

    /// <param name="Address">Where the calendar is: https, http or webcal.</param>
    internal sealed record AddressBody(string Address);

    /// <summary>What is at an address.</summary>
    /// <param name="Host">Who gives it out.</param>
    /// <param name="Name">What it calls itself; <c>null</c> where it does not.</param>
    /// <param name="Description">What it says of itself; <c>null</c> where it does not.</param>
    /// <param name="Events">How many events, a series counted once.</param>
    /// <param name="Series">How many of them are series.</param>
    /// <param name="First">The first day; <c>null</c> where there are no events.</param>
    /// <param name="Last">The last day; <c>null</c> where something goes on for ever.</param>
    /// <param name="LeftOut">How many events cannot be taken.</param>
    /// <param name="Findings">What is not taken as it stands, at most 100.</param>
    /// <param name="EveryMinutes">How often it is fetched.</param>
    internal sealed record LookBody(
        string Host,
        string? Name,
        string? Description,
        int Events,
        int Series,
        LocalDate? First,
        LocalDate? Last,
        int LeftOut,
        IReadOnlyList<Finding> Findings,
        int FindingsInAll,
        int EveryMinutes
    );

    /// <param name="GroupId">The group it is made in.</param>
    internal sealed record MakeBody(
        string Address,
        Guid GroupId,
        string Name,
        Hue Hue,
        Mark Mark,
        string Zone,
        Role GroupDefault,
        string? Description = null,
        WhoseTime Takes = WhoseTime.Nobody,
        Guid? Person = null
    );

    /// <summary>How it is with a web calendar.</summary>
    /// <param name="Host">Who gives it out.</param>
    /// <param name="Url">The whole address, for whoever coordinates the calendar; <c>null</c> for others.</param>
    /// <param name="AsOf">When it was last known to be so; <c>null</c> where it was never fetched.</param>
    /// <param name="NextAt">When it is fetched again.</param>
    /// <param name="EveryMinutes">How often it is fetched where all is well.</param>
    /// <param name="FailingSince">Since when it cannot be; <c>null</c> where it can.</param>
    /// <param name="Problem">Why not.</param>
    internal sealed record StateBody(
        string Host,
        string? Url,
        Instant? AsOf,
        Instant NextAt,
        int EveryMinutes,
        Instant? FailingSince,
        string? Problem
    );

    public static void AddWebCalendars(this IServiceCollection services, MortarOptions options)
    {
        services
            .AddSingleton<IWebNames, WebNames>()
            .AddSingleton<WebHost>()
            .AddSingleton(provider =>
            {
                var inside = new WebInside(options);
                if (options.Demo)
                {
                    inside.Lead(WebHost.Name, provider.GetRequiredService<WebHost>().Open);
                }

                return inside;
            })
            .AddSingleton<WebLine>()
            .AddSingleton<WebFetcher>()
            .AddSingleton<WebFetching>()
            .AddHostedService(provider => provider.GetRequiredService<WebFetching>())
            .AddScoped<WebSourceCommands>()
            .AddScoped<WebCalendarCommands>();
    }

    public static void MapWebCalendars(this RouteGroupBuilder api)
    {
        api.MapPost("/web-calendars/look", Look).WithName("LookAtWebCalendar").RequireRateLimiting(RateLimits.Making);
        var web = api.MapGroup("/calendars/{calendarId:guid}/web");
        web.MapGet("/", Read).WithName("ReadWebCalendar");
        web.MapPut("/", Make).WithName("MakeWebCalendar").RequireRateLimiting(RateLimits.Making);
        web.MapPut("/address", Move).WithName("MoveWebCalendar").RequireRateLimiting(RateLimits.Making);
        web.MapPost("/fetch", FetchNow).WithName("FetchWebCalendar").RequireRateLimiting(RateLimits.Making);
    }

    private static async Task<Results<Ok<LookBody>, ProblemHttpResult>> Look(
        AddressBody body,
        WebFetcher fetcher,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var outcome = await Fetch(body.Address, fetcher, cancellationToken);
        if (outcome is not Outcome<AtAddress>.Done { Value: var (address, file, reading) })
        {
            return Problems.Of(outcome.WhyNot);
        }

        var summary = FileSummary.Of(reading, zones);
        return TypedResults.Ok(
            new LookBody(
                address.Host,
                reading.Name,
                reading.Description,
                summary.Events,
                summary.Series,
                summary.First,
                summary.Last,
                reading.LeftOut,
                [.. reading.Findings.Take(MostFindings)],
                reading.FindingsInAll,
                (int)FetchRhythm.Every(file.Every).TotalMinutes
            )
        );
    }

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> Make(
        CalendarId calendarId,
        MakeBody body,
        Acting acting,
        MortarDb db,
        WebFetcher fetcher,
        WebFetching fetching,
        WebCalendarCommands calendars,
        CancellationToken cancellationToken
    )
    {
        // Nothing is fetched for who could not make it.
        if (!await db.PlaceIn(new GroupId(body.GroupId), acting.Person).AnyAsync(cancellationToken))
        {
            return Problems.NotThere("group");
        }

        var outcome = await Fetch(body.Address, fetcher, cancellationToken);
        if (outcome is not Outcome<AtAddress>.Done { Value: var (address, file, _) })
        {
            return Problems.Of(outcome.WhyNot);
        }

        var made = await calendars.Create(
            acting.Act,
            calendarId,
            new GroupId(body.GroupId),
            new CalendarSettings(
                body.Name,
                body.Description ?? string.Empty,
                body.Hue,
                body.Mark,
                body.Zone,
                Purpose.Events,
                body.GroupDefault
            )
            {
                Takes = body.Takes,
                Person = body.Person is { } person ? new PersonId(person) : null,
            },
            address,
            file,
            cancellationToken
        );
        return made is not Outcome<CalendarRow>.Done
            ? Problems.Of(made.WhyNot)
            : await TakenOver(calendarId, acting.Person, db, fetching, cancellationToken);
    }

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> Move(
        CalendarId calendarId,
        AddressBody body,
        Acting acting,
        MortarDb db,
        WebFetcher fetcher,
        WebFetching fetching,
        WebCalendarCommands calendars,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        if (AccessRules.ToCoordinate(role).WhyNot("calendar", "Coordinate") is { } notYours)
        {
            return Problems.Of(notYours);
        }

        var outcome = await Fetch(body.Address, fetcher, cancellationToken);
        if (outcome is not Outcome<AtAddress>.Done { Value: var (address, file, _) })
        {
            return Problems.Of(outcome.WhyNot);
        }

        var moved = await calendars.Move(acting.Act, calendarId, address, file, cancellationToken);
        return moved is not Outcome<CalendarRow>.Done
            ? Problems.Of(moved.WhyNot)
            : await TakenOver(calendarId, acting.Person, db, fetching, cancellationToken);
    }

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> FetchNow(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        WebFetching fetching,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        if (AccessRules.ToExport(role).WhyNot("calendar", "View") is { } refusal)
        {
            return Problems.Of(refusal);
        }

        if (await db.WebSourceOf(calendarId, cancellationToken) is not { } source)
        {
            return Problems.NotThere("web calendar");
        }

        if (FetchRhythm.WhyNotNow(source.TriedAt, source.RestsUntil, clock.GetCurrentInstant()) is { } tooOften)
        {
            return Problems.Of(tooOften);
        }

        await fetching.Fetch(source, cancellationToken);
        return await State(calendarId, acting.Person, db, cancellationToken);
    }

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> Read(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    ) => await State(calendarId, acting.Person, db, cancellationToken);

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> TakenOver(
        CalendarId calendarId,
        PersonId person,
        MortarDb db,
        WebFetching fetching,
        CancellationToken cancellationToken
    )
    {
        if (await db.WebSourceOf(calendarId, cancellationToken) is { } source)
        {
            await fetching.TakeOver(source.Id, cancellationToken);
        }

        return await State(calendarId, person, db, cancellationToken);
    }

    private static async Task<Results<Ok<StateBody>, ProblemHttpResult>> State(
        CalendarId calendarId,
        PersonId person,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(person, calendarId, cancellationToken)).Role;
        // Who gives it out, and what came instead of it, is part of what is in the calendar.
        if (AccessRules.ToExport(role).WhyNot("calendar", "View") is { } refusal)
        {
            return Problems.Of(refusal);
        }

        if (
            await db.WebSourceOf(calendarId, cancellationToken) is not { } source
            || WebAddress.Check(source.Address).Value is not { } address
        )
        {
            return Problems.NotThere("web calendar");
        }

        return TypedResults.Ok(
            new StateBody(
                address.Host,
                AccessRules.ToCoordinate(role) == Verdict.Granted ? address.Value : null,
                source.AsOf,
                source.DueAt,
                source.EveryMinutes,
                source.FailingSince,
                source.Problem
            )
        );
    }

    private sealed record AtAddress(WebAddress Address, WebFetch.File File, CalendarFileReading.Understood Reading);

    /// <summary>What is at an address that somebody wrote; what is wrong is said of the field it is written in.</summary>
    private static async Task<Outcome<AtAddress>> Fetch(
        string written,
        WebFetcher fetcher,
        CancellationToken cancellationToken
    )
    {
        var check = WebAddress.Check(written);
        if (check.WhyNot is { } unfit)
        {
            return unfit;
        }

        var fetched = await fetcher.Fetch(check.Value!, etag: null, lastModified: null, cancellationToken);
        return fetched switch
        {
            { Came: WebFetch.File file, Reading: { } reading } => new AtAddress(check.Value!, file, reading),
            { Came: WebFetch.Failed failed } => new Refusal.Unfit("address", failed.Why),
            _ => new Refusal.Unfit("address", FetchProblem.Unreadable(check.Value!.Host)),
        };
    }
}
