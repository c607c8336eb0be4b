using System.Globalization;
using Microsoft.AspNetCore.Diagnostics;
using Mortar.Data.Store;

namespace Mortar.Server.Hosting;

/// <summary>
/// What the store cannot do just now, and no fault of the one who asked: written by somebody else for longer than anybody
/// waits, on a full disk, on one that can only be read. Each is told as what it is, since trying again helps in the first only.
/// </summary>
internal sealed class StoreProblems(ILogger<StoreProblems> log) : IExceptionHandler
{
    private const string BusyType = "busy";
    private const int Wait = 5;

    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (Of(exception) is not { } problem)
        {
            return false;
        }

        log.LogWarning(
            "The store is {Fault} for {Path} ({Message})",
            problem.Type,
            httpContext.Request.Path,
            exception.GetBaseException().Message
        );
        if (problem.Type == BusyType)
        {
            httpContext.Response.Headers.RetryAfter = Wait.ToString(CultureInfo.InvariantCulture);
        }

        await Problems.Of(problem.Status, problem.Type, problem.Sentence).ExecuteAsync(httpContext);
        return true;
    }

    /// <summary>What is told of a fault of the store; <c>null</c> where it is none, or none that anybody who asks can do something about.</summary>
    /// <param name="bad">What was thrown.</param>
    public static (int Status, string Type, string Sentence)? Of(Exception bad) =>
        StoreFaults.Of(bad)?.Fault switch
        {
            StoreFault.Busy => (
                StatusCodes.Status503ServiceUnavailable,
                BusyType,
                "Something large is being written just now, and nothing of yours was changed. Try again in a few seconds."
            ),
            StoreFault.Full => (
                StatusCodes.Status507InsufficientStorage,
                "full",
                "The disk of this Mortar is full, so nothing was changed. Tell whoever runs it to make room, and try again then."
            ),
            StoreFault.ReadOnly => (
                StatusCodes.Status503ServiceUnavailable,
                "read-only",
                "The disk of this Mortar can only be read, so nothing was changed. Tell whoever runs it, and try again then."
            ),
            _ => null,
        };
}
