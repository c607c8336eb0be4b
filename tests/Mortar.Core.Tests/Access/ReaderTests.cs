using Mortar.Core.Access;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class ReaderTests
{
    private static readonly PersonId Ines = new(new Guid(1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
    private static readonly PersonId Noor = new(new Guid(2, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
    private static readonly GroupId Juniors = new(new Guid(3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
    private static readonly GroupId Team = new(new Guid(4, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
    private static readonly CalendarId Classes = new(new Guid(5, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));

    private static readonly Reader Reader = new(
        Ines,
        new Dictionary<CalendarId, Standing>
        {
            [Classes] = new(Role.Edit, [new Grant(Role.Edit, Way.Own, EndsAt: null)]),
        },
        [new Ward(Noor, Juniors)]
    );

    [Fact]
    public void What_no_way_leads_to_is_outside()
    {
        Assert.Equal(Role.Edit, Reader.RoleOn(Classes));
        Assert.Equal(Standing.Outside, Reader.StandingOn(new CalendarId(new Guid(6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0))));
    }

    [Fact]
    public void One_answers_for_a_ward_in_the_one_group_where_both_were_said()
    {
        Assert.Equal([Ines, Noor], Reader.AnswersIn(Juniors));
        Assert.Equal([Ines], Reader.AnswersIn(Team));
    }
}
