using System.Buffers.Binary;

namespace Mortar.Data.Store;

/// <summary>
/// Looks into SQLite's log file before SQLite does. From the first frame on whose sum is wrong SQLite leaves the rest of the log
/// out and says nothing: right for a write that was cut short, which is the last one, and a silent loss where what comes after
/// it was acknowledged.
/// </summary>
/// <remarks>
/// The format is that of "The Write-Ahead Log" in https://www.sqlite.org/fileformat2.html (section 4). Damage to the very last
/// write cannot be told from one that was cut short.
/// </remarks>
public static class LogFile
{
    private const int HeaderLength = 32;
    private const int FrameHeaderLength = 24;
    private const uint Magic = 0x377f0682;

    /// <summary>How many acknowledged writes SQLite would leave out of a log file; 0 where it is whole, empty or not there.</summary>
    public static int WritesLost(string file)
    {
        if (!File.Exists(file))
        {
            return 0;
        }

        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        var header = new byte[HeaderLength];
        if (stream.ReadAtLeast(header, HeaderLength, throwOnEndOfStream: false) < HeaderLength)
        {
            return 0;
        }

        var magic = Number(header, 0);
        var (first, second) = (0u, 0u);
        var isBig = (magic & 1) == 1;
        Add(header.AsSpan(0, 24), isBig, ref first, ref second);
        var size = Number(header, 8);
        if (header.All(one => one == 0))
        {
            return 0;
        }

        if (
            (magic & ~1u) != Magic
            || size is < 512 or > 65_536
            || first != Number(header, 24)
            || second != Number(header, 28)
        )
        {
            // Nothing of it is read then; what was in it cannot be counted.
            return stream.Length > HeaderLength ? 1 : 0;
        }

        var frame = new byte[FrameHeaderLength + size];
        var (isWhole, lost) = (true, 0);
        while (stream.ReadAtLeast(frame, frame.Length, throwOnEndOfStream: false) == frame.Length)
        {
            if (!frame.AsSpan(8, 8).SequenceEqual(header.AsSpan(16, 8)))
            {
                // Of the round before: a log is written from its start again once all in it is in the store.
                if (isWhole)
                {
                    return 0;
                }

                continue;
            }

            if (isWhole)
            {
                Add(frame.AsSpan(0, 8), isBig, ref first, ref second);
                Add(frame.AsSpan(FrameHeaderLength), isBig, ref first, ref second);
                isWhole = first == Number(frame, 16) && second == Number(frame, 20);
                continue;
            }

            // After the frame that is wrong: one that ends a write was acknowledged.
            lost += Number(frame, 4) != 0 ? 1 : 0;
        }

        return lost;
    }

    private static uint Number(byte[] of, int at) => BinaryPrimitives.ReadUInt32BigEndian(of.AsSpan(at, 4));

    private static void Add(ReadOnlySpan<byte> bytes, bool isBig, ref uint first, ref uint second)
    {
        for (var at = 0; at + 8 <= bytes.Length; at += 8)
        {
            first += Word(bytes[at..]) + second;
            second += Word(bytes[(at + 4)..]) + first;
        }

        uint Word(ReadOnlySpan<byte> four) =>
            isBig ? BinaryPrimitives.ReadUInt32BigEndian(four) : BinaryPrimitives.ReadUInt32LittleEndian(four);
    }
}
