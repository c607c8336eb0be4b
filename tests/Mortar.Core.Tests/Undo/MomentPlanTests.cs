using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Undo;

public class MomentPlanTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 11, 12);
    private static readonly Event One = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 0), 90));

    public static TheoryData<string, Event?, Event?, MomentFate?> Fates() =>
        new()
        {
            { "it never was there", null, null, null },
            { "it is as it was", One, One with { Version = 7 }, null },
            { "it was deleted since", One, null, MomentFate.Comes },
            { "it was added since", null, One, MomentFate.Goes },
            {
                "it was moved",
                One,
                One with
                {
                    Time = Studio.Hours(new LocalDateTime(2026, 3, 13, 14, 0), 90),
                },
                MomentFate.Moves
            },
            { "it repeats since", One, One with { Series = Studio.Every("FREQ=WEEKLY") }, MomentFate.Moves },
            { "it was renamed", One, One with { Content = One.Content with { Title = "Raku" } }, MomentFate.Changes },
            { "it was handed over", One, One with { AddedBy = Studio.Priya }, MomentFate.Changes },
            {
                "it was given to somebody",
                One,
                One with
                {
                    GivenTo = Attendees.Of([Studio.Priya]),
                },
                MomentFate.Changes
            },
        };

    [Theory]
    [MemberData(nameof(Fates))]
    public void What_becomes_of_an_event(string why, Event? then, Event? now, MomentFate? expected) =>
        Assert.True(MomentPlan.Of(One.Id, then, now)?.Fate == expected, why);

    [Theory]
    [InlineData(-10, -20, -30, null)]
    [InlineData(0, -20, -30, "is over")]
    [InlineData(5, -20, -30, "is over")]
    [InlineData(-25, -20, -30, "not made yet")]
    [InlineData(-40, null, -30, "not remembered")]
    [InlineData(-10, null, -30, null)]
    public void A_moment_is_one_that_is_over_and_remembered(int at, int? made, int remembered, string? expected)
    {
        var refusal = MomentPlan.WhyNot(
            Now + Duration.FromDays(at),
            made is { } days ? Now + Duration.FromDays(days) : null,
            Now + Duration.FromDays(remembered),
            Now
        );

        var sentence = (refusal as Refusal.Unfit)?.Problems[0].Sentence;
        Assert.True(
            expected is null ? refusal is null : sentence?.Contains(expected, StringComparison.Ordinal),
            sentence
        );
    }

    /// <summary>A series of Thursdays that ends earlier since, all of it and nothing of it, and one date by another name.</summary>
    [Fact]
    public void On_the_wall_only_the_dates_that_would_not_stay_are_said()
    {
        var then = One with { Series = Studio.Every("FREQ=WEEKLY;COUNT=5") };
        var now = then with { Series = Studio.Every("FREQ=WEEKLY;COUNT=3") };
        Assert.Equal(
            ["Moves then 2 April", "Moves then 9 April"],
            Said(new MomentChange(One.Id, MomentFate.Moves, then, now))
        );
        Assert.Equal(
            [
                "Comes then 12 March",
                "Comes then 19 March",
                "Comes then 26 March",
                "Comes then 2 April",
                "Comes then 9 April",
            ],
            Said(new MomentChange(One.Id, MomentFate.Comes, then, null))
        );
        Assert.Equal(
            ["Goes 12 March", "Goes 19 March", "Goes 26 March"],
            Said(new MomentChange(One.Id, MomentFate.Goes, null, now))
        );
        Assert.Equal(
            ["Changes 12 March"],
            Said(
                new MomentChange(
                    One.Id,
                    MomentFate.Changes,
                    One,
                    One with
                    {
                        Content = One.Content with { Title = "Raku" },
                    }
                )
            )
        );
    }

    private static IEnumerable<string> Said(MomentChange change) =>
        MomentDate
            .Of(
                change,
                new Window(new LocalDate(2026, 3, 1), new LocalDate(2026, 4, 30), Studio.Zone("Europe/London")),
                Studio.Clock
            )
            .Select(one =>
                $"{one.Fate}{(one.IsThen ? " then" : "")} {one.Date.Time.LocalStart.ToString("d MMMM", System.Globalization.CultureInfo.InvariantCulture)}"
            );
}
