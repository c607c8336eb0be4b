using System.Security.Cryptography;

namespace Mortar.Server.Hosting;

/// <summary>
/// Answers that are long and told to a slow network are compressed (RFC 7932, RFC 1952): what lies on a wall and what is computed
/// of it. None of them holds a token or a secret of the reader's. What several people typed does stand beside each other there, so
/// that somebody who writes into a calendar and sees the lengths of another's answers could guess at a neighbour's title letter by
/// letter; a header of a length drawn anew each time takes the last bytes of that from them (decision 68).
/// </summary>
internal static class AnswerSizes
{
    public const string Padding = "X-Padding";

    private const int MostPadding = 64;

    private static readonly PathString[] Compressed =
    [
        "/api/wall",
        "/api/ribbon",
        "/api/times",
        "/api/clashes",
        "/api/shelf",
        "/api/find",
        "/api/zones",
    ];

    public static void UseAnswerSizes(this IApplicationBuilder app) =>
        app.UseWhen(
            context =>
                HttpMethods.IsGet(context.Request.Method)
                && Compressed.Any(path => context.Request.Path.StartsWithSegments(path, StringComparison.Ordinal)),
            branch =>
            {
                branch.UseResponseCompression();
                branch.Use(
                    (context, next) =>
                    {
                        context.Response.Headers[Padding] = new string(
                            '.',
                            RandomNumberGenerator.GetInt32(MostPadding)
                        );
                        return next(context);
                    }
                );
            }
        );
}
