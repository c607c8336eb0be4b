using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;
using Mortar.Server.Features.Accounts;

namespace Mortar.Server.Hosting;

/// <summary>What whoever started Mortar reads on the console.</summary>
internal static class Greeting
{
    public static async Task Print(WebApplication app, CancellationToken cancellationToken)
    {
        var url = MortarHost.PublicUrl(app.Services);
        Console.WriteLine();
        Console.WriteLine($"  Mortar is at {url}");
        await using var scope = app.Services.CreateAsyncScope();
        if (!await scope.ServiceProvider.GetRequiredService<MortarDb>().Users.AnyAsync(cancellationToken))
        {
            var code = app.Services.GetRequiredService<FirstAccountCode>().Value;
            Console.WriteLine(
                $"  There is no account yet. Make the first one at {url}/first-account with the code {code}"
            );
        }

        Console.WriteLine("  Ctrl+C stops it.");
        Console.WriteLine();
    }
}
