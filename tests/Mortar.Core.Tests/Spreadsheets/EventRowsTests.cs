using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Spreadsheets;

public class EventRowsTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);

    private static readonly Dictionary<PersonId, string> Names = new()
    {
        [Studio.Ines] = "Ines Varga",
        [Studio.Priya] = "Priya Raman",
    };

    private static Dictionary<string, Cell> Row(Event whole, Role role, string zone = Studio.London)
    {
        var window = Studio.Week(Monday, zone);
        var seen = VisibleEvent.Through(
            role,
            new PersonId(Guid.NewGuid()),
            whole.Occurrences(window, Studio.Clock),
            window
        );
        var row = EventRows.Row(
            Assert.Single(seen),
            "Glaze tests",
            "Studio team",
            Studio.Zone(zone),
            Studio.Clock,
            Names
        );
        return EventRows
            .Columns.Select((column, index) => (column.Name, Cell: index < row.Count ? row[index] : Cell.Empty))
            .ToDictionary(one => one.Name, one => one.Cell);
    }

    private static readonly Event Firing = Studio.Event(Studio.Hours(Monday.At(new LocalTime(14, 0)), 90)) with
    {
        Content = new EventContent("=Firing", "Kiln yard", "Cone 6", ShowAs.Tentative, Cancelled: true)
        {
            Kind = "Session",
            Attendees = Attendees.Of([Studio.Priya, Studio.Ines]),
        },
    };

    [Fact]
    public void Dates_times_and_lengths_are_values_on_the_readers_clock()
    {
        var row = Row(Firing, Role.View, "Europe/Berlin");

        Assert.Equal(Cell.Of(Monday), row["Starts on"]);
        Assert.Equal(Cell.Of(new LocalTime(15, 0)), row["Starts at"]);
        Assert.Equal(Cell.Of(new LocalTime(16, 30)), row["Ends at"]);
        Assert.Equal(Cell.Of(Duration.FromMinutes(90)), row["Lasts"]);
        Assert.Equal(Cell.Of("Europe/Berlin"), row["Time zone"]);
        Assert.Equal(Cell.Of("Ines Varga, Priya Raman"), row["People"]);
        Assert.Equal(Cell.Of("perhaps"), row["Counts as"]);
        Assert.Equal(Cell.Of("yes"), row["Called off"]);
        Assert.Equal(Cell.Of("Session"), row["Kind"]);
    }

    [Fact]
    public void Over_the_change_of_the_clock_it_lasts_as_long_as_it_does()
    {
        var night = Studio.Event(
            EventTime.InZone(new LocalDateTime(2026, 3, 28, 22, 0), new LocalDateTime(2026, 3, 29, 6, 0), Studio.London)
        );
        var window = Studio.Week(new LocalDate(2026, 3, 23));
        var seen = VisibleEvent.Through(Role.View, Studio.Priya, night.Occurrences(window, Studio.Clock), window);

        var row = EventRows.Row(
            Assert.Single(seen),
            "Kiln",
            "Studio team",
            Studio.Zone(Studio.London),
            Studio.Clock,
            Names
        );

        Assert.Contains(Cell.Of(Duration.FromHours(7)), row);
    }

    [Fact]
    public void Whole_days_have_their_last_day_and_no_hours()
    {
        var row = Row(Studio.Event(EventTime.Days(Monday, Monday.PlusDays(2))), Role.View);

        Assert.Equal(Cell.Of(Monday.PlusDays(2)), row["Ends on"]);
        Assert.Equal(CellKind.Empty, row["Starts at"].Kind);
        Assert.Equal(CellKind.Empty, row["Lasts"].Kind);
        Assert.Equal(Cell.Of("yes"), row["Whole days"]);
        Assert.Equal(
            Cell.Of("times to be set"),
            Row(Studio.Event(EventTime.DaysToBeSet(Monday, Monday)), Role.View)["Whole days"]
        );
    }

    [Fact]
    public void Each_step_has_what_it_shows()
    {
        var open = Firing with { Content = Firing.Content with { Cancelled = false } };
        var outline = Row(open, Role.Outline);
        var times = Row(open, Role.Times);

        Assert.Equal(Cell.Of("=Firing"), outline["Title"]);
        Assert.Equal(Cell.Of("Kiln yard"), outline["Place"]);
        Assert.All(["Notes", "Kind", "People", "Organizer"], name => Assert.Equal(CellKind.Empty, outline[name].Kind));
        Assert.Equal(Cell.Of("Busy"), times["Title"]);
        Assert.Equal(Cell.Of(Duration.FromMinutes(90)), times["Lasts"]);
        Assert.All(["Place", "Notes", "Kind", "People"], name => Assert.Equal(CellKind.Empty, times[name].Kind));
    }
}
