using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

/// <summary>The history of an event, in words.</summary>
public class EventDifferenceTests
{
    private static readonly Event Firing = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 0), 90));

    private static readonly EventContent Content = Firing.Content;

    public static TheoryData<string, Event> Changes() =>
        new()
        {
            {
                "moved it from Thu 12 March, 14:00 to 15:30 to Fri 13 March, 14:00 to 15:30",
                Firing with
                {
                    Time = Studio.Hours(new LocalDateTime(2026, 3, 13, 14, 0), 90),
                }
            },
            { "changed the title from “Firing” to “Glaze firing”", With(Content with { Title = "Glaze firing" }) },
            { "took away the place “Kiln yard”", With(Content with { Place = string.Empty }) },
            { "set the kind “Session”", With(Content with { Kind = "Session" }) },
            { "changed the notes", With(Content with { Notes = "Cone 7" }) },
            {
                "changed who is named on it (2 people now)",
                With(Content with { Attendees = Attendees.Of([Studio.Ines, Studio.Priya]) })
            },
            { "lets it count as tentative", With(Content with { ShowAs = ShowAs.Tentative }) },
            { "shows only its times to others", With(Content with { Private = true }) },
            { "called it off", With(Content with { Cancelled = true }) },
            { "changed the reminder", With(Content with { Reminder = 10 }) },
            { "lets it repeat", Firing with { Series = Studio.Every("FREQ=WEEKLY") } },
            { "moved it to another calendar", Firing with { CalendarId = new CalendarId(Guid.NewGuid()) } },
        };

    [Theory]
    [MemberData(nameof(Changes))]
    public void Each_difference_is_said(string sentence, Event after) => Assert.Equal([sentence], Say(Firing, after));

    [Fact]
    public void Coming_and_going_are_said_and_nothing_else()
    {
        Assert.Equal(["added it"], Say(null, Firing));
        Assert.Equal(["deleted it"], Say(Firing, null));
        Assert.Equal(["changed it"], Say(Firing, Firing with { Version = 2 }));
    }

    [Fact]
    public void The_dates_of_a_series_that_were_left_out_or_changed_are_named()
    {
        var series = Firing with { Series = Studio.Every("FREQ=WEEKLY") };
        var without = series with { Series = series.Series!.Without(new LocalDateTime(2026, 3, 19, 14, 0)) };
        var changed = series with
        {
            Series = series.Series.With(new Override(new LocalDateTime(2026, 3, 26, 14, 0), Firing.Time, Content)),
        };

        Assert.Equal(["left out 19 March 2026"], Say(series, without));
        Assert.Equal(["brought back 19 March 2026"], Say(without, series));
        Assert.Equal(["changed 26 March 2026"], Say(series, changed));
    }

    [Fact]
    public void Times_are_told_on_the_readers_clock() =>
        Assert.Equal(
            ["moved it from Thu 12 March, 11:00 to 12:30 to Thu 12 March, 12:00 to 13:30"],
            EventDifference.Between(
                Firing,
                Firing with
                {
                    Time = Studio.Hours(new LocalDateTime(2026, 3, 12, 15, 0), 90),
                },
                Studio.Zone("America/Halifax"),
                Studio.Clock
            )
        );

    private static Event With(EventContent content) => Firing with { Content = content };

    private static IReadOnlyList<string> Say(Event? before, Event? after) =>
        EventDifference.Between(before, after, Studio.Zone(Studio.London), Studio.Clock);
}
