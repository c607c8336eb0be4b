using Microsoft.Extensions.Diagnostics.HealthChecks;
using Mortar.Data.Store;

namespace Mortar.Server.Hosting;

/// <summary>Healthy when the store answers.</summary>
internal sealed class StoreCheck(MortarDb db) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    ) =>
        await db.Database.CanConnectAsync(cancellationToken)
            ? HealthCheckResult.Healthy()
            : HealthCheckResult.Unhealthy("The store does not answer.");
}
