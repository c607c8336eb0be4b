using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Noticeboards;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>What lies beside noticeboards: their scripts, and what search engines may have.</summary>
internal static class BoardScripts
{
    public static void UseBoardScripts(this WebApplication app) =>
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
        foreach (var row in await db.ReadAmong(open.Where(row => row.ToCore().Listed), context.RequestAborted))
        {
            text.Append("Allow: /b/").Append(row.Address).Append('\n');
        }

        text.Append("Allow: /noticeboard.js\nDisallow: /\n");
        context.Response.Headers.CacheControl = "public, max-age=300";
        return Results.Text(text.ToString(), "text/plain; charset=utf-8");
    }
}
