using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
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
                branch.UseRateLimiter();
                branch.UseEndpoints(Map);
            }
        );
        app.MapWhen(
            context => context.Request.Path.Value is "/noticeboard.js" or "/noticeboard-frame.js" or "/robots.txt",
            branch =>
            {
                branch.UseRouting();
                branch.UseEndpoints(files =>
                {
                    Script(files, "noticeboard.js");
                    Script(files, "noticeboard-frame.js");
                    files.MapGet("/robots.txt", Robots).ExcludeFromDescription();
                });
            }
        );
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
        board.MapFallback((HttpContext context) => NotThere(context));
        app.MapFallback((HttpContext context) => NotThere(context));
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

        await Answer(
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
            await NotThere(context);
            return;
        }

        await Answer(
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

        await AnswerFile(
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
            await NotThere(context);
            return;
        }

        await AnswerFile(
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
        await Answer(
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

    /// <summary>Something a noticeboard tells, worked out once for all who ask as long as nothing has changed.</summary>
    private static Task<byte[]> Kept(
        HttpContext context,
        NoticeboardRow row,
        string what,
        Func<IServiceProvider, Task<byte[]>> make
    )
    {
        var services = context.RequestServices;
        var signal = services.GetRequiredService<ChangeSignal>();
        var minute = services.GetRequiredService<IClock>().GetCurrentInstant().ToUnixTimeSeconds() / 60;
        var scopes = services.GetRequiredService<IServiceScopeFactory>();
        return services
            .GetRequiredService<KeptAnswers>()
            .Get(
                $"{row.Id.Value} {row.Version} {signal.Commits} {signal.WritesAboutPeople} {minute} {what}",
                async () =>
                {
                    // In a scope of its own: who asked first may be gone while others wait.
                    await using var scope = scopes.CreateAsyncScope();
                    return await make(scope.ServiceProvider);
                },
                context.RequestAborted
            );
    }

    private static async Task Answer(
        HttpContext context,
        NoticeboardRow row,
        string what,
        Func<IServiceProvider, BoardReading, CancellationToken, Task<string?>> make
    )
    {
        var page = await Kept(
            context,
            row,
            what,
            async services =>
                Encoding.UTF8.GetBytes(
                    await make(services, services.GetRequiredService<BoardReading>(), CancellationToken.None)
                        ?? string.Empty
                )
        );
        if (page.Length == 0)
        {
            await NotThere(context);
            return;
        }

        await Answer(context, row.ToCore(), page);
    }

    private static async Task AnswerFile(
        HttpContext context,
        NoticeboardRow row,
        string what,
        string called,
        Func<BoardModel, BoardContents, Instant, string?> make
    )
    {
        var ask = AskOf(context) with { Zone = null };
        var since = context.RequestServices.GetRequiredService<ToldSince>();
        var file = await Kept(
            context,
            row,
            $"{what} {ask.Dates.Language}",
            async services =>
            {
                var reading = services.GetRequiredService<BoardReading>();
                var (model, contents) = await reading.All(row, ask, CancellationToken.None);
                var stamp = since.Of(row.Id.Value, BoardFiles.HashOf(model, contents));
                return make(model, contents, stamp) is { } text
                    ? [.. BitConverter.GetBytes(stamp.ToUnixTimeSeconds()), .. Encoding.UTF8.GetBytes(text)]
                    : [];
            }
        );
        if (file.Length == 0)
        {
            await NotThere(context);
            return;
        }

        await BoardFiles.Answer(
            context,
            file.AsMemory(sizeof(long)),
            Instant.FromUnixTimeSeconds(BitConverter.ToInt64(file)),
            called
        );
    }

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
            await Say(context, StatusCodes.Status410Gone, "This noticeboard is gone", "Whoever kept it has ended it.");
            return null;
        }

        if (row is null || !await db.IsRead(row, stop))
        {
            await NotThere(context);
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

    private static BoardAsk AskOf(HttpContext context)
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

    private static async Task Answer(HttpContext context, Noticeboard board, byte[] bytes)
    {
        var headers = context.Response.Headers;
        Headers(context, board.Framers);
        headers.Vary = HeaderNames.AcceptLanguage;
        if (!board.Listed)
        {
            headers["X-Robots-Tag"] = "noindex, nofollow";
        }

        // Kept by nobody without asking whether it still holds: what is ended or changed is so for everybody at once.
        headers.CacheControl = "public, no-cache";
        var tag = new EntityTagHeaderValue(
            $"\"{Convert.ToHexStringLower(SHA256.HashData(bytes))[..32]}\"",
            isWeak: true
        );
        headers.ETag = tag.ToString();
        if (Preconditions.IsKnown(context.Request, tag))
        {
            context.Response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }

        context.Response.ContentType = "text/html; charset=utf-8";
        if (!HttpMethods.IsHead(context.Request.Method))
        {
            await context.Response.Body.WriteAsync(bytes, context.RequestAborted);
        }
    }

    private static Task NotThere(HttpContext context) =>
        Say(
            context,
            StatusCodes.Status404NotFound,
            "There is nothing at this address",
            "No noticeboard has this address, or it is not open now. Ask whoever gave it to you."
        );

    private static async Task Say(HttpContext context, int status, string heading, string sentence)
    {
        Headers(context, []);
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers["X-Robots-Tag"] = "noindex";
        context.Response.StatusCode = status;
        context.Response.ContentType = "text/html; charset=utf-8";
        await context.Response.WriteAsync(
            await HtmlPages.Render<MessageDocument>(
                context.RequestServices,
                new() { ["Heading"] = heading, ["Sentence"] = sentence }
            ),
            context.RequestAborted
        );
    }

    /// <summary>What a browser is told to refuse: all but this page's own style, script and pictures (CSP Level 3).</summary>
    private static void Headers(HttpContext context, IReadOnlyList<string> framers)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy =
            $"default-src 'none'; style-src {BoardStyle.Source}; script-src 'self'; img-src 'self'; connect-src 'self'; base-uri 'none'; "
            + $"form-action 'none'; frame-ancestors {(framers.Count > 0 ? string.Join(' ', framers) : "'none'")}";
        headers.XContentTypeOptions = "nosniff";

        // The address may be the secret: it is told to nobody whom a link leads to.
        headers["Referrer-Policy"] = "no-referrer";
        if (framers.Count == 0)
        {
            headers.XFrameOptions = "DENY";
        }

        if (context.Request.IsHttps)
        {
            headers.StrictTransportSecurity = "max-age=31536000; includeSubDomains";
        }
    }

    private static void Script(IEndpointRouteBuilder files, string name)
    {
        var text = ShippedFiles.Read(name);
        files
            .MapGet(
                $"/{name}",
                (HttpContext context) =>
                {
                    context.Response.Headers.CacheControl = "public, max-age=3600";
                    context.Response.Headers.XContentTypeOptions = "nosniff";
                    context.Response.Headers["Cross-Origin-Resource-Policy"] = "cross-origin";
                    return Results.Text(text, "text/javascript; charset=utf-8");
                }
            )
            .ExcludeFromDescription();
    }

    /// <summary>Search engines may have what is listed, and nothing else (RFC 9309). What is not listed is not named here either.</summary>
    private static async Task<IResult> Robots(MortarDb db, HttpContext context)
    {
        var open = await db
            .Noticeboards.AsNoTracking()
            .Where(row => row.EndedAt == null && row.State == BoardState.Open)
            .ToListAsync(context.RequestAborted);
        var text = new StringBuilder("User-agent: *\n");
        foreach (var row in open.Where(row => row.ToCore().Listed))
        {
            if (await db.IsRead(row, context.RequestAborted))
            {
                text.Append("Allow: /b/").Append(row.Address).Append('\n');
            }
        }

        text.Append("Allow: /noticeboard.js\nDisallow: /\n");
        context.Response.Headers.CacheControl = "public, max-age=300";
        return Results.Text(text.ToString(), "text/plain; charset=utf-8");
    }
}
