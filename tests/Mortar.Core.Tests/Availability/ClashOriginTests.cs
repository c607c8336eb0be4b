using Mortar.Core.Availability;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Availability;

public class ClashOriginTests
{
    private static readonly PersonId Ines = new(Guid.NewGuid());
    private static readonly PersonId Priya = new(Guid.NewGuid());
    private static readonly ClashOrigin Earlier = new(3, Instant.FromUtc(2026, 3, 9, 8, 0), Ines, "Ines");
    private static readonly ClashOrigin Later = new(7, Instant.FromUtc(2026, 3, 9, 9, 0), Priya, "Priya");

    [Fact]
    public void The_later_change_of_the_two_made_it_in_whichever_order_they_are_asked()
    {
        Assert.Same(Later, ClashOrigin.Of(Earlier, Later, Ines));
        Assert.Same(Later, ClashOrigin.Of(Later, Earlier, Ines));
    }

    [Fact]
    public void Ones_own_doing_is_not_told_and_neither_is_what_is_half_known()
    {
        Assert.Null(ClashOrigin.Of(Earlier, Later, Priya));
        Assert.Null(ClashOrigin.Of(Earlier, null, Priya));
        Assert.Null(ClashOrigin.Of(null, Later, Ines));
        Assert.Null(ClashOrigin.Of(null, null, Ines));
    }
}
