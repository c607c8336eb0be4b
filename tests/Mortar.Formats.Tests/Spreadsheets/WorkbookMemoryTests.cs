using Mortar.Core.Spreadsheets;
using Mortar.Formats.Spreadsheets;
using Xunit;

namespace Mortar.Formats.Tests.Spreadsheets;

/// <summary>What is measured of the whole process is measured with nothing beside it.</summary>
[CollectionDefinition(nameof(Alone), DisableParallelization = true)]
public sealed class Alone;

[Collection(nameof(Alone))]
public class WorkbookMemoryTests
{
    [Fact]
    public async Task A_hundred_thousand_rows_take_no_more_memory_than_a_thousand()
    {
        var few = await Peak(1_000);
        var many = await Peak(100_000);

        // All rows together are over 40 MB of cells; what differs is what the writer happens to hold when it is looked at.
        Assert.True(many < few + (8 << 20), $"{few:N0} bytes held at 1,000 rows, {many:N0} at 100,000");

        static async Task<long> Peak(int rows)
        {
            var peak = 0L;
            await Workbook.Write(Stream.Null, [new Table("Events", [new Column("What", 20)], Rows())], default);
            return peak;

            async IAsyncEnumerable<IReadOnlyList<Cell>> Rows()
            {
                for (var row = 0; row < rows; row++)
                {
                    if (row % (rows / 4) == 0)
                    {
                        peak = Math.Max(peak, GC.GetTotalMemory(forceFullCollection: true));
                    }

                    yield return [Cell.Of($"A title of some length, number {row}")];
                }

                await Task.CompletedTask;
            }
        }
    }
}
