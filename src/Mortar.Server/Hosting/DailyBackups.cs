using System.Globalization;
using Microsoft.Data.Sqlite;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Makes a backup a day where a setting says so, and takes out those that are older than it says.</summary>
internal sealed class DailyBackups(MortarOptions options, IClock clock, TimeProvider time, ILogger<DailyBackups> log)
    : BackgroundService
{
    /// <summary>For how long the backup from before an update is kept, however few days others are.</summary>
    internal const int ShortestBeforeUpdate = 30;

    /// <summary>Since when today's cannot be made; <c>null</c> where nothing keeps it from being made.</summary>
    public Instant? FailingSince { get; private set; }

    private static readonly TimeSpan First = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(30);

    /// <summary>Where they are kept.</summary>
    internal static string FolderOf(MortarOptions options) =>
        options.BackupsTo.Length > 0
            ? Path.GetFullPath(options.BackupsTo)
            : Path.Combine(Path.GetFullPath(options.Data), Backup.Folder);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(First, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            timer.Period = Every;
            try
            {
                Make();
            }
            catch (Exception bad)
                when (bad is BackupException or IOException or UnauthorizedAccessException or SqliteException)
            {
                log.LogError(bad, "Today's backup could not be made; trying again in half an hour");
            }
        }
    }

    /// <summary>Makes today's where it is not there yet, then takes out the old: never the last good one before there is a newer.</summary>
    internal void Make()
    {
        try
        {
            MakeToday();
            FailingSince = null;
        }
        catch
        {
            FailingSince ??= clock.GetCurrentInstant();
            throw;
        }
    }

    private void MakeToday()
    {
        var today = clock.GetCurrentInstant().InUtc().Date;
        var folder = FolderOf(options);
        if (options.BackupDays > 0)
        {
            var file = Path.Combine(folder, $"mortar-{Name(today)}.zip");
            if (!File.Exists(file))
            {
                var made = Backup.Write(Path.GetFullPath(options.Data), file, clock.GetCurrentInstant());
                log.LogInformation("Today's backup is {File}: {Length} bytes, read again", file, made.Length);
                Remove(
                    folder,
                    "mortar-????-??-??.zip",
                    path => !IsYounger(path, today - Period.FromDays(options.BackupDays))
                );
                Remove(folder, "mortar-*.zip.*", path => !path.EndsWith(".zip", StringComparison.Ordinal)); // of a stop in the middle
            }
        }

        var oldest = clock.GetCurrentInstant() - Duration.FromDays(Math.Max(options.BackupDays, ShortestBeforeUpdate));
        Remove(
            Path.Combine(Path.GetFullPath(options.Data), Backup.Folder),
            "before-*.zip",
            path => Instant.FromDateTimeUtc(File.GetLastWriteTimeUtc(path)) < oldest
        );
    }

    private static void Remove(string folder, string pattern, Func<string, bool> isOld)
    {
        if (Directory.Exists(folder))
        {
            foreach (var path in Directory.EnumerateFiles(folder, pattern).Where(isOld).ToList())
            {
                File.Delete(path);
            }
        }
    }

    private static bool IsYounger(string path, LocalDate than) =>
        string.CompareOrdinal(Path.GetFileName(path), $"mortar-{Name(than)}.zip") > 0;

    private static string Name(LocalDate day) => day.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
}
