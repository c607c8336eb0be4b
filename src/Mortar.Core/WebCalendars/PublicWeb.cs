using System.Buffers.Binary;

namespace Mortar.Core.WebCalendars;

/// <summary>
/// Which addresses are of the public web, so that fetching a calendar never becomes a way to see what is inside: those that
/// the IANA special-purpose registries call globally reachable (RFC 6890, with RFC 8190), and none that hide another in them.
/// </summary>
/// <remarks>The blocks are those of the registries of IPv4 and IPv6; from memory, as of 2025.</remarks>
public static class PublicWeb
{
    /// <summary>All addresses that begin with the same bits.</summary>
    /// <param name="First">The first of them; of IPv4 in the last 32 bits.</param>
    /// <param name="Free">How many bits at the end are free.</param>
    private readonly record struct Block(UInt128 First, int Free)
    {
        public bool Has(UInt128 address) => (address ^ First) >> Free == UInt128.Zero;
    }

    private static readonly Block[] InsideOfFour =
    [
        Four(0, 0, 0, 0, 8), // this network (RFC 791)
        Four(10, 0, 0, 0, 8), // private (RFC 1918)
        Four(100, 64, 0, 0, 10), // shared by providers (RFC 6598)
        Four(127, 0, 0, 0, 8), // this machine (RFC 1122)
        Four(169, 254, 0, 0, 16), // this link, also where clouds answer their machines (RFC 3927)
        Four(172, 16, 0, 0, 12), // private (RFC 1918)
        Four(192, 0, 0, 0, 24), // protocol assignments (RFC 6890)
        Four(192, 0, 2, 0, 24), // documentation (RFC 5737)
        Four(192, 88, 99, 0, 24), // relays of 6to4, no more (RFC 7526)
        Four(192, 168, 0, 0, 16), // private (RFC 1918)
        Four(198, 18, 0, 0, 15), // measuring (RFC 2544)
        Four(198, 51, 100, 0, 24), // documentation (RFC 5737)
        Four(203, 0, 113, 0, 24), // documentation (RFC 5737)
        Four(224, 0, 0, 0, 4), // many at once (RFC 5771)
        Four(240, 0, 0, 0, 4), // kept back, and everybody (RFC 1112, RFC 8190)
    ];

    /// <summary>What is given out of IPv6 at all (RFC 4291, 2.4): neither this machine, this link, unique local ones nor many at once.</summary>
    private static readonly Block Global = Six(3, 0x2000);

    private static readonly Block[] InsideOfSix =
    [
        Six(23, 0x2001), // protocol assignments, tunnels among them (RFC 2928, RFC 4380)
        Six(32, 0x2001, 0x0db8), // documentation (RFC 3849)
        Six(16, 0x2002), // 6to4: an address of IPv4 in another (RFC 3056)
        Six(20, 0x3fff), // documentation (RFC 9637)
    ];

    /// <summary>Those that hold one of IPv4 in their last 32 bits: mapped (RFC 4291, 2.5.5.2) and translated (RFC 6052).</summary>
    private static readonly Block[] HoldFour = [Six(96, 0, 0, 0, 0, 0, 0xffff), Six(96, 0x0064, 0xff9b)];

    /// <summary>Whether calendars are fetched from a port.</summary>
    public static bool IsPort(int port) => port is 80 or 443;

    /// <summary>Whether an address is of the public web.</summary>
    /// <param name="address">Its bytes, 4 of IPv4 or 16 of IPv6, as they are sent; of another length it is none.</param>
    public static bool Has(ReadOnlySpan<byte> address) =>
        address.Length switch
        {
            4 => HasFour(BinaryPrimitives.ReadUInt32BigEndian(address)),
            16 => HasSix(BinaryPrimitives.ReadUInt128BigEndian(address)),
            _ => false,
        };

    private static bool HasFour(UInt128 address) => !Array.Exists(InsideOfFour, block => block.Has(address));

    private static bool HasSix(UInt128 address) =>
        Array.Exists(HoldFour, block => block.Has(address))
            ? HasFour((uint)address)
            : Global.Has(address) && !Array.Exists(InsideOfSix, block => block.Has(address));

    private static Block Four(byte a, byte b, byte c, byte d, int length) =>
        new(((uint)a << 24) | ((uint)b << 16) | ((uint)c << 8) | d, 32 - length);

    /// <param name="length">How many bits are the same.</param>
    /// <param name="groups">The first groups of 16 bits; the others are 0.</param>
    private static Block Six(int length, params ushort[] groups)
    {
        var first = UInt128.Zero;
        for (var i = 0; i < 8; i++)
        {
            first = (first << 16) | (i < groups.Length ? groups[i] : (UInt128)0);
        }

        return new Block(first, 128 - length);
    }
}
