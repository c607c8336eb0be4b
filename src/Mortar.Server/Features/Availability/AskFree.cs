using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>
/// POST /api/free: who of some people and places is free at a time, by what the others are taken as far as one may know,
/// and when it works for all of them.
/// </summary>
internal static class AskFree
{
    /// <summary>How far around the time others are looked for.</summary>
    private const int DaysAround = 14;

    /// <param name="Time">The time, on any clock; whole days are those of each one.</param>
    /// <param name="Except">An event that does not count: the one that is being written.</param>
    /// <param name="Group">The group whose week counts as usual.</param>
    internal sealed record Body(
        IReadOnlyList<Guid> People,
        IReadOnlyList<Guid> Places,
        TimeBody Time,
        Guid? Except = null,
        Guid? Group = null
    );

    /// <param name="Earlier">The last start before the time at which it works for all; <c>null</c> where there is none near.</param>
    /// <param name="Later">The first start after it.</param>
    internal sealed record Answer(IReadOnlyList<FreeBody> People, LocalDateTime? Earlier, LocalDateTime? Later);

    /// <param name="Knowledge">Whether their whole time is known to the reader.</param>
    /// <param name="By">What takes them, as far as the reader sees it; empty titles where it is only known that it does.</param>
    /// <param name="Earlier">The nearest start before at which they are free for as long.</param>
    /// <param name="Later">The nearest after.</param>
    /// <param name="Local">When it begins on their own clock; <c>null</c> where that shows the same.</param>
    internal sealed record FreeBody(
        Guid Id,
        bool IsPlace,
        string Name,
        Presence Presence,
        Knowledge Knowledge,
        IReadOnlyList<string> By,
        LocalDateTime? Earlier,
        LocalDateTime? Later,
        LocalDateTime? Local
    );

    public static void Map(RouteGroupBuilder api) =>
        api.MapPost("/free", Handle).WithName(nameof(AskFree)).RequireRateLimiting(RateLimits.Searching);

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
        if (!GapWish.CanAsk(body.People.Count + body.Places.Count))
        {
            return Problems.Unfit([GapWish.AskedOutOfBounds("people")]);
        }

        var (time, problems) = body.Time.ToDraft().Check(zones);
        if (time is null)
        {
            return Problems.Unfit(problems);
        }

        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var span = zones.Span(time, zone);
        var (first, last) = (span.Start.InZone(zone).Date, span.End.InZone(zone).Date);
        if (Ranges.WhyNot(first, last.PlusDays(2 * DaysAround)) is { } badRange)
        {
            return badRange;
        }

        var window = new Window(first.PlusDays(-DaysAround), last.PlusDays(DaysAround), zone);
        var group = body.Group is { } named ? new GroupId(named) : (GroupId?)null;
        var known = await times.Read(
            acting.Person,
            [
                .. body.People.Select(id => Participant.Of(new PersonId(id))),
                .. body.Places.Select(id => Participant.Of(new CalendarId(id))),
            ],
            window,
            new TimesScope(group, body.Except is { } id ? new EventId(id) : null),
            cancellationToken
        );
        if (known.Count == 0)
        {
            return TypedResults.Ok(new Answer([], null, null));
        }

        var invited = known.Select(one => one.Invited(Need.Required)).ToList();
        var presence = FreeAt.Ask(invited, span);
        var asker = await times.HoursOf(acting.Person, group, cancellationToken);
        var now = clock.GetCurrentInstant();
        var ahead = new Interval(Instant.Min(Instant.Max(window.Span.Start, now), window.Span.End), window.Span.End);
        var all = FreeAt.Offers(invited, ahead, span, asker);
        return TypedResults.Ok(
            new Answer(
                [
                    .. known.Select(one =>
                    {
                        var nearest =
                            presence[one.Who] == Presence.Free
                                ? (null, null)
                                : FreeAt.Offers([one.Invited(Need.Required)], ahead, span, asker);
                        var there = Local(span.Start, one.Zone);
                        return new FreeBody(
                            one.Who.Id,
                            one.Who.IsPlace,
                            one.Name,
                            presence[one.Who],
                            one.Time.Knowledge,
                            [.. one.By(span)],
                            At(nearest.Earlier),
                            At(nearest.Later),
                            there == Local(span.Start, zone) ? null : there
                        );
                    }),
                ],
                At(all.Earlier),
                At(all.Later)
            )
        );

        LocalDateTime? At(Instant? instant) => instant is { } at ? Local(at, zone) : null;
    }

    private static LocalDateTime Local(Instant instant, DateTimeZone zone) => instant.InZone(zone).LocalDateTime;
}
