using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Links;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Links;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Links;

/// <summary>/api/links/{secret}: a calendar, or one event of it, read by its link; also without an account.</summary>
internal static class LinkWall
{
    /// <param name="Role">The step it shows to whoever opens it.</param>
    /// <param name="Taken">The step it gives to whoever puts the calendar on their wall; <c>null</c> for a link to one event.</param>
    /// <param name="Sentence">What that means.</param>
    /// <param name="EventDay">The day on which the one event is next, or was last; <c>null</c> for a calendar.</param>
    /// <param name="HasUsesLeft">Whether one more may put it on their wall.</param>
    /// <param name="MakesAccounts">Whether whoever has no account makes one here.</param>
    /// <param name="IsHere">Whether whoever is signed in has the calendar already.</param>
    internal sealed record Body(
        Guid CalendarId,
        string CalendarName,
        string GroupName,
        Hue Hue,
        Mark Mark,
        string Zone,
        Role Role,
        Role? Taken,
        string Sentence,
        LocalDate? EventDay,
        LocalDate? LastDay,
        bool HasUsesLeft,
        bool MakesAccounts,
        bool IsHere
    );

    /// <param name="Zone">The calendar's zone, on whose clock the bricks are.</param>
    /// <param name="Texts">What is long on the bricks, by their number in it.</param>
    /// <param name="People">The names of those who stand on the bricks.</param>
    internal sealed record ReadBody(
        LocalDate From,
        LocalDate To,
        string Zone,
        IReadOnlyList<BrickBody> Bricks,
        IReadOnlyList<BrickTexts> Texts,
        IReadOnlyList<NamedBody> People
    );

    internal sealed record NamedBody(Guid PersonId, string Name);

    internal static void Map(RouteGroupBuilder api)
    {
        var link = api.MapGroup("/links/{secret}");
        link.MapGet("/", Open).WithName("OpenLink").AllowAnonymous().RequireRateLimiting(RateLimits.Reading);
        link.MapGet("/wall", Read).WithName("ReadLink").AllowAnonymous().RequireRateLimiting(RateLimits.Reading);
        var asCoordinator = api.MapGroup("/calendars/{calendarId:guid}/links/{linkId:guid}");
        asCoordinator.MapGet("/", OpenAs).WithName("SeeAsLink");
        asCoordinator.MapGet("/wall", ReadAs).WithName("ReadAsLink");
        AccountAtLink.Map(link);
        link.MapPost("/use", Use).WithName("UseLink").RequireRateLimiting(RateLimits.Reading);
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Open(
        string secret,
        HttpContext context,
        MortarDb db,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        return await LinkCommands.BySecret(db, secret, cancellationToken) is { } link
            ? TypedResults.Ok(await Told(link, context, db, zones, clock, cancellationToken))
            : Problems.NotThere("link");
    }

    /// <summary>For a coordinator, who has the secret of no link: what who opens it is told.</summary>
    private static async Task<Results<Ok<Body>, ProblemHttpResult>> OpenAs(
        CalendarId calendarId,
        LinkId linkId,
        HttpContext context,
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    ) =>
        await LinkOf(acting.Person, calendarId, linkId, db, cancellationToken) is { } link
            ? TypedResults.Ok(await Told(link, context, db, zones, clock, cancellationToken))
            : Problems.NotThere("link");

    private static async Task<Body> Told(
        LinkRow link,
        HttpContext context,
        MortarDb db,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var row = await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == link.CalendarId, cancellationToken);
        var zone = zones.Zone(row.Zone);
        var terms = link.Terms();
        var day = link.EventId is { } id
            ? await NextDay(db, id, zone, clock.GetCurrentInstant().InZone(zone).Date, zones, cancellationToken)
            : null;
        var isHere =
            context.User.Identity is { IsAuthenticated: true }
            && (await db.StandingOf(context.User.Person(), row.Id, cancellationToken)).Role >= terms.Role;
        return new Body(
            row.Id.Value,
            row.Name,
            await db.Groups.Where(one => one.Id == row.GroupId).Select(one => one.Name).SingleAsync(cancellationToken),
            row.Hue,
            row.Mark,
            row.Zone,
            terms.ToRead(),
            link.EventId is null ? terms.Role : null,
            RoleSentence.ForReader(terms.Role, row.Name),
            day,
            terms.EndsAt is { } end ? AccessEnd.LastDay(end, zone) : null,
            terms.HasUsesLeft(link.Uses),
            terms.WhyNotMakeAccount(link.EventId is not null, madeToday: 0) is null,
            isHere
        );
    }

    private static async Task<Results<Ok<ReadBody>, ProblemHttpResult>> Read(
        string secret,
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var (from, to) = (first.Value, last.Value);
        if (Ranges.WhyNot(from, to) is { } refusal)
        {
            return refusal;
        }

        return await LinkCommands.BySecret(db, secret, cancellationToken) is { } link
            ? TypedResults.Ok(await ReadBy(link, from, to, db, zones, cancellationToken))
            : Problems.NotThere("link");
    }

    /// <summary>For a coordinator: what is to be read by a link, by the same path as for who opens it.</summary>
    private static async Task<Results<Ok<ReadBody>, ProblemHttpResult>> ReadAs(
        CalendarId calendarId,
        LinkId linkId,
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var (from, to) = (first.Value, last.Value);
        if (Ranges.WhyNot(from, to) is { } refusal)
        {
            return refusal;
        }

        return await LinkOf(acting.Person, calendarId, linkId, db, cancellationToken) is { } link
            ? TypedResults.Ok(await ReadBy(link, from, to, db, zones, cancellationToken))
            : Problems.NotThere("link");
    }

    private static async Task<LinkRow?> LinkOf(
        PersonId coordinator,
        CalendarId calendarId,
        LinkId linkId,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(coordinator, calendarId, cancellationToken)).Role;
        return AccessRules.ToCoordinate(role) == Verdict.Granted
            ? await db.LeadingLinks()
                .AsNoTracking()
                .FirstOrDefaultAsync(
                    link => link.Id == linkId && link.CalendarId == calendarId && link.EndedAt == null,
                    cancellationToken
                )
            : null;
    }

    private static async Task<ReadBody> ReadBy(
        LinkRow link,
        LocalDate from,
        LocalDate to,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var row = await db.Calendars.AsNoTracking().SingleAsync(one => one.Id == link.CalendarId, cancellationToken);
        var window = new Window(from, to, zones.Zone(row.Zone));
        var events = (await db.EventsTouching([row.Id], window, cancellationToken)).Where(one =>
            link.EventId is not { } only || one.Id == only
        );
        var visible = VisibleEvent
            .Through(link.Terms().ToRead(), PersonId.Nobody, events.SelectMany(one => one.Shown(window, zones)), window)
            .ToList();
        var named = visible.OfType<VisibleEvent.Shown>().SelectMany(one => one.Attendees).Distinct().ToList();
        var people = await db
            .People.Where(one => named.Contains(one.Id))
            .OrderBy(one => one.Name)
            .Select(one => new NamedBody(one.Id.Value, one.Name))
            .ToListAsync(cancellationToken);
        var table = new BrickTable(window.Reader);
        return new ReadBody(
            from,
            to,
            row.Zone,
            [.. visible.Select(one => table.Lay(row.Id, one))],
            table.Texts,
            people
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Use(
        string secret,
        Acting acting,
        LinkCommands links,
        CancellationToken cancellationToken
    ) => links.Use(acting.Act, secret, cancellationToken).Answer();

    private static async Task<LocalDate?> NextDay(
        MortarDb db,
        EventId id,
        DateTimeZone zone,
        LocalDate today,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (
            await db
                .Events.AsNoTracking()
                .FirstOrDefaultAsync(one => one.Id == id && one.DeletedAt == null, cancellationToken)
            is not { } row
        )
        {
            return null;
        }

        var whole = row.ToCore();
        var ahead = whole.Occurrences(new Window(today, today.PlusDays(Window.LongestDays - 1), zone), zones);
        return (ahead.Select(one => one.SeenIn(zone)).FirstOrDefault() ?? whole.Time).LocalStart.Date;
    }
}
