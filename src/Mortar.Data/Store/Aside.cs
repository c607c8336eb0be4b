using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;

namespace Mortar.Data.Store;

/// <summary>
/// Writes thousands of events of one calendar while others go on writing: they are made by the ordinary means in a store of
/// their own beside the real one, on a copy of the calendar, and go over in one short transaction.
/// </summary>
/// <remarks>
/// All or none go over, so a stop or a crash leaves nothing behind but the file, which the next start removes. What was
/// made holds only for the calendar as it was copied and for the step that its maker had on it: where either is another
/// once the write lock is held, it is made again.
/// </remarks>
public static class Aside
{
    /// <summary>The folder inside the data directory; empty unless something is being made.</summary>
    public const string Folder = "aside";

    /// <summary>From how many events on this is worth a copy of the calendar.</summary>
    internal const int Worth = 500;

    private const int Tries = 4;

    /// <summary>Removes what a crash left behind.</summary>
    public static void Clear(MortarDb db)
    {
        if (Directory.Exists(FolderOf(db)))
        {
            Directory.Delete(FolderOf(db), recursive: true);
        }
    }

    /// <summary>Makes changes to events aside and brings them over.</summary>
    /// <param name="db">The store.</param>
    /// <param name="act">Whose act it is; all of it is one set in the log.</param>
    /// <param name="calendar">The calendar that all the events are in.</param>
    /// <param name="make">
    /// Makes them in the store that it is given, which holds the calendar's events and nothing else. Only
    /// <see cref="Outcome{T}.Done"/> goes over. It may be called several times.
    /// </param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    internal static async Task<Outcome<T>> WriteAside<T>(
        this MortarDb db,
        Act act,
        CalendarId calendar,
        Func<MortarDb, Task<Outcome<T>>> make,
        CancellationToken cancellationToken
    )
    {
        var folder = Directory.CreateDirectory(FolderOf(db)).FullName;
        for (var tries = Tries; tries > 0; tries--)
        {
            var file = Path.Combine(folder, $"{Guid.CreateVersion7()}.db");
            try
            {
                var then = await StateOf(db, act.Actor, calendar, cancellationToken);
                await using (var aside = db.Beside(StoreSetup.Aside(file)))
                {
                    await Copy(db, aside, calendar, cancellationToken);
                    var made = await aside.Write(act, () => make(aside), cancellationToken);
                    if (made is not Outcome<T>.Done)
                    {
                        return made;
                    }

                    await KeepWhatChanged(aside, cancellationToken);
                    if (await BringOver(db, act, calendar, file, then, made, cancellationToken) is { } over)
                    {
                        return over;
                    }
                }
            }
            finally
            {
                File.Delete(file);
            }
        }

        return new Refusal.AgainstRule(
            "changed-meanwhile",
            "The calendar is being changed by others just now. Nothing was written; try again in a moment."
        );
    }

    /// <summary>What was made holds as long as this is the same: the newest change about the calendar or its group, and the actor's step.</summary>
    private static async Task<(long? Newest, Role Role)> StateOf(
        MortarDb db,
        PersonId actor,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var group = await db
            .Calendars.Where(row => row.Id == calendar)
            .Select(row => (GroupId?)row.GroupId)
            .FirstOrDefaultAsync(cancellationToken);
        var newest = await db
            .Changes.Where(change => change.CalendarId == calendar)
            .MaxAsync(change => (long?)change.Sequence, cancellationToken);
        var inGroup = await db
            .Changes.Where(change => change.GroupId == group)
            .MaxAsync(change => (long?)change.Sequence, cancellationToken);
        return (
            newest > (inGroup ?? 0) ? newest : inGroup,
            (await db.StandingOf(actor, calendar, cancellationToken)).Role
        );
    }

    /// <summary>Makes the tables that events are written to, with the events of one calendar; without keys to other tables and without indexes, which the real store keeps.</summary>
    private static async Task Copy(
        MortarDb db,
        MortarDb aside,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var tables = await db
            .Database.SqlQuery<string>(
                $"SELECT sql AS Value FROM sqlite_master WHERE type = 'table' AND name IN ('Events', 'Given', 'Changes')"
            )
            .ToListAsync(cancellationToken);
        await aside.Database.OpenConnectionAsync(cancellationToken);
        foreach (var table in tables)
        {
            await aside.Database.ExecuteSqlRawAsync(table, cancellationToken);
        }

        await aside.Database.ExecuteSqlAsync($"ATTACH {PathOf(db)} AS store", cancellationToken);
        await aside.Database.ExecuteSqlAsync(
            $"INSERT INTO main.Events SELECT * FROM store.Events WHERE CalendarId = {calendar.Value}",
            cancellationToken
        );
        await aside.Database.ExecuteSqlRawAsync(
            "INSERT INTO main.Given SELECT * FROM store.Given WHERE EventId IN (SELECT Id FROM main.Events)",
            cancellationToken
        );
        await aside.Database.ExecuteSqlRawAsync("DETACH store", cancellationToken);
    }

    /// <summary>Leaves of the copy what goes over, so that nothing has to be looked for under the write lock.</summary>
    private static async Task KeepWhatChanged(MortarDb aside, CancellationToken cancellationToken)
    {
        await aside.Database.ExecuteSqlRawAsync(
            "DELETE FROM Events WHERE Id NOT IN (SELECT SubjectId FROM Changes)",
            cancellationToken
        );
        await aside.Database.ExecuteSqlRawAsync(
            "DELETE FROM Given WHERE EventId NOT IN (SELECT Id FROM Events)",
            cancellationToken
        );
    }

    /// <summary>Under the write lock: copies what was made; <c>null</c> where it does not hold any more.</summary>
    private static async Task<Outcome<T>?> BringOver<T>(
        MortarDb db,
        Act act,
        CalendarId calendar,
        string file,
        (long?, Role) then,
        Outcome<T> made,
        CancellationToken cancellationToken
    )
    {
        await db.Database.OpenConnectionAsync(cancellationToken);
        try
        {
            await db.Database.ExecuteSqlAsync($"ATTACH {file} AS aside", cancellationToken);
            try
            {
                var holds = false;
                var outcome = await db.Write(
                    act,
                    async () =>
                    {
                        holds =
                            await StateOf(db, act.Actor, calendar, cancellationToken) == then
                            && !await HaveMoved(db, cancellationToken);
                        if (!holds)
                        {
                            return new Refusal.AgainstRule("changed-meanwhile", "It is made again.");
                        }

                        foreach (var copy in Copies(db))
                        {
                            await db.Database.ExecuteSqlRawAsync(copy, cancellationToken);
                        }

                        return made;
                    },
                    cancellationToken
                );
                return holds ? outcome : null;
            }
            finally
            {
                await db.Database.ExecuteSqlRawAsync("DETACH aside", CancellationToken.None);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    /// <summary>Whether an event was changed since it was copied; one that is in another calendar now does not show in this one's log.</summary>
    private static async Task<bool> HaveMoved(MortarDb db, CancellationToken cancellationToken) =>
        await db
            .Database.SqlQuery<int>(
                $"""
                SELECT COUNT(*) AS Value FROM aside.Events AS made
                JOIN main.Events AS there ON there.Id = made.Id
                WHERE there.Version >= made.Version
                """
            )
            .SingleAsync(cancellationToken) > 0;

    private static IEnumerable<string> Copies(MortarDb db)
    {
        // What no act of this sort changes is not set anew: each index on it would be written again.
        var (all, changed) = (Columns<Events.EventRow>(db), Columns<Events.EventRow>(db, "Id", "Uid", "CalendarId"));
        yield return $"""
            INSERT INTO main.Events ({string.Join(", ", all)})
            SELECT {string.Join(", ", all)} FROM aside.Events WHERE true
            ON CONFLICT (Id) DO UPDATE SET {string.Join(
                ", ",
                changed.Select(column => $"{column} = excluded.{column}")
            )}
            """;
        yield return "DELETE FROM main.Given WHERE EventId IN (SELECT Id FROM aside.Events)";
        yield return "INSERT INTO main.Given SELECT * FROM aside.Given";

        // It happens now and comes after whatever is in the log by now.
        var logged = Columns<ChangeRow>(db, "Sequence");
        var now = db.Now.ToUnixTimeMilliseconds().ToString(CultureInfo.InvariantCulture);
        yield return $"""
            INSERT INTO main.Changes ({string.Join(", ", logged)})
            SELECT {string.Join(", ", logged.Select(column => column == "\"At\"" ? now : column))}
            FROM aside.Changes ORDER BY Sequence
            """;
    }

    private static List<string> Columns<T>(MortarDb db, params string[] but) =>
        [
            .. db
                .Model.FindEntityType(typeof(T))!
                .GetProperties()
                .Select(property => property.GetColumnName())
                .Where(name => !but.Contains(name, StringComparer.Ordinal))
                .Select(name => $"\"{name}\""),
        ];

    private static string PathOf(MortarDb db) =>
        Path.GetFullPath(new SqliteConnectionStringBuilder(db.Database.GetConnectionString()).DataSource);

    private static string FolderOf(MortarDb db) => Path.Combine(Path.GetDirectoryName(PathOf(db))!, Folder);
}
