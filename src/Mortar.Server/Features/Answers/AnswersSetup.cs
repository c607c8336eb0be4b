using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Answers;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Answers;

/// <summary>/api/events/{eventId}/answers: who comes; /answer: one's own; /ask: asking those named.</summary>
internal static class AnswersSetup
{
    /// <param name="People">Everybody named, by name.</param>
    /// <param name="MayAnswerFor">Those of them for whom the reader answers.</param>
    /// <param name="Organizer">The name of who asks, for those who are asked: their question has said it too. <c>null</c> for others.</param>
    internal sealed record Body(IReadOnlyList<NamedBody> People, IReadOnlyList<Guid> MayAnswerFor, string? Organizer);

    /// <param name="Answer">What counts now.</param>
    /// <param name="ToEarlierTime">Whether they had answered before it was moved.</param>
    /// <param name="Asked">Whether they were asked.</param>
    /// <param name="SuggestedStart">Another time they suggest, on the reader's clock.</param>
    internal sealed record NamedBody(
        Guid PersonId,
        string Name,
        Answer Answer,
        bool ToEarlierTime,
        bool Asked,
        string Comment,
        LocalDateTime? SuggestedStart,
        LocalDateTime? SuggestedEnd
    );

    /// <param name="SuggestedStart">Another time one suggests, on one's own clock; with an end.</param>
    /// <param name="For">A member whose guardian one is; <c>null</c> for oneself.</param>
    internal sealed record AnswerBody(
        Answer Answer,
        string? Comment = null,
        LocalDateTime? SuggestedStart = null,
        LocalDateTime? SuggestedEnd = null,
        Guid? For = null
    );

    /// <param name="PersonIds">People named on the event.</param>
    internal sealed record AskBody(IReadOnlyList<Guid> PersonIds);

    public static void AddAnswers(this IServiceCollection services) =>
        services.AddScoped<AnswerCommands>().AddScoped<QuestionQueries>().AddHostedService<AskedTeller>();

    public static void MapAnswers(this RouteGroupBuilder api)
    {
        var one = api.MapGroup("/events/{eventId:guid}");
        one.MapGet("/answers", Read).WithName("ReadAnswers");
        one.MapPut("/answer", Answer).WithName("AnswerEvent");
        one.MapPost("/ask", Ask).WithName("AskPeople");
        AnswerByMail.Map(api);
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        EventId eventId,
        LocalTimeQuery? only,
        Acting acting,
        MortarDb db,
        QuestionQueries questions,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.EventFor(acting.Person, eventId, cancellationToken) is not var (row, _)
            || await questions.Of(acting.Person, row, only?.Value, cancellationToken) is not { } named
        )
        {
            return Problems.NotThere("event");
        }

        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var mine = await db.AnswersFor(acting.Person, row.CalendarId, cancellationToken);
        // Whoever may change it can name themselves; by that they are asked by nobody.
        var organizer = named.Any(one => one.Asked && mine.Contains(one.Person))
            ? await db
                .People.Where(person => person.Id == row.AddedBy)
                .Select(person => person.Name)
                .FirstOrDefaultAsync(cancellationToken)
            : null;
        return TypedResults.Ok(
            new Body(
                [.. named.Select(one => Of(one, zone))],
                [.. named.Where(one => mine.Contains(one.Person)).Select(one => one.Person.Value)],
                organizer
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Answer(
        EventId eventId,
        LocalTimeQuery? only,
        AnswerBody body,
        Acting acting,
        MortarDb db,
        AnswerCommands answers,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) =>
        await answers
            .Answer(
                acting.Act,
                eventId,
                body.For is { } ward ? new PersonId(ward) : acting.Person,
                Wish(body, only?.Value, await db.ZoneOf(acting.Person, zones, cancellationToken)),
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Ask(
        EventId eventId,
        AskBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        AnswerCommands answers,
        CancellationToken cancellationToken
    ) =>
        answers
            .AskPeople(
                acting.Act,
                eventId,
                [.. body.PersonIds.Select(id => new PersonId(id))],
                Versions.Read(ifMatch),
                cancellationToken
            )
            .Answer();

    internal static AnswerWish Wish(AnswerBody body, LocalDateTime? only, DateTimeZone zone) =>
        new(
            only,
            body.Answer,
            body.Comment,
            body is { SuggestedStart: { } start, SuggestedEnd: { } end }
                ? (ZoneClock.At(start, zone), ZoneClock.At(end, zone))
                : null
        );

    internal static NamedBody Of(NamedAnswer one, DateTimeZone zone) =>
        new(
            one.Person.Value,
            one.Name,
            one.Standing.Answer,
            one.Standing.ToEarlierTime,
            one.Asked,
            one.Row?.Comment ?? string.Empty,
            one.Row?.SuggestedStart?.InZone(zone).LocalDateTime,
            one.Row?.SuggestedEnd?.InZone(zone).LocalDateTime
        );
}
