using System.Globalization;
using System.IO.Compression;
using System.Text;

namespace Mortar.Server.StandIns;

/// <summary>What a host of the web gives out on a bad day.</summary>
internal static class BadDays
{
    /// <summary>Answers as on such a day.</summary>
    /// <param name="context">The question.</param>
    /// <param name="day">Which; a number is a status of HTTP.</param>
    /// <param name="url">Where the host really is, which is inside.</param>
    /// <param name="text">What it would give out on a good one.</param>
    public static Task Answer(HttpContext context, string day, string url, string text) =>
        day switch
        {
            "slow" => Task.Delay(Timeout.Infinite, context.RequestAborted),
            "moved" => Redirect(context, "/fairs.ics"),
            "round" => Redirect(context, "/league.ics"),
            "inside" => Redirect(context, $"{url}/fairs.ics"),
            "garbage" => context.Response.WriteAsync("<!DOCTYPE html><title>Parked</title>"),
            "empty" => Task.CompletedTask,
            "huge" => Fill(context.Response.Body, context.RequestAborted),
            "bomb" => Bomb(context),
            "packed" => Packed(context, Encoding.UTF8.GetBytes(text), "gzip"),
            "twice" => Packed(context, Encoding.UTF8.GetBytes(text), "gzip, gzip"),
            "torn" => Torn(context),
            "cut" => Cut(context),
            var status => Status(context, int.Parse(status, CultureInfo.InvariantCulture)),
        };

    private static Task Redirect(HttpContext context, string to)
    {
        context.Response.Redirect(to);
        return Task.CompletedTask;
    }

    private static Task Status(HttpContext context, int status)
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    }

    /// <summary>Goes on for ever.</summary>
    private static async Task Fill(Stream to, CancellationToken stop)
    {
        var line = Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("X-FILL:clay\r\n", 8_000)));
        while (!stop.IsCancellationRequested)
        {
            await to.WriteAsync(line, stop);
        }
    }

    /// <summary>Little that becomes much.</summary>
    private static async Task Bomb(HttpContext context)
    {
        using var packed = new MemoryStream();
        await using (var packing = new GZipStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            var block = new byte[1 << 20];
            for (var i = 0; i < 64; i++)
            {
                await packing.WriteAsync(block);
            }
        }

        context.Response.Headers.ContentEncoding = "gzip";
        await context.Response.Body.WriteAsync(packed.ToArray());
    }

    private static async Task Packed(HttpContext context, byte[] bytes, string said)
    {
        using var packed = new MemoryStream();
        await using (var packing = new GZipStream(packed, CompressionLevel.Fastest, leaveOpen: true))
        {
            await packing.WriteAsync(bytes);
        }

        context.Response.Headers.ContentEncoding = said;
        await context.Response.Body.WriteAsync(packed.ToArray());
    }

    private static Task Torn(HttpContext context)
    {
        context.Response.Headers.ContentEncoding = "gzip";
        return context.Response.WriteAsync("BEGIN:VCALENDAR");
    }

    private static async Task Cut(HttpContext context)
    {
        context.Response.ContentLength = 1_000;
        await context.Response.WriteAsync("BEGIN:VCALENDAR");
        await context.Response.Body.FlushAsync();
        context.Abort();
    }
}
