using System.Runtime.Versioning;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Data.Events;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>What was looked at, and what was found.</summary>
/// <param name="What">As a noun phrase.</param>
/// <param name="Wrong">What is wrong, as a sentence; <c>null</c> where nothing is.</param>
public sealed record Inspected(string What, string? Wrong);

/// <summary>Looks a store through, whether a Mortar runs on it or not, and changes nothing.</summary>
public static class StoreInspection
{
    /// <param name="directory">The data directory.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="zoneVersion">The version of the zone database.</param>
    /// <param name="cancellationToken">Stops it.</param>
    /// <exception cref="BackupException">There is no store.</exception>
    public static async Task<IReadOnlyList<Inspected>> Look(
        string directory,
        ZoneClock clock,
        string zoneVersion,
        CancellationToken cancellationToken
    )
    {
        var file = Path.Combine(directory, StoreSetup.FileName);
        if (!File.Exists(file))
        {
            throw new BackupException(
                $"There is no store in {directory}. Name the directory that ./mortar serve --data names."
            );
        }

        var found = new List<Inspected> { new("who may read the directory", WhoReads(directory)) };
        if (!StoreLock.IsHeld(directory))
        {
            // While a Mortar writes, the last frames of its log are not whole yet.
            found.Add(new("the log file beside the store", StoreStart.WhyLost(directory)));
        }

        found.Add(new("the file of the store, page by page", StoreFile.WhyDamaged(file)));
        if (found[^1].Wrong is not null)
        {
            return found; // what is in it cannot be believed
        }

        var options = new DbContextOptionsBuilder<MortarDb>();
        StoreSetup.Configure(options, file, SqliteOpenMode.ReadOnly);
        await using var db = new MortarDb(options.Options, SystemClock.Instance, new ChangeSignal(), new WriteTurn());
        // One reading of it all: what is written meanwhile is not seen by half.
        await db.Database.OpenConnectionAsync(cancellationToken);
        await using var reading = ((SqliteConnection)db.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await db.Database.UseTransactionAsync(reading, cancellationToken);
        var steps = (await db.Database.GetAppliedMigrationsAsync(cancellationToken)).ToList();
        var known = db.Database.GetMigrations().ToList();
        found.Add(new("the release it is of", WhyOther(steps, known)));
        if (found[^1].Wrong is not null)
        {
            return found; // its tables may be others
        }

        found.Add(new("what each row refers to", await Dangling(db, cancellationToken)));
        foreach (var (what, sentence, count) in Orphans)
        {
            var wrong = await db.Database.SqlQueryRaw<int>(count).SingleAsync(cancellationToken);
            found.Add(new(what, wrong > 0 ? $"{wrong} {sentence}" : null));
        }

        found.Add(
            new("the instants by which events are found", await Index(db, clock, zoneVersion, cancellationToken))
        );
        return found;
    }

    private static string? WhyOther(List<string> steps, List<string> known)
    {
        if (steps.Except(known, StringComparer.Ordinal).LastOrDefault() is { } newer)
        {
            return $"It was written by another Mortar ({newer}). Check it by that release.";
        }

        return steps.Count < known.Count
            ? $"It is of an older release ({steps.LastOrDefault()}). Start Mortar there once, which brings it to this one, or check it by that release."
            : null;
    }

    private static async Task<string?> Dangling(MortarDb db, CancellationToken cancellationToken)
    {
        var tables = await db
            .Database.SqlQueryRaw<string>(
                """SELECT "table" || ' to ' || parent AS Value FROM pragma_foreign_key_check"""
            )
            .ToListAsync(cancellationToken);
        return tables.Count == 0
            ? null
            : $"{tables.Count} rows refer to what is not there: from {string.Join("; from ", tables.Distinct().Order(StringComparer.Ordinal))}.";
    }

    /// <summary>What no foreign key holds; each counts what is wrong.</summary>
    private static readonly (string What, string Sentence, string Count)[] Orphans =
    [
        (
            "accounts and the people they are",
            "accounts are nobody's.",
            "SELECT count(*) AS Value FROM AspNetUsers WHERE Id NOT IN (SELECT Id FROM People)"
        ),
        (
            "answers and the calendars of their events",
            "answers are kept with another calendar than their event.",
            "SELECT count(*) AS Value FROM Answers one JOIN Events of ON of.Id = one.EventId WHERE of.CalendarId <> one.CalendarId"
        ),
        (
            "what suits whom",
            "of those who said what suits them are kept with another calendar than what they were asked.",
            "SELECT count(*) AS Value FROM Suitings one JOIN Proposals of ON of.Id = one.ProposalId WHERE of.CalendarId <> one.CalendarId"
        ),
        (
            "clashes that were called fine",
            "clashes are of a calendar that is not there.",
            "SELECT count(*) AS Value FROM FineClashes WHERE CalendarId NOT IN (SELECT Id FROM Calendars)"
        ),
        (
            "links that were opened",
            "openings of links are kept with another calendar than their link.",
            "SELECT count(*) AS Value FROM LinkHolders one JOIN Links of ON of.Id = one.LinkId WHERE of.CalendarId <> one.CalendarId"
        ),
        (
            "short addresses",
            "short addresses lead nowhere.",
            """
            SELECT count(*) AS Value FROM ShortAddresses
            WHERE HeldUntil IS NULL AND OwnerId NOT IN (SELECT Id FROM "Groups" UNION SELECT Id FROM Noticeboards)
            """
        ),
        (
            "who may see an event by itself",
            "people are given an event that does not name them.",
            """
            SELECT count(*) AS Value FROM Given one JOIN Events of ON of.Id = one.EventId
            WHERE of.GivenTo IS NULL AND of.Editors IS NULL
            """
        ),
        (
            "the bin",
            "events are deleted without the act that did it, or the other way round.",
            "SELECT count(*) AS Value FROM Events WHERE (DeletedAt IS NULL) <> (DeletedIn IS NULL)"
        ),
        (
            "groups that have ended",
            "calendars went with a group that is at work.",
            """
            SELECT count(*) AS Value FROM Calendars one JOIN "Groups" of ON of.Id = one.GroupId
            WHERE one.WithGroup AND (one.DeletedAt IS NULL OR (of.RestsSince IS NULL AND of.DeletedAt IS NULL))
            """
        ),
    ];

    private static async Task<string?> Index(
        MortarDb db,
        ZoneClock clock,
        string zoneVersion,
        CancellationToken cancellationToken
    )
    {
        if (!await EventIndex.IsOf(db, zoneVersion, cancellationToken))
        {
            return "They were computed by another release or other rules of zones. Start Mortar there once, which computes them anew.";
        }

        return await EventIndex.CountWrong(db, clock, cancellationToken) is > 0 and var wrong
            ? $"{wrong} events are found at other times than their rules say, or cannot be read."
            : null;
    }

    [UnsupportedOSPlatform("windows")]
    private static bool IsOpen(string path) =>
        (File.GetUnixFileMode(path) & ~(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute))
        != UnixFileMode.None;

    private static string? WhoReads(string directory)
    {
        if (OperatingSystem.IsWindows())
        {
            return null;
        }

        var open = new[] { StoreSetup.FileName, DataFolders.Keys, DataFolders.PostRoom, Backup.Folder }
            .Select(name => Path.Combine(directory, name))
            .Where(Path.Exists)
            .SelectMany(path => Directory.Exists(path) ? Directory.EnumerateFiles(path).Prepend(path) : [path])
            .Where(IsOpen)
            .ToList();
        return open.Count == 0
            ? null
            : $"{open.Count} files or folders can be read by others than their owner, as {open[0]}. The next start of Mortar closes them.";
    }
}
