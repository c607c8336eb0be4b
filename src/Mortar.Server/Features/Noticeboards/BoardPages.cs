using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>/b/{name}: noticeboards as the world reads them. No cookie is read or set here, and nobody is anybody.</summary>
internal static class BoardPages
{
    private static readonly LocalDateTimePattern Start = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>Everything under /b is answered apart from the rest: no sign-in, other headers, compressed.</summary>
    public static void UseNoticeboards(this WebApplication app)
    {
        app.MapWhen(
            context => context.Request.Path.StartsWithSegments("/b", StringComparison.Ordinal),
            branch =>
            {
                branch.UseResponseCompression();
                branch.UseRouting();
                branch.UseRateLimits();
                branch.UseEndpoints(Map);
            }
        );
        app.UseBoardScripts();
    }

    private static void Map(IEndpointRouteBuilder app)
    {
        var board = app.MapGroup("/b/{name}").RequireRateLimiting(RateLimits.Reading).ExcludeFromDescription();
        string[] reading = [HttpMethods.Get, HttpMethods.Head];
        board.MapMethods("/", reading, Page);
        board.MapMethods("/poster", reading, Poster);
        board.MapMethods("/calendar.ics", reading, File);
        board.MapMethods("/{id:guid}", reading, Event);
        board.MapMethods("/{id:guid}.ics", reading, EventFile);
        board.MapMethods("/{id:guid}/{start}.ics", reading, EventFile);
        board.MapMethods("/{id:guid}/{start}", reading, Event);
        board.MapFallback((HttpContext context) => BoardAnswers.NotThere(context));
        app.MapFallback((HttpContext context) => BoardAnswers.NotThere(context));
    }

    private static async Task Page(
        string name,
        [FromQuery] string? view,
        [FromQuery] string? at,
        HttpContext context,
        MortarDb db,
        BoardOpens opens
    )
    {
        if (await Found(name, context, db) is not { } row)
        {
            return;
        }

        var board = row.ToCore();
        var ask = AskOf(context) with
        {
            View = Enum.TryParse<BoardView>(view, ignoreCase: true, out var one) && Enum.IsDefined(one) ? one : null,
            At = LocalDatePattern.Iso.Parse(at ?? string.Empty) is { Success: true, Value: var day } ? day : null,
        };
        if (HttpMethods.IsGet(context.Request.Method))
        {
            opens.Count(row.Id, Today(context, board));
        }

        await BoardAnswers.Answer(
            context,
            row,
            $"page {ask.View} {ask.At} {ask.Key}",
            async (services, reading, stop) =>
                await HtmlPages.Render<BoardDocument>(
                    services,
                    new() { ["Model"] = await reading.Page(board, row.GroupId, row.Address, ask, stop) }
                )
        );
    }

    private static async Task Event(string name, Guid id, string? start, HttpContext context, MortarDb db)
    {
        if (await Found(name, context, db) is not { } row)
        {
            return;
        }

        var ask = AskOf(context);
        if (!IsStart(start, out var occurrence))
        {
            await BoardAnswers.NotThere(context);
            return;
        }

        await BoardAnswers.Answer(
            context,
            row,
            $"event {id} {occurrence} {ask.Key}",
            async (services, reading, stop) =>
                await reading.Event(row, ask, new EventId(id), occurrence, stop) is var (model, entry)
                    ? await HtmlPages.Render<EventDocument>(services, new() { ["Model"] = model, ["Entry"] = entry })
                    : null
        );
    }

    private static async Task File(string name, HttpContext context, MortarDb db)
    {
        if (await Found(name, context, db) is not { } row)
        {
            return;
        }

        await BoardAnswers.AnswerFile(
            context,
            row,
            "file",
            row.Address,
            (model, contents, stamp) => model.Board.OffersFeed ? BoardFiles.All(model, contents, stamp) : null
        );
    }

    private static async Task EventFile(string name, Guid id, string? start, HttpContext context, MortarDb db)
    {
        if (await Found(name, context, db) is not { } row)
        {
            return;
        }

        if (!IsStart(start, out var occurrence))
        {
            await BoardAnswers.NotThere(context);
            return;
        }

        await BoardAnswers.AnswerFile(
            context,
            row,
            $"file {id} {occurrence}",
            "event",
            (model, contents, stamp) =>
                contents.Entries.FirstOrDefault(one => one.Event == new EventId(id) && one.Occurrence == occurrence)
                    is { } entry
                && model.Board.OffersEvents
                    ? BoardFiles.One(model, entry, stamp)
                    : null
        );
    }

    private static async Task Poster(string name, HttpContext context, MortarDb db)
    {
        if (await Found(name, context, db) is not { } row)
        {
            return;
        }

        var board = row.ToCore();
        var ask = AskOf(context) with { View = BoardView.Next, Zone = null };
        await BoardAnswers.Answer(
            context,
            row,
            $"poster {ask.Key}",
            async (services, reading, stop) =>
            {
                var sheet = board with { Views = [BoardView.Next], ShowsZone = true, Listed = false };
                var model = await reading.Page(sheet, row.GroupId, row.Address, ask, stop);
                return await HtmlPages.Render<PosterDocument>(
                    services,
                    new() { ["Model"] = model, ["Code"] = QrPicture.Of(model.Url) }
                );
            }
        );
    }

    private static bool IsStart(string? text, out LocalDateTime? start)
    {
        start = text is not null && Start.Parse(text) is { Success: true, Value: var said } ? said : null;
        return text is null || start is not null;
    }

    private static LocalDate Today(HttpContext context, Noticeboard board) =>
        context
            .RequestServices.GetRequiredService<IClock>()
            .GetCurrentInstant()
            .InZone(context.RequestServices.GetRequiredService<ZoneClock>().Zone(board.Zone))
            .Date;

    /// <summary>The noticeboard at a name, where the world reads it; has answered already where there is none.</summary>
    private static async Task<NoticeboardRow?> Found(string name, HttpContext context, MortarDb db)
    {
        var stop = context.RequestAborted;
        var known = await db.Addressed(NoticeboardRow.AddressSpace, name.ToLowerInvariant(), stop);
        var row = known is null
            ? null
            : await db
                .Noticeboards.AsNoTracking()
                .FirstOrDefaultAsync(one => one.Id == new NoticeboardId(known.OwnerId), stop);
        if (row is { EndedAt: not null })
        {
            await BoardAnswers.Say(
                context,
                StatusCodes.Status410Gone,
                "This noticeboard is gone",
                "Whoever kept it has ended it."
            );
            return null;
        }

        if (row is null || !await db.IsRead(row, stop))
        {
            await BoardAnswers.NotThere(context);
            return null;
        }

        if (row.Address == name)
        {
            return row;
        }

        // An old name leads on, and so does one in capitals; what is printed somewhere is not kept by what lies between.
        context.Response.Headers.CacheControl = "no-store";
        var rest = new PathString(context.Request.Path.Value![$"/b/{name}".Length..]);
        context.Response.Redirect($"/b/{row.Address}{rest.ToUriComponent()}{context.Request.QueryString}");
        return null;
    }

    internal static BoardAsk AskOf(HttpContext context)
    {
        var query = context.Request.Query;
        return new BoardAsk(
            View: null,
            At: null,
            query["zone"].ToString() is { Length: > 0 and <= 60 } zone
            && DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is not null
                ? zone
                : null,
            query["frame"] == "1",
            BoardDates.For(context.Request.GetTypedHeaders().AcceptLanguage)
        );
    }
}
