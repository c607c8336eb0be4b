using System.Diagnostics;
using System.Globalization;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>
/// A disk of its own of a few megabytes, which can really be full and really be only read: a memory file system in a mount
/// namespace that only this test and what it starts there can see (util-linux's <c>unshare</c> and <c>nsenter</c>).
/// </summary>
internal sealed class SmallDisk : IAsyncDisposable
{
    private const string Ballast = "ballast";

    private readonly Process holder;

    private SmallDisk(Process holder, string path) => (this.holder, Path) = (holder, path);

    /// <summary>Where it is, for who runs <see cref="Inside"/>.</summary>
    public string Path { get; }

    /// <summary>What is put before a command so that it sees the disk.</summary>
    public IReadOnlyList<string> Inside =>
        ["nsenter", "--preserve-credentials", "-t", holder.Id.ToString(CultureInfo.InvariantCulture), "-U", "-m", "--"];

    /// <summary>Where the test itself sees it.</summary>
    public string FromOutside => $"/proc/{holder.Id}/root{Path}";

    /// <summary>Makes one with what is in a folder on it; skips the test where this machine lets nobody make any.</summary>
    /// <param name="folder">What is on it.</param>
    /// <param name="room">How much more fits, in bytes.</param>
    public static async Task<SmallDisk> With(string folder, long room)
    {
        var path = Directory.CreateTempSubdirectory("mortar-disk-").FullName;
        var size = room + new DirectoryInfo(folder).EnumerateFiles().Sum(file => file.Length);
        var holds = Process.Start(
            new ProcessStartInfo(
                "unshare",
                [
                    "-r",
                    "-m",
                    "sh",
                    "-c",
                    "mount -t tmpfs -o size=\"$1\" mortar \"$2\" && cp -a \"$3\"/. \"$2\" && echo there && exec cat",
                    "sh",
                    size.ToString(CultureInfo.InvariantCulture),
                    path,
                    folder,
                ]
            )
            {
                UseShellExecute = false,
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var disk = new SmallDisk(holds, path);
        if (await holds.StandardOutput.ReadLineAsync() != "there")
        {
            var why = await holds.StandardError.ReadToEndAsync();
            await disk.DisposeAsync();
            Assert.Skip($"No disk can be made here: {why}");
        }

        return disk;
    }

    /// <summary>Leaves no room on it, or only so many bytes.</summary>
    public void Fill(long leaves = 0)
    {
        using var ballast = new FileStream(
            System.IO.Path.Combine(FromOutside, Ballast),
            FileMode.Append,
            FileAccess.Write,
            FileShare.None,
            bufferSize: 0 // what did not fit would be written once more at the end
        );
        foreach (var size in new[] { 1024 * 1024, 4096, 1 })
        {
            try
            {
                while (true)
                {
                    ballast.Write(new byte[size]);
                }
            }
            catch (IOException)
            {
                // Nothing of this size fits any more.
            }
        }

        ballast.SetLength(Math.Max(0, ballast.Length - leaves));
    }

    public void MakeRoom() => File.Delete(System.IO.Path.Combine(FromOutside, Ballast));

    /// <summary>Puts what is on it over what is in a folder: SQLite itself would look for it at <see cref="Path"/> outside.</summary>
    public void CopyTo(string folder)
    {
        foreach (var file in Directory.EnumerateFiles(FromOutside))
        {
            File.Copy(file, System.IO.Path.Combine(folder, System.IO.Path.GetFileName(file)), overwrite: true);
        }
    }

    /// <summary>Lets nobody write to it from now on, or again.</summary>
    public async Task Mount(bool writable)
    {
        IReadOnlyList<string> command =
        [
            .. Inside,
            "mount",
            "-o",
            string.Create(CultureInfo.InvariantCulture, $"remount,{(writable ? "rw" : "ro")}"),
            Path,
        ];
        using var mount = Process.Start(command[0], command.Skip(1));
        await mount.WaitForExitAsync();
        Assert.Equal(0, mount.ExitCode);
    }

    public async ValueTask DisposeAsync()
    {
        holder.StandardInput.Close(); // ends it, and with it the disk
        await holder.WaitForExitAsync();
        holder.Dispose();
        Directory.Delete(Path);
    }
}
