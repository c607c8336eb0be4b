using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Mortar.Server.Wire;

namespace Mortar.Server.Hosting;

/// <summary>The OpenAPI document at /openapi/v1.json, from which the web's types are made.</summary>
internal static class ApiDocument
{
    public static void Configure(OpenApiOptions options)
    {
        WireJson.Describe(options);
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new OpenApiInfo
                {
                    Title = "Mortar",
                    Version = "1",
                    Description =
                        "Errors are problem details (RFC 9457) with a stable type and a sentence a person can act on.",
                };

                // The address differs from machine to machine, and the document is compared with the one kept with the web.
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
    }
}
