using Mortar.Core.Time;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary><c>./mortar backup DIR FILE</c>, <c>restore FILE DIR</c> and <c>check DIR</c>: for whoever keeps the machine.</summary>
/// <remarks>Exit codes: 0 where it was done or is in order, 1 where not; the last line says which.</remarks>
internal static class StoreCommands
{
    private const string Usage = "./mortar backup DIR FILE, ./mortar restore FILE DIR, or ./mortar check DIR";

    /// <summary>Whether a command line is one of these.</summary>
    public static bool Knows(string[] arguments) => arguments is ["backup" or "restore" or "check", ..];

    public static async Task<int> Run(
        string[] arguments,
        ZoneClock clock,
        string zoneVersion,
        TextWriter output,
        TextWriter errors
    )
    {
        InFront.KeepNewToOwner();
        try
        {
            switch (arguments)
            {
                case ["backup", var directory, var file]:
                    if (
                        Path.GetFullPath(file)
                            .StartsWith(Path.GetFullPath(directory).TrimEnd('/') + '/', StringComparison.Ordinal)
                    )
                    {
                        throw new BackupException(
                            "A backup in the directory that it is of is lost with it. Name a place outside, best on another disk."
                        );
                    }

                    var made = Backup.Write(directory, file, SystemClock.Instance.GetCurrentInstant());
                    output.WriteLine(
                        $"{file}: {made.Files} files, {made.Length:N0} bytes, read again and found whole."
                    );
                    return 0;

                case ["restore", var file, var directory]:
                    var back = Backup.Restore(file, directory, StoreStart.Steps());
                    output.WriteLine(
                        $"{directory} is as it was at {back.Made}. Start Mortar on it: ./mortar serve --data {directory}"
                    );
                    return 0;

                case ["check", var directory]:
                    return Tell(
                        directory,
                        await StoreInspection.Look(directory, clock, zoneVersion, CancellationToken.None),
                        output
                    );

                default:
                    errors.WriteLine(Usage);
                    return 1;
            }
        }
        catch (BackupException bad)
        {
            errors.WriteLine(bad.Message);
        }
        catch (Exception bad) when (WhyNotStart.Sentence(bad, arguments[^1]) is { } sentence)
        {
            errors.WriteLine(sentence);
        }
        catch (Exception bad) when (bad is IOException or UnauthorizedAccessException)
        {
            errors.WriteLine($"It could not be done, and nothing was changed: {bad.Message}");
        }

        return 1;
    }

    private static int Tell(string directory, IReadOnlyList<Inspected> found, TextWriter output)
    {
        foreach (var one in found)
        {
            output.WriteLine(
                one.Wrong is null ? $"in order      {one.What}" : $"NOT IN ORDER  {one.What}: {one.Wrong}"
            );
        }

        var wrong = found.Count(one => one.Wrong is not null);
        output.WriteLine(
            wrong switch
            {
                0 => $"{directory} is in order.",
                1 => $"{directory} is not in order: see the line above.",
                _ => $"{directory} is not in order: see the {wrong} lines above.",
            }
        );
        return wrong == 0 ? 0 : 1;
    }
}
