using Microsoft.Data.Sqlite;

namespace Mortar.Data.Store;

/// <summary>A file of SQLite that nobody else uses, looked into.</summary>
internal static class StoreFile
{
    /// <summary>What is wrong with it, read through; <c>null</c> where nothing is.</summary>
    public static string? WhyDamaged(string file)
    {
        try
        {
            var found = (string)Ask(file, "PRAGMA integrity_check(1)")!;
            return found == "ok" ? null : found.ReplaceLineEndings(" ");
        }
        catch (SqliteException bad) when (StoreFaults.Of(bad) is (StoreFault.Damaged, _))
        {
            return bad.Message;
        }
    }

    /// <summary>The last migration that it has taken; empty where it has taken none.</summary>
    public static string LastStep(string file) =>
        (string)Ask(file, "SELECT ifnull(max(MigrationId), '') FROM __EFMigrationsHistory")!;

    private static object? Ask(string file, string question)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false,
            }.ConnectionString
        );
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandTimeout = 0;
        command.CommandText = question;
        return command.ExecuteScalar();
    }
}
