namespace Mortar.Data.Store;

/// <summary>Holds the data directory for one Mortar: what is kept in memory is true only as long as nobody else writes.</summary>
public sealed class StoreLock : IDisposable
{
    /// <summary>The file that is held; it stays, and says nothing once its Mortar is gone.</summary>
    public const string FileName = "mortar.lock";

    private FileStream? held;

    /// <summary>Takes the directory until this is disposed of or the process ends, however it ends.</summary>
    /// <exception cref="StartRefusedException">Another Mortar has it.</exception>
    public void Hold(string directory)
    {
        var file = Path.Combine(directory, FileName);
        try
        {
            held = new FileStream(file, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException) when (File.Exists(file))
        {
            throw new StartRefusedException(
                $"Another Mortar is running on {directory}. Stop that one first, or give this one a directory of its own (--Mortar:Data=DIR)."
            );
        }
    }

    /// <summary>Whether a Mortar runs on a directory.</summary>
    public static bool IsHeld(string directory)
    {
        try
        {
            using var taken = new FileStream(
                Path.Combine(directory, FileName),
                FileMode.Open,
                FileAccess.ReadWrite,
                FileShare.None
            );
            return false;
        }
        catch (FileNotFoundException)
        {
            return false;
        }
        catch (IOException)
        {
            return true;
        }
    }

    /// <inheritdoc />
    public void Dispose() => held?.Dispose();
}
