using System.Net;
using Mortar.Core.WebCalendars;
using Xunit;

namespace Mortar.Core.Tests.WebCalendars;

/// <summary>Which addresses are of the public web: the first and last of each block of the registries, and the neighbours of both.</summary>
public class PublicWebTests
{
    /// <summary>The IANA IPv4 and IPv6 Special-Purpose Address Registries (RFC 6890); the blocks from memory.</summary>
    [Theory]
    [InlineData("0.0.0.0", "0.255.255.255")]
    [InlineData("10.0.0.0", "10.255.255.255")]
    [InlineData("100.64.0.0", "100.127.255.255")]
    [InlineData("127.0.0.0", "127.255.255.255")]
    [InlineData("169.254.0.0", "169.254.255.255")]
    [InlineData("172.16.0.0", "172.31.255.255")]
    [InlineData("192.0.0.0", "192.0.0.255")]
    [InlineData("192.0.2.0", "192.0.2.255")]
    [InlineData("192.88.99.0", "192.88.99.255")]
    [InlineData("192.168.0.0", "192.168.255.255")]
    [InlineData("198.18.0.0", "198.19.255.255")]
    [InlineData("198.51.100.0", "198.51.100.255")]
    [InlineData("203.0.113.0", "203.0.113.255")]
    [InlineData("224.0.0.0", "255.255.255.255")]
    [InlineData("::", "::1")]
    [InlineData("64:ff9b:1::", "64:ff9b:1:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("100::", "100::ffff:ffff:ffff:ffff")]
    [InlineData("2001::", "2001:1ff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("2001:db8::", "2001:db8:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("2002::", "2002:ffff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("3fff::", "3fff:fff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("5f00::", "5f00:ffff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("fc00::", "fdff:ffff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("fe80::", "febf:ffff:ffff:ffff:ffff:ffff:ffff:ffff")]
    [InlineData("ff00::", "ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff")]
    public void What_is_set_apart_is_not(string first, string last)
    {
        Assert.False(Has(first));
        Assert.False(Has(last));
    }

    [Theory]
    [InlineData("1.1.1.1")]
    [InlineData("9.255.255.255")]
    [InlineData("11.0.0.0")]
    [InlineData("100.63.255.255")]
    [InlineData("100.128.0.0")]
    [InlineData("126.255.255.255")]
    [InlineData("128.0.0.0")]
    [InlineData("172.15.255.255")]
    [InlineData("172.32.0.0")]
    [InlineData("192.167.255.255")]
    [InlineData("192.169.0.0")]
    [InlineData("223.255.255.255")]
    [InlineData("2000::1")]
    [InlineData("2001:200::1")]
    [InlineData("2606:4700:4700::1111")]
    [InlineData("::ffff:1.1.1.1")]
    [InlineData("64:ff9b::1.1.1.1")]
    public void The_others_are(string address) => Assert.True(Has(address));

    /// <summary>Addresses of IPv4 in others: mapped (RFC 4291, 2.5.5.2), translated (RFC 6052), by 6to4 (RFC 3056) and compatible (RFC 4291, 2.5.5.1).</summary>
    [Theory]
    [InlineData("::ffff:127.0.0.1")]
    [InlineData("::ffff:7f00:1")]
    [InlineData("::ffff:169.254.169.254")]
    [InlineData("64:ff9b::10.0.0.1")]
    [InlineData("2002:7f00:1::")]
    [InlineData("::127.0.0.1")]
    public void Nothing_hides_in_another(string address) => Assert.False(Has(address));

    [Theory]
    [InlineData(80, true)]
    [InlineData(443, true)]
    [InlineData(22, false)]
    [InlineData(25, false)]
    [InlineData(8080, false)]
    public void Calendars_are_fetched_from_the_ports_of_the_web(int port, bool isOne) =>
        Assert.Equal(isOne, PublicWeb.IsPort(port));

    [Fact]
    public void What_is_no_address_is_none() => Assert.False(PublicWeb.Has([1, 1, 1]));

    private static bool Has(string address) => PublicWeb.Has(IPAddress.Parse(address).GetAddressBytes());
}
