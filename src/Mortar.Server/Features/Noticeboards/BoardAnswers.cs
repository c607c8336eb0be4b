using System.Security.Cryptography;
using System.Text;
using Microsoft.Net.Http.Headers;
using Mortar.Core.Noticeboards;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>How what the world asks of a noticeboard is answered: worked out once for all who ask, with a tag, and refused to be kept once it is closed.</summary>
internal static class BoardAnswers
{
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

    public static async Task Answer(
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

    public static async Task AnswerFile(
        HttpContext context,
        NoticeboardRow row,
        string what,
        string called,
        Func<BoardModel, BoardContents, Instant, string?> make
    )
    {
        var ask = BoardPages.AskOf(context) with { Zone = null };
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

        var bytes = file.AsMemory(sizeof(long));
        var changedAt = Instant.FromUnixTimeSeconds(BitConverter.ToInt64(file));
        context.Response.Headers.AccessControlAllowOrigin = "*";
        if (CalendarFileHead.Begin(context, HashOf(bytes.Span), changedAt, called, caches: "public"))
        {
            await context.Response.Body.WriteAsync(bytes, context.RequestAborted);
        }
    }

    public static async Task Answer(HttpContext context, Noticeboard board, byte[] bytes)
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
        var tag = new EntityTagHeaderValue($"\"{HashOf(bytes)[..32]}\"", isWeak: true);
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

    private static string HashOf(ReadOnlySpan<byte> bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    public static Task NotThere(HttpContext context) =>
        Say(
            context,
            StatusCodes.Status404NotFound,
            "There is nothing at this address",
            "No noticeboard has this address, or it is not open now. Ask whoever gave it to you."
        );

    public static async Task Say(HttpContext context, int status, string heading, string sentence)
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
}
