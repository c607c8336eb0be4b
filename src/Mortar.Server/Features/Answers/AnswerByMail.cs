using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Answers;

/// <summary>/api/answering/{secret}: a question that came by mail, read and answered without an account.</summary>
internal static class AnswerByMail
{
    /// <param name="Name">Who is asked.</param>
    /// <param name="From">Who asks.</param>
    /// <param name="Event">The event, or the next date of a series, on the clock of who is asked.</param>
    /// <param name="Answer">What they answered so far.</param>
    /// <param name="SuggestedStart">The other time they suggested with it, on their clock.</param>
    internal sealed record Body(
        string Name,
        string From,
        BrickBody.Event Event,
        Core.Answers.Answer Answer,
        bool ToEarlierTime,
        string Comment,
        LocalDateTime? SuggestedStart
    );

    internal static void Map(RouteGroupBuilder api)
    {
        var link = api.MapGroup("/answering/{secret}").RequireRateLimiting(RateLimits.Reading).AllowAnonymous();
        link.MapGet("/", Read).WithName("ReadQuestion");
        link.MapPut("/", Answer).WithName("AnswerByMail");
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        string secret,
        MortarDb db,
        QuestionQueries questions,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.QuestionBy(secret, cancellationToken) is not { } asked
            || await db
                .Events.AsNoTracking()
                .FirstOrDefaultAsync(one => one.Id == asked.EventId && one.DeletedAt == null, cancellationToken)
                is not { } row
        )
        {
            return Problems.NotThere("question");
        }

        var zone = await db.ZoneOf(asked.PersonId, zones, cancellationToken);
        var today = clock.GetCurrentInstant().InZone(zone).Date;
        var whole = row.ToCore();
        var next = whole
            .Occurrences(new Window(today, today.PlusDays(Window.LongestDays - 1), zone), zones)
            .Select(one => (Occurrence?)one)
            .FirstOrDefault();
        var date = next ?? whole.OccurrenceAt(null, zones, zone);
        var role = (await db.StandingOf(asked.PersonId, row.CalendarId, cancellationToken)).Role;
        if (
            date is not { } occurrence
            || await db.IsGone(row, role, cancellationToken)
            || VisibleEvent.Show(role, asked.PersonId, occurrence, zone) is not { } shown
        )
        {
            return Problems.NotThere("question");
        }

        var named = await questions.Of(asked.PersonId, row, occurrence.Start, cancellationToken) ?? [];
        var mine = named.FirstOrDefault(one => one.Person == asked.PersonId);
        var names = await db
            .People.Where(one => one.Id == asked.PersonId || one.Id == row.AddedBy)
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        return TypedResults.Ok(
            new Body(
                names[asked.PersonId],
                names[row.AddedBy],
                BrickBody.Of(shown, zone),
                mine?.Standing.Answer ?? Core.Answers.Answer.NeedsAction,
                mine?.Standing.ToEarlierTime == true,
                mine?.Row?.Comment ?? string.Empty,
                mine?.Row?.SuggestedStart?.InZone(zone).LocalDateTime
            )
        );
    }

    /// <summary>Answers to the whole, as the mail asked.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Answer(
        string secret,
        AnswersSetup.AnswerBody body,
        MortarDb db,
        AnswerCommands answers,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await db.QuestionBy(secret, cancellationToken) is not { } asked)
        {
            return Problems.NotThere("question");
        }

        var zone = await db.ZoneOf(asked.PersonId, zones, cancellationToken);
        return await answers
            .Answer(
                Act.By(asked.PersonId),
                asked.EventId,
                asked.PersonId,
                AnswersSetup.Wish(body, only: null, zone),
                cancellationToken
            )
            .Answer();
    }
}
