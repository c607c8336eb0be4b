using Microsoft.AspNetCore.Http.Features;

namespace Mortar.Server.Hosting;

/// <summary>Bounds what a request can bring before anything reads it; what takes files says so itself.</summary>
internal static class BodySizes
{
    /// <summary>The largest body that is no file: a list of five hundred people is a twentieth of it.</summary>
    public const long Largest = 1024 * 1024;

    public static IApplicationBuilder UseBodySizes(this IApplicationBuilder app) =>
        app.Use(
            (context, next) =>
            {
                if (
                    context
                        .GetEndpoint()
                        ?.Metadata.GetMetadata<Microsoft.AspNetCore.Http.Metadata.IRequestSizeLimitMetadata>()
                        is null
                    && context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size
                )
                {
                    size.MaxRequestBodySize = Largest;
                }

                return next(context);
            }
        );
}
