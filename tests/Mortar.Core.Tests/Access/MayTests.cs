using Mortar.Core.Access;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class MayTests
{
    /// <summary>The ladder as the product's words have it.</summary>
    [Theory]
    [InlineData(Role.None, false, false, false, false)]
    [InlineData(Role.Times, false, false, false, false)]
    [InlineData(Role.Outline, false, false, false, false)]
    [InlineData(Role.View, false, true, true, false)]
    [InlineData(Role.Add, true, true, true, false)]
    [InlineData(Role.Edit, true, true, true, false)]
    [InlineData(Role.Coordinate, true, true, true, true)]
    public void A_step_allows_what_it_says(Role role, bool add, bool export, bool history, bool coordinate) =>
        Assert.Equal(new May(add, export, history, coordinate), May.On(role, fromWeb: false));

    /// <summary>What comes from the web is added to by nobody, and its calendar is set, given and read as any other.</summary>
    [Theory]
    [InlineData(Role.View)]
    [InlineData(Role.Edit)]
    [InlineData(Role.Coordinate)]
    public void To_a_calendar_of_the_web_nobody_adds(Role role) =>
        Assert.Equal(May.On(role, fromWeb: false) with { Add = false }, May.On(role, fromWeb: true));
}
