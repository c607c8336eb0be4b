using Microsoft.AspNetCore.StaticFiles;

namespace Mortar.Server.Hosting;

/// <summary>How long a browser may keep the web application's files.</summary>
internal static class WebFiles
{
    /// <summary>Files with a hash in their name never change; the page that names them is asked for each time.</summary>
    public static void Cache(StaticFileResponseContext context) =>
        context.Context.Response.Headers.CacheControl = context.Context.Request.Path.StartsWithSegments(
            "/assets",
            StringComparison.Ordinal
        )
            ? "public, max-age=31536000, immutable"
            : "no-cache";
}
