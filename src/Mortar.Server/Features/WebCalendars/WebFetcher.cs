using System.IO.Compression;
using System.Net.Http.Headers;
using System.Security.Cryptography;
using Mortar.Core.Time;
using Mortar.Core.WebCalendars;
using Mortar.Data.WebCalendars;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.WebCalendars;

/// <summary>What was fetched, and what is in it where it is a file.</summary>
internal sealed record Fetched(WebFetch Came, CalendarFileReading.Understood? Reading = null);

/// <summary>Fetches calendars of the web (RFC 9110), within bounds of time and size whatever the other end does.</summary>
internal sealed class WebFetcher(WebLine line, ZoneClock zones, IClock clock, TimeProvider time) : IDisposable
{
    /// <summary>The largest file, packed or not, in bytes.</summary>
    public const int MostBytes = 10 * 1024 * 1024;

    /// <summary>How long all of it may take.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    private const int MostHops = 5;

    private const int LongestTag = 400;

    private readonly HttpClient client = line.Client();

    /// <summary>Asks for a file.</summary>
    /// <param name="address">Where.</param>
    /// <param name="etag">What its host called the version that is known; <c>null</c> where none is.</param>
    /// <param name="lastModified">When it said that this was changed.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Fetched> Fetch(
        WebAddress address,
        string? etag,
        string? lastModified,
        CancellationToken cancellationToken
    )
    {
        using var patience = new CancellationTokenSource(Patience, time);
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken, patience.Token);
        try
        {
            return await Follow(address, etag, lastModified, stop.Token);
        }
        catch (OperationCanceledException) when (!cancellationToken.IsCancellationRequested)
        {
            return Failed(FetchProblem.TooSlow(address.Host));
        }
        catch (FileTooLargeException)
        {
            return Failed(FetchProblem.TooLarge(address.Host, MostBytes));
        }
        catch (LeadsAstrayException)
        {
            return Failed(FetchProblem.LeadsAstray(address.Host));
        }
        catch (InvalidDataException)
        {
            return Failed(FetchProblem.Unreadable(address.Host));
        }
        catch (HttpRequestException bad)
        {
            return Failed(
                bad.InnerException is NotPublicException ? FetchProblem.NotPublic(address.Host)
                : bad.HttpRequestError == HttpRequestError.SecureConnectionError ? FetchProblem.NotTrusted(address.Host)
                : FetchProblem.NoAnswer(address.Host)
            );
        }
        catch (IOException)
        {
            return Failed(FetchProblem.NoAnswer(address.Host));
        }
    }

    public void Dispose() => client.Dispose();

    private sealed class LeadsAstrayException : Exception
    {
        public LeadsAstrayException()
            : base("It leads to where nothing is fetched from.") { }
    }

    private static Fetched Failed(string why, Duration? wait = null) => new(new WebFetch.Failed(why, wait));

    private async Task<Fetched> Follow(WebAddress first, string? etag, string? lastModified, CancellationToken stop)
    {
        var address = first;
        for (var hops = 0; hops <= MostHops; hops++)
        {
            using var response = await Ask(address, first, etag, lastModified, stop);
            switch ((int)response.StatusCode)
            {
                case 200:
                    return await Read(response, first.Host, stop);
                case 304 when etag is not null || lastModified is not null:
                    return new Fetched(new WebFetch.Same());
                case 301 or 302 or 303 or 307 or 308:
                    if (address.LeadsTo(response.Headers.Location) is not { } next)
                    {
                        return Failed(FetchProblem.LeadsAstray(first.Host));
                    }

                    address = next;
                    break;
                case var status:
                    return Failed(FetchProblem.Refused(first.Host, status), Wait(response));
            }
        }

        return Failed(FetchProblem.LeadsAstray(first.Host));
    }

    private async Task<HttpResponseMessage> Ask(
        WebAddress address,
        WebAddress first,
        string? etag,
        string? lastModified,
        CancellationToken stop
    )
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, address.ToUri());
        request.Headers.TryAddWithoutValidation("User-Agent", "Mortar");
        request.Headers.TryAddWithoutValidation("Accept", "text/calendar, */*;q=0.1");
        request.Headers.TryAddWithoutValidation("Accept-Encoding", "gzip, br");
        if (etag is not null)
        {
            request.Headers.TryAddWithoutValidation("If-None-Match", etag);
        }

        if (lastModified is not null)
        {
            request.Headers.TryAddWithoutValidation("If-Modified-Since", lastModified);
        }

        try
        {
            return await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, stop);
        }
        catch (HttpRequestException bad) when (bad.InnerException is NotPublicException && address != first)
        {
            // Where it leads is not told: that would be a way to ask what is there.
            throw new LeadsAstrayException();
        }
    }

    private async Task<Fetched> Read(HttpResponseMessage response, string host, CancellationToken stop)
    {
        if (response.Content.Headers.ContentLength > MostBytes)
        {
            throw new FileTooLargeException();
        }

        var bytes = await Bytes(response, stop);
        // What it is is seen in it; what its host says of its type is not believed.
        return CalendarFile.Read(bytes, DateTimeZone.Utc.Id, zones) switch
        {
            CalendarFileReading.Understood read => new Fetched(
                new WebFetch.File(
                    Packed(bytes),
                    Convert.ToHexStringLower(SHA256.HashData(bytes)),
                    Tag(response.Headers.NonValidated, "ETag"),
                    Tag(response.Content.Headers.NonValidated, "Last-Modified"),
                    read.Refresh
                ),
                read
            ),
            CalendarFileReading.NotACalendar not => Failed($"“{host}”: {not.Sentence}"),
            _ => Failed(FetchProblem.Unreadable(host)),
        };
    }

    /// <summary>What is in a packed file.</summary>
    public static byte[] Unpacked(byte[] packed)
    {
        using var from = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        using var to = new MemoryStream();
        from.CopyTo(to);
        return to.ToArray();
    }

    private static byte[] Packed(byte[] bytes)
    {
        using var to = new MemoryStream();
        using (var packing = new BrotliStream(to, CompressionLevel.Fastest, leaveOpen: true))
        {
            packing.Write(bytes);
        }

        return to.ToArray();
    }

    /// <summary>The body as it came, and then what is packed in it: neither is larger than a file may be.</summary>
    private static async Task<byte[]> Bytes(HttpResponseMessage response, CancellationToken stop)
    {
        var bytes = await Bounded(await response.Content.ReadAsStreamAsync(stop), stop);
        var packings = response.Content.Headers.ContentEncoding.Where(one =>
            !one.Equals("identity", StringComparison.OrdinalIgnoreCase)
        );
        return packings.ToList() switch
        {
            [] => bytes,
            [var one] => await Bounded(Unpacking(one.ToLowerInvariant(), new MemoryStream(bytes)), stop),
            _ => throw new InvalidDataException("It is packed several times."),
        };
    }

    private static Stream Unpacking(string packing, Stream from) =>
        packing switch
        {
            "gzip" or "x-gzip" => new GZipStream(from, CompressionMode.Decompress),
            "br" => new BrotliStream(from, CompressionMode.Decompress),
            "deflate" => new ZLibStream(from, CompressionMode.Decompress),
            _ => throw new InvalidDataException("It is packed in an unknown way."),
        };

    private static async Task<byte[]> Bounded(Stream from, CancellationToken stop)
    {
        using var to = new MemoryStream();
        await using (from)
        {
            await using var bounded = new BoundedStream(to, MostBytes);
            await from.CopyToAsync(bounded, stop);
        }

        return to.ToArray();
    }

    private static string? Tag(HttpHeadersNonValidated headers, string name) =>
        headers.TryGetValues(name, out var values)
        && values.ToString() is { Length: > 0 and <= LongestTag } tag
        && !tag.Any(char.IsControl)
            ? tag
            : null;

    private Duration? Wait(HttpResponseMessage response) =>
        response.Headers.RetryAfter switch
        {
            { Delta: { } delta } => Duration.FromTimeSpan(delta),
            { Date: { } date } => Instant.FromDateTimeOffset(date) - clock.GetCurrentInstant(),
            _ => null,
        };
}
