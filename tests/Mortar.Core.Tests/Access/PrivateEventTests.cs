using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>What is private to others: they see its times, and nothing more.</summary>
public class PrivateEventTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);

    private static readonly Event Talk = Private(Studio.Event(Studio.Hours(Monday.At(new LocalTime(9, 0)), 60)));

    private static readonly PersonId Named = new(Guid.NewGuid());

    [Theory]
    [InlineData(Role.Times, false)]
    [InlineData(Role.Outline, false)]
    [InlineData(Role.View, false)]
    [InlineData(Role.Add, false)] // Ines added it
    [InlineData(Role.Edit, true)]
    [InlineData(Role.Coordinate, true)]
    public void Only_who_may_change_it_sees_what_it_is(Role role, bool sees)
    {
        var seen = Assert.Single(See(role, Studio.Priya, Talk));

        Assert.Equal(sees, seen is VisibleEvent.Shown);
        Assert.Equal(sees, VisibleEvent.IsThere(role, Studio.Priya, Talk));
    }

    [Fact]
    public void Whoever_is_named_on_it_or_added_it_sees_it()
    {
        var named = Talk with { Content = Talk.Content with { Attendees = Attendees.Of([Named]) } };

        Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(Role.View, Named, named)));
        Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(Role.Add, Studio.Ines, Talk)));
        Assert.IsType<VisibleEvent.Busy>(Assert.Single(See(Role.Times, Named, named))); // the step shows no event at all
    }

    [Fact]
    public void Of_a_change_only_another_time_taken_is_seen_where_the_event_is_not_there()
    {
        var said = Talk with { Content = Talk.Content with { Title = "Talk, with slides", Notes = "Bring tiles." } };
        var free = Talk with { Content = Talk.Content with { ShowAs = ShowAs.Free } };
        var later = Talk with { Time = Studio.Hours(Monday.At(new LocalTime(10, 0)), 60) };

        Assert.False(Seen(Role.View, Talk, said));
        Assert.True(Seen(Role.Edit, Talk, said));
        Assert.False(Seen(Role.Times, Talk with { Content = Talk.Content with { Private = false } }, said));
        Assert.False(Seen(Role.Times, before: null, free));
        Assert.False(Seen(Role.Times, free, free with { Time = later.Time }));
        Assert.All([Role.Times, Role.View], role => Assert.True(Seen(role, Talk, later)));
        Assert.All([Role.Times, Role.View], role => Assert.True(Seen(role, Talk, free)));
        Assert.All([Role.Times, Role.View], role => Assert.True(Seen(role, before: null, Talk)));
        Assert.All([Role.Times, Role.View], role => Assert.True(Seen(role, Talk, after: null)));
        // What becomes private is gone for those who saw it, though its times are the same.
        Assert.True(Seen(Role.View, Talk with { Content = Talk.Content with { Private = false } }, Talk));

        static bool Seen(Role role, Event? before, Event? after) =>
            VisibleEvent.IsChangeSeen(role, Studio.Priya, before, after);
    }

    [Fact]
    public void Touching_times_of_private_events_are_one_and_free_ones_are_none()
    {
        var next = Private(Studio.Event(Studio.Hours(Monday.At(new LocalTime(10, 0)), 30)));
        var free = Talk with { Content = Talk.Content with { ShowAs = ShowAs.Free } };

        var seen = Assert.IsType<VisibleEvent.Busy>(Assert.Single(See(Role.View, Studio.Priya, Talk, next)));

        Assert.Equal(Duration.FromMinutes(90), seen.Span.Duration);
        Assert.Empty(See(Role.View, Studio.Priya, free));
    }

    [Fact]
    public void One_private_date_of_a_series_hides_that_date_alone()
    {
        var series = Studio.Event(Studio.Hours(Monday.At(new LocalTime(9, 0)), 60), Studio.Every("FREQ=DAILY;COUNT=3"));
        var one = series with
        {
            Series = series.Series!.With(
                new Override(
                    Monday.PlusDays(1).At(new LocalTime(9, 0)),
                    Studio.Hours(Monday.PlusDays(1).At(new LocalTime(9, 0)), 60),
                    series.Content with
                    {
                        Private = true,
                    }
                )
            ),
        };

        var seen = See(Role.View, Studio.Priya, one).ToList();

        Assert.Equal(2, seen.OfType<VisibleEvent.Shown>().Count());
        Assert.Single(seen.OfType<VisibleEvent.Busy>());
        Assert.True(VisibleEvent.IsThere(Role.View, Studio.Priya, one));
        Assert.False(VisibleEvent.SeesEverything(Role.View, Studio.Priya, one));
    }

    [Fact]
    public void An_export_takes_nothing_of_it_along_but_its_times()
    {
        var (copy, isWhole) = VisibleEvent.ToExport(Role.View, Studio.Priya, Talk);
        var (own, ownIsWhole) = VisibleEvent.ToExport(Role.Edit, Studio.Priya, Talk);

        Assert.Equal((false, true), (isWhole, ownIsWhole));
        Assert.Equal(Talk, own);
        Assert.Equal((Talk.Time, "Busy"), (copy!.Time, copy.Content.Title));
        Assert.DoesNotContain(Talk.Uid, copy.Uid, StringComparison.Ordinal);
        Assert.NotEqual(Talk.Id, copy.Id);
        Assert.Equal(
            (string.Empty, string.Empty, string.Empty),
            (copy.Content.Place, copy.Content.Notes, copy.Content.Kind)
        );
    }

    [Fact]
    public void What_is_private_and_takes_no_time_is_not_exported_at_all()
    {
        var free = Talk with { Content = Talk.Content with { ShowAs = ShowAs.Free } };

        Assert.Null(VisibleEvent.ToExport(Role.View, Studio.Priya, free).Event);
        Assert.Equal(free, VisibleEvent.ToExport(Role.Edit, Studio.Priya, free).Event);
    }

    [Theory]
    [InlineData("celadon tile", "", null, true)]
    [InlineData("TILE", "", null, true)]
    [InlineData("céladon", "", null, true)] // with or without accents
    [InlineData("celadon cone", "", null, true)] // the second word stands in the notes
    [InlineData("celadon wheel", "", null, false)]
    [InlineData("", "yard", null, true)]
    [InlineData("", "room", null, false)]
    [InlineData("", "", "session", true)]
    [InlineData("", "", "fair", false)]
    public void Words_find_what_the_reader_sees(string words, string place, string? kind, bool finds)
    {
        var whole = Studio.Event(Studio.Hours(Monday.At(new LocalTime(9, 0)), 60), title: "Celadon tiles");
        var shown = Assert.IsType<VisibleEvent.Shown>(
            Assert.Single(
                See(Role.View, Studio.Priya, whole with { Content = whole.Content with { Kind = "Session" } })
            )
        );

        Assert.Equal(finds, new EventSearch(words, place, kind, Person: null).Finds(shown));
    }

    [Fact]
    public void What_a_step_does_not_show_cannot_be_found()
    {
        var whole = Studio.Event(Studio.Hours(Monday.At(new LocalTime(9, 0)), 60));
        var named = whole with { Content = whole.Content with { Attendees = Attendees.Of([Named]), Kind = "Session" } };
        var outline = Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(Role.Outline, Studio.Priya, named)));
        var view = Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(Role.View, Studio.Priya, named)));

        foreach (
            var search in new[]
            {
                new EventSearch("cone", string.Empty, null, null), // in the notes
                new EventSearch(string.Empty, string.Empty, null, Named),
                new EventSearch(string.Empty, string.Empty, "Session", null),
            }
        )
        {
            Assert.False(search.Finds(outline));
            Assert.True(search.Finds(view));
        }
    }

    private static Event Private(Event whole) => whole with { Content = whole.Content with { Private = true } };

    private static IEnumerable<VisibleEvent> See(Role role, PersonId reader, params Event[] events) =>
        VisibleEvent.Through(
            role,
            reader,
            events.SelectMany(one => one.Occurrences(Studio.Week(Monday), Studio.Clock)),
            Studio.Week(Monday)
        );
}
