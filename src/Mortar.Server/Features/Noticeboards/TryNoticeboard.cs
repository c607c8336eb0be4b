using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>POST /api/noticeboards/trial: a noticeboard as it would be, before anybody reads it.</summary>
internal static class TryNoticeboard
{
    public static void Map(RouteGroupBuilder api) =>
        api.MapPost("/noticeboards/trial", Try).WithName("TryNoticeboard").RequireRateLimiting(RateLimits.Searching);

    /// <summary>How it would look, by the code that shows it to the world. Nothing is written.</summary>
    private static async Task<Results<Ok<NoticeboardsSetup.TriedBody>, ProblemHttpResult>> Try(
        NoticeboardsSetup.TrialBody body,
        Acting acting,
        MortarDb db,
        BoardReading reading,
        ZoneClock zones,
        IServiceProvider services,
        HttpContext context,
        CancellationToken cancellationToken
    )
    {
        var (me, group) = (await db.ReaderOf(acting.Person, cancellationToken), new GroupId(body.Settings.GroupId));
        var check = Noticeboard.Check(body.Settings.ToCore(), zones);
        var board = check.Value;
        if (!await db.PlaceIn(group, acting.Person).AnyAsync(cancellationToken))
        {
            return Problems.NotThere("group");
        }

        if (NoticeboardRules.WhyNotKeep(board.Layers.Select(layer => me.RoleOn(layer.CalendarId))).Problem() is { } no)
        {
            return no;
        }

        // A title that is still to be typed is no reason to show nothing.
        var problems = check.Problems.Where(problem => problem.Path is not ("title" or "sites")).ToList();
        if (problems.Count > 0)
        {
            return Problems.Unfit(problems);
        }

        var ask = new BoardAsk(
            body.View,
            At: null,
            Zone: null,
            InFrame: false,
            BoardDates.For(context.Request.GetTypedHeaders().AcceptLanguage)
        );
        var model = await reading.Page(board, group, body.Settings.Name ?? "…", ask, cancellationToken);
        var count = await reading.Count(board, cancellationToken);
        return TypedResults.Ok(
            new NoticeboardsSetup.TriedBody(
                await HtmlPages.Render<BoardDocument>(services, new() { ["Model"] = model with { IsPreview = true } }),
                BoardSentence.For(board, model.Calendars.ToDictionary(one => one.Key, one => one.Value.Name)),
                BoardSentence.For(count),
                count.WithNotes,
                count.WithPeople
            )
        );
    }
}
