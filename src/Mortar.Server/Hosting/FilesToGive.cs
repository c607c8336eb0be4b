namespace Mortar.Server.Hosting;

/// <summary>
/// Files that are made before they are given out: written to disk as they are read, so that they may be large, and whole before
/// their first byte leaves, so that none is half of one. They go with whoever closes them.
/// </summary>
internal sealed class FilesToGive
{
    /// <summary>How large a file may become: what one person has made must not fill the disk of all.</summary>
    public const long MostBytes = 256L << 20;

    /// <summary>Where they lie under the data.</summary>
    public const string Folder = "giving";

    private readonly string folder;

    public FilesToGive(MortarOptions options)
    {
        folder = Path.Combine(options.Data, Folder);
        if (Directory.Exists(folder))
        {
            Directory.Delete(folder, recursive: true); // what was being made when Mortar ended is made again
        }

        Directory.CreateDirectory(folder);
    }

    /// <summary>Where a file may lie that is given out more than once; it goes when its keeper deletes it, or with the next start.</summary>
    public string Place() => Path.Combine(folder, Guid.CreateVersion7().ToString("N"));

    /// <summary>A new file to write and then to read.</summary>
    public FileStream Make() =>
        new(
            Place(),
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.ReadWrite,
                Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
            }
        );

    /// <summary>A new file that was written whole, at its beginning.</summary>
    /// <param name="write">Writes it; where it throws, nothing stays. What becomes larger than it may is a <see cref="FileTooLargeException"/>.</param>
    public async Task<FileStream> Make(Func<Stream, Task> write)
    {
        var file = Make();
        try
        {
            await write(new BoundedStream(file, MostBytes));
            file.Position = 0;
            return file;
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }

    /// <summary>A name for a file, with nothing in it that a file system minds.</summary>
    /// <param name="words">What it is of, as people call it.</param>
    /// <param name="ending">With its dot.</param>
    public static string Name(string words, string ending)
    {
        var kept = new string([.. words.Select(c => char.IsLetterOrDigit(c) ? c : ' ')]);
        var name = string.Join('-', kept.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return (name.Length > 0 ? name : "calendar") + ending;
    }
}
