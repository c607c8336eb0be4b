using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>POST /api/gaps: when people and places are free together, the best times first; or what stands in the way.</summary>
/// <remarks>People whose whole time one may not know are named as such: what is told of them is what one sees anyway.</remarks>
internal static class FindGaps
{
    private const int MostTold = 200;

    /// <param name="Required">People who have to be there.</param>
    /// <param name="Optional">People who are welcome.</param>
    /// <param name="Places">Calendars of places that have to be free.</param>
    /// <param name="Any">So many of some people, whoever they are.</param>
    /// <param name="Group">The group whose week counts as usual.</param>
    /// <param name="From">The first day, on the reader's clock.</param>
    /// <param name="To">The last day.</param>
    /// <param name="Minutes">How long it is to be.</param>
    /// <param name="Before">Minutes that have to be free before it.</param>
    /// <param name="After">Minutes that have to be free after it.</param>
    internal sealed record Body(
        IReadOnlyList<Guid> Required,
        IReadOnlyList<Guid> Optional,
        IReadOnlyList<Guid> Places,
        LocalDate From,
        LocalDate To,
        int Minutes,
        HoursWish Hours,
        int Before = 0,
        int After = 0,
        AnyBody? Any = null,
        Guid? Group = null
    );

    internal sealed record AnyBody(int Count, IReadOnlyList<Guid> Among);

    /// <param name="People">All that were asked for and are known to the reader.</param>
    /// <param name="Gaps">The best first.</param>
    /// <param name="More">Whether there are more than are told.</param>
    /// <param name="LookedThrough">The last day that was looked through, where that is not all that was asked for: with so many people or choices it would take too long.</param>
    /// <param name="Why">Why there is none; <c>null</c> where there are.</param>
    internal sealed record Answer(
        IReadOnlyList<AskedBody> People,
        IReadOnlyList<GapBody> Gaps,
        bool More,
        LocalDate? LookedThrough,
        WhyBody? Why
    );

    /// <param name="Knowledge">Whether their whole time is known to the reader, or what lies on the reader's layers.</param>
    internal sealed record AskedBody(Guid Id, bool IsPlace, string Name, Knowledge Knowledge);

    /// <param name="Start">Where it begins, on the reader's clock.</param>
    /// <param name="Suggested">Where something of the wished length is best put.</param>
    /// <param name="InHours">Whether that is inside the usual hours of all who are free.</param>
    /// <param name="Missing">Those who are taken in it.</param>
    /// <param name="Any">Those of the pool who are free in it.</param>
    /// <param name="Unnamed">Those asked for who are not named on what is made in it; everybody else is, and is far more often.</param>
    /// <param name="Elsewhere">What the clock shows then for people elsewhere.</param>
    internal sealed record GapBody(
        LocalDateTime Start,
        LocalDateTime End,
        LocalDateTime Suggested,
        LocalDateTime SuggestedEnd,
        bool InHours,
        IReadOnlyList<Guid> Missing,
        IReadOnlyList<Guid> Any,
        IReadOnlyList<Guid> Unnamed,
        IReadOnlyList<ElsewhereBody> Elsewhere
    );

    internal sealed record ElsewhereBody(
        IReadOnlyList<Guid> People,
        string Zone,
        LocalDateTime Start,
        LocalDateTime End
    );

    /// <param name="Obstacles">Who is in the way, those first without whom there would be a gap.</param>
    /// <param name="LongestStart">Where the longest stretch in which all are free begins; <c>null</c> where there is none.</param>
    internal sealed record WhyBody(
        IReadOnlyList<ObstacleBody> Obstacles,
        LocalDateTime? LongestStart,
        LocalDateTime? LongestEnd
    );

    /// <param name="Minutes">How much of the range they are taken.</param>
    /// <param name="First">The first gap there would be without them.</param>
    internal sealed record ObstacleBody(Guid Id, int Minutes, LocalDateTime? First);

    public static void Map(RouteGroupBuilder api) =>
        api.MapPost("/gaps", Handle).WithName(nameof(FindGaps)).RequireRateLimiting(RateLimits.Searching);

    private static async Task<Results<Ok<Answer>, ProblemHttpResult>> Handle(
        Body body,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(body.From, body.To) is { } badRange)
        {
            return badRange;
        }

        var wish = new GapWish(
            body.Required.Count + body.Optional.Count + body.Places.Count + (body.Any?.Among.Count ?? 0),
            body.Minutes,
            body.Before,
            body.After,
            body.Any?.Count,
            body.Any?.Among.Distinct().Count() ?? 0
        );
        if (wish.Check().WhyNot.Problem() is { } unfit)
        {
            return unfit;
        }

        var window = new Window(body.From, body.To, await db.ZoneOf(acting.Person, zones, cancellationToken));
        var pool = (body.Any?.Among ?? []).Select(Person).Distinct().ToList();
        var needs = body
            .Required.Select(Person)
            .Concat(body.Places.Select(id => Participant.Of(new CalendarId(id))))
            .Select(who => (Who: who, Need: Need.Required))
            .Concat(body.Optional.Select(id => (Who: Person(id), Need: Need.Optional)))
            .DistinctBy(one => one.Who)
            .Where(one => !pool.Contains(one.Who))
            .ToList();
        var group = body.Group is { } named ? new GroupId(named) : (GroupId?)null;
        var known = await times.Read(
            acting.Person,
            [.. needs.Select(one => one.Who), .. pool],
            window,
            new TimesScope(group),
            cancellationToken
        );
        var byWho = known.ToDictionary(one => one.Who);
        var now = clock.GetCurrentInstant();
        if (now >= window.Span.End)
        {
            return Hosting.Problems.Unfit([new FieldProblem("to", "These days are over. Look in days to come.")]);
        }

        var invited = needs
            .Where(one => byWho.ContainsKey(one.Who))
            .Select(one => byWho[one.Who].Invited(one.Need))
            .ToList();
        var question = new GapQuestion(
            // With a pool there are people, whose hours it keeps to.
            pool.Count > 0
                ? invited
                : invited.InHoursOf(await times.HoursOf(acting.Person, group, cancellationToken)),
            new Interval(Instant.Max(window.Span.Start, now), window.Span.End),
            Duration.FromMinutes(body.Minutes)
        )
        {
            Hours = body.Hours,
            Before = Duration.FromMinutes(body.Before),
            After = Duration.FromMinutes(body.After),
        };
        var among = pool.Where(byWho.ContainsKey).Select(who => byWho[who].Invited(Need.Required)).ToList();
        if (body.Any is { } any && any.Count > among.Count)
        {
            return Hosting.Problems.Unfit([
                new FieldProblem(
                    "any",
                    $"You ask for {any.Count} of {among.Count} people. Name more, or ask for fewer."
                ),
            ]);
        }

        var asked = question.Within;
        question = question with
        {
            Within = GapReach.Of(
                asked,
                question.Invitees.Count + among.Count,
                body.Any is { } choice ? GapReach.Choices(among.Count, choice.Count) : 1
            ),
        };
        var gaps =
            body.Any is { } some && among.Count > 0
                ? GapPools.Find(question, new GapPool(among, some.Count), MostTold + 1, cancellationToken)
                : Gaps.Find(question);
        cancellationToken.ThrowIfCancellationRequested();
        return TypedResults.Ok(
            new Answer(
                [.. known.Select(one => new AskedBody(one.Who.Id, one.Who.IsPlace, one.Name, one.Time.Knowledge))],
                [.. gaps.Take(MostTold).Select(gap => Of(gap, question, body.Any?.Count ?? 0, window.Reader, known))],
                gaps.Length > MostTold,
                question.Within == asked ? null : question.Within.End.InZone(window.Reader).Date.PlusDays(-1),
                gaps.IsEmpty ? Of(WhyNoGap.Of(question), window.Reader) : null
            )
        );

        static Participant Person(Guid id) => Participant.Of(new PersonId(id));
    }

    private static GapBody Of(
        Gap gap,
        GapQuestion question,
        int ofPool,
        DateTimeZone zone,
        IReadOnlyList<KnownParticipant> known
    )
    {
        var suggested = gap.Suggested(question.Length);
        var named = gap.Named(question.Invitees, ofPool).ToHashSet();
        return new GapBody(
            Local(gap.Span.Start, zone),
            Local(gap.Span.End, zone),
            Local(suggested.Start, zone),
            Local(suggested.End, zone),
            gap.InHours is not null,
            [.. gap.Missing.Select(who => who.Id)],
            [.. gap.Any.Select(who => who.Id)],
            [.. known.Where(one => !one.Who.IsPlace && !named.Contains(one.Who)).Select(one => one.Who.Id)],
            [
                .. known
                    .Where(one => !one.Zone.Equals(zone) && named.Contains(one.Who))
                    .GroupBy(one => one.Zone)
                    .Select(there => new ElsewhereBody(
                        [.. there.Select(one => one.Who.Id)],
                        there.Key.Id,
                        Local(suggested.Start, there.Key),
                        Local(suggested.End, there.Key)
                    ))
                    // Zones that show the same are nothing to tell.
                    .Where(there => there.Start != Local(suggested.Start, zone)),
            ]
        );
    }

    private static WhyBody Of(WhyNoGap why, DateTimeZone zone) =>
        new(
            [
                .. why.Obstacles.Select(one => new ObstacleBody(
                    one.Who.Id,
                    (int)one.Taken.TotalMinutes,
                    one.First is { } first ? Local(first.Start, zone) : null
                )),
            ],
            why.Longest is { } from ? Local(from.Start, zone) : null,
            why.Longest is { } to ? Local(to.End, zone) : null
        );

    private static LocalDateTime Local(Instant instant, DateTimeZone zone) => instant.InZone(zone).LocalDateTime;
}
