using Mortar.Core.Access;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class MayTests
{
    /// <summary>The ladder as the product's words have it.</summary>
    [Theory]
    [InlineData(Role.None, false, false, false)]
    [InlineData(Role.Times, false, false, false)]
    [InlineData(Role.Outline, false, false, false)]
    [InlineData(Role.View, false, true, false)]
    [InlineData(Role.Add, true, true, false)]
    [InlineData(Role.Edit, true, true, false)]
    [InlineData(Role.Coordinate, true, true, true)]
    public void A_step_allows_what_it_says(Role role, bool add, bool export, bool coordinate) =>
        Assert.Equal(new May(add, export, coordinate), May.On(role));
}
