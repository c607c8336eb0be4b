using Microsoft.AspNetCore.Antiforgery;

namespace Mortar.Server.Hosting;

/// <summary>Asks for the antiforgery token on everything under /api that can change something.</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    public const string Header = "X-Antiforgery";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var request = context.HttpContext.Request;
        if (!HttpMethods.IsGet(request.Method) && !await antiforgery.IsRequestValidAsync(context.HttpContext))
        {
            return Problems.Of(
                StatusCodes.Status400BadRequest,
                "antiforgery",
                "This page is out of date. Reload it and try again."
            );
        }

        return await next(context);
    }
}
