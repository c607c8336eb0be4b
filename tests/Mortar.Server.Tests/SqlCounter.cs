using System.Collections.Concurrent;
using System.Data.Common;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Data.Store;

namespace Mortar.Server.Tests;

/// <summary>Counts what requests ask of the store; what runs by itself beside them does not count.</summary>
internal sealed class SqlCounter : DbCommandInterceptor
{
    private readonly HttpContextAccessor requests = new();
    private readonly ConcurrentQueue<string> asked = [];

    public void Watch(IServiceCollection services) =>
        services
            .AddSingleton<IHttpContextAccessor>(requests)
            .ConfigureDbContext<MortarDb>(options => options.AddInterceptors(this));

    /// <summary>The questions to the store so far, in their order; then it counts anew.</summary>
    public IReadOnlyList<string> Take()
    {
        var all = new List<string>();
        while (asked.TryDequeue(out var one))
        {
            all.Add(one);
        }

        return all;
    }

    public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result,
        CancellationToken cancellationToken = default
    )
    {
        if (requests.HttpContext is not null && command.CommandText.Contains("SELECT", StringComparison.Ordinal))
        {
            asked.Enqueue(command.CommandText);
        }

        return base.ReaderExecutingAsync(command, eventData, result, cancellationToken);
    }
}
