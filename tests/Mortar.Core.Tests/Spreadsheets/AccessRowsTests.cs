using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class AccessRowsTests
{
    [Fact]
    public void Rows_are_groups_links_noticeboards_and_people_and_each_step_says_by_which_way()
    {
        var calendar = new OverviewCalendar(Studio.GlazeTests, "Glaze tests", Hue.Iron, Mark.Cone, Role.None);
        OverviewCell Cell(params OverviewWay[] ways) => new(calendar.Id, ways[0].Role, Role.None, [.. ways]);
        var tables = AccessRows.Of(
            new AccessOverview(
                "Studio team",
                [calendar],
                [
                    new OverviewGroup(
                        new GroupId(Guid.NewGuid()),
                        "Raku club",
                        4,
                        [Cell(new OverviewWay(Way.Own, Role.Outline, null, null))]
                    ),
                ],
                [
                    new OverviewLink(
                        new LinkId(Guid.NewGuid()),
                        string.Empty,
                        null,
                        1,
                        [Cell(new OverviewWay(Way.Own, Role.Times, null, null))]
                    ),
                ],
                [
                    new OverviewNoticeboard(
                        new NoticeboardId(Guid.NewGuid()),
                        "Fairs",
                        [Cell(new OverviewWay(Way.Own, Role.View, null, null))]
                    ),
                ],
                [
                    Person(
                        "Ines",
                        isMember: true,
                        Cell(
                            new OverviewWay(Way.Own, Role.Edit, null, new LocalDate(2026, 3, 27)),
                            new OverviewWay(Way.Group, Role.View, "Raku club", null)
                        )
                    ),
                    Person("Dele", isMember: false),
                ],
                []
            )
        );

        Assert.Equal(
            [
                "Who|Is|Address|Glaze tests",
                "Raku club|group of 4||Outline",
                "Link without a name|link, on 1 wall||Times only",
                "Noticeboard “Fairs”|the world||View",
                "Ines|member|ines@example.org|Edit",
                "Dele|from outside|ines@example.org|",
            ],
            tables[0].Lines()
        );
        Assert.Equal(
            [
                "Raku club|Glaze tests|Outline||",
                "Link without a name|Glaze tests|Times only||",
                "Noticeboard “Fairs”|Glaze tests|View||",
                "Ines|Glaze tests|Edit|given to them|2026-03-27",
                "Ines|Glaze tests|View|by Raku club|",
            ],
            tables[1].Lines().Skip(1)
        );
    }

    private static OverviewPerson Person(string name, bool isMember, params OverviewCell[] cells) =>
        new(
            new PersonId(Guid.NewGuid()),
            name,
            ToldAddress.Own("ines@example.org"),
            isMember,
            HasLeft: false,
            HasAccount: true,
            WasHere: true,
            IsUnseen: false,
            EventsAlone: 0,
            [.. cells]
        );
}
