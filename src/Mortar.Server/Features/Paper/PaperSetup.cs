using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Paper;
using Mortar.Core.Words;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Paper;

/// <summary>
/// GET /paper/{what}: what one sees, as sheets to be printed, by the same reading as the screens. Pages of their own and not a
/// style of the screen: what prints is made for paper.
/// </summary>
internal static class PaperSetup
{
    private const string Script = "paper.js";

    public static void AddPaper(this IServiceCollection services) => services.AddScoped<PaperReading>();

    /// <summary>Answered apart from the rest: these pages may stand in a frame of the interface, and of nobody else.</summary>
    public static void UsePaper(this WebApplication app) =>
        app.MapWhen(
            context => context.Request.Path.StartsWithSegments("/paper", StringComparison.Ordinal),
            branch =>
            {
                branch.UseRouting();
                branch.UseAuthentication();
                branch.UseAuthorization();
                branch.UseRateLimits();
                branch.UseEndpoints(Map);
            }
        );

    private static void Map(IEndpointRouteBuilder app)
    {
        var script = ShippedFiles.Read(Script);
        app.MapGet(
                $"/paper/{Script}",
                (HttpContext context) =>
                {
                    context.Response.Headers.CacheControl = "no-cache";
                    context.Response.Headers.XContentTypeOptions = "nosniff";
                    return Results.Text(script, "text/javascript; charset=utf-8");
                }
            )
            .ExcludeFromDescription();
        app.MapGet("/paper/{what}", Handle)
            .RequireAuthorization()
            .RequireRateLimiting(RateLimits.Making)
            .AddEndpointFilter<RefusalFilter>()
            .ExcludeFromDescription();
    }

    private static async Task<IResult> Handle(
        string what,
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        [FromQuery] GroupId? group,
        [FromQuery] Guid[]? calendars,
        [FromQuery] string? title,
        [FromQuery] string? size,
        [FromQuery] bool? across,
        [FromQuery] bool? places,
        [FromQuery] bool? people,
        [FromQuery] bool? notes,
        HttpContext context,
        Acting acting,
        PaperReading reading
    )
    {
        if (!Enum.TryParse<PaperWhat>(what, ignoreCase: true, out var of) || !Enum.IsDefined(of))
        {
            return Problems.NotThere("sheet");
        }

        var (from, to) = (first.Value, last.Value);
        if (Ranges.WhyNot(from, to, PaperWish.LongestDays(of)) is { } refusal)
        {
            return refusal;
        }

        var begun = PaperWish.Begin(
            of,
            string.Equals(size, "letter", StringComparison.OrdinalIgnoreCase) ? PaperSize.Letter : PaperSize.A4
        );
        var wish = begun with
        {
            Across = across ?? begun.Across,
            Title = PlainText.Shorten(PlainText.OneLine(title ?? string.Empty), PaperWish.LongestTitle),
            Places = places ?? begun.Places,
            People = people ?? begun.People,
            Notes = notes ?? begun.Notes,
        };
        var read = await reading.Read(
            acting.Person,
            new PaperAsk(
                of,
                from,
                to,
                group,
                calendars is { Length: > 0 } ? calendars.Select(id => new CalendarId(id)).ToHashSet() : null,
                wish
            ),
            context.RequestAborted
        );
        if (read is Outcome<PaperOut>.Not not)
        {
            return Problems.Of(not.Why);
        }

        Headers(context);
        return Results.Content(
            await HtmlPages.Render<PaperDocument>(
                context.RequestServices,
                new()
                {
                    ["Out"] = ((Outcome<PaperOut>.Done)read).Value,
                    ["Page"] = string.Create(
                        CultureInfo.InvariantCulture,
                        $"{wish.Size.ToString().ToLowerInvariant()}-{(wish.Across ? "across" : "upright")}"
                    ),
                }
            ),
            "text/html; charset=utf-8"
        );
    }

    /// <summary>What a browser is told to refuse: all but this page's own style and script (CSP Level 3).</summary>
    private static void Headers(HttpContext context)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy =
            $"default-src 'none'; style-src {PaperStyle.Source}; script-src 'self'; img-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'";
        headers.XFrameOptions = "SAMEORIGIN";
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers.CacheControl = "no-store";
    }
}
