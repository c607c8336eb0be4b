using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class VisibleEventTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);

    private static IReadOnlyList<VisibleEvent> See(Role role, params Event[] events) =>
        [
            .. VisibleEvent.Through(
                role,
                Studio.Priya,
                events.SelectMany(one => one.Occurrences(Studio.Week(Monday), Studio.Clock)),
                Studio.Week(Monday)
            ),
        ];

    private static Event At(int hour, int minutes, ShowAs showAs = ShowAs.Busy, bool cancelled = false) =>
        Studio.Event(Studio.Hours(Monday.AtMidnight().PlusHours(hour), minutes), showAs: showAs, cancelled: cancelled);

    [Fact]
    public void Nobody_sees_anything_without_a_step() => Assert.Empty(See(Role.None, At(9, 60)));

    [Fact]
    public void Times_only_tells_stretches_and_not_how_many_events_they_are()
    {
        var seen = See(Role.Times, At(9, 60), At(10, 30), At(9, 15), At(14, 60));

        var busy = seen.Cast<VisibleEvent.Busy>().Select(one => one.Span.ToString());
        Assert.Equal(["2026-03-09T09:00:00Z/2026-03-09T10:30:00Z", "2026-03-09T14:00:00Z/2026-03-09T15:00:00Z"], busy);
    }

    [Fact]
    public void Times_only_leaves_out_what_takes_no_time_and_keeps_tentative_apart()
    {
        var seen = See(
            Role.Times,
            At(9, 60, ShowAs.Free),
            At(11, 60, cancelled: true),
            At(13, 60, ShowAs.Tentative),
            At(15, 0)
        );

        var only = Assert.IsType<VisibleEvent.Busy>(Assert.Single(seen));
        Assert.True(only.Tentative);
        Assert.Equal("2026-03-09T13:00:00Z", only.Span.Start.ToString());
    }

    [Fact]
    public void Times_only_is_not_told_how_far_a_stretch_reaches_outside_the_window()
    {
        var seen = See(Role.Times, Studio.Event(EventTime.Days(Monday.PlusDays(-20), Monday.PlusDays(20))));

        Assert.Equal(Studio.Week(Monday).Span, Assert.IsType<VisibleEvent.Busy>(Assert.Single(seen)).Span);
    }

    [Theory]
    [InlineData(Role.Outline, null, false)]
    [InlineData(Role.View, "Cone 6", false)]
    [InlineData(Role.Add, "Cone 6", false)] // Ines added it
    [InlineData(Role.Edit, "Cone 6", true)]
    [InlineData(Role.Coordinate, "Cone 6", true)]
    public void From_outline_on_titles_and_places_from_view_on_notes(Role role, string? notes, bool mayChange)
    {
        var shown = Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(role, At(9, 60))));

        Assert.Equal(
            ("Firing", "Kiln yard", notes, mayChange),
            (shown.Title, shown.Place, shown.Notes, shown.MayChange)
        );
    }

    [Fact]
    public void Below_outline_there_is_no_single_event()
    {
        var occurrence = At(9, 60).OccurrenceAt(null, Studio.Clock, DateTimeZone.Utc)!.Value;

        Assert.Null(VisibleEvent.Show(Role.Times, Studio.Priya, occurrence, DateTimeZone.Utc));
    }

    [Theory]
    [InlineData(Role.None, null, null, null)]
    [InlineData(Role.Times, "Rota", null, null)]
    [InlineData(Role.Outline, "Rota", "Who minds the desk", null)]
    [InlineData(Role.Coordinate, "Rota", "Who minds the desk", Role.View)]
    public void A_calendar_shows_of_itself_what_the_step_allows(
        Role role,
        string? name,
        string? description,
        Role? groupDefault
    )
    {
        var settings = new CalendarSettings(
            "Rota",
            "Who minds the desk",
            Hue.Iron,
            Mark.Cone,
            Studio.London,
            Purpose.Events,
            Role.View
        );

        var seen = VisibleCalendar.Through(role, settings);

        Assert.Equal((name, description, groupDefault), (seen?.Name, seen?.Description, seen?.GroupDefault));
    }
}
