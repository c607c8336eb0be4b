using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Mortar.Data.Store;

namespace Mortar.Server.Hosting;

/// <summary>A store that is written by somebody else for longer than anybody waits: to be tried again, and no fault of the one who asked.</summary>
internal sealed class BusyStore(ILogger<BusyStore> log) : IExceptionHandler
{
    private const int Busy = 5; // SQLITE_BUSY
    private const int Locked = 6; // SQLITE_LOCKED
    private const int Wait = 5;

    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        for (Exception? cause = exception; cause is not null; cause = cause.InnerException)
        {
            if (cause is StoreBusyException or SqliteException { SqliteErrorCode: Busy or Locked })
            {
                log.LogWarning("The store was busy for too long for {Path}", httpContext.Request.Path);
                httpContext.Response.Headers.RetryAfter = Wait.ToString(
                    System.Globalization.CultureInfo.InvariantCulture
                );
                await Problems
                    .Of(
                        StatusCodes.Status503ServiceUnavailable,
                        "busy",
                        "Something large is being written just now, and nothing of yours was changed. Try again in a few seconds."
                    )
                    .ExecuteAsync(httpContext);
                return true;
            }
        }

        return false;
    }
}
