using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Data.Store;

/// <summary>
/// All that has to outlive the machine in one file: a ZIP with the store, the keys, the post room, and a list of what each of
/// these sums up to. It is made while Mortar runs, is checked after it is written, and is there whole or not at all.
/// </summary>
/// <remarks>
/// The store in it is made by <c>VACUUM INTO</c>, which SQLite names beside its online backup for this
/// (https://www.sqlite.org/lang_vacuum.html): one reading of the running store, without the free pages in which what has gone
/// for good could still be read.
/// </remarks>
public static class Backup
{
    /// <summary>Where backups that Mortar makes by itself are kept, in the data directory.</summary>
    public const string Folder = "backups";

    /// <summary>There while a backup is put back: what it left half done is not a store.</summary>
    public const string UnfinishedRestore = "restore-unfinished";

    private const string ListName = "mortar-backup.json";

    /// <summary>Raised when a backup is laid out otherwise, so that an older Mortar does not misread it.</summary>
    private const int Form = 1;

    /// <summary>What is in a backup beside the store: folders of files, none of which is changed once it is there.</summary>
    private static readonly string[] Folders = [DataFolders.Keys, DataFolders.PostRoom];

    /// <param name="Form">How it is laid out.</param>
    /// <param name="Made">When, as RFC 3339 has it.</param>
    /// <param name="LastStep">The last migration that its store has taken.</param>
    /// <param name="Sums">The SHA-256 of each file, in hexadecimal.</param>
    private sealed record Listing(int Form, string Made, string LastStep, SortedDictionary<string, string> Sums);

    /// <summary>What a backup holds.</summary>
    /// <param name="Made">When it was made, as RFC 3339 has it.</param>
    /// <param name="Files">How many files are in it, the store among them.</param>
    /// <param name="Length">How long it is, in bytes.</param>
    public sealed record Summary(string Made, int Files, long Length);

    /// <summary>Makes a backup, and reads it again.</summary>
    /// <param name="directory">The data directory, whether a Mortar runs on it or not.</param>
    /// <param name="file">Where to; there is none yet.</param>
    /// <param name="now">What o'clock it is.</param>
    /// <param name="store">The store, where it is not the one in the directory.</param>
    /// <exception cref="BackupException">It cannot be made; nothing is left of it.</exception>
    public static Summary Write(string directory, string file, Instant now, string? store = null)
    {
        store ??= Path.Combine(directory, StoreSetup.FileName);
        if (!File.Exists(store))
        {
            throw new BackupException(
                $"There is no store in {directory}. Name the directory that ./mortar serve --data names."
            );
        }

        if (Path.Exists(file))
        {
            throw new BackupException(
                $"{file} is there already, and is not written over. Give the backup another name."
            );
        }

        if (store == Path.Combine(directory, StoreSetup.FileName))
        {
            StoreStart.ThrowWhereUnfinished(directory);
            if (!StoreLock.IsHeld(directory) && StoreStart.WhyLost(directory) is { } lost)
            {
                throw new BackupException(lost); // opened by SQLite it would be taken for whole
            }
        }

        var (copy, making) = ($"{file}.store", $"{file}.making");
        Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(file))!);
        try
        {
            foreach (var one in new[] { copy, making })
            {
                File.Delete(one);
                Own(one).Dispose();
            }

            CopyStore(store, copy);
            Pack(directory, copy, making, now);
            var found = Verify(making);
            File.Move(making, file);
            return new Summary(found.Made, found.Sums.Count, new FileInfo(file).Length);
        }
        finally
        {
            File.Delete(copy);
            File.Delete(making);
        }
    }

    /// <summary>Puts a backup into a directory in which there is nothing yet.</summary>
    /// <param name="file">The backup.</param>
    /// <param name="directory">Where to; made where it is missing.</param>
    /// <param name="steps">The migrations that this Mortar knows.</param>
    /// <exception cref="BackupException">It cannot be put back. What is there is as it was, or half done and known to be.</exception>
    public static Summary Restore(string file, string directory, IEnumerable<string> steps)
    {
        if (!File.Exists(file))
        {
            throw new BackupException($"There is no file {file}.");
        }

        var mark = Path.Combine(directory, UnfinishedRestore);
        if (
            Directory.Exists(directory)
            && !File.Exists(mark)
            && Directory.EnumerateFileSystemEntries(directory).Any(path => Path.GetFileName(path) != "lost+found")
        )
        {
            throw new BackupException(
                $"{directory} is not empty, and a backup is never put over what is there. Name an empty directory, or a new one."
            );
        }

        // All of it is read before anything is written.
        var list = Verify(file);
        if (!steps.Contains(list.LastStep, StringComparer.Ordinal))
        {
            throw new BackupException(
                $"The backup was made by a newer Mortar ({list.LastStep}), which this one does not understand. Put it back by that release."
            );
        }

        Directory.CreateDirectory(directory);
        Own(mark).Dispose();
        using var archive = Open(file);
        // The store last: what has none is no Mortar's directory.
        foreach (var name in list.Sums.Keys.OrderBy(name => name == StoreSetup.FileName))
        {
            var path = Path.Combine(directory, name);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            using var from = archive.GetEntry(name)!.Open();
            using var to = Own(path);
            from.CopyTo(to);
            to.Flush(flushToDisk: true);
        }

        var wrong = StoreFile.WhyDamaged(Path.Combine(directory, StoreSetup.FileName));
        if (wrong is not null)
        {
            throw new BackupException($"The store in the backup is damaged ({wrong}). Take an older backup.");
        }

        File.Delete(mark);
        return new Summary(list.Made, list.Sums.Count, new FileInfo(file).Length);
    }

    private static void CopyStore(string store, string copy)
    {
        try
        {
            using var connection = new SqliteConnection(
                new SqliteConnectionStringBuilder
                {
                    DataSource = store,
                    Mode = SqliteOpenMode.ReadWrite,
                    Pooling = false,
                }.ConnectionString
            );
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "VACUUM INTO $copy";
            command.CommandTimeout = 0; // as long as it takes; nobody waits for it
            command.Parameters.AddWithValue("$copy", copy);
            command.ExecuteNonQuery();
        }
        catch (SqliteException bad) when (StoreFaults.Of(bad) is (StoreFault.Damaged, _))
        {
            throw new BackupException(
                $"The store is damaged ({bad.Message}), and no backup was made of it. See ./mortar check, and keep the backups you have."
            );
        }

        if (StoreFile.WhyDamaged(copy) is { } wrong)
        {
            throw new BackupException(
                $"The store is damaged ({wrong}), and no backup was made of it. See ./mortar check, and keep the backups you have."
            );
        }
    }

    private static void Pack(string directory, string copy, string making, Instant now)
    {
        var sums = new SortedDictionary<string, string>(StringComparer.Ordinal);
        using var stream = new FileStream(making, FileMode.Open, FileAccess.ReadWrite);
        using (var archive = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            sums[StoreSetup.FileName] = Add(archive, StoreSetup.FileName, copy);
            foreach (var folder in Folders.Select(name => Path.Combine(directory, name)).Where(Directory.Exists))
            {
                foreach (var path in Directory.EnumerateFiles(folder).Order(StringComparer.Ordinal))
                {
                    var name = $"{Path.GetFileName(folder)}/{Path.GetFileName(path)}";
                    try
                    {
                        if (Path.GetExtension(path) is ".xml" or ".eml")
                        {
                            sums[name] = Add(archive, name, path);
                        }
                    }
                    catch (FileNotFoundException)
                    {
                        // Swept since it was listed.
                    }
                }
            }

            using var list = archive.CreateEntry(ListName).Open();
            JsonSerializer.Serialize(
                list,
                new Listing(Form, InstantPattern.ExtendedIso.Format(now), StoreFile.LastStep(copy), sums)
            );
        }

        stream.Flush(flushToDisk: true);
    }

    private static string Add(ZipArchive archive, string name, string path)
    {
        using var from = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        using var to = archive.CreateEntry(name, CompressionLevel.Fastest).Open();
        using var sum = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = new byte[1 << 16];
        for (int read; (read = from.Read(buffer)) > 0; )
        {
            sum.AppendData(buffer, 0, read);
            to.Write(buffer, 0, read);
        }

        return Convert.ToHexStringLower(sum.GetHashAndReset());
    }

    private static ZipArchive Open(string file)
    {
        try
        {
            return ZipFile.OpenRead(file);
        }
        catch (InvalidDataException)
        {
            throw new BackupException($"{file} is no backup of Mortar's, or it was cut short.");
        }
    }

    /// <summary>Reads a backup through.</summary>
    private static Listing Verify(string file)
    {
        using var archive = Open(file);
        if (Read(archive) is not { } list)
        {
            throw new BackupException($"{file} is no backup of Mortar's.");
        }

        if (list.Form != Form)
        {
            throw new BackupException($"{file} was made by a newer Mortar, and can be put back by that release only.");
        }

        var names = archive.Entries.Select(entry => entry.FullName).Where(name => name != ListName);
        if (!names.Order(StringComparer.Ordinal).SequenceEqual(list.Sums.Keys, StringComparer.Ordinal))
        {
            throw new BackupException($"{file} does not hold the files that it lists. Take another backup.");
        }

        foreach (var (name, sum) in list.Sums)
        {
            if (!IsOurs(name) || Sum(archive.GetEntry(name)!) != sum)
            {
                throw new BackupException(
                    $"{file} is damaged: {name} in it is not what was written. Take another backup."
                );
            }
        }

        return list;
    }

    private static Listing? Read(ZipArchive archive)
    {
        try
        {
            using var stream = archive.GetEntry(ListName)?.Open();
            return stream is null ? null
                : JsonSerializer.Deserialize<Listing>(stream) is { Sums: not null } list
                && list.Sums.ContainsKey(StoreSetup.FileName)
                    ? list
                : null;
        }
        catch (Exception bad) when (bad is JsonException or InvalidDataException)
        {
            return null;
        }
    }

    /// <summary>Only what a backup of Mortar's holds is written anywhere: a name that leads out of the directory is none of these.</summary>
    private static bool IsOurs(string name) =>
        name == StoreSetup.FileName
        || (
            name.Split('/') is [var folder, var inside] && Folders.Contains(folder) && inside is not ("" or "." or "..")
        );

    private static string? Sum(ZipArchiveEntry entry)
    {
        try
        {
            using var stream = entry.Open();
            return Convert.ToHexStringLower(SHA256.HashData(stream));
        }
        catch (InvalidDataException)
        {
            return null;
        }
    }

    /// <summary>A file that is its owner's alone from the first byte.</summary>
    private static FileStream Own(string path)
    {
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.ReadWrite };
        if (!OperatingSystem.IsWindows())
        {
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        }

        return new FileStream(path, options);
    }
}
