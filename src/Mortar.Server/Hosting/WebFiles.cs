using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace Mortar.Server.Hosting;

/// <summary>
/// The web application's files: compressed as the build has left them for whoever takes that, and for how long a browser may
/// keep them. Only files that are the same for everybody: an answer that holds a secret beside what somebody typed would tell
/// of it by its length.
/// </summary>
internal static class WebFiles
{
    private const string Brotli = "br"; // RFC 7932
    private const string Extension = ".br";

    private static readonly FileExtensionContentTypeProvider Types = new();

    public static void UseWebFiles(this IApplicationBuilder app, IFileProvider files)
    {
        var known = new FileExtensionContentTypeProvider();
        known.Mappings[Extension] = "application/octet-stream"; // of what is in it, as it is prepared
        app.Use(
            (context, next) =>
            {
                var compressed = context.Request.Path + Extension;
                if (IsAsset(context.Request) && Takes(context.Request) && files.GetFileInfo(compressed).Exists)
                {
                    context.Request.Path = compressed;
                }

                return next(context);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = files,
                ContentTypeProvider = known,
                OnPrepareResponse = Prepare,
            }
        );
    }

    /// <summary>Files with a hash in their name never change; the page that names them is asked for each time.</summary>
    public static void Prepare(StaticFileResponseContext context)
    {
        var (headers, path) = (context.Context.Response.Headers, context.Context.Request.Path);
        var isAsset = IsAsset(context.Context.Request);
        headers.CacheControl = isAsset ? "public, max-age=31536000, immutable" : "no-cache";
        if (!isAsset)
        {
            return;
        }

        headers.Vary = HeaderNames.AcceptEncoding;
        if (path.Value is { } name && name.EndsWith(Extension, StringComparison.Ordinal))
        {
            headers.ContentEncoding = Brotli;
            if (Types.TryGetContentType(name[..^Extension.Length], out var type))
            {
                context.Context.Response.ContentType = type;
            }
        }
    }

    /// <summary>The one page for all paths; where there is nothing at a path, the page comes as well and leads on to the wall.</summary>
    public static void PreparePage(StaticFileResponseContext context)
    {
        Prepare(context);
        var (request, response) = (context.Context.Request, context.Context.Response);
        if (response.StatusCode == StatusCodes.Status200OK && !WebPages.Has($"/{request.RouteValues["path"]}"))
        {
            response.StatusCode = StatusCodes.Status404NotFound;
        }
    }

    private static bool IsAsset(HttpRequest request) =>
        request.Path.StartsWithSegments("/assets", StringComparison.Ordinal);

    /// <summary>Whether somebody takes Brotli (RFC 9110, 12.5.3).</summary>
    private static bool Takes(HttpRequest request) =>
        request.GetTypedHeaders().AcceptEncoding.Any(one => one.Value == Brotli && one.Quality != 0);
}
