using Mortar.Core.Absences;
using Mortar.Core.Availability;
using Xunit;

namespace Mortar.Core.Tests.Absences;

public class HalfDaysTests
{
    [Fact]
    public void Usual_hours_are_parted_at_noon() =>
        Assert.Equal(
            new HalfDays(new DayHours(new(8, 0), new(12, 0)), new DayHours(new(12, 0), new(19, 0))),
            HalfDays.Of(new(8, 0), new(19, 0))
        );

    [Fact]
    public void Whose_day_lies_on_one_side_of_noon_has_the_other_half_all_the_same()
    {
        Assert.Equal(new DayHours(new(11, 0), new(12, 0)), HalfDays.Of(new(13, 0), new(19, 0)).Morning);
        Assert.Equal(new DayHours(new(12, 0), new(13, 0)), HalfDays.Of(new(6, 0), new(11, 30)).Afternoon);
    }
}
