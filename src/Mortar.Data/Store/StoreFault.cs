using Microsoft.Data.Sqlite;

namespace Mortar.Data.Store;

/// <summary>What keeps the store from being read or written, apart from any fault of Mortar's own.</summary>
public enum StoreFault
{
    /// <summary>Somebody else holds it for longer than anybody waits.</summary>
    Busy,

    /// <summary>The disk under it has no room.</summary>
    Full,

    /// <summary>It can only be read.</summary>
    ReadOnly,

    /// <summary>What is in it cannot be.</summary>
    Damaged,

    /// <summary>There is no file, or none that this user may open.</summary>
    NotOpened,

    /// <summary>The disk does not read or write as it should.</summary>
    Failing,
}

/// <summary>Knows a fault of the store by what was thrown.</summary>
public static class StoreFaults
{
    private const int LogIndexNotGrown = 4874; // SQLITE_IOERR_SHMSIZE: the first thing there is no room for at a start
    private const int NoSpace = 28; // ENOSPC of errno(3)
    private const int ReadOnlyDisk = 30; // EROFS

    /// <summary>The fault, and the one of the causes that told it; <c>null</c> where it is none of the store's.</summary>
    /// <param name="bad">What was thrown.</param>
    public static (StoreFault Fault, Exception By)? Of(Exception bad)
    {
        for (var cause = bad; cause is not null; cause = cause.InnerException)
        {
            StoreFault? fault = cause switch
            {
                StoreBusyException => StoreFault.Busy,
                SqliteException { SqliteExtendedErrorCode: LogIndexNotGrown } => StoreFault.Full,
                SqliteException store => OfCode(store.SqliteErrorCode),
                IOException full when (full.HResult & 0xffff) == NoSpace => StoreFault.Full,
                IOException only when (only.HResult & 0xffff) == ReadOnlyDisk => StoreFault.ReadOnly,
                _ => null,
            };
            if (fault is { } known)
            {
                return (known, cause);
            }
        }

        return null;
    }

    // SQLite's result codes (https://www.sqlite.org/rescode.html).
    private static StoreFault? OfCode(int code) =>
        code switch
        {
            5 or 6 => StoreFault.Busy,
            8 => StoreFault.ReadOnly,
            10 => StoreFault.Failing,
            11 or 26 => StoreFault.Damaged,
            13 => StoreFault.Full,
            14 => StoreFault.NotOpened,
            _ => null,
        };
}
