using Mortar.Core.Access;
using Mortar.Core.Devices;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Devices;

public class DeviceTests
{
    [Theory]
    [InlineData(Role.Edit, Role.Coordinate, Role.Coordinate)]
    [InlineData(Role.Edit, Role.Times, Role.Times)]
    [InlineData(Role.View, Role.Edit, Role.Edit)]
    [InlineData(Role.Outline, Role.Edit, Role.Outline)]
    [InlineData(Role.Times, Role.Edit, Role.Times)]
    [InlineData(Role.Outline, Role.Times, Role.Times)]
    [InlineData(Role.Outline, Role.None, Role.None)]
    public void It_reads_as_its_owner_or_where_less_is_to_be_shown_no_more_than_that(
        Role device,
        Role owners,
        Role reads
    ) => Assert.Equal(reads, new Device("Phone", device).On(owners));

    [Fact]
    public void Where_less_is_to_be_shown_it_is_named_on_nothing()
    {
        Assert.Equal(Studio.Priya, new Device("Phone", Role.View).ReadsAs(Studio.Priya));
        Assert.Equal(Studio.Priya, new Device("Phone", Role.Edit).ReadsAs(Studio.Priya));
        Assert.Equal(PersonId.Nobody, new Device("Phone", Role.Outline).ReadsAs(Studio.Priya));
        Assert.Equal(PersonId.Nobody, new Device("Phone", Role.Times).ReadsAs(Studio.Priya));
    }

    [Theory]
    [InlineData(Role.Times, false, false, false)]
    [InlineData(Role.View, false, false, false)]
    [InlineData(Role.Add, false, true, false)]
    [InlineData(Role.Edit, false, true, true)]
    [InlineData(Role.Coordinate, false, true, true)]
    [InlineData(Role.Coordinate, true, false, false)]
    public void Its_privileges_say_the_step(Role role, bool fromWeb, bool adds, bool writes)
    {
        var all = DevicePrivileges.On(new Device("Phone", Role.Edit), role, fromWeb);
        Assert.Equal((true, adds, writes, true), (all.Read, all.Add, all.Write, all.Look));
        Assert.Equal(
            new DevicePrivileges(Read: true, Add: false, Write: false, Look: false),
            DevicePrivileges.On(new Device("Phone", Role.View), role, fromWeb)
        );
    }

    [Fact]
    public void It_has_a_name_and_one_of_four_steps()
    {
        Assert.Equal("My phone", new Device("  My \n phone ", Role.Edit).Check().Value.Name);
        Assert.Equal("name", Problem(new Device(" ", Role.Edit)));
        Assert.Equal("name", Problem(new Device(new string('x', Device.LongestName + 1), Role.Edit)));
        foreach (var role in new[] { Role.None, Role.Add, Role.Coordinate })
        {
            Assert.Equal("role", Problem(new Device("Phone", role)));
        }

        Assert.Null(Device.WhyNotMore(Device.Most - 1));
        Assert.NotNull(Device.WhyNotMore(Device.Most));

        static string Problem(Device device) =>
            Assert.Single(Assert.IsType<Refusal.Unfit>(device.Check().WhyNot).Problems).Path;
    }

    [Fact]
    public void A_token_comes_back_as_it_went_and_others_are_none()
    {
        var day = new LocalDate(2026, 3, 11);
        var token = new SyncToken(42, "0123456789ab", 7, 3, Role.View, day, "feed", Guid.NewGuid());
        Assert.Equal(token, SyncToken.Read(token.ToString()));
        Assert.Equal(
            token with
            {
                Through = null,
                Busy = "",
            },
            SyncToken.Read((token with { Through = null, Busy = "" }).ToString())
        );
        Assert.True(Uri.TryCreate(token.ToString(), UriKind.Absolute, out _));
        foreach (
            var wrong in new[]
            {
                null,
                "",
                "urn:mortar:sync:",
                "urn:mortar:sync:1:a:2:99:2026-03-11::",
                "urn:mortar:sync:-1:a:2:3:2026-03-11::",
                "urn:mortar:sync:1:a:2:3:2026-13-11::",
                "urn:mortar:sync:1:a:2:3:2026-03-11::zz",
                "urn:mortar:sync:1:a:2:3:2026-03-11:::",
                "urn:mortar:sync:99999999999999999999:a:2:3:2026-03-11::",
                "urn:other:sync:1:a:2:3:2026-03-11::",
                $"urn:mortar:sync:1:{new string('a', 500)}:2:3:2026-03-11::",
            }
        )
        {
            Assert.Null(SyncToken.Read(wrong));
        }

        Assert.True(token.HoldsAt(Role.View, day.PlusDays(SyncToken.LastsDays)));
        Assert.False(token.HoldsAt(Role.View, day.PlusDays(SyncToken.LastsDays + 1)));
        Assert.False(token.HoldsAt(Role.Outline, day));
        Assert.True(token.HoldsAt(Role.View, day.PlusDays(-1)));
        Assert.False(token.HoldsAt(Role.View, day.PlusDays(-2)));
    }
}
