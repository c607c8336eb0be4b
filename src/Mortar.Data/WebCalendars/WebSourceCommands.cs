using Microsoft.EntityFrameworkCore;
using Mortar.Core.WebCalendars;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.WebCalendars;

/// <summary>What came of asking an address.</summary>
public abstract record WebFetch
{
    private WebFetch() { }

    /// <summary>A file.</summary>
    /// <param name="Packed">It, packed (RFC 7932).</param>
    /// <param name="Digest">Its SHA-256.</param>
    /// <param name="ETag">What its host calls this version.</param>
    /// <param name="LastModified">When its host says that it was changed.</param>
    /// <param name="Every">How often it asks to be fetched; <c>null</c> where it does not.</param>
    public sealed record File(byte[] Packed, string Digest, string? ETag, string? LastModified, Duration? Every)
        : WebFetch;

    /// <summary>It is as it was (304, RFC 9110, 15.4.5).</summary>
    public sealed record Same : WebFetch;

    /// <summary>It could not be fetched, or is no calendar.</summary>
    /// <param name="Why">In words.</param>
    /// <param name="Wait">How long its host asks to be left alone.</param>
    public sealed record Failed(string Why, Duration? Wait = null) : WebFetch;
}

/// <summary>Keeps what is known of addresses that are fetched.</summary>
public sealed class WebSourceCommands(MortarDb db)
{
    /// <summary>Takes note of what came of asking one. What was fetched before stays where this time failed.</summary>
    public Task TakeNote(Guid id, WebFetch came, CancellationToken cancellationToken) =>
        db.WriteUnlogged(
            async () =>
            {
                if (await db.WebSources.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is { } source)
                {
                    await Apply(source, came, cancellationToken);
                }
            },
            cancellationToken
        );

    /// <summary>Leaves one alone for as long as it takes that so much in it was another.</summary>
    /// <param name="id">Which.</param>
    /// <param name="lost">How many events of the file before are others in the one that was fetched, or gone.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task Rest(Guid id, int lost, CancellationToken cancellationToken)
    {
        var rest = FetchRhythm.Rest(lost);
        if (rest == Duration.Zero)
        {
            return;
        }

        await db.WriteUnlogged(
            async () =>
            {
                if (await db.WebSources.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is { } source)
                {
                    source.RestsUntil = db.Now + rest;
                    source.DueAt = Instant.Max(source.DueAt, db.Now + rest);
                }
            },
            cancellationToken
        );
    }

    /// <summary>The source of an address, made where there is none, with what was fetched from it just now.</summary>
    internal async Task<WebSourceRow> Found(string address, WebFetch.File came, CancellationToken cancellationToken)
    {
        var source = await db.WebSources.FirstOrDefaultAsync(one => one.Address == address, cancellationToken);
        if (source is null)
        {
            source = new WebSourceRow
            {
                Id = Guid.CreateVersion7(),
                Address = address,
                DueAt = db.Now,
            };
            db.WebSources.Add(source);
        }

        await Apply(source, came, cancellationToken);
        return source;
    }

    private async Task Apply(WebSourceRow source, WebFetch came, CancellationToken cancellationToken)
    {
        source.TriedAt = db.Now;
        if (came is WebFetch.Failed failed)
        {
            source.Failures++;
            source.FailingSince ??= db.Now;
            source.Problem = failed.Why;
            source.DueAt = FetchRhythm.Next(db.Now, Every(source), source.Failures, failed.Wait);
            return;
        }

        if (came is WebFetch.File file)
        {
            source.EveryMinutes = (int)FetchRhythm.Every(file.Every).TotalMinutes;
            (source.ETag, source.LastModified) = (file.ETag, file.LastModified);
            if (source.Digest != file.Digest)
            {
                source.Digest = file.Digest;
                await Keep(source.Id, file.Packed, cancellationToken);
            }
        }

        (source.Failures, source.FailingSince, source.Problem) = (0, null, null);
        source.AsOf = db.Now;
        source.DueAt = FetchRhythm.Next(db.Now, Every(source), failures: 0);
    }

    private static Duration Every(WebSourceRow source) =>
        source.EveryMinutes > 0 ? Duration.FromMinutes(source.EveryMinutes) : FetchRhythm.Usual;

    private async Task Keep(Guid source, byte[] packed, CancellationToken cancellationToken)
    {
        if (await db.WebFiles.FindAsync([source], cancellationToken) is { } kept)
        {
            kept.Packed = packed;
        }
        else
        {
            db.WebFiles.Add(new WebFileRow { SourceId = source, Packed = packed });
        }
    }
}
