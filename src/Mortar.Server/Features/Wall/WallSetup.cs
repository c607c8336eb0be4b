using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Availability;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Roster;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>
/// GET /api/wall: everything on the layers of one's wall between two days, on one's own clock; with <c>as</c> what that
/// person sees of the calendars one coordinates.
/// </summary>
internal static class WallSetup
{
    /// <param name="Zone">The zone whose clock the bricks are on.</param>
    /// <param name="Bricks">All bricks of all layers, hidden ones too, so that showing a layer takes no time.</param>
    /// <param name="Texts">What is long on the bricks, by their number in it.</param>
    /// <param name="Clashes">What collides among those the reader sees whole.</param>
    /// <param name="MoreClashes">How many pairs of events collide beside those.</param>
    /// <param name="Version">Of when it is, sealed: what changed since is asked for by it. <c>null</c> where that cannot be asked for.</param>
    internal sealed record Body(
        LocalDate From,
        LocalDate To,
        string Zone,
        IReadOnlyList<BrickBody> Bricks,
        IReadOnlyList<BrickTexts> Texts,
        IReadOnlyList<ClashBody> Clashes,
        int MoreClashes,
        string? Version
    );

    /// <summary>One time at which two events take the same people or places.</summary>
    /// <param name="People">The people who are taken twice.</param>
    /// <param name="Places">The calendars of the places that are.</param>
    /// <param name="Hard">Whether both are settled.</param>
    internal sealed record ClashBody(
        Guid First,
        LocalDateTime? FirstOnly,
        Guid Second,
        LocalDateTime? SecondOnly,
        IReadOnlyList<Guid> People,
        IReadOnlyList<Guid> Places,
        bool Hard
    );

    public static void AddWall(this IServiceCollection services) =>
        services
            .AddScoped<WindowReader>()
            .AddScoped<LaidReading>()
            .AddScoped<RosterReading>()
            .AddScoped<WallChanges>()
            .AddSingleton<KeptWeeks>()
            .AddSingleton<KeptClashes>()
            .AddSingleton<WallSeal>();

    public static void MapWall(this RouteGroupBuilder api)
    {
        api.MapGet("/wall", Read).WithName("ReadWall");
        ReadWallChanges.Map(api);
        ReadRibbon.Map(api);
        FindEvents.Map(api);
        FindKnown.Map(api);
        ReadClashes.Map(api);
    }

    private static async Task<Results<Ok<Body>, StatusCodeHttpResult, ProblemHttpResult>> Read(
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        [FromQuery(Name = "as")] PersonId? whose,
        [FromQuery] GroupId? atRest,
        [FromHeader(Name = "If-None-Match")] string? known,
        HttpContext context,
        Acting acting,
        WindowReader wall,
        WallChanges changes,
        WallSeal seal,
        CancellationToken cancellationToken
    )
    {
        var (from, to) = (first.Value, last.Value);
        if (Ranges.WhyNot(from, to) is { } refusal)
        {
            return refusal;
        }

        WindowReading reading;
        string? version = null;
        if (whose is { } other)
        {
            reading = await wall.ReadAs(other, acting.Person, from, to, cancellationToken);
        }
        else if (atRest is { } group)
        {
            reading = await wall.ReadAtRest(acting.Person, group, from, to, cancellationToken);
        }
        else
        {
            var seen = await wall.See(acting.Person, cancellationToken);
            var days = seen.Days(from, to);
            if (
                known is not null
                && (await changes.Since(seal.Open(known.Trim('"')), seen, days, cancellationToken)).IsNothing
            )
            {
                return TypedResults.StatusCode(StatusCodes.Status304NotModified);
            }

            reading = await wall.Read(seen, days, _ => true, cancellationToken);
            version = seal.Close(seen.Version);
            context.Response.Headers.ETag = $"\"{version}\"";
        }

        var zone = reading.Window.Reader;
        var table = new BrickTable(zone);
        var bricks =
            from calendar in reading.Calendars
            from visible in reading.Visible(calendar)
            select table.Lay(calendar.Row.Id, visible);
        var clashes = reading.Clashes();
        return TypedResults.Ok(
            new Body(
                from,
                to,
                zone.Id,
                [.. bricks],
                table.Texts,
                [.. clashes.Told.SelectMany(Of)],
                clashes.More,
                version
            )
        );
    }

    internal static IEnumerable<ClashBody> Of(Clash clash) =>
        clash.Times.Select(time => new ClashBody(
            clash.First.Id.Value,
            time.FirstStart,
            clash.Second.Id.Value,
            time.SecondStart,
            [.. clash.Who.Where(who => !who.IsPlace).Select(who => who.Id)],
            [.. clash.Who.Where(who => who.IsPlace).Select(who => who.Id)],
            clash.Severity == Severity.Hard
        ));
}
