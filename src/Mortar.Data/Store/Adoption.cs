using Microsoft.EntityFrameworkCore;

namespace Mortar.Data.Store;

/// <summary>
/// The steps that led to the first release became one, <c>Initial</c>. A store that has taken all of them is what that one
/// makes, and is adopted by naming it so; one that stopped at an earlier step is not read any more.
/// </summary>
internal static class Adoption
{
    /// <summary>The last step before they became one.</summary>
    private const string LastStep = "20261129031048_Suitings";

    /// <summary>Whether a step is one of those that became one.</summary>
    public static bool IsOld(string step) => string.CompareOrdinal(step, LastStep) <= 0;

    /// <summary>Why it cannot be adopted; <c>null</c> where it can be, or need not.</summary>
    /// <param name="db">The store.</param>
    /// <param name="file">Where it is, to be told.</param>
    /// <param name="applied">What its history names.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<string?> WhyNot(
        MortarDb db,
        string file,
        IReadOnlyList<string> applied,
        CancellationToken cancellationToken
    )
    {
        if (applied.Count == 0 || !IsOld(applied[^1]))
        {
            return null;
        }

        if (applied[^1] != LastStep)
        {
            return Older(file, applied[^1]);
        }

        // What trials before the last step wrote in other forms was read until then, and is not any more.
        var left = await db
            .Database.SqlQuery<int>(
                $"""
                SELECT (SELECT count(*) FROM Events WHERE json_extract(Series, '$.Rule') IS NOT NULL)
                    + (SELECT count(*) FROM Invitations WHERE LinkHash <> '' AND length(LinkHash) < {LinkSecret.HashLength}) AS Value
                """
            )
            .SingleAsync(cancellationToken);
        return left > 0 ? Older(file, $"{left} rows of an earlier form") : null;
    }

    /// <summary>Names in its history the one step it is made by, where it was made by those.</summary>
    public static async Task Adopt(MortarDb db, CancellationToken cancellationToken)
    {
        if (!(await db.Database.GetAppliedMigrationsAsync(cancellationToken)).Any(IsOld))
        {
            return;
        }

        var initial = db.Database.GetMigrations().First();
        await using var transaction = await db.Database.BeginTransactionAsync(cancellationToken);
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion)
            SELECT {initial}, ProductVersion FROM __EFMigrationsHistory WHERE MigrationId = {LastStep};
            DELETE FROM __EFMigrationsHistory WHERE MigrationId <> {initial};
            """,
            cancellationToken
        );
        await transaction.CommitAsync(CancellationToken.None);
    }

    private static string Older(string file, string found) =>
        $"The store {file} was begun by a Mortar from before the first release ({found}), which this one does not read. Nothing was changed. "
        + "Start on an empty directory; calendars that the older Mortar gives out as files can be taken in there.";
}
