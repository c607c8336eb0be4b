using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Data.Availability;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>
/// GET /api/clashes: what collides in some days and is one's own to resolve; /untold: what collides with what is not told.
/// POST /api/clashes/{key}/fine: it is fine as it is.
/// </summary>
internal static class ReadClashes
{
    private const int Most = 100;

    private const int MostPeople = 500;

    /// <param name="Clashes">The soonest first.</param>
    /// <param name="Texts">What is long on their bricks, by their number in it.</param>
    /// <param name="More">How many there are beside those.</param>
    internal sealed record Body(IReadOnlyList<ClashBody> Clashes, IReadOnlyList<BrickTexts> Texts, int More);

    /// <param name="Key">What names this time of it; another as soon as anything of it changes.</param>
    /// <param name="Start">When what they share begins, on the reader's clock.</param>
    /// <param name="People">Who is taken twice.</param>
    /// <param name="Places">The calendars of the places that are.</param>
    /// <param name="Hard">Whether both are settled.</param>
    /// <param name="MayMark">Whether the reader may mark it as fine: who may change one of the two.</param>
    /// <param name="Since">Whose change made it; <c>null</c> where it was the reader's own.</param>
    internal sealed record ClashBody(
        string Key,
        BrickBody.Event First,
        BrickBody.Event Second,
        LocalDateTime Start,
        LocalDateTime End,
        IReadOnlyList<Guid> People,
        IReadOnlyList<Guid> Places,
        bool Hard,
        bool MayMark,
        SinceBody? Since
    );

    /// <param name="By">Who made it.</param>
    /// <param name="Unseen">Whether that was since the reader last looked into the inbox.</param>
    internal sealed record SinceBody(string By, Instant At, bool Unseen);

    internal sealed record UntoldAnswer(IReadOnlyList<UntoldBody> Clashes, IReadOnlyList<BrickTexts> Texts);

    /// <param name="Key">What names it; another as soon as anything of it changes.</param>
    /// <param name="Start">When the person begins to be taken twice, on the reader's clock.</param>
    /// <param name="Person">Who is taken by the event and by what is not told.</param>
    /// <param name="Name">What they are called.</param>
    /// <param name="Hard">Whether both are settled.</param>
    internal sealed record UntoldBody(
        string Key,
        BrickBody.Event Event,
        LocalDateTime Start,
        LocalDateTime End,
        Guid Person,
        string Name,
        bool Hard
    );

    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/clashes", Handle).WithName(nameof(ReadClashes));
        api.MapGet("/clashes/untold", ReadUntold)
            .WithName("ReadUntoldClashes")
            .RequireRateLimiting(RateLimits.Searching);
        api.MapPost("/clashes/{key}/fine", MarkFine)
            .WithName("MarkClashFine")
            .RequireRateLimiting(RateLimits.Searching);
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        WindowReader wall,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var clashes = reading.Clashes(new ClashesOf(reading.Person, reading.RoleOn));
        var found = InTime(clashes).ToList();
        var told = found.Take(Most).ToList();
        var origins = await db.ClashOriginsOf(
            told.SelectMany(one => new[] { one.Clash.First, one.Clash.Second }),
            state => VisibleEvent.SeesEverything(reading.RoleOn(state.CalendarId), acting.Person, state),
            cancellationToken
        );
        var seen = await db
            .People.Where(row => row.Id == acting.Person)
            .Select(row => row.SeenChanges)
            .SingleAsync(cancellationToken);
        var table = new BrickTable(reading.Window.Reader);
        return TypedResults.Ok(
            new Body(
                [.. told.Select(one => Of(one.Clash, one.Time, reading, table, Since(one.Clash)))],
                table.Texts,
                found.Count - told.Count + clashes.More
            )
        );

        SinceBody? Since(Clash clash) =>
            ClashOrigin.Of(
                origins.GetValueOrDefault(clash.First.Id),
                origins.GetValueOrDefault(clash.Second.Id),
                acting.Person
            )
                is { } origin
                ? new SinceBody(origin.Name, origin.At, origin.Sequence > seen)
                : null;
    }

    /// <summary>Apart from the others, since the whole time of many people is read for it: asked for where it is looked at.</summary>
    private static async Task<Results<Ok<UntoldAnswer>, ProblemHttpResult>> ReadUntold(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        WindowReader wall,
        TimesReader times,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var (found, known) = await Untold(reading, times, cancellationToken);
        var zone = reading.Window.Reader;
        var table = new BrickTable(zone);
        return TypedResults.Ok(
            new UntoldAnswer(
                [
                    .. found.Select(one => new UntoldBody(
                        one.Key,
                        Brick(reading, table, one.Event, one.Start),
                        one.Span.Start.InZone(zone).LocalDateTime,
                        one.Span.End.InZone(zone).LocalDateTime,
                        one.Who.Id,
                        known[one.Who].Name,
                        one.Severity == Severity.Hard
                    )),
                ],
                table.Texts
            )
        );
    }

    /// <summary>What collides with what is not told, of the people named on events that the reader may change.</summary>
    private static async Task<(
        IReadOnlyList<UntoldClash> Found,
        IReadOnlyDictionary<Participant, KnownParticipant> Known
    )> Untold(WindowReading reading, TimesReader times, CancellationToken cancellationToken)
    {
        var whose = new ClashesOf(reading.Person, reading.RoleOn);
        var events = reading
            .Calendars.SelectMany(calendar => calendar.Events)
            .Select(one => one.Event)
            .Where(one => UntoldClashes.IsTheirs(one, whose))
            .GroupBy(one => one.Id)
            .ToDictionary(same => same.Key, same => same.First());
        var people = events
            .Values.SelectMany(one => one.Named)
            .Where(person => person != reading.Person)
            .Distinct()
            .OrderBy(person => person.Value)
            .Take(MostPeople)
            .Select(Participant.Of)
            .ToList();
        var window = reading.Window;
        var last = LocalDate.Min(window.Last, window.First.PlusDays(UntoldClashes.MostDays - 1));
        var known = (
            people.Count == 0
                ? []
                : await times.Read(
                    reading.Person,
                    people,
                    new Core.Time.Window(window.First, last, window.Reader),
                    new TimesScope(),
                    cancellationToken
                )
        ).ToDictionary(one => one.Who);
        var found = UntoldClashes.Among(
            known
                .Values.SelectMany(one => one.Seen)
                .Where(takenTime => events.ContainsKey(takenTime.Occurrence.Event.Id)),
            known.ToDictionary(one => one.Key, one => one.Value.Untold),
            whose,
            reading.Fine
        );
        return ([.. found.Select(one => one with { Event = events[one.Event.Id] })], known);
    }

    /// <param name="key">What names it.</param>
    /// <param name="from">A range in which it lies.</param>
    /// <param name="to">Its last day.</param>
    private static async Task<Results<NoContent, ProblemHttpResult>> MarkFine(
        string key,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        WindowReader wall,
        TimesReader times,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var asker = new ClashesOf(reading.Person, reading.RoleOn);
        var (clash, time) = InTime(reading.Clashes(asker)).FirstOrDefault(one => one.Clash.KeyOf(one.Time) == key);
        if (clash is not null)
        {
            return asker.MayMark(clash)
                ? await db.MarkFine(acting.Act, key, clash.First.CalendarId, time.Span.End, cancellationToken).Answer()
                : Verdict.Denied.WhyNot("calendar", "Edit").Problem()!;
        }

        return
            (await Untold(reading, times, cancellationToken)).Found.FirstOrDefault(one => one.Key == key) is { } untold
            ? await db.MarkFine(acting.Act, key, untold.Event.CalendarId, untold.Span.End, cancellationToken).Answer()
            : Problems.NotThere("clash");
    }

    private static IEnumerable<(Clash Clash, ClashTime Time)> InTime(ClashesFound clashes) =>
        from clash in clashes.Told
        from time in clash.Times
        orderby time.Span.Start
        select (clash, time);

    private static ClashBody Of(Clash clash, ClashTime time, WindowReading reading, BrickTable table, SinceBody? since)
    {
        var zone = reading.Window.Reader;
        var asker = new ClashesOf(reading.Person, reading.RoleOn);
        return new ClashBody(
            clash.KeyOf(time),
            Brick(reading, table, clash.First, time.FirstStart),
            Brick(reading, table, clash.Second, time.SecondStart),
            time.Span.Start.InZone(zone).LocalDateTime,
            time.Span.End.InZone(zone).LocalDateTime,
            [.. clash.Who.Where(who => !who.IsPlace).Select(who => who.Id)],
            [.. clash.Who.Where(who => who.IsPlace).Select(who => who.Id)],
            clash.Severity == Severity.Hard,
            asker.MayMark(clash),
            since
        );
    }

    /// <summary>A clash is made of what the reader sees whole, so each of its events shows.</summary>
    private static BrickBody.Event Brick(WindowReading reading, BrickTable table, Event whole, LocalDateTime? only) =>
        table.Lay(
            VisibleEvent.Show(
                reading.RoleOn(whole.CalendarId),
                reading.Person,
                whole.OccurrenceAt(only, reading.Clock, reading.Window.Reader)
                    ?? throw new InvalidOperationException("What clashes takes place."),
                reading.Window.Reader
            ) ?? throw new InvalidOperationException("What clashes is seen.")
        );
}
