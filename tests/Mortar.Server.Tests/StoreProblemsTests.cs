using Microsoft.Data.Sqlite;
using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What is told of a store that cannot write; on real disks <see cref="DiskTests"/> hold it.</summary>
public class StoreProblemsTests
{
    // The codes are SQLite's result codes (https://www.sqlite.org/rescode.html) and errno(3).
    public static readonly TheoryData<Exception, int?, string?> Faults = new()
    {
        { new SqliteException("database is locked", 5), 503, "busy" },
        { new InvalidOperationException("outer", new SqliteException("database or disk is full", 13)), 507, "full" },
        { new SqliteException("disk I/O error", 10, 4874), 507, "full" },
        { new IOException("No space left on device", 28), 507, "full" },
        { new SqliteException("attempt to write a readonly database", 8), 503, "read-only" },
        { new IOException("Read-only file system", 30), 503, "read-only" },
        { new SqliteException("disk I/O error", 10), null, null },
        { new SqliteException("constraint failed", 19), null, null },
        { new InvalidOperationException("a fault of Mortar's own"), null, null },
    };

    [Theory]
    [MemberData(nameof(Faults), DisableDiscoveryEnumeration = true)]
    public void What_is_wrong_with_the_disk_is_told_as_that_and_nothing_else_is(
        Exception bad,
        int? status,
        string? type
    )
    {
        var told = StoreProblems.Of(bad);

        Assert.Equal((status, type), (told?.Status, told?.Type));
    }
}
