using Mortar.Core.Events;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

public class EventDraftTests
{
    private static readonly LocalDateTime Nine = new(2026, 3, 12, 9, 0);
    private static readonly TimeDraft Hour = new TimeDraft.Clock(Nine, Nine.PlusHours(1), Studio.London);

    [Fact]
    public void A_fit_draft_becomes_an_event_with_its_texts_made_safe()
    {
        var draft = new EventDraft(
            "  Celadon\u0000,\n three <b>ways</b> ",
            "Glaze\troom",
            "One\r\ntwo\u0007",
            ShowAs.Busy,
            Hour
        );

        var (fit, problems) = draft.Check(Studio.Clock);

        Assert.Empty(problems);
        Assert.Equal(
            new EventContent("Celadon, three <b>ways</b>", "Glaze room", "One\ntwo", ShowAs.Busy, Cancelled: false),
            fit.Content
        );
        Assert.Equal(Studio.Hours(Nine, 60), fit.Time);
    }

    public static TheoryData<string, TimeDraft, string> BadTimes() =>
        new()
        {
            {
                "time.end",
                new TimeDraft.Clock(Nine, Nine.PlusMinutes(-1), Studio.London),
                "The event would end before it starts. Set a later end."
            },
            {
                "time.end",
                new TimeDraft.Floating(Nine, Nine.PlusMinutes(-1)),
                "The event would end before it starts. Set a later end."
            },
            {
                "time.last",
                new TimeDraft.Days(Nine.Date, Nine.Date.PlusDays(-1)),
                "The last day is before the first. Choose a last day on or after it."
            },
            {
                "time.zone",
                new TimeDraft.Clock(Nine, Nine, "Mars/Base"),
                "There is no time zone named “Mars/Base”. Use a name such as Europe/London."
            },
            {
                // tz database: clocks in London go from 01:00 to 02:00 on 29 March 2026
                "time.start",
                new TimeDraft.Clock(
                    new LocalDateTime(2026, 3, 29, 1, 30),
                    new LocalDateTime(2026, 3, 29, 2, 30),
                    Studio.London
                ),
                "The clocks of Europe/London skip 01:30 on 29 March 2026, and nothing of this event would be left. Begin at 02:30, or end later."
            },
            {
                "time",
                new TimeDraft.Days(new LocalDate(1899, 12, 31), Nine.Date),
                "Dates from 1900 to 2200 can be used."
            },
            {
                "time",
                new TimeDraft.Clock(Nine, Nine.PlusYears(11), Studio.London),
                "An event can last up to ten years. Make a series instead."
            },
        };

    [Theory]
    [MemberData(nameof(BadTimes))]
    public void A_time_that_cannot_be_names_its_field_and_the_way_out(string path, TimeDraft time, string sentence)
    {
        var unfit = new EventDraft("x", null, null, ShowAs.Busy, time).Check(Studio.Clock);

        var problem = Assert.Single(unfit.Problems);
        Assert.Equal(path, problem.Path);
        Assert.Equal(sentence, problem.Sentence);
    }

    [Fact]
    public void Every_field_that_is_too_long_is_named()
    {
        var draft = new EventDraft(
            new string('t', 10_000),
            new string('p', 501),
            new string('n', 20_001),
            ShowAs.Busy,
            Hour
        );

        var unfit = draft.Check(Studio.Clock);

        Assert.Equal(["title", "place", "notes"], unfit.Problems.Select(problem => problem.Path));
        Assert.Contains("up to 500 characters; this has 10000", unfit.Problems[0].Sentence, StringComparison.Ordinal);
    }
}
