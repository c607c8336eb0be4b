using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Mortar.Server.Hosting;

/// <summary>Tells with a refusal when to come back, and keeps it for the operator.</summary>
internal sealed class RefusalFilter(SecurityLog log) : IEndpointFilter
{
    /// <summary>The member of a problem that says in how many seconds.</summary>
    public const string RetryAfter = "retryAfter";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var result = await next(context);
        if (Problem(result) is not { } problem)
        {
            return result;
        }

        var http = context.HttpContext;
        if (problem.ProblemDetails.Extensions.TryGetValue(RetryAfter, out var seconds))
        {
            http.Response.Headers.RetryAfter = Convert.ToString(seconds, CultureInfo.InvariantCulture);
        }

        if (
            problem.StatusCode
            is StatusCodes.Status401Unauthorized
                or StatusCodes.Status403Forbidden
                or StatusCodes.Status429TooManyRequests
        )
        {
            log.Refused(
                http.User.Identity is { IsAuthenticated: true } ? http.User.Person().Value : null,
                http.Request.Method,
                (http.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText,
                problem.StatusCode,
                http.Connection.RemoteIpAddress
            );
        }

        return result;
    }

    private static ProblemHttpResult? Problem(object? result) =>
        result switch
        {
            INestedHttpResult nested => Problem(nested.Result),
            ProblemHttpResult problem => problem,
            _ => null,
        };
}
